/** npm test: types, lint, architecture, Jest, then Playwright against the built application and a database of its own. */
import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { browserTests } from "./lib/browserTests.mjs";
import { ensurePackages } from "./lib/install.mjs";
import { bin, command, follow, projectDir, say } from "./lib/process.mjs";
import { NOW, readReport, withDatabase } from "./lib/testing.mjs";

/** `npm test -- browser` runs that part alone: types, lint, architecture, jest or browser; `npm test -- browser rounds` one file of it. */
const only = process.argv[2];
const wanted = (part) => only === undefined || only === part;

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

/** What needs no database, side by side: each takes one core. Types of the routes first, which two of them read. */
async function statics() {
  const parts = [
    ["types", bin("tsc"), ["--noEmit"]],
    ["lint", "npm", ["run", "--silent", "lint"]],
    ["architecture", "npm", ["run", "--silent", "architecture"]],
  ].filter(([part]) => wanted(part));
  if (parts.length === 0) return;
  await follow(bin("react-router"), ["typegen"], { show: false });
  await Promise.all(parts.map(([part, program, args]) => step(part[0].toUpperCase() + part.slice(1), program, args)));
}

async function jest() {
  const report = join(projectDir, "test-results/jest.json");
  const { code } = await withDatabase("test", "jest", (url) =>
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
  const counts = await browserTests(process.argv.slice(3));
  for (const { name, ...counted } of counts) count(name, counted);
}

await command(async () => {
  ensurePackages();
  rmSync(join(projectDir, "test-results"), { recursive: true, force: true });
  mkdirSync(join(projectDir, "test-results"), { recursive: true });
  await statics();
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
