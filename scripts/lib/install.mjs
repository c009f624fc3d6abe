/** Installs what the machine lacks: npm packages, PostgreSQL, Chromium. Node alone. */
import { createHash } from "node:crypto";
import { existsSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { Instruction, isRoot, projectDir, run, say, succeeds } from "./process.mjs";

/** npm packages, when the lock file is not the one they were installed from. */
export function ensurePackages() {
  const lock = createHash("sha256")
    .update(readFileSync(join(projectDir, "package-lock.json")))
    .digest("hex");
  const stamp = join(projectDir, "node_modules/.installed-from");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  say("Installing npm packages (once) …");
  // not `npm ci`: it refuses the lock file where a registry lacks an optional package of another platform.
  // --no-save keeps to the lock file and leaves it as it is.
  run("npm", ["install", "--no-save", "--include=dev", "--no-audit", "--no-fund"]);
  writeFileSync(stamp, lock);
}

let listsUpdated = false;

function aptInstall(packages, what) {
  if (!isRoot || !succeeds("which", ["apt-get"])) {
    throw new Instruction(`${what} is missing. Install it first: sudo apt-get install ${packages.join(" ")}`);
  }
  say(`Installing ${what} from the distribution's packages (once) …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  if (!listsUpdated) run("apt-get", ["update", "-q"], { env });
  listsUpdated = true;
  run("apt-get", ["install", "-y", "-q", "--no-install-recommends", ...packages], { env });
}

function newestPostgresBin() {
  const root = process.env.JUNCTERAL_POSTGRES_ROOT ?? "/usr/lib/postgresql";
  const versions = existsSync(root) ? readdirSync(root).filter((v) => existsSync(join(root, v, "bin/initdb"))) : [];
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest && join(root, newest, "bin");
}

/** The folder with initdb and pg_ctl. */
export function ensurePostgres() {
  const present = newestPostgresBin();
  if (present) return present;
  aptInstall(["postgresql"], "PostgreSQL");
  const installed = newestPostgresBin();
  if (!installed) throw new Instruction("PostgreSQL was installed but initdb is not under /usr/lib/postgresql.");
  return installed;
}

/** Debian's Chromium for the browser tests. */
export function ensureChromium() {
  const found = ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find((path) => existsSync(path));
  if (found) return found;
  aptInstall(["chromium"], "Chromium");
  return "/usr/bin/chromium";
}
