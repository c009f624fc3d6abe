import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const path = (relative: string) => fileURLToPath(new URL(relative, import.meta.url));

/** The tasks of the threads are files of their own, built beside the server. */
export default defineConfig({
  publicDir: false,
  resolve: { alias: { "~": path("./app"), "@core": path("./core/index.ts") } },
  ssr: { noExternal: true, target: "node" },
  build: {
    ssr: true,
    outDir: "build/threads",
    target: "node20",
    rollupOptions: {
      input: {
        assess: path("./app/domain/condition/assessTask.ts"),
        circuit: path("./app/domain/circuits/circuitTask.ts"),
        evidence: path("./app/domain/isolation/evidenceTask.ts"),
        testPoints: path("./app/domain/isolation/testPointsTask.ts"),
        diagnose: path("./app/domain/isolation/diagnoseTask.ts"),
      },
      output: { entryFileNames: "[name].js", format: "es" },
    },
  },
});
