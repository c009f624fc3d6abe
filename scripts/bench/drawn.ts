/**
 * The seed of what is reported, so that nobody can tune to it: the hash of the last commit of an earlier day. It is the same all day,
 * whatever is committed; how often it was looked at is counted and printed.
 */
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";

const COUNTS = ".data/bench-runs.json";

export interface Drawn {
  seed: number;
  /** For the head of a table: whose seed it is, and the how-many-th look at it. */
  told: string;
}

export function drawnSeed(bench: string): Drawn {
  const git = (...args: string[]) => execFileSync("git", args, { encoding: "utf8" }).trim();
  const commit = git("log", "-1", "--before=midnight", "--format=%H") || git("rev-list", "--max-parents=0", "HEAD");
  const key = `${bench} ${commit.slice(0, 10)}`;
  const counts = existsSync(COUNTS) ? (JSON.parse(readFileSync(COUNTS, "utf8")) as Record<string, number>) : {};
  const look = (counts[key] ?? 0) + 1;
  mkdirSync(".data", { recursive: true });
  writeFileSync(COUNTS, JSON.stringify({ ...counts, [key]: look }, null, 2));
  return {
    seed: Number.parseInt(commit.slice(0, 7), 16),
    told: `seed of ${commit.slice(0, 10)}, look ${look} at it on this machine`,
  };
}
