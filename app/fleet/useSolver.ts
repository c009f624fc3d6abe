/** The circuit's solver in a thread of its own: the newest question is answered, older ones are dropped. */
import { useEffect, useRef, useState } from "react";
import type { Remote } from "comlink";
import type { Circumstances, Explanation, Netlist, PresentGauge, ReadingState, ScenarioId } from "@core";
import { hired, type Hired } from "~/ui/hired";
import type { Answer, CircuitSolver, CourseAnswer } from "./whatIf.worker";

/** A worker, and when it has taken its circuit in. */
interface Given {
  hired: Hired<CircuitSolver>;
  ready: Promise<void>;
}

export function useSolver(
  netlist: Netlist,
  states: readonly [string, ReadingState][],
  healthy: Circumstances,
  asked: Circumstances,
): {
  answer: Answer | null;
  /** Why there is no answer; null: there is, or it is being computed. */
  failed: string | null;
  course: CourseAnswer | null;
  start: (scenario: ScenarioId) => void;
  explanations: Explanation[] | null;
  explain: (gauges: PresentGauge[]) => void;
} {
  const solver = useRef<Given | null>(null);
  const newest = useRef(asked);
  const busy = useRef(false);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [course, setCourse] = useState<CourseAnswer | null>(null);
  const [explanations, setExplanations] = useState<Explanation[] | null>(null);

  /** Hands an answer on, or nothing and why, unless another circuit was given meanwhile. */
  function ask<R>(
    own: Given,
    call: (worker: Remote<CircuitSolver>) => Promise<R>,
    tell: (found: R | null) => void,
  ): Promise<void> {
    return own.ready
      .then(() => own.hired.call(call))
      .then(
        (found) => {
          if (solver.current === own) tell(found);
        },
        (error: unknown) => {
          if (solver.current !== own) return;
          setFailed(error instanceof Error ? error.message : "The circuit cannot be computed.");
          tell(null);
        },
      );
  }

  useEffect(() => {
    const worker = hired<CircuitSolver>(new Worker(new URL("./whatIf.worker.ts", import.meta.url), { type: "module" }));
    // what is asked waits for the circuit, and is refused with what is wrong with it
    const ready = worker.call((w) => w.setUp(netlist, states, healthy));
    ready.catch(() => undefined);
    solver.current = { hired: worker, ready };
    busy.current = false;
    return () => {
      solver.current = null;
      worker.end();
    };
  }, [netlist, states, healthy]);

  useEffect(() => {
    newest.current = asked;
    const own = solver.current;
    if (!own || busy.current) return;
    // one question at a time; when it is answered the newest is asked, if it is another one. A new worker knows nothing yet
    void (async () => {
      busy.current = true;
      let question: Circumstances | null = null;
      while (solver.current === own && question !== newest.current) {
        const next: Circumstances = newest.current;
        question = next;
        await ask(
          own,
          (w) => w.ask(next),
          (found) => {
            if (found) setFailed(null);
            setAnswer(found);
          },
        );
      }
      if (solver.current === own) busy.current = false;
    })();
  }, [asked, netlist, states, healthy]);

  const start = (scenario: ScenarioId) => {
    setCourse(null);
    if (solver.current) void ask(solver.current, (w) => w.play(scenario, asked), setCourse);
  };
  const explain = (gauges: PresentGauge[]) => {
    setExplanations(null);
    if (solver.current)
      void ask(
        solver.current,
        (w) => w.explain(gauges),
        (found) => setExplanations(found ?? []),
      );
  };
  return { answer, failed, course, start, explanations, explain };
}
