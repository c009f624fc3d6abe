/** The run that an entry belongs to, held until the entry is in, and what becomes of the entry. */
import { eq } from "drizzle-orm";
import type { Queryable } from "~/db/client.server";
import {
  circuits,
  components,
  interventions,
  machines,
  sites,
  workEntries,
  workFindings,
  workPhotos,
  workRuns,
} from "~/db/schema";
import type { OutgoingFinding, OutgoingStep, OutgoingWork, OutgoingWorkPhoto } from "./outgoing";

export interface WorkFate {
  submission: string;
  fate: "saved" | "conflict" | "refused";
  field?: string;
  message?: string;
}

export const refused = (submission: string, message: string, field?: string): WorkFate => ({
  submission,
  fate: "refused",
  message,
  ...(field !== undefined && { field }),
});

export type Place = NonNullable<Awaited<ReturnType<typeof placeOf>>>;

/** The run, held until the entry is in: two people at one step come one after the other. */
export async function placeOf(tx: Queryable, runId: string) {
  const [row] = await tx
    .select({
      procedure: workRuns.procedure,
      interventionId: workRuns.interventionId,
      componentId: interventions.componentId,
      signedBy: interventions.signedBy,
      signedAt: interventions.signedAt,
      cancelledAt: interventions.cancelledAt,
    })
    .from(workRuns)
    .innerJoin(interventions, eq(interventions.id, workRuns.interventionId))
    .where(eq(workRuns.id, runId))
    .for("update");
  if (!row) return null;
  const [where] = await tx
    .select({ machineId: machines.id, holdsReleased: sites.holdsReleased })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(components.id, row.componentId));
  const closed = row.signedAt
    ? `${row.signedBy ?? "Somebody"} has signed the record. Write it as an addition to the record.`
    : row.cancelledAt
      ? "This work was cancelled."
      : null;
  // an entry of a step belongs to its run, a finding and a photograph to the whole work
  const owner = { step: runId, finding: row.interventionId, workPhoto: row.interventionId };
  return { ...row, ...where!, closed, owner };
}

/** To which run or work an entry of this id belongs already; undefined: it is new. */
export async function takenBy(
  tx: Queryable,
  { kind, submission }: OutgoingStep | OutgoingFinding | OutgoingWorkPhoto,
): Promise<string | undefined> {
  if (kind === "step") {
    const [row] = await tx
      .select({ owner: workEntries.runId })
      .from(workEntries)
      .where(eq(workEntries.submission, submission));
    return row?.owner;
  }
  const table = kind === "finding" ? workFindings : workPhotos;
  const [row] = await tx.select({ owner: table.interventionId }).from(table).where(eq(table.submission, submission));
  return row?.owner;
}

/** The id of an entry stands for one entry of one record: a second one under it would replace what was signed. */
export const usedElsewhere = ({ submission }: OutgoingWork): WorkFate => ({
  submission,
  fate: "conflict",
  message: "An entry of another piece of work has this id already. Enter it again.",
});
