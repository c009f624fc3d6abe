/** Where work comes from. What condemned a part, as it stood when the work was booked: the reading's verdict, the fault, the tests, the bulletin. */
import { eq } from "drizzle-orm";
import type { VerdictPart } from "@core";
import type { Queryable } from "~/db/client.server";
import type { WorkOrigin } from "~/db/kinds";
import { debrisEvents } from "~/db/oilTables";
import { assessments, campaigns, circuitDiagnoses, components, isolations, jobs } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import { evidenceWords } from "~/domain/isolation/index.server";
import { beginJob, jobOfCircuit } from "~/domain/jobs/index.server";
import { isUuid } from "~/platform/validate";

interface Booked {
  pointId: string | null;
  origin: WorkOrigin;
  originId: string;
}

/** Where the work came from, in words; null: by hand, or the record is gone. */
async function originWords(q: Queryable, { pointId, origin, originId }: Booked): Promise<string | null> {
  if (!isUuid(originId)) return null;
  switch (origin) {
    case "isolation": {
      const words = await evidenceWords(q, originId);
      return words && `Isolated: ${words}.`;
    }
    case "job": {
      const [job] = await q
        .select({ noticed: jobs.noticed, number: jobs.number })
        .from(jobs)
        .where(eq(jobs.id, originId));
      return job ? `Job ${job.number}: ${job.noticed}` : null;
    }
    case "debris": {
      const [event] = await q
        .select({ what: debrisEvents.what })
        .from(debrisEvents)
        .where(eq(debrisEvents.id, originId));
      return event ? `Debris: ${event.what}.` : null;
    }
    case "campaign": {
      const [campaign] = await q
        .select({ title: campaigns.title, bulletin: campaigns.bulletin })
        .from(campaigns)
        .where(eq(campaigns.id, originId));
      return campaign ? `Bulletin ${campaign.bulletin}: ${campaign.title}.` : null;
    }
    case "fault": {
      const [diagnosis] = await q
        .select({ detail: circuitDiagnoses.detail })
        .from(circuitDiagnoses)
        .where(eq(circuitDiagnoses.circuitId, originId));
      const named = diagnosis?.detail?.named.find((f) => pointId !== null && f.explains.includes(pointId));
      return named ? `Named by the readings of the circuit: ${named.text}.` : null;
    }
    default:
      return null;
  }
}

/** The verdict of the point that asked for it, and where the work came from; empty: neither is known. */
export async function condemning(q: Queryable, booked: Booked): Promise<VerdictPart[]> {
  const [point] = booked.pointId
    ? await q.select({ verdict: assessments.verdict }).from(assessments).where(eq(assessments.pointId, booked.pointId))
    : [];
  const words = await originWords(q, booked);
  const verdict = point?.verdict ?? [];
  return words ? [...verdict, { text: `${verdict.length > 0 ? " " : ""}${words}` }] : verdict;
}

/** The job that booked work belongs to: of the isolation or the job that it came from, of this circuit; else one that begins with it. */
export async function jobOf(
  tx: Queryable,
  booked: { componentId: string; origin: WorkOrigin; originId: string },
  actor: Actor,
): Promise<string> {
  const { componentId, origin, originId } = booked;
  const [part] = await tx
    .select({ circuitId: components.circuitId })
    .from(components)
    .where(eq(components.id, componentId));
  const [isolation] =
    origin === "isolation" && isUuid(originId)
      ? await tx.select({ jobId: isolations.jobId }).from(isolations).where(eq(isolations.id, originId))
      : [];
  const asked = origin === "job" ? originId : (isolation?.jobId ?? undefined);
  return (
    (await jobOfCircuit(tx, asked, part!.circuitId)) ??
    beginJob(tx, { circuitId: part!.circuitId, componentId, noticed: "" }, actor)
  );
}
