/** A worker by its functions: each call is a promise, and all are refused when it does not load or dies. */
import { wrap, type Remote } from "comlink";

export interface Hired<T> {
  /** Call a function of the worker: `call((w) => w.solve(problem))`. */
  call<R>(ask: (worker: Remote<T>) => Promise<R>): Promise<R>;
  /** End it: what it was asked is never answered. */
  end(): void;
}

/** @param worker just made, whose file exposes `T` */
export function hired<T>(worker: Worker): Hired<T> {
  const remote = wrap<T>(worker);
  const died = new Promise<never>((_, reject) => {
    worker.addEventListener("error", () =>
      reject(new Error("The part of this page that computes did not load, or broke off. Load the page again.")),
    );
  });
  // refused to whoever asks; alone it is no error of the page
  died.catch(() => undefined);
  return { call: (ask) => Promise.race([ask(remote), died]), end: () => worker.terminate() };
}
