/** A circuit played in time: pressures over seconds, and what happened in words. */
import { useEffect, useId, useMemo, useState } from "react";
import {
  formatNumber,
  portKey,
  pressureAt,
  scenarios,
  scenariosOf,
  type CourseLine,
  type Netlist,
  type ScenarioId,
} from "@core";
import { calculatorChart } from "~/ui/charts/calculation";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Section } from "~/ui/page";
import { useShow, useSite } from "~/ui/site";
import type { CourseAnswer } from "./whatIf.worker";

/** The moment that the diagram shows. */
function Moment(props: {
  lines: readonly CourseLine[];
  onShow: (readouts: ReadonlyMap<string, string> | null) => void;
}) {
  const { lines, onShow } = props;
  const end = lines[0]!.points.at(-1)![0];
  const [t, setT] = useState(0);
  const id = useId();
  const show = useShow();
  const at = new Map(lines.map((l) => [portKey(l), show(pressureAt(l, t), "loadPressure")]));
  const text = JSON.stringify([...at]);
  useEffect(() => onShow(new Map(JSON.parse(text) as [string, string][])), [text, onShow]);
  useEffect(() => () => onShow(null), [onShow]);
  return (
    <div className="flex items-center gap-3 py-2 text-sm">
      <label htmlFor={id}>Diagram at</label>
      <input
        id={id}
        type="range"
        min={0}
        max={end}
        step={end / 200}
        value={t}
        aria-valuetext={`${formatNumber(t, 1)} s: ${lines.map((l) => `${l.label} ${at.get(portKey(l))}`).join("; ")}`}
        onChange={(e) => setT(Number(e.target.value))}
        className="min-w-0 flex-1 accent-[var(--sea)] max-lg:min-h-11"
      />
      <output className="w-16 text-right">{formatNumber(t, 1)} s</output>
    </div>
  );
}

export function InTime(props: {
  netlist: Netlist;
  course: CourseAnswer | null;
  onPlay: (scenario: ScenarioId) => void;
  /** Pressures by port at the moment chosen; null: none is shown. */
  onMoment: (readouts: ReadonlyMap<string, string> | null) => void;
}) {
  const { netlist, course, onPlay, onMoment } = props;
  const { units } = useSite();
  const [chosen, setChosen] = useState<ScenarioId | null>(null);
  const make = useMemo(
    () =>
      calculatorChart(
        {
          x: { label: "time, s" },
          y: { label: "pressure", quantity: "loadPressure" },
          series: (course?.lines ?? []).map((l, i) => ({
            ...l,
            style: i < 3 ? ("line" as const) : ("dashed" as const),
          })),
        },
        units,
      ),
    [course, units],
  );
  return (
    <Section title="In time" aside={chosen && !course ? "computing …" : undefined} className="mt-5">
      <div className="flex flex-wrap gap-x-5 gap-y-1 py-2">
        {scenariosOf(netlist).map((id) => (
          <button
            key={id}
            type="button"
            aria-pressed={chosen === id}
            className={chosen === id ? "act" : "way"}
            onClick={() => {
              setChosen(id);
              onPlay(id);
            }}
          >
            {scenarios[id].label}
          </button>
        ))}
      </div>
      {chosen ? (
        <p className="text-sm text-ink-2">{`${scenarios[chosen].says} With the faults and settings above.`}</p>
      ) : null}
      {course ? (
        <>
          <ul className="my-2 text-sm" aria-live="polite">
            {course.words.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
          {course.lines.length > 0 ? (
            <>
              <Moment key={course.course} lines={course.lines} onShow={onMoment} />
              <ChartCanvas make={make} height={280} label={`Pressures over time: ${scenarios[course.course].label}.`} />
            </>
          ) : null}
        </>
      ) : null}
    </Section>
  );
}
