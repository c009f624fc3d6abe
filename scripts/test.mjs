/** npm test: types, lint, architecture, Jest, then Playwright against the built application and a database of its own. */
import { readFileSync, mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureBuild } from "./lib/build.mjs";
import { ensureDatabase, openCluster } from "./lib/cluster.mjs";
import { ensureChromium, ensurePackages } from "./lib/install.mjs";
import { freePort } from "./lib/ports.mjs";
import { bin, command, follow, projectDir, say } from "./lib/process.mjs";
import { appCommand, startApp } from "./lib/serve.mjs";

/** The clock of the tests: the demo world is the same on every day. */
const NOW = "2026-11-24T09:00:00Z";

const total = { passed: 0, failed: 0 };

function count(name, { passed, failed }) {
  total.passed += passed;
  total.failed += failed;
  say(`${failed ? "✗" : "✓"} ${name}: ${passed} passed, ${failed} failed`);
}

async function step(name, program, args) {
  const { code } = await follow(program, args);
  count(name, code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
}

function readReport(path) {
  try {
    return JSON.parse(readFileSync(path, "utf8"));
  } catch {
    return undefined;
  }
}

/** Run with a scratch database of its own, dropped afterwards. */
async function withDatabase(purpose, work) {
  const cluster = await openCluster("test", { settings: ["fsync=off"] });
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

async function jest() {
  const report = join(projectDir, "test-results/jest.json");
  const { code } = await withDatabase("jest", (url) =>
    follow(bin("jest"), ["--json", `--outputFile=${report}`], {
      // threads are functions here: one that computes for seconds on a busy machine keeps a free connection waiting
      env: { ...process.env, DATABASE_URL: url, JUNCTERAL_NOW: NOW, JUNCTERAL_LOG: "fatal", JUNCTERAL_POOL_WAIT: "30" },
    }),
  );
  const found = readReport(report);
  const failed = found ? found.numFailedTests + found.numRuntimeErrorTestSuites : 1;
  count("Jest", { passed: found?.numPassedTests ?? 0, failed: code !== 0 && failed === 0 ? 1 : failed });
}

async function browser() {
  const chromium = ensureChromium();
  await ensureBuild();
  await withDatabase("browser", async (url) => {
    const env = { DATABASE_URL: url, JUNCTERAL_NOW: NOW, JUNCTERAL_LOG: "fatal" };
    const passwords = { engineer: "test-engineer", technician: "test-technician", viewer: "test-viewer" };
    appCommand("migrate", env);
    appCommand("demo", env, JSON.stringify(passwords));
    const port = await freePort(4900);
    const app = await startApp({ ...env, PORT: String(port) }, { testerPort: await freePort(port + 1) });
    try {
      const report = join(projectDir, "test-results/playwright.json");
      const { code } = await follow(
        bin("playwright"),
        ["test", ...(process.argv[3] ? ["--no-deps"] : []), ...process.argv.slice(3)],
        {
          env: {
            ...process.env,
            PLAYWRIGHT_JSON_OUTPUT_NAME: report,
            E2E_URL: app.address,
            E2E_DATABASE_URL: url,
            E2E_PASSWORDS: JSON.stringify(passwords),
            E2E_CHROMIUM: chromium,
          },
        },
      );
      const stats = readReport(report)?.stats;
      const failed = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
      count("Playwright", { passed: stats?.expected ?? 0, failed: code !== 0 && failed === 0 ? 1 : failed });
    } finally {
      await app.stop();
    }
  });
}

/** `npm test -- browser` runs that part alone: types, lint, architecture, jest or browser; `npm test -- browser rounds` one file of it. */
const only = process.argv[2];
const wanted = (part) => only === undefined || only === part;

await command(async () => {
  ensurePackages();
  rmSync(join(projectDir, "test-results"), { recursive: true, force: true });
  mkdirSync(join(projectDir, "test-results"), { recursive: true });
  if (wanted("types")) await step("Types", "npm", ["run", "--silent", "typecheck"]);
  if (wanted("lint")) await step("Lint", "npm", ["run", "--silent", "lint"]);
  if (wanted("architecture")) await step("Architecture", "npm", ["run", "--silent", "architecture"]);
  if (wanted("jest")) {
    await jest().catch((error) => {
      process.stderr.write(`${error.stack ?? error}\n`);
      count("Jest could not run", { passed: 0, failed: 1 });
    });
  }
  if (wanted("browser")) {
    await browser().catch((error) => {
      process.stderr.write(`${error.stack ?? error}\n`);
      count("Browser tests could not run", { passed: 0, failed: 1 });
    });
  }
});
if (process.exitCode && total.failed === 0) total.failed = 1;
if (total.failed > 0) process.exitCode = 1;
say(`${total.passed} passed, ${total.failed} failed`);
process.exit();
