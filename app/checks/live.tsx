/** The live panel of a load test: gauge and meter move, steps are taken when it holds still. */
import { useState } from "react";
import type { TesterSample } from "@core";
import { Button } from "~/ui/form";
import { useShow } from "~/ui/site";
import { useTester, type Live } from "./useTester";
import { counted } from "~/ui/counted";

const words: Record<Live["state"], string> = {
  off: "",
  connecting: "waiting for the tester",
  live: "live",
  silent: "no signal: looking for it again",
  stuck: "the value does not move at all: the meter is stuck, no step is taken",
};

export function LivePanel({
  onStep,
  onClear,
  steps,
}: {
  onStep(step: TesterSample): void;
  onClear(): void;
  steps: number;
}) {
  const show = useShow();
  const { live, on, setOn, turn, forget } = useTester(onStep);
  const [relief, setRelief] = useState(10);
  const [speed, setSpeed] = useState(1450);
  const [oil, setOil] = useState<number | null>(null);
  const calm = live.state === "live" || live.state === "connecting";
  const figure = (value: string, label: string) => (
    <div>
      <p className="text-[1.9rem] leading-tight font-semibold">{value}</p>
      <p className="text-sm text-ink-2">{label}</p>
    </div>
  );
  return (
    <section aria-label="Live tester" className="mb-4 border-y border-line py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2>Live from the tester</h2>
        <span role="status" className={`text-sm font-semibold ${calm ? "text-sea" : "text-ochre"}`}>
          {words[live.state]}
          {live.bad > 0 ? ` · ${counted(live.bad, "line")} rejected` : ""}
          {live.breaks > 0 ? ` · lost ${counted(live.breaks, "time")}` : ""}
        </span>
        <Button
          type="button"
          tone={on ? "plain" : "main"}
          onClick={() => {
            if (!on) void turn({ relief, speed, oil, dropout: 0, nonsense: 0, stuck: false });
            setOn(!on);
          }}
        >
          {on ? "Stop listening" : "Listen to the tester"}
        </Button>
      </div>
      {on ? (
        <>
          <div className={`mt-2 grid grid-cols-3 gap-3 ${calm ? "" : "opacity-50"}`}>
            {figure(live.now ? show(live.now.pressure, "loadPressure") : "–", "pressure")}
            {figure(live.now ? show(live.now.flow, "flow") : "–", "flow")}
            {figure(live.now ? show(live.now.temperature, "oilTemperature") : "–", "oil")}
          </div>
          <label className="mt-3 block text-sm text-ink-2">
            {`Relief, screwed in (simulated tester): ${show(relief, "loadPressure")}`}
            <input
              type="range"
              min={5}
              max={260}
              step={5}
              value={relief}
              onChange={(e) => {
                setRelief(Number(e.target.value));
                void turn({ relief: Number(e.target.value) });
              }}
              className="mt-1 block h-11 w-full accent-sea"
            />
          </label>
          <div className="grid grid-cols-2 gap-4">
            <label className="block text-sm text-ink-2">
              {`Speed: ${show(speed, "speed")}`}
              <input
                type="range"
                min={600}
                max={1800}
                step={50}
                value={speed}
                onChange={(e) => {
                  setSpeed(Number(e.target.value));
                  void turn({ speed: Number(e.target.value) });
                }}
                className="mt-1 block h-11 w-full accent-sea"
              />
            </label>
            <label className="block text-sm text-ink-2">
              {`Oil: ${oil === null ? "by itself" : show(oil, "oilTemperature")}`}
              <input
                type="range"
                min={15}
                max={80}
                step={5}
                value={oil ?? 45}
                onChange={(e) => {
                  setOil(Number(e.target.value));
                  void turn({ oil: Number(e.target.value) });
                }}
                className="mt-1 block h-11 w-full accent-sea"
              />
            </label>
          </div>
          <p className="mt-1 flex flex-wrap items-center gap-3 text-sm text-ink-2">
            <span role="status">{`${counted(steps, "step")} taken. One is taken when it holds still at a new pressure.`}</span>
            <Button
              type="button"
              tone="plain"
              onClick={() => {
                forget();
                onClear();
              }}
            >
              Begin the steps anew
            </Button>
            <span className="flex flex-wrap gap-2">
              Try a fault:{" "}
              <button type="button" className="way" onClick={() => void turn({ dropout: 1 })}>
                drop out
              </button>
              <button type="button" className="way" onClick={() => void turn({ nonsense: 0.5 })}>
                nonsense
              </button>
              <button type="button" className="way" onClick={() => void turn({ stuck: true })}>
                stuck
              </button>
              <button
                type="button"
                className="way"
                onClick={() => void turn({ dropout: 0, nonsense: 0, stuck: false })}
              >
                none
              </button>
            </span>
          </p>
        </>
      ) : null}
    </section>
  );
}
