import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const path = (relative: string) => fileURLToPath(new URL(relative, import.meta.url));

/** The judging thread is one file of its own, built beside the server. */
export default defineConfig({
  publicDir: false,
  resolve: { alias: { "~": path("./app"), "@core": path("./core/index.ts") } },
  ssr: { noExternal: true, target: "node" },
  build: {
    ssr: path("./app/domain/condition/assessTask.ts"),
    outDir: "build/threads",
    target: "node20",
    rollupOptions: { output: { entryFileNames: "assess.js", format: "es" } },
  },
});
