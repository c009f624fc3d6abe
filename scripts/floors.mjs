/**
 * The floors of the house, drawn from its imports into docs/architecture.md.
 *
 *   node scripts/floors.mjs           writes the picture
 *   node scripts/floors.mjs --check   fails where the picture shows another house than the imports do
 */
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { cruise } from "dependency-cruiser";
import extractTSConfig from "dependency-cruiser/config-utl/extract-ts-config";

const PAGE = "docs/architecture.md";
const [BEGIN, END] = ["<!-- floors -->\n", "<!-- /floors -->"];

const OPTIONS = {
  doNotFollow: { path: "node_modules" },
  exclude: "\\.react-router|\\+types",
  tsPreCompilationDeps: true,
  tsConfig: { fileName: "tsconfig.json" },
  enhancedResolveOptions: { extensions: [".ts", ".tsx", ".js", ".mjs"], conditionNames: ["import"] },
};

/** The room of a file; undefined: a test, or nothing of ours. */
function roomOf(file) {
  if (/\.test\.tsx?$|^app\/domain\/testPlant|testDatabase|testing\.tsx$|testActor/.test(file)) return undefined;
  if (file.startsWith("core/")) return "core";
  const [, first, second] = /^app\/([^/]+)(?:\/([^/]+))?/.exec(file) ?? [];
  if (!first) return undefined;
  if (first === "domain") return second.includes(".") ? undefined : `domain/${second}`;
  return ["platform", "db", "runtime", "ui", "device"].includes(first) ? first : "places";
}

/** Rooms by the rooms that they use, without what follows from the others. */
async function floors() {
  const { output } = await cruise(["app", "core"], OPTIONS, undefined, { tsConfig: extractTSConfig("tsconfig.json") });
  const uses = new Map();
  for (const { source, dependencies } of output.modules) {
    const from = roomOf(source);
    if (!from) continue;
    const known = uses.get(from) ?? uses.set(from, new Set()).get(from);
    for (const { resolved } of dependencies) {
      const to = roomOf(resolved);
      if (to && to !== from) known.add(to);
    }
  }
  return uses;
}

/** Is a room reached by way of another one? */
function byAnother(uses, from, to) {
  const seen = new Set([from]);
  const next = [...uses.get(from)].filter((room) => room !== to);
  while (next.length > 0) {
    const room = next.pop();
    if (room === to) return true;
    if (seen.has(room)) continue;
    seen.add(room);
    next.push(...(uses.get(room) ?? []));
  }
  return false;
}

function picture(uses) {
  const name = (room) => room.replace("/", "_");
  const lines = [...uses]
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([from, to]) =>
      [...to]
        .sort()
        .filter((room) => !byAnother(uses, from, room))
        .map((room) => `  ${name(from)}[${from}] --> ${name(room)}[${room}]`),
    );
  return `\`\`\`mermaid\nflowchart TD\n${lines.join("\n")}\n\`\`\`\n`;
}

/** Files that the documents name and that are not there. */
function namedButGone() {
  return ["README.md", "CONTRIBUTING.md", PAGE, "docs/plan.md", "docs/isolation.md", "docs/forecast.md"].flatMap(
    (document) =>
      [...readFileSync(document, "utf8").matchAll(/`((?:app|core|demo|e2e|scripts|docs|reference)\/[\w./-]+)`/g)]
        .filter(([, path]) => !existsSync(path))
        .map(([, path]) => `${document} names ${path}, which is not there`),
  );
}

const page = readFileSync(PAGE, "utf8");
const [before, rest] = page.split(BEGIN);
const drawn = before + BEGIN + picture(await floors()) + END + rest.split(END)[1];
if (!process.argv.includes("--check")) writeFileSync(PAGE, drawn);
else {
  for (const gone of namedButGone()) {
    process.stderr.write(`${gone}\n`);
    process.exitCode = 1;
  }
}
if (process.argv.includes("--check") && drawn !== page) {
  process.stderr.write(`${PAGE} shows another house than the imports do: run node scripts/floors.mjs\n`);
  process.exitCode = 1;
}
