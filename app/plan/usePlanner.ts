/** The plan's solver in a thread of its own: a change asks anew and drops what was asked before. */
import { useEffect, useRef, useState } from "react";
import { proxy } from "comlink";
import type { PlanProblem } from "@core";
import { hired, type Hired } from "~/ui/hired";
import type { Planner, Solved } from "./planner.worker";

/** Gap at which it stops by itself, and seconds after which it does in any case. */
const UNTIL = { gap: 0.001, seconds: 60 };
/** Changes that follow one another are one, ms. */
const SETTLE = 200;

export function usePlanner(problem: PlanProblem): {
  solved: Solved | null;
  /** Why there is none; null: there is, or it is being looked for. */
  failed: string | null;
  unwished: number | null;
  /** Is `solved` the answer to what is asked now, or still the one to what was asked before? */
  fresh: boolean;
  solving: boolean;
  stop: () => void;
  again: () => void;
} {
  const planner = useRef<Hired<Planner> | null>(null);
  const [answer, setAnswer] = useState<{ solved: Solved; to: PlanProblem } | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [unwished, setUnwished] = useState<number | null>(null);
  const [solving, setSolving] = useState(true);
  const [round, setRound] = useState(0);

  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      // a solve cannot be called off: its thread ends, and what it found stays
      planner.current?.end();
      const own = hired<Planner>(new Worker(new URL("./planner.worker.ts", import.meta.url), { type: "module" }));
      planner.current = own;
      const isAsked = () => current && planner.current === own;
      setSolving(true);
      setFailed(null);
      setUnwished(null);
      const tell = (solved: Solved) => {
        if (isAsked()) setAnswer({ solved, to: problem });
      };
      void (async () => {
        try {
          tell(await own.call((w) => w.solve(problem, UNTIL, proxy(tell))));
          if (!isAsked()) return;
          setSolving(false);
          const free = await own.call((w) => w.unwished(problem, UNTIL));
          if (isAsked()) setUnwished(free);
        } catch (error) {
          if (!isAsked()) return;
          setSolving(false);
          setFailed(error instanceof Error ? error.message : "The plan cannot be solved.");
        }
      })();
    }, SETTLE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [problem, round]);

  useEffect(() => () => planner.current?.end(), []);

  const stop = () => {
    planner.current?.end();
    planner.current = null;
    setSolving(false);
  };
  const fresh = answer?.to === problem;
  return {
    solved: answer?.solved ?? null,
    failed,
    unwished: fresh ? unwished : null,
    fresh,
    solving,
    stop,
    again: () => setRound((n) => n + 1),
  };
}
