/** Where a test point would shorten the isolations of a circuit: asked for on its page, worked out in a job, in a thread. */
import { DAY } from "@core";
import { and, count, eq, gte, sql } from "drizzle-orm";
import type { TestPointAdvice } from "@core";
import { ask, db, isDatabaseDown } from "~/db/client.server";
import { circuits, isolations, testPointAdvices } from "~/db/schema";
import type { Answer } from "~/domain/answer";
import { diagramIfAny } from "~/domain/circuits/index.server";
import { inThreads } from "~/platform/threads.server";
import { requestTestPoints } from "~/platform/jobs.server";
import { now } from "~/runtime/clock.server";
import { errorText } from "~/runtime/errors";
import { log } from "~/runtime/log.server";
import { usualOf } from "./diagnose.server";
import type { TestPointsTask } from "./testPointsTask";

const inThread = inThreads<TestPointsTask, TestPointAdvice>(
  "testPoints",
  async (task) => (await import("./testPointsTask")).default(task),
  { most: 1 },
);

const YEAR = 365 * DAY;
/** Isolations of so many years tell how often a circuit needs one. */
const YEARS = 3;

/** Ask for it. Asked twice it is worked out once. */
export async function askTestPoints(circuitId: string): Promise<Answer> {
  const [circuit] = await db().select({ id: circuits.id }).from(circuits).where(eq(circuits.id, circuitId));
  if (!circuit) return { ok: false, because: "gone", problems: { form: "This circuit is gone." } };
  const asked = { askedAt: new Date(now()), madeAt: null, failure: null };
  await db()
    .insert(testPointAdvices)
    .values({ circuitId, ...asked })
    .onConflictDoUpdate({ target: testPointAdvices.circuitId, set: asked });
  await requestTestPoints(circuitId);
  return { ok: true, id: circuitId };
}

/** Work it out and keep it; a failure is told on its page. */
export async function adviseTestPoints(circuitId: string): Promise<void> {
  const store = (values: Partial<typeof testPointAdvices.$inferInsert>) =>
    db().update(testPointAdvices).set(values).where(eq(testPointAdvices.circuitId, circuitId));
  try {
    const diagram = await diagramIfAny(circuitId);
    if (!diagram) {
      await store({ failure: "This circuit has no diagram yet: draw it first.", madeAt: new Date(now()) });
      return;
    }
    const advice = await inThread({
      netlist: diagram.netlist,
      usual: diagram.fit?.fits ? usualOf(diagram) : null,
    });
    await store({ advice, failure: null, madeAt: new Date(now()) });
  } catch (error) {
    if (isDatabaseDown(error)) throw error;
    log.error({ err: errorText(error), circuitId }, "test points could not be worked out");
    await store({ failure: "It could not be worked out. The log says more.", madeAt: new Date(now()) });
  }
}

/** How many isolations a year this circuit needs: its own of three years, leaning on one a year as if it were one year more. */
async function perYear(circuitId: string): Promise<{ rate: number; own: number }> {
  const [row] = await db()
    .select({ n: count() })
    .from(isolations)
    .where(and(eq(isolations.circuitId, circuitId), gte(isolations.openedAt, new Date(now() - YEARS * YEAR))));
  const own = row?.n ?? 0;
  return { own, rate: (own + 1) / (YEARS + 1) };
}

/** What the page shows; undefined: there is no such circuit. */
export async function testPointsPage(circuitId: string) {
  const [[row], rate] = await Promise.all([
    ask<{
      machine: string;
      machineId: string;
      circuit: string;
      timeZone: string;
      drawn: boolean;
      asked: boolean;
      madeAt: Date | null;
      advice: TestPointAdvice | null;
      failure: string | null;
    }>(sql`
      select m.name as machine, m.id as "machineId", k.name as circuit, s.time_zone as "timeZone",
        exists (select 1 from circuit_diagrams d where d.circuit_id = k.id) as drawn,
        t.circuit_id is not null as asked, t.made_at as "madeAt", t.advice, t.failure
      from circuits k join machines m on m.id = k.machine_id join sites s on s.id = m.site_id
      left join test_point_advices t on t.circuit_id = k.id where k.id = ${circuitId}`),
    perYear(circuitId),
  ]);
  return row && { ...row, madeAt: row.madeAt ? new Date(row.madeAt).getTime() : null, ...rate };
}
