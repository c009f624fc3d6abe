/** The table of stale rows is the queue: workers claim what they will assess, oldest first, and skip what another has. */
import { sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { log } from "~/runtime/log.server";

const BATCH = 20;
/** Rows that are worked on at one time. */
const AT_ONCE = 2;
/** A claim that has led to nothing after so long is free again: its worker died. */
const CLAIM_SECONDS = 180;
/** After a failure the next try waits a minute, then twice as long each time, a day at the most. */
const LONGEST_WAIT_SECONDS = 86_400;

/** Claim some stale rows: the ids to assess. Those that failed wait their turn and never hold up the others. */
export async function claimStale(
  table: "assessments" | "oil_assessments" | "circuit_diagnoses",
  key: "point_id" | "circuit_id",
): Promise<string[]> {
  const [t, k] = [sql.identifier(table), sql.identifier(key)];
  const { rows } = await db().execute<{ id: string }>(sql`
    update ${t} set tried_at = clock_timestamp() where ${k} in (
      select ${k} from ${t} where stale and (tried_at is null
        or tried_at < clock_timestamp() - least(${LONGEST_WAIT_SECONDS}, case when failures = 0 then ${CLAIM_SECONDS}
        else 60 * 2 ^ least(failures, 12) end) * interval '1 second')
      order by tried_at nulls first, assessed_at limit ${BATCH} for update skip locked)
    returning ${k} as id`);
  return rows.map((r) => r.id);
}

/** Do the work for each, a few at a time. */
export async function inParallel(ids: readonly string[], work: (id: string) => Promise<void>): Promise<void> {
  const waiting = [...ids];
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      for (let id = waiting.shift(); id !== undefined; id = waiting.shift()) await work(id);
    }),
  );
}

/** Claim and work until nothing is left or the time (epoch ms) is up. */
export async function sweep(
  claim: () => Promise<string[]>,
  work: (id: string) => Promise<void>,
  until: number,
): Promise<void> {
  for (;;) {
    if (Date.now() > until) {
      log.info("a sweep goes on in the next one");
      return;
    }
    const ids = await claim();
    if (ids.length === 0) return;
    await inParallel(ids, work);
  }
}
