/** Builds the application when a source file changed since the last whole build. Node alone. */
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { bin, follow, projectDir, say } from "./process.mjs";

const sources = [
  "app",
  "core",
  "demo",
  "public",
  "package-lock.json",
  "vite.config.ts",
  "vite.sw.config.ts",
  "vite.threads.config.ts",
  "react-router.config.ts",
  "tsconfig.json",
];

function addTo(hash, path) {
  if (!existsSync(path)) return;
  if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) addTo(hash, join(path, name));
  else if (!/\.test\.tsx?$/.test(path)) hash.update(path).update(readFileSync(path));
}

/** Builds into build/; a half-finished build has no stamp and is built again. */
export async function ensureBuild() {
  const hash = createHash("sha256");
  for (const source of sources) addTo(hash, join(projectDir, source));
  const wanted = hash.digest("hex");
  const stamp = join(projectDir, "build/.built-from");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;

  const lock = join(projectDir, ".data/build.lock");
  mkdirSync(join(projectDir, ".data"), { recursive: true });
  for (;;) {
    try {
      mkdirSync(lock);
      break;
    } catch {
      if (Date.now() - (statSync(lock, { throwIfNoEntry: false })?.mtimeMs ?? 0) > 180_000)
        rmSync(lock, { recursive: true, force: true });
      else await new Promise((next) => setTimeout(next, 500));
    }
  }
  try {
    if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
    say("Building the application (a minute or so, several on a busy machine; only after it changed) …");
    rmSync(stamp, { force: true });
    const { code, output } = await follow(bin("react-router"), ["build"], {
      show: false,
      env: { ...process.env, NODE_ENV: "production" },
    });
    if (code !== 0) throw new Error(`The build failed:\n${output}`);
    const worker = await follow(bin("vite"), ["build", "--config", "vite.sw.config.ts"], {
      show: false,
      env: { ...process.env, NODE_ENV: "production" },
    });
    if (worker.code !== 0) throw new Error(`The build of the service worker failed:\n${worker.output}`);
    const threads = await follow(bin("vite"), ["build", "--config", "vite.threads.config.ts"], {
      show: false,
      env: { ...process.env, NODE_ENV: "production" },
    });
    if (threads.code !== 0) throw new Error(`The build of the judging thread failed:\n${threads.output}`);
    const smaller = await follow(process.execPath, [join(projectDir, "scripts/lib/compress.mjs")], { show: false });
    if (smaller.code !== 0) throw new Error(`The built files could not be compressed:\n${smaller.output}`);
    writeFileSync(stamp, wanted);
  } finally {
    rmSync(lock, { recursive: true, force: true });
  }
}
