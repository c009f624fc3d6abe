/**
 * node scripts/isolate.mjs cases.jsonl: walks cases of anybody's own without the interface. One JSON object a line; ids and
 * an example are in docs/isolation.md. For each: the order of tests, the odds after each, and the answer.
 */
import { existsSync } from "node:fs";
import { ensurePackages } from "./lib/install.mjs";
import { bin, command, follow } from "./lib/process.mjs";

await command(async () => {
  const [file] = process.argv.slice(2);
  if (!file || !existsSync(file)) throw new Error("Give a file of cases: node scripts/isolate.mjs cases.jsonl");
  ensurePackages();
  const { code } = await follow(bin("tsx"), ["scripts/isolation/cases.ts", file]);
  process.exitCode = code;
});
