/** Jobs in the database, so that any number of servers share them. */
import PgBoss from "pg-boss";
import { config } from "~/runtime/config.server";
import { log } from "~/runtime/log.server";
import { errorText } from "~/runtime/errors";

export const queues = {
  assessStale: "assess-stale",
  reassessAll: "reassess-all",
  import: "import",
  testPoints: "test-points",
} as const;

/** A job that runs longer than this is taken for dead and started again. A sweep ends itself well before. */
const EXPIRE_SECONDS: Record<(typeof queues)[keyof typeof queues], number> = {
  "assess-stale": 900,
  "reassess-all": 900,
  import: 6 * 3600,
  "test-points": 900,
};

let boss: Promise<PgBoss> | undefined;

/** The queue: a web server only sends; a worker also supervises and keeps the schedule. */
async function open(worker: boolean): Promise<PgBoss> {
  const queue = new PgBoss({ connectionString: config.databaseUrl, max: 3, supervise: worker, schedule: worker });
  queue.on("error", (error) => log.warn({ err: errorText(error) }, "job queue"));
  await queue.start();
  for (const name of Object.values(queues))
    await queue.createQueue(name, { name, expireInSeconds: EXPIRE_SECONDS[name] });
  return queue;
}

function sender(): Promise<PgBoss> {
  boss ??= open(false).catch((error: unknown) => {
    boss = undefined;
    throw error;
  });
  return boss;
}

/**
 * Ask a worker to assess every point that is marked stale. Losing the message loses nothing: the schedule sweeps.
 * One request a second is enough, but the second one must not be swallowed: the first may be served before what the
 * second is about was stored. It waits for the next second instead (without that, a point stood unassessed for 40 s).
 */
export async function requestAssessment(): Promise<void> {
  try {
    await (
      await sender()
    ).send(queues.assessStale, {}, { singletonKey: "sweep", singletonSeconds: 1, singletonNextSlot: true });
  } catch (error) {
    log.warn({ err: errorText(error) }, "could not queue an assessment; the schedule will sweep");
  }
}

/** Ask a worker to read a file. One that is asked for twice is read once. */
export async function requestImport(importId: string): Promise<void> {
  await (await sender()).send(queues.import, { importId }, { singletonKey: importId, retryLimit: 2 });
}

/** Ask a worker where test points of a circuit would help. Asked twice it is worked out once. */
export async function requestTestPoints(circuitId: string): Promise<void> {
  await (await sender()).send(queues.testPoints, { circuitId }, { singletonKey: circuitId, retryLimit: 2 });
}

/** Run the worker until stopped. */
export async function runWorker(handlers: {
  assessStale: () => Promise<void>;
  reassessAll: () => Promise<void>;
  readImport: (importId: string) => Promise<void>;
  adviseTestPoints: (circuitId: string) => Promise<void>;
}): Promise<() => Promise<void>> {
  const queue = await open(true);
  await queue.work(queues.assessStale, { pollingIntervalSeconds: 0.5 }, handlers.assessStale);
  await queue.work<{ importId: string }>(queues.import, { pollingIntervalSeconds: 0.5 }, async (jobs) => {
    for (const job of jobs) await handlers.readImport(job.data.importId);
  });
  await queue.work<{ circuitId: string }>(queues.testPoints, { pollingIntervalSeconds: 1 }, async (jobs) => {
    for (const job of jobs) await handlers.adviseTestPoints(job.data.circuitId);
  });
  await queue.work(queues.reassessAll, { pollingIntervalSeconds: 30 }, handlers.reassessAll);
  await queue.schedule(queues.assessStale, "* * * * *");
  // dates move even when no reading lands: stops pass, lead times run out
  await queue.schedule(queues.reassessAll, "30 3 * * *");
  return () => queue.stop({ graceful: true, timeout: 5000 });
}

export async function closeQueue(): Promise<void> {
  const open = await boss?.catch(() => undefined);
  boss = undefined;
  await open?.stop({ graceful: false });
}
