/** The fleet description from a JSON file. Importing adds what is missing and changes nothing that is there. */
import type { Actor } from "~/domain/access/index.server";
import Ajv from "ajv";
import { sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { requestAssessment } from "~/platform/jobs.server";
import { cleanText } from "~/platform/validate";
import { addMissing } from "./addMissing.server";
import { fleetProblems } from "./check";
import { fleetSchema } from "./schema";
import type { FleetFile } from "./types";

const DATE_TIME = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})$/;
const isMoment = (text: string) =>
  DATE_TIME.test(text) && Date.parse(text) > Date.UTC(1950, 0) && Date.parse(text) < Date.UTC(2200, 0);
const validate = new Ajv({
  allErrors: true,
  formats: { "date-time": isMoment },
  allowUnionTypes: true,
}).compile<FleetFile>(fleetSchema);

export type FleetImported =
  { ok: true; added: Record<string, number>; there: number } | { ok: false; messages: string[] };

const MOST_MESSAGES = 20;

/** Read a fleet file and add what is missing, in one transaction; `source` stands in the list of changes. */
export async function importFleet(text: string, actor: Actor, source = "fleet file"): Promise<FleetImported> {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text.replace(/^\ufeff/, ""), (_key, value: unknown) =>
      typeof value === "string" ? cleanText(value) : value,
    );
  } catch (error) {
    return { ok: false, messages: [`The file is not JSON: ${(error as Error).message}`] };
  }
  if (!validate(parsed))
    return {
      ok: false,
      messages: (validate.errors ?? [])
        .slice(0, MOST_MESSAGES)
        .map(
          (e) =>
            `${e.instancePath || "the file"}: ` +
            `${e.message ?? "not allowed"}${e.params && "additionalProperty" in e.params ? ` (${String(e.params.additionalProperty)})` : ""}`,
        ),
    };
  const file = parsed;
  const wrong = [...fleetProblems(file)];
  if (wrong.length) return { ok: false, messages: wrong.slice(0, MOST_MESSAGES) };
  const result = await db().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(727276)`);
    return { ok: true as const, ...(await addMissing(tx, file, actor, source)) };
  });
  await requestAssessment();
  return result;
}
