/**
 * What the built server can do; the scripts call these. The web server and the worker are separate
 * processes: computation in bulk never holds up a page.
 */
import type { Server } from "node:http";
import { closeConnections, migrateDatabase } from "~/db/client.server";
import { assessStalePoints, markAllStale } from "~/platform/assessment.server";
import { assessStaleCircuits } from "~/platform/oil.server";
import { config } from "~/platform/config.server";
import { makeApp } from "~/platform/http.server";
import { closeQueue, runWorker } from "~/platform/jobs.server";
import { log } from "~/platform/log.server";
import { addFirstEngineer } from "~/platform/session.server";
export { loadDemo } from "@demo/load.server";
import { serveTester } from "@demo/tester.server";

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
  await untilToldToStop();
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
  await closeQueue();
  await closeConnections();
}

/** Run jobs until told to stop. Starts over by itself when the database goes away and comes back. */
export async function work(): Promise<void> {
  const stopped = untilToldToStop();
  const stop = await runWorker({
    assessStale: async () => {
      await assessStaleCircuits();
      await assessStalePoints();
    },
    reassessAll: async () => {
      await markAllStale();
      await assessStaleCircuits();
      await assessStalePoints();
    },
  });
  await stopped;
  await stop().catch((error: Error) => log.warn({ err: error.message }, "the queue did not stop cleanly"));
  await closeConnections();
}

/** Where there is no user yet: the engineer named by JUNCTERAL_FIRST_ENGINEER and JUNCTERAL_FIRST_PASSWORD. */
export async function firstEngineer(): Promise<boolean> {
  const { JUNCTERAL_FIRST_ENGINEER: name, JUNCTERAL_FIRST_PASSWORD: password } = process.env;
  return name && password ? addFirstEngineer(name, password) : false;
}

export async function close(): Promise<void> {
  await closeQueue();
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
