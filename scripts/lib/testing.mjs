/** What Jest and the browser tests share: their clock, databases of their own, reports. */
import { readFileSync } from "node:fs";
import { ensureDatabase, openCluster } from "./cluster.mjs";

/** The clock of the tests: the demo world is the same on every day. */
export const NOW = "2026-11-24T09:00:00Z";

/** A report that a test runner wrote; undefined: it wrote none. */
export function readReport(path) {
  try {
    return JSON.parse(readFileSync(path, "utf8"));
  } catch {
    return undefined;
  }
}

/** Run with a scratch database in the cluster NAME, dropped afterwards. */
export async function withDatabase(name, purpose, work) {
  const cluster = await openCluster(name, { settings: ["fsync=off"] });
  const database = `${purpose}_${process.pid}`;
  try {
    ensureDatabase(cluster, database);
    return await work(cluster.url(database));
  } finally {
    try {
      cluster.psql("postgres", `drop database if exists "${database}" with (force)`);
    } finally {
      cluster.release();
    }
  }
}
