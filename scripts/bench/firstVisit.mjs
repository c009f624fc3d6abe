/** Script that a first visit of Today loads, compressed: what the built manifest names for its routes. */
import { existsSync, readFileSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { projectDir } from "../lib/process.mjs";

const ROUTES = ["root", "shell/shell", "today/today"];

/** As the server sends it: the file beside it, which the build compressed, or itself where it is too short for that. */
function sent(path, ending) {
  return statSync(existsSync(path + ending) ? path + ending : path).size;
}

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
    const file = join(client, path);
    return { gzip: sent(file, ".gz"), brotli: sent(file, ".br") };
  });
  return {
    gzip: sizes.reduce((sum, s) => sum + s.gzip, 0),
    brotli: sizes.reduce((sum, s) => sum + s.brotli, 0),
  };
}
