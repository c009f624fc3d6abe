/** The arrows of the architecture run one way; this is what keeps them so. */
const places = [
  "today",
  "fleet",
  "isolate",
  "points",
  "work",
  "records",
  "calculators",
  "rounds",
  "instruments",
  "procedures",
  "oil",
  "account",
  "shell",
];
const subjects = [
  "access",
  "assets",
  "circuits",
  "condition",
  "instruments",
  "isolation",
  "oil",
  "overview",
  "planning",
  "procedures",
  "readings",
  "rounds",
  "work",
];
const aPlace = `^app/(${places.join("|")})/`;
const tests = "\\.test\\.tsx?$";

module.exports = {
  forbidden: [
    { name: "no-circle", severity: "error", from: {}, to: { circular: true, dependencyTypesNot: ["type-only"] } },
    {
      name: "no-circle-of-folders",
      comment: "two folders that need each other are one, or a third is missing",
      scope: "folder",
      severity: "error",
      from: { path: "^(core/[^/]+|app/(runtime|db|platform|domain/[^/]+|ui))$" },
      to: { circular: true, path: "^(core/[^/]+|app/(runtime|db|platform|domain/[^/]+|ui))$" },
    },
    {
      name: "core-is-pure",
      comment: "core knows no React, DOM, Node, database or application",
      severity: "error",
      from: { path: "^core/", pathNot: tests },
      to: { path: "^(app|demo|scripts)/|node_modules/(react|react-dom|react-router|drizzle-orm|pg|pg-boss)/" },
    },
    {
      name: "core-no-node",
      severity: "error",
      from: { path: "^core/", pathNot: tests },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "core-by-its-face",
      comment: "the application imports core/index.ts and nothing else of core",
      severity: "error",
      from: { path: "^(app|demo)/" },
      to: { path: "^core/(?!index\\.ts$)" },
    },
    ...places.map((place) => ({
      name: `${place}-keeps-to-itself`,
      comment: "places do not import one another's insides",
      severity: "error",
      from: { path: `^app/${place}/` },
      to: { path: `^app/(${places.filter((p) => p !== place).join("|")})/`, pathNot: "\\+types" },
    })),
    {
      name: "tables-belong-to-the-domain",
      comment: "places ask the domain; only the domain and what serves it know tables and SQL",
      severity: "error",
      from: { path: `${aPlace}|^app/(device|sw)/`, pathNot: tests },
      to: { path: "^app/db/|node_modules/(drizzle-orm|pg)/" },
    },
    ...subjects.map((subject) => ({
      name: `domain-${subject}-by-its-index`,
      comment:
        "a subject of the domain uses another through its index, so that what is shared can be read in one place",
      severity: "error",
      from: { path: `^app/domain/(${subjects.filter((s) => s !== subject).join("|")})/`, pathNot: tests },
      to: { path: `^app/domain/${subject}/`, pathNot: "/index(\\.server)?\\.ts$" },
    })),
    {
      name: "domain-below-places",
      severity: "error",
      from: { path: "^app/domain/" },
      to: { path: `${aPlace}|^app/(ui|device|sw)/` },
    },
    {
      name: "ui-below-places",
      severity: "error",
      from: { path: "^app/ui/" },
      to: { path: `${aPlace}|^app/(db|platform|domain|runtime)/` },
    },
    {
      name: "platform-knows-no-pump",
      severity: "error",
      from: { path: "^app/platform/", pathNot: tests },
      to: { path: `${aPlace}|^app/(domain|ui)/` },
    },
    {
      name: "db-below-platform",
      severity: "error",
      from: { path: "^app/db/", pathNot: tests },
      to: { path: `${aPlace}|^app/(domain|ui|platform)/` },
    },
    {
      name: "runtime-below-all",
      severity: "error",
      from: { path: "^app/runtime/" },
      to: { path: "^app/(?!runtime/)" },
    },
    {
      name: "app-does-not-know-demo",
      severity: "error",
      from: { path: "^app/", pathNot: "^app/server\\.ts$" },
      to: { path: "^demo/" },
    },
    {
      name: "not-to-unresolvable",
      severity: "error",
      from: {},
      to: { couldNotResolve: true, pathNot: "virtual:|highs\\/runtime\\?url|\\+types|\\.css" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: "\\.react-router|\\+types",
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      extensions: [".ts", ".tsx", ".js", ".mjs"],
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
    },
  },
};
