/** The circuit's solver in a thread of its own: the newest question is answered, older ones are dropped. */
import { useEffect, useRef, useState } from "react";
import type { Circumstances, Explanation, Netlist, PresentGauge, ReadingState, ScenarioId } from "@core";
import type { Answer, CourseAnswer, Explain, ExplainAnswer, Play, Question, Setup } from "./whatIf.worker";

export function useSolver(
  netlist: Netlist,
  states: readonly [string, ReadingState][],
  healthy: Circumstances,
  asked: Circumstances,
): {
  answer: Answer | null;
  course: CourseAnswer | null;
  start: (scenario: ScenarioId) => void;
  explanations: Explanation[] | null;
  explain: (gauges: PresentGauge[]) => void;
} {
  const worker = useRef<Worker | null>(null);
  const newest = useRef(0);
  const busy = useRef(false);
  const waiting = useRef<Circumstances | null>(null);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [course, setCourse] = useState<CourseAnswer | null>(null);
  const [explanations, setExplanations] = useState<Explanation[] | null>(null);

  useEffect(() => {
    const w = new Worker(new URL("./whatIf.worker.ts", import.meta.url), { type: "module" });
    worker.current = w;
    busy.current = false;
    w.postMessage({ kind: "setup", netlist, states: [...states], healthy } satisfies Setup);
    w.onmessage = ({ data }: MessageEvent<Answer | CourseAnswer | ExplainAnswer>) => {
      if ("course" in data) {
        setCourse(data);
        return;
      }
      if ("explanations" in data) {
        setExplanations(data.explanations);
        return;
      }
      busy.current = false;
      if (data.id === newest.current) setAnswer(data);
      if (waiting.current) {
        const next = waiting.current;
        waiting.current = null;
        busy.current = true;
        w.postMessage({ kind: "ask", id: newest.current, asked: next } satisfies Question);
      }
    };
    return () => {
      worker.current = null;
      busy.current = false;
      waiting.current = null;
      w.terminate();
    };
  }, [netlist, states, healthy]);

  useEffect(() => {
    const id = ++newest.current;
    if (busy.current) {
      waiting.current = asked;
      return;
    }
    busy.current = true;
    worker.current?.postMessage({ kind: "ask", id, asked } satisfies Question);
    // a new worker knows nothing yet: it is asked again
  }, [asked, netlist, states, healthy]);

  const start = (scenario: ScenarioId) => {
    setCourse(null);
    worker.current?.postMessage({ kind: "play", scenario, asked } satisfies Play);
  };
  const explain = (gauges: PresentGauge[]) => {
    setExplanations(null);
    worker.current?.postMessage({ kind: "explain", gauges } satisfies Explain);
  };
  return { answer, course, start, explanations, explain };
}
