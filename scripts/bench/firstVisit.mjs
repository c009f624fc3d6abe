/** Script that a first visit of Today loads, compressed: what the built manifest names for its routes. */
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import { projectDir } from "../lib/process.mjs";

const ROUTES = ["root", "shell/shell", "today/today"];

/** Returns bytes with gzip and with brotli. */
export function firstVisit() {
  const client = join(projectDir, "build/client");
  const file = readdirSync(join(client, "assets")).find((name) => name.startsWith("manifest-"));
  const text = readFileSync(join(client, "assets", file), "utf8");
  const manifest = JSON.parse(text.slice(text.indexOf("{"), text.lastIndexOf("}") + 1));
  const scripts = new Set([manifest.entry.module, ...manifest.entry.imports]);
  for (const id of ROUTES) {
    const route = manifest.routes[id];
    for (const path of [route.module, ...route.imports]) scripts.add(path);
  }
  const sizes = [...scripts].map((path) => {
    const code = readFileSync(join(client, path));
    return { gzip: gzipSync(code).length, brotli: brotliCompressSync(code).length };
  });
  return {
    gzip: sizes.reduce((sum, s) => sum + s.gzip, 0),
    brotli: sizes.reduce((sum, s) => sum + s.brotli, 0),
  };
}
