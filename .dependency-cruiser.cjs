/** The arrows of the architecture run one way; this is what keeps them so. */
const places = [
  "today",
  "fleet",
  "points",
  "work",
  "records",
  "bench",
  "rounds",
  "instruments",
  "tests",
  "oil",
  "account",
  "shell",
];

module.exports = {
  forbidden: [
    { name: "no-circular", severity: "error", from: {}, to: { circular: true, dependencyTypesNot: ["type-only"] } },
    {
      name: "core-is-pure",
      comment: "core knows no React, DOM, Node, database or application",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
      to: { path: "^(app|demo|scripts)/|node_modules/(react|react-dom|react-router|drizzle-orm|pg|pg-boss)/" },
    },
    {
      name: "core-no-node",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$" },
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
      name: "ui-below-places",
      severity: "error",
      from: { path: "^app/ui/" },
      to: { path: `^app/(${places.join("|")}|db|platform)/` },
    },
    {
      name: "platform-below-places",
      severity: "error",
      from: { path: "^app/(platform|db)/" },
      to: { path: `^app/(${places.join("|")}|ui)/` },
    },
    {
      name: "routes-ask-queries",
      comment: "database access is in queries, commands and .server modules",
      severity: "error",
      from: { path: "^app/.*\\.tsx$" },
      to: { path: "^app/db/client|node_modules/drizzle-orm" },
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
      to: { couldNotResolve: true, pathNot: "virtual:|\\+types|\\.css" },
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
