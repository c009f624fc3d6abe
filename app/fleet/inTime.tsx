/** A circuit played in time: pressures over seconds, and what happened in words. */
import { useMemo, useState } from "react";
import { scenarios, scenariosOf, type Netlist, type ScenarioId } from "@core";
import { calculatorChart } from "~/ui/charts/calculation";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Section } from "~/ui/page";
import { useSite } from "~/ui/site";
import type { CourseAnswer } from "./whatIf.worker";

export function InTime(props: {
  netlist: Netlist;
  course: CourseAnswer | null;
  onPlay: (scenario: ScenarioId) => void;
}) {
  const { netlist, course, onPlay } = props;
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
        <p className="text-sm text-ink-2">{scenarios[chosen].says} With the faults and settings above.</p>
      ) : null}
      {course ? (
        <>
          <ul className="my-2 text-sm" aria-live="polite">
            {course.words.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
          {course.lines.length > 0 ? (
            <ChartCanvas make={make} height={280} label={`Pressures over time: ${scenarios[course.course].label}.`} />
          ) : null}
        </>
      ) : null}
    </Section>
  );
}
