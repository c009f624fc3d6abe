/** The plan's solver in a thread of its own: a change asks anew and drops what was asked before. */
import { useEffect, useRef, useState } from "react";
import type { PlanProblem } from "@core";
import type { Solve, Solved, Unwished } from "./planner.worker";

/** Gap at which it stops by itself, and seconds after which it does in any case. */
const GAP = 0.001;
const SECONDS = 60;
/** Changes that follow one another are one, ms. */
const SETTLE = 200;

export function usePlanner(problem: PlanProblem): {
  solved: Solved | null;
  unwished: number | null;
  /** Is `solved` the answer to what is asked now, or still the one to what was asked before? */
  fresh: boolean;
  solving: boolean;
  stop: () => void;
  again: () => void;
} {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<{ solved: Solved; to: PlanProblem } | null>(null);
  const [unwished, setUnwished] = useState<number | null>(null);
  const [solving, setSolving] = useState(true);
  const [round, setRound] = useState(0);

  useEffect(() => {
    const id = ++asked.current;
    const timer = setTimeout(() => {
      // a solve cannot be called off: its thread ends, and what it found stays
      worker.current?.terminate();
      const w = new Worker(new URL("./planner.worker.ts", import.meta.url), { type: "module" });
      worker.current = w;
      setSolving(true);
      setUnwished(null);
      w.onmessage = ({ data }: MessageEvent<Solved | Unwished>) => {
        if (data.id !== asked.current) return;
        if (data.kind === "unwished") {
          setUnwished(data.expected);
          return;
        }
        setAnswer({ solved: data, to: problem });
        if (data.kind !== "step") setSolving(false);
      };
      w.postMessage({ id, problem, gap: GAP, seconds: SECONDS } satisfies Solve);
    }, SETTLE);
    return () => clearTimeout(timer);
  }, [problem, round]);

  useEffect(() => () => worker.current?.terminate(), []);

  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setSolving(false);
  };
  const fresh = answer?.to === problem;
  return {
    solved: answer?.solved ?? null,
    unwished: fresh ? unwished : null,
    fresh,
    solving,
    stop,
    again: () => setRound((n) => n + 1),
  };
}
