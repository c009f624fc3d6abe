/** Background processes say that they run; pages and /healthz tell when one has gone quiet. */
import { sql } from "drizzle-orm";
import { ask, db } from "~/db/client.server";
import { log } from "~/runtime/log.server";
import { errorText } from "~/runtime/errors";

const EVERY_MS = 15_000;
/** After so long without a word it stands still. */
const QUIET_MS = 90_000;

/** Say again and again that this process runs, until the returned function is called. */
export function keepBeating(name: string): () => void {
  const beat = () =>
    db()
      .execute(
        sql`insert into heartbeats (name, at) values (${name}, now()) on conflict (name) do update set at = now()`,
      )
      .catch((error: Error) => log.warn({ err: errorText(error) }, "could not say that this process runs"));
  void beat();
  const timer = setInterval(() => void beat(), EVERY_MS);
  return () => clearInterval(timer);
}

export interface WorkerHealth {
  /** False: nobody assesses what is stale. */
  runs: boolean;
  /** Last word of a worker, epoch ms; null: never. */
  lastSeen: number | null;
  /** Points and oils that wait to be assessed, and those that could not be. */
  waiting: number;
  failed: number;
}

/** Does a worker run, and what waits for it? */
export async function workerHealth(): Promise<WorkerHealth> {
  const rows = await ask<{ seen: number | null; waiting: number; failed: number }>(sql`
    select (select (extract(epoch from at) * 1000)::float8 from heartbeats where name = 'worker') as seen,
           (select count(*)::int from (select 1 from assessments where stale limit 1000) a) + (select count(*)::int
             from (select 1 from oil_assessments where stale limit 1000) o) as waiting,
           (select count(*)::int from assessments where failure is not null) + (select count(*)::int
             from oil_assessments where failure is not null) as failed`);
  const { seen, waiting, failed } = rows[0]!;
  const lastSeen = seen === null ? null : Number(seen);
  return { runs: lastSeen !== null && Date.now() - lastSeen < QUIET_MS, lastSeen, waiting, failed };
}
