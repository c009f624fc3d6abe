import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

/** The service worker is one file at the root of the site, built beside the application. */
export default defineConfig({
  publicDir: false,
  define: { "process.env.NODE_ENV": '"production"' },
  build: {
    outDir: "build/client",
    emptyOutDir: false,
    lib: {
      entry: fileURLToPath(new URL("./app/sw/worker.ts", import.meta.url)),
      formats: ["es"],
      fileName: () => "sw.js",
    },
  },
});
