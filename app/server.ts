/**
 * What the built server can do; the scripts call these. The web server and the worker are separate
 * processes: computation in bulk never holds up a page.
 */
import type { Server } from "node:http";
import { closeConnections, isDatabaseDown, migrateDatabase } from "~/db/client.server";
import { labPreview, runLabImport } from "~/domain/oil/index.server";
import { assessStaleCircuits, assessStalePoints, markAllStale } from "~/domain/condition/index.server";
import { adviseTestPoints, diagnoseStaleCircuits } from "~/domain/isolation/index.server";
import { config } from "./runtime/config.server";
import { makeApp } from "~/platform/http.server";
import { keepBeating } from "~/platform/heartbeat.server";
import { endStage, importRecord, tellProgress } from "~/platform/imports.server";
import { sweepUploads } from "~/platform/uploads.server";
import { closeQueue, requestAssessment, runWorker } from "~/platform/jobs.server";
import { log } from "./runtime/log.server";
import { addFirstEngineer, newFirstKey } from "~/platform/session.server";
import { closeThreads } from "./platform/threads.server";
import { preview, runImport } from "~/domain/readings/index.server";
export { loadDemo } from "@demo/load.server";
export { startProblem } from "~/platform/startProblem.server";
import { serveTester } from "@demo/tester.server";
import { errorText } from "./runtime/errors";

/** Bring the database schema up to date. */
export async function migrate(): Promise<void> {
  await migrateDatabase();
}

/** Serve pages until told to stop. */
export async function serve(): Promise<void> {
  const app = makeApp(() => import("virtual:react-router/server-build"));
  const server = await new Promise<Server>((done, fail) => {
    const listening = app.listen(config.port, config.host, (error?: Error) => (error ? fail(error) : done(listening)));
  });
  log.info({ port: config.port }, "pages are served");
  await untilToldToStop();
  await closedInOrder(server);
  await closeQueue();
  await closeThreads();
  await closeConnections();
}

/** What is being answered is answered; what then still hangs on is cut. */
const PATIENCE_MS = 4500;

async function closedInOrder(server: Server): Promise<void> {
  const closed = new Promise((done) => server.close(done));
  server.closeIdleConnections();
  const late = setTimeout(() => server.closeAllConnections(), PATIENCE_MS);
  await closed;
  clearTimeout(late);
}

/** A sweep gives up its turn after so long and goes on in the next one, so that no job is taken for dead. */
const SWEEP_MS = 8 * 60_000;

/** Judge what is stale: oils first, since points reckon with them; then points, then what is wrong with their circuits. */
export async function sweepOnce(): Promise<void> {
  const until = Date.now() + SWEEP_MS;
  await assessStaleCircuits(until);
  await assessStalePoints(until);
  await diagnoseStaleCircuits(until);
  if (Date.now() > until) await requestAssessment();
}

/** Read a file that was sent: look at every row, or store them. A failure is told on its page. */
async function readImport(importId: string): Promise<void> {
  const record = await importRecord(importId);
  if (record.doneAt || !record.stage) return;
  const tell = (share: number) => tellProgress(importId, share);
  try {
    if (record.stage === "previewing") {
      await endStage(importId, {
        preview: record.laboratory === null ? await preview(record, tell) : await labPreview(record),
      });
      return;
    }
    const imported = record.laboratory === null ? await runImport(record, tell) : await runLabImport(record);
    await endStage(importId, imported.ok ? {} : { failure: imported.message });
  } catch (error) {
    if (isDatabaseDown(error)) throw error;
    log.error({ err: errorText(error), importId }, "a file could not be read");
    await endStage(importId, { failure: "The file could not be read. Nothing of it was stored. The log says more." });
  }
}

/** Run jobs until told to stop. Starts over by itself when the database goes away and comes back. */
export async function work(): Promise<void> {
  const stopped = untilToldToStop();
  // the queue writes down a job's end by itself: where the database is away then, nobody waits for that and it would end the worker
  process.on("unhandledRejection", (error) => {
    if (!isDatabaseDown(error)) throw error;
    log.warn({ err: errorText(error) }, "the database went away in a job; it is done again");
  });
  const stop = await runWorker({
    assessStale: sweepOnce,
    reassessAll: async () => {
      await sweepUploads();
      await markAllStale();
      await sweepOnce();
    },
    readImport,
    adviseTestPoints,
  });
  const quiet = keepBeating("worker");
  await stopped;
  quiet();
  await stop().catch((error: Error) => log.warn({ err: errorText(error) }, "the queue did not stop cleanly"));
  await closeThreads();
  await closeConnections();
}

/** Where nobody may sign in yet: the end of the address at which the first engineer is made. */
export async function firstAddress(): Promise<string | null> {
  const key = await newFirstKey();
  return key && `/first/${key}`;
}

/** Where there is no user yet: the engineer named by JUNCTERAL_FIRST_ENGINEER and JUNCTERAL_FIRST_PASSWORD. */
export async function firstEngineer(): Promise<boolean> {
  const { JUNCTERAL_FIRST_ENGINEER: name, JUNCTERAL_FIRST_PASSWORD: password } = process.env;
  return name && password ? addFirstEngineer(name, password) : false;
}

export async function close(): Promise<void> {
  await closeQueue();
  await closeThreads();
  await closeConnections();
}

/** Serve the simulated tester until told to stop. */
export async function tester(): Promise<void> {
  const server = await serveTester(Number(process.env.TESTER_PORT ?? 4799));
  await untilToldToStop();
  server.closeAllConnections();
  server.close();
}

function untilToldToStop(): Promise<void> {
  return new Promise((done) => {
    for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => done());
    process.once("disconnect", () => done());
  });
}
