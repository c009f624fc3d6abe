/**
 * npm run bench: speed as ratios within one run, on a database of its own. Never asserted, only printed. With --
 * --strain only what is measured under strain; with -- --alarms only how calm and how early the words are (half an hour).
 */
import { writeFileSync, mkdirSync } from "node:fs";
import { join } from "node:path";
import { measureFaults } from "./bench/faults.mjs";
import { firstVisit } from "./bench/firstVisit.mjs";
import { ensureBuild } from "./lib/build.mjs";
import { ensureDatabase, openCluster } from "./lib/cluster.mjs";
import { ensurePackages } from "./lib/install.mjs";
import { freePort } from "./lib/ports.mjs";
import { bin, command, follow, projectDir, say } from "./lib/process.mjs";
import { appCommand, startApp } from "./lib/serve.mjs";

const SIGN_INS = JSON.stringify({
  engineer: "bench-engineer",
  technician: "bench-technician",
  viewer: "bench-viewer",
});

/** Pages and worker together, on the harbour as it is loaded: see bench/strain.ts and bench/faults.mjs. */
async function strain(cluster) {
  const database = `strain_${process.pid}`;
  ensureDatabase(cluster, database);
  const loop = join(projectDir, ".data/bench-loop.json");
  const env = { DATABASE_URL: cluster.url(database), JUNCTERAL_LOG: "fatal" };
  let app;
  try {
    appCommand("migrate", env);
    appCommand("demo", { ...env, JUNCTERAL_SIGN_INS: SIGN_INS });
    app = await startApp({
      ...env,
      PORT: String(await freePort(5000)),
      BENCH_LOOP: loop,
      NODE_OPTIONS: `--import ${join(projectDir, "scripts/bench/loopDelay.mjs")}`,
    });
    const { code, output } = await follow(bin("tsx"), ["scripts/bench/strain.ts"], {
      env: {
        ...process.env,
        ...env,
        BENCH_URL: app.address,
        BENCH_PASSWORD: "bench-engineer",
        BENCH_LOOP: loop,
        E2E_DATABASE_URL: env.DATABASE_URL,
      },
    });
    if (code !== 0) throw new Error("The strain did not end well.");
    await measureFaults({ address: app.address, name: "bench", ask: (sql) => cluster.psql(database, sql) });
    return output;
  } finally {
    await app?.stop();
    cluster.psql("postgres", `drop database if exists "${database}" with (force)`);
  }
}

/** The words as a person lives with them, on lives that are drawn anew every day: with and without peers and stops. */
async function alarms() {
  for (const peers of ["none", "mixed"])
    for (const stops of ["off", "on"]) {
      const args = ["scripts/bench/alarms.ts", "--part", "report", "--peers", peers, "--stops", stops];
      if ((await follow(bin("tsx"), args)).code !== 0) throw new Error("The alarms were not measured.");
    }
}

await command(async () => {
  ensurePackages();
  if (process.argv.includes("--alarms")) return void (await alarms());
  await ensureBuild();
  const script = firstVisit();
  const kilobytes = (bytes) => `${(bytes / 1000).toFixed(0)} kB`;
  say(
    `(j) script of a first visit of Today: ${kilobytes(script.gzip)} gzip, ${kilobytes(script.brotli)} brotli (aim 150)`,
  );
  const circuits = await follow(bin("tsx"), ["scripts/bench/circuits.ts"]);
  if (circuits.code !== 0) throw new Error("The circuits were not measured.");
  const isolation = await follow(bin("tsx"), ["scripts/bench/isolation.ts"]);
  if (isolation.code !== 0) throw new Error("The isolation was not measured.");
  const cluster = await openCluster("bench", { settings: ["fsync=off", "shared_buffers=512MB", "max_wal_size=4GB"] });
  const database = `bench_${process.pid}`;
  let app;
  try {
    if (process.argv.includes("--strain")) return void (await strain(cluster));
    ensureDatabase(cluster, database);
    const env = { DATABASE_URL: cluster.url(database), JUNCTERAL_LOG: "warn" };
    appCommand("migrate", env);
    appCommand("demo", { ...env, JUNCTERAL_SIGN_INS: SIGN_INS });
    const port = await freePort(5000);
    // pages only: no worker, which would sweep the made-up points in the middle of the measurement
    app = await startApp({ ...env, PORT: String(port) }, { worker: false });
    mkdirSync(join(projectDir, ".data"), { recursive: true });
    const { code, output } = await follow(bin("tsx"), ["scripts/bench/measure.ts"], {
      env: { ...process.env, ...env, BENCH_URL: app.address, BENCH_PASSWORD: "bench-engineer" },
    });
    const oil = await follow(bin("tsx"), ["scripts/bench/samples.ts"], {
      env: { ...process.env, ...env, BENCH_URL: app.address, BENCH_PASSWORD: "bench-engineer" },
    });
    if (code !== 0 || oil.code !== 0) throw new Error("The bench did not end well.");
    await app.stop();
    app = undefined;
    const strained = await strain(cluster);
    say(
      "\n(d) forecast over simulated fleets, on laws kept apart and laws added last, on other seeds: " +
        "P10-P90 coverage, CRPS over true time left, beside straight lines and the best curve",
    );
    const alone = await follow(bin("tsx"), [
      "scripts/bench/backtest.ts",
      "--set",
      "heldOut",
      "--lives",
      "6",
      "--brief",
    ]);
    const together = await follow(bin("tsx"), [
      "scripts/bench/backtest.ts",
      "--set",
      "heldOut",
      "--lives",
      "6",
      "--brief",
      "--peers",
      "ended",
    ]);
    const unseen = await follow(bin("tsx"), [
      "scripts/bench/backtest.ts",
      "--set",
      "unseen",
      "--lives",
      "6",
      "--brief",
      "--peers",
      "ended",
    ]);
    if (alone.code !== 0 || together.code !== 0 || unseen.code !== 0)
      throw new Error("The back-test did not end well.");
    writeFileSync(
      join(projectDir, ".data/bench.txt"),
      output + oil.output + strained + alone.output + together.output + unseen.output,
    );
    say("\nWritten to .data/bench.txt");
  } finally {
    await app?.stop();
    cluster.psql("postgres", `drop database if exists "${database}" with (force)`);
    cluster.release();
  }
  process.exit(process.exitCode ?? 0);
});
