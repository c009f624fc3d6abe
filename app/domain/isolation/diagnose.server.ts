/**
 * Standing diagnoses: made anew when an assessment of a circuit has changed, in a job, in a thread. A circuit none of
 * whose gauges is off its healthy model costs two solves; one with a fault up to a few seconds.
 */
import { createHash } from "node:crypto";
import { and, eq, isNull, ne, sql } from "drizzle-orm";
import {
  oilAt,
  onsetOf,
  pointsOff,
  workCommands,
  type Circumstances,
  type NoDiagnosis,
  type PresentGauge,
  type ReadingState,
  type StandingDiagnosis,
} from "@core";
import { db, isDatabaseDown } from "~/db/client.server";
import { assessments, circuitDiagnoses, components, points, type DiagnosisDetail } from "~/db/schema";
import { diagramOf, presentOf, type CircuitDiagram } from "~/domain/circuits/index.server";
import { claimStale, currentParts, sweep } from "~/domain/condition/index.server";
import { inThreads } from "~/platform/threads.server";
import { now } from "~/runtime/clock.server";
import { errorText } from "~/runtime/errors";
import { log } from "~/runtime/log.server";
import type { DiagnoseTask } from "./diagnoseTask";

/** Shape of what is stored, and of how it is found: another one is made again. */
const DIAGNOSIS_SHAPE = 1;
/** Fewer gauges part no two causes. */
export const FEWEST_GAUGES = 3;
/** Temperature at which gauges are compared, °C. */
const USUAL_OIL = 50;

const diagnoseInThread = inThreads<DiagnoseTask, StandingDiagnosis>(
  "diagnose",
  async (task) => (await import("./diagnoseTask")).default(task),
  { most: 1 },
);

/** The healthy circuit at work, fitted to its own baselines. */
export const usualOf = ({ netlist, fit, fluid }: CircuitDiagram): Circumstances => ({
  commands: workCommands(netlist),
  data: fit?.data ?? {},
  ...oilAt(fluid, USUAL_OIL),
});

/** Gauges of a circuit as they stand, the states they are read in, and since when each has been away from its baseline. */
export async function gaugesNow(circuitId: string) {
  const rows = await db()
    .select({ id: points.id, state: points.state, parts: currentParts })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .leftJoin(assessments, eq(assessments.pointId, points.id))
    .where(and(eq(components.circuitId, circuitId), isNull(points.retiredAt), isNull(components.retiredAt)))
    .orderBy(points.id);
  const since: Record<string, number> = {};
  const gauges: PresentGauge[] = [];
  for (const { id, parts } of rows) {
    const gauge = presentOf(id, parts);
    if (gauge) gauges.push(gauge);
    const onset = parts && onsetOf(parts);
    if (onset) since[id] = onset;
  }
  return { gauges, since, states: rows.map(({ id, state }): [string, ReadingState] => [id, state]) };
}

const hashOf = (value: unknown) => createHash("sha256").update(JSON.stringify(value)).digest("hex");

type Found = { none: NoDiagnosis } | { none: null; task: DiagnoseTask };

function taskOf(diagram: CircuitDiagram, now: Awaited<ReturnType<typeof gaugesNow>>): Found {
  if (!diagram.fit) return { none: "nothing drawn" };
  if (!diagram.fit.fits) return { none: "does not fit" };
  if (now.gauges.length < FEWEST_GAUGES) return { none: "few points" };
  const asked = { netlist: diagram.netlist, states: now.states, usual: usualOf(diagram), gauges: now.gauges };
  const off = pointsOff(asked.netlist, asked.states, asked.usual, asked.gauges);
  if (off === undefined) return { none: "few points" };
  return off.length === 0 ? { none: "nothing off" } : { none: null, task: { ...asked, off } };
}

/** Diagnose one circuit now and store what was found. A failure is noted at the circuit, unless the database is away. */
export async function diagnoseCircuit(circuitId: string): Promise<void> {
  const [row] = await db()
    .select({
      asked: circuitDiagnoses.asked,
      basis: circuitDiagnoses.basis,
      shape: circuitDiagnoses.shape,
      failure: circuitDiagnoses.failure,
    })
    .from(circuitDiagnoses)
    .where(eq(circuitDiagnoses.circuitId, circuitId));
  if (!row) return;
  const fresh = {
    stale: sql`${circuitDiagnoses.asked} <> ${row.asked}`,
    triedAt: null,
    assessedAt: new Date(now()),
    failure: null,
    failures: 0,
  };
  const store = (values: Partial<typeof circuitDiagnoses.$inferInsert>) =>
    db()
      .update(circuitDiagnoses)
      .set({ ...values, ...fresh })
      .where(eq(circuitDiagnoses.circuitId, circuitId));
  try {
    const [diagram, standing] = await Promise.all([diagramOf(circuitId), gaugesNow(circuitId)]);
    const found: Found = diagram ? taskOf(diagram, standing) : { none: "nothing drawn" };
    const basis = hashOf([found, standing.since]);
    if (basis === row.basis && row.shape === DIAGNOSIS_SHAPE && row.failure === null) {
      await store({});
      return;
    }
    const nothing = { detail: null, explained: [], share: null };
    if (found.none !== null) {
      await store({ ...nothing, none: found.none, basis, shape: DIAGNOSIS_SHAPE });
      return;
    }
    const diagnosis = await diagnoseInThread(found.task);
    const detail: DiagnosisDetail = { ...diagnosis, since: standing.since };
    await store({
      none: null,
      detail,
      explained: [...new Set(diagnosis.named.flatMap((f) => f.explains))],
      share: diagnosis.named[0]?.share ?? null,
      basis,
      shape: DIAGNOSIS_SHAPE,
    });
  } catch (error) {
    if (isDatabaseDown(error)) throw error;
    log.error({ err: errorText(error), circuitId }, "a circuit could not be diagnosed");
    await db()
      .update(circuitDiagnoses)
      .set({ failure: errorText(error), failures: sql`${circuitDiagnoses.failures} + 1`, triedAt: new Date() })
      .where(eq(circuitDiagnoses.circuitId, circuitId));
  }
}

/** Diagnose every stale circuit, oldest first, until none is left or the time is up. */
export async function diagnoseStaleCircuits(until = Infinity): Promise<void> {
  await db()
    .update(circuitDiagnoses)
    .set({ stale: true })
    .where(and(ne(circuitDiagnoses.shape, DIAGNOSIS_SHAPE), eq(circuitDiagnoses.stale, false)));
  await sweep(() => claimStale("circuit_diagnoses", "circuit_id"), diagnoseCircuit, until);
}
