/** Computation beside the event loop: a few threads that judge, so that no page waits for one. */
import { existsSync } from "node:fs";
import { availableParallelism } from "node:os";
import { resolve } from "node:path";
import { Piscina } from "piscina";
import assessTask, { type AssessResult, type AssessTask } from "./assessTask";

/** Built beside the server; tests of single modules have none and judge in place. */
const script = resolve("build/threads/assess.js");
/** One core is left to the event loop. */
const MOST_THREADS = 4;

export type { AssessResult };

let pool: Piscina<AssessTask, AssessResult> | undefined;

function threads(): Piscina<AssessTask, AssessResult> {
  pool ??= new Piscina<AssessTask, AssessResult>({
    filename: script,
    minThreads: 1,
    maxThreads: Math.max(1, Math.min(MOST_THREADS, availableParallelism() - 1)),
    idleTimeout: 60_000,
  });
  return pool;
}

/** Judge one point in a thread. Rejects when the task throws. */
export async function assessInThread(task: AssessTask): Promise<AssessResult> {
  return process.env.NODE_ENV === "production" && existsSync(script) ? threads().run(task) : assessTask(task);
}

export async function closeThreads(): Promise<void> {
  const open = pool;
  pool = undefined;
  await open?.destroy();
}
