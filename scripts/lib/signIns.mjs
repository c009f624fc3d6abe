/** Passwords of the demo's three people: made once, kept beside its database. */
import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { projectDir } from "./process.mjs";

const file = join(projectDir, ".data/demo/sign-ins.json");

/** The kept passwords by sign-in name; made where there are none, or none that can be read. */
export function readSignIns() {
  if (existsSync(file)) {
    try {
      return JSON.parse(readFileSync(file, "utf8"));
    } catch {
      rmSync(file);
    }
  }
  const made = Object.fromEntries(
    ["engineer", "technician", "viewer"].map((name) => [name, randomBytes(6).toString("base64url")]),
  );
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, JSON.stringify(made), { mode: 0o600 });
  return made;
}

export function forgetSignIns() {
  rmSync(file, { force: true });
}
