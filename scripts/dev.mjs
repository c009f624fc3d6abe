/**
 * npm run dev: the pages with reload as files change, on the demo's database. Worker and simulated tester run as they
 * were last built; start again after a change to a migration or a job.
 */
import { join } from "node:path";
import { ensureBuild } from "./lib/build.mjs";
import { ensureDatabase, openCluster } from "./lib/cluster.mjs";
import { readSignIns } from "./lib/signIns.mjs";
import { ensurePackages } from "./lib/install.mjs";
import { freePort } from "./lib/ports.mjs";
import { command, projectDir, say } from "./lib/process.mjs";
import { appCommand, startHelpers } from "./lib/serve.mjs";

const FIRST_PORT = Number(process.env.PORT ?? 4700);

await command(async () => {
  ensurePackages();
  const cluster = await openCluster("demo");
  process.on("exit", () => cluster.release());
  ensureDatabase(cluster, "juncteral");
  await ensureBuild();
  const port = await freePort(FIRST_PORT);
  const testerPort = await freePort(port + 1);
  Object.assign(process.env, {
    NODE_ENV: "development",
    DATABASE_URL: cluster.url("juncteral"),
    JUNCTERAL_LOG: process.env.JUNCTERAL_LOG ?? "info",
    JUNCTERAL_TESTER: `http://127.0.0.1:${testerPort}`,
    PORT: String(port),
  });
  appCommand("migrate", {});
  const signIns = readSignIns();
  appCommand("demo", { JUNCTERAL_SIGN_INS: JSON.stringify(signIns) });
  const helpers = startHelpers({}, { testerPort });

  process.chdir(projectDir);
  const { createServer } = await import("vite");
  const vite = await createServer({ server: { middlewareMode: true }, appType: "custom" });
  const { makeApp } = await vite.ssrLoadModule(join(projectDir, "app/platform/http.server.ts"));
  const app = makeApp(() => vite.ssrLoadModule("virtual:react-router/server-build"), { files: vite.middlewares });
  const server = await new Promise((done) => {
    const listening = app.listen(port, "127.0.0.1", () => done(listening));
  });
  say(`\nJuncteral is at http://127.0.0.1:${port}, and follows what you change.\n\nSign in as`);
  for (const [name, password] of Object.entries(signIns)) say(`  ${name.padEnd(11)} password ${password}`);
  say("\nCtrl-C stops it; the data stays.");
  await new Promise((done) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.once(signal, done);
  });
  say("\nStopping …");
  server.closeAllConnections();
  server.close();
  await Promise.all([vite.close(), helpers.stop()]);
  process.exit(0);
});
