import { fileURLToPath } from "node:url";
import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

const path = (relative: string) => fileURLToPath(new URL(relative, import.meta.url));

export default defineConfig({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { alias: { "~": path("./app"), "@core": path("./core/index.ts"), "@demo": path("./demo") } },
  environments: { ssr: { build: { rollupOptions: { input: "./app/server.ts" } } } },
});
