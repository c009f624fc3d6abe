/** The circuit's solver in a thread of its own: the newest question is answered, older ones are dropped. */
import { useEffect, useRef, useState } from "react";
import type { Circumstances, Explanation, Netlist, PresentGauge, ReadingState, ScenarioId } from "@core";
import { hired, type Hired } from "~/ui/hired";
import type { Answer, CircuitSolver, CourseAnswer } from "./whatIf.worker";

const CANNOT = "The circuit cannot be computed.";
const said = (error: unknown) => (error instanceof Error ? error.message : CANNOT);

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
  const solver = useRef<Hired<CircuitSolver> | null>(null);
  const newest = useRef(asked);
  const busy = useRef(false);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [course, setCourse] = useState<CourseAnswer | null>(null);
  const [explanations, setExplanations] = useState<Explanation[] | null>(null);

  /** What `then` does with an answer, unless another circuit was given meanwhile. */
  function ask<R>(
    own: Hired<CircuitSolver>,
    call: Parameters<typeof own.call<R>>[0],
    then: (found: R) => void,
    otherwise?: () => void,
  ): Promise<void> {
    return own.call(call).then(
      (found) => {
        if (solver.current !== own) return;
        setFailed(null);
        then(found);
      },
      (error: unknown) => {
        if (solver.current !== own) return;
        setFailed(said(error));
        otherwise?.();
      },
    );
  }

  useEffect(() => {
    const own = hired<CircuitSolver>(new Worker(new URL("./whatIf.worker.ts", import.meta.url), { type: "module" }));
    solver.current = own;
    busy.current = false;
    void ask(
      own,
      (w) => w.setUp(netlist, states, healthy),
      () => undefined,
    );
    return () => {
      solver.current = null;
      own.end();
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
        await ask(own, (w) => w.ask(next), setAnswer);
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
        setExplanations,
        () => setExplanations([]),
      );
  };
  return { answer, failed, course, start, explanations, explain };
}
