/**
 * The browser tests, in lanes side by side where there are cores for it. Each lane has a cluster, a database with the harbour and
 * an application of its own, so that a test may take the database away.
 */
import { readdirSync, statSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { ensureBuild } from "./build.mjs";
import { ensureChromium } from "./install.mjs";
import { freePort } from "./ports.mjs";
import { bin, follow, projectDir } from "./process.mjs";
import { appScript, startApp } from "./serve.mjs";
import { NOW, readReport, withDatabase } from "./testing.mjs";

/** A browser that paints, its page server and its worker keep two cores busy: on two, two lanes took longer than one. */
const LANES = Math.max(1, Math.floor(availableParallelism() / 4));
/** Run last and alone in its lane: what it stores and takes out of use is told of by no other test. */
const NONSENSE = "fuzz.spec.ts";
const PASSWORDS = { engineer: "test-engineer", technician: "test-technician", viewer: "test-viewer" };

/** All files in lanes of about the same length, by their size. */
function lanesOf(dir) {
  const files = readdirSync(dir)
    .filter((f) => f.endsWith(".spec.ts") && f !== NONSENSE)
    .map((f) => ({ name: f, size: statSync(join(dir, f)).size }))
    .sort((a, b) => b.size - a.size);
  const lanes = Array.from({ length: LANES }, () => ({ size: 0, files: [] }));
  for (const { name, size } of files) {
    const shortest = lanes.reduce((a, b) => (b.size < a.size ? b : a));
    shortest.size += size;
    shortest.files.push(name);
  }
  return lanes.sort((a, b) => b.size - a.size).map((l) => l.files.map((f) => f.replaceAll(".", "\\.")));
}

/** One function of the built server, while the other lane does the same. */
async function prepare(what, env) {
  const { code, output } = await follow(process.execPath, [appScript, what], {
    env: { ...process.env, NODE_ENV: "production", ...env },
    show: false,
  });
  if (code !== 0) throw new Error(`The database of the browser tests could not be made: ${what}\n${output}`);
}

async function playwright(name, args, env) {
  const report = join(projectDir, `test-results/${name}.json`);
  const { code } = await follow(bin("playwright"), ["test", "--no-deps", `--output=test-results/${name}`, ...args], {
    env: { ...process.env, ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
  });
  const stats = readReport(report)?.stats;
  const failed = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
  return {
    name: `Playwright, ${name}`,
    passed: stats?.expected ?? 0,
    failed: code !== 0 && failed === 0 ? 1 : failed,
  };
}

/** One lane, from an empty database to its last test. `runs`: arguments of Playwright, one run after another. */
function lane(number, chromium, runs) {
  const cluster = number === 1 ? "test" : `test-${number}`;
  return withDatabase(cluster, "browser", async (url) => {
    const env = { DATABASE_URL: url, JUNCTERAL_NOW: NOW, JUNCTERAL_LOG: "fatal" };
    await prepare("migrate", env);
    await prepare("demo", { ...env, JUNCTERAL_SIGN_INS: JSON.stringify(PASSWORDS) });
    const port = await freePort(4900 + 20 * number);
    const app = await startApp({ ...env, PORT: String(port) }, { testerPort: await freePort(port + 1) });
    const counts = [];
    try {
      for (const [k, args] of runs.entries())
        counts.push(
          await playwright(`lane-${number}-${k + 1}`, args, {
            E2E_URL: app.address,
            E2E_DATABASE_URL: url,
            E2E_CLUSTER: cluster,
            E2E_PASSWORDS: JSON.stringify(PASSWORDS),
            E2E_CHROMIUM: chromium,
          }),
        );
    } finally {
      await app.stop();
    }
    return counts;
  });
}

/**
 * Run the browser tests.
 * @param {string[]} wanted arguments of Playwright, a file's name for example; none: every file, in lanes
 * @returns what passed and failed, by run
 */
export async function browserTests(wanted) {
  const chromium = ensureChromium();
  await ensureBuild();
  if (wanted.length > 0) return lane(1, chromium, [wanted]);
  const lanes = lanesOf(join(projectDir, "e2e")).map((files) => [["--project=stories", ...files]]);
  lanes.at(-1).push(["--project=nonsense"]);
  const counts = await Promise.all(lanes.map((runs, k) => lane(k + 1, chromium, runs)));
  return counts.flat();
}
