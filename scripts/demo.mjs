/** npm run demo: a private database, the invented harbour, the application, an address. */
import { ensureBuild } from "./lib/build.mjs";
import { ensureDatabase, openCluster } from "./lib/cluster.mjs";
import { ensurePackages } from "./lib/install.mjs";
import { freePort } from "./lib/ports.mjs";
import { command, say } from "./lib/process.mjs";
import { appCommand, startApp, untilInterrupted } from "./lib/serve.mjs";
import { forgetSignIns, readSignIns } from "./lib/signIns.mjs";

const FIRST_PORT = Number(process.env.PORT ?? 4800);
await command(async () => {
  const fresh = process.argv.includes("--fresh");
  ensurePackages();
  const cluster = await openCluster("demo", { fresh });
  let released = false;
  const release = () => {
    if (released) return;
    released = true;
    cluster.release();
  };
  process.on("exit", release);
  if (fresh) forgetSignIns();
  ensureDatabase(cluster, "juncteral");
  await ensureBuild();
  const env = { DATABASE_URL: cluster.url("juncteral"), JUNCTERAL_LOG: process.env.JUNCTERAL_LOG ?? "warn" };
  appCommand("migrate", env);
  const secret = readSignIns();
  if (fresh || !appLoaded(cluster)) say("Loading Eskermouth Harbour: five years of readings …");
  // in the environment, which other people of the machine do not see, as they do a command line
  appCommand("demo", { ...env, JUNCTERAL_SIGN_INS: JSON.stringify(secret) });
  const port = await freePort(FIRST_PORT);
  if (port !== FIRST_PORT) say(`Port ${FIRST_PORT} is taken; using ${port}.`);
  const app = await startApp(
    { ...env, PORT: String(port) },
    { testerPort: await freePort(port + 101), otherPort: true },
  );
  say(`\nJuncteral is at ${app.address}\n\nSign in as`);
  for (const [name, password] of Object.entries(secret)) say(`  ${name.padEnd(11)} password ${password}`);
  say("\nCtrl-C stops it; the data stays. npm run demo -- --fresh starts over.");
  process.exit(await untilInterrupted(app, release));
});

function appLoaded(cluster) {
  return cluster.psql("juncteral", "select count(*) from sites").trim() !== "0";
}
