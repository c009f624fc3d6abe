/** Computation beside the event loop: a few threads a kind of task, so that no page waits for one. */
import { existsSync } from "node:fs";
import { availableParallelism } from "node:os";
import { resolve } from "node:path";
import { Piscina } from "piscina";

const MOST_THREADS = 4;
/** One core is left to the event loop, which answers pages. */
let coresLeft = 1;

/** For a batch that answers nobody meanwhile: its threads take every core. To be called before its first task. */
export function takeEveryCore(): void {
  coresLeft = 0;
}

/** What a kind of task may take. */
export interface ThreadLimits {
  /** Threads at a time. */
  most?: number;
  /** Tasks that may wait for one; left out: as many as come. */
  waiting?: number;
  /** After so long a task is given up, waiting included, ms; left out: never. */
  givenUp?: number;
}

/** A task was not done: too many wait for its threads, or it took too long. */
export class ThreadsBusy extends Error {
  override name = "ThreadsBusy";
}

const open = new Set<Piscina>();

/**
 * A task that runs in threads of its own. Its file is built beside the server (vite.threads.config.ts); tests of single
 * modules and the development server have none and run it in place.
 * @param name of the built file
 * @param inPlace the task itself
 * @param limits of its threads
 * @returns runs one; rejects with ThreadsBusy beyond a limit
 */
export function inThreads<Task, Result>(
  name: string,
  inPlace: (task: Task) => Result | Promise<Result>,
  { most = MOST_THREADS, waiting, givenUp }: ThreadLimits = {},
): (task: Task) => Promise<Result> {
  const script = resolve(`build/threads/${name}.js`);
  let pool: Piscina<Task, Result> | undefined;
  return async (task) => {
    if (process.env.NODE_ENV !== "production" || !existsSync(script)) return inPlace(task);
    if (!pool || !open.has(pool)) {
      pool = new Piscina<Task, Result>({
        filename: script,
        minThreads: 0,
        maxThreads: Math.max(1, Math.min(most, availableParallelism() - coresLeft)),
        idleTimeout: 60_000,
        ...(waiting !== undefined && { maxQueue: waiting }),
      });
      open.add(pool);
    }
    if (waiting !== undefined && pool.queueSize >= waiting) throw new ThreadsBusy();
    if (givenUp === undefined) return pool.run(task);
    const signal = AbortSignal.timeout(givenUp);
    return pool.run(task, { signal }).catch((error: Error) => {
      throw signal.aborted ? new ThreadsBusy(error.message) : error;
    });
  };
}

export async function closeThreads(): Promise<void> {
  const pools = [...open];
  open.clear();
  await Promise.all(pools.map((pool) => pool.destroy()));
}
