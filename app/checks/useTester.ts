/** A live tester read line by line: goes on after silence, counts what cannot be believed, takes steps that hold still. */
import { useCallback, useEffect, useRef, useState } from "react";
import { isNewStep, isStuck, readTesterLine, stillStep, type TesterSample, type Timed } from "@core";

const KEPT = 120;
const SILENT_MS = 2000;
const AGAIN_MS = 1500;
const SHOW_MS = 200;

export interface Live {
  state: "off" | "connecting" | "live" | "silent" | "stuck";
  now: TesterSample | null;
  bad: number;
  breaks: number;
}

export function useTester(onStep: (step: TesterSample) => void) {
  const [on, setOn] = useState(false);
  const [live, setLive] = useState<Live>({ state: "off", now: null, bad: 0, breaks: 0 });
  const taken = useRef<TesterSample[]>([]);
  const step = useRef(onStep);
  useEffect(() => {
    step.current = onStep;
  });

  useEffect(() => {
    if (!on) return;
    const abort = new AbortController();
    const samples: Timed[] = [];
    let last = performance.now();
    let bad = 0;
    let breaks = 0;
    const take = (line: string) => {
      if (!line.trim()) return;
      const read = readTesterLine(line);
      if (!read.ok) return void bad++;
      last = performance.now();
      samples.push({ ...read.sample, at: last });
      if (samples.length > KEPT) samples.shift();
      const still = stillStep(samples);
      if (still && isNewStep(still, taken.current)) {
        taken.current.push(still);
        step.current(still);
      }
    };
    const listen = async () => {
      while (!abort.signal.aborted) {
        try {
          const answer = await fetch("/tests/tester", { signal: abort.signal });
          if (!answer.ok || !answer.body) throw new Error("no stream");
          const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
          let rest = "";
          for (;;) {
            const { value, done } = await reader.read();
            if (done) break;
            const parts = (rest + value).split("\n");
            rest = parts.pop()!.slice(-10_000);
            parts.forEach(take);
          }
        } catch {
          if (abort.signal.aborted) return;
        }
        breaks++;
        await new Promise((next) => setTimeout(next, AGAIN_MS));
      }
    };
    void listen();
    const timer = setInterval(
      () =>
        setLive({
          state:
            samples.length === 0
              ? "connecting"
              : performance.now() - last > SILENT_MS
                ? "silent"
                : isStuck(samples)
                  ? "stuck"
                  : "live",
          now: samples[samples.length - 1] ?? null,
          bad,
          breaks,
        }),
      SHOW_MS,
    );
    return () => {
      abort.abort();
      clearInterval(timer);
    };
  }, [on]);

  const turn = useCallback(
    (knobs: Record<string, number | boolean | null>) =>
      fetch("/tests/tester", {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify(knobs),
      }).then(
        () => undefined,
        () => undefined,
      ),
    [],
  );
  return {
    live: on ? live : { ...live, state: "off" as const },
    on,
    setOn,
    turn,
    forget: () => {
      taken.current = [];
    },
  };
}
