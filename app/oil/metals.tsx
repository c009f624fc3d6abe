/** Wear metals: a table of what each says by its own history, its peers and fixed limits, and the chosen one over time. */
import { useMemo, useState } from "react";
import { useFetcher } from "react-router";
import { analytes, formatNumber, type AnalyteId, type MetalAlarm, type MetalPoint } from "@core";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Section } from "~/ui/page";
import { metalChart } from "./metalChart";

const number = (value: number | null, digits = 1) => (value === null ? "–" : formatNumber(value, digits));
const passedText: Record<MetalAlarm["passed"][number], string> = {
  own: "its own history",
  peers: "its peers",
  fixed: "the fixed limit",
};

export function MetalSection({
  metals,
  first,
  circuitId,
  axis,
}: {
  metals: readonly MetalAlarm[];
  first: { id: AnalyteId; points: MetalPoint[] };
  circuitId: string;
  axis: Parameters<typeof metalChart>[3];
}) {
  const [chosen, setChosen] = useState<AnalyteId>(first.id);
  const fetched = useFetcher<{ id: AnalyteId; points: MetalPoint[] }>();
  const metal = metals.find((m) => m.id === chosen) ?? metals[0]!;
  const points = chosen === first.id ? first.points : fetched.data?.id === chosen ? fetched.data.points : null;
  const make = useMemo(
    () => (points ? metalChart(analytes[metal.id].label, points, metal.since, axis) : null),
    [points, metal, axis],
  );
  const choose = (id: AnalyteId) => {
    setChosen(id);
    if (id !== first.id) void fetched.load(`/oil/${circuitId}/metal/${id}`);
  };
  return (
    <Section title="Wear metals and dirt, ppm" aside="made per 1000 running hours, corrected for top-ups">
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Wear metals">
        <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">metal</th>
              <th scope="col" className="text-right">
                read
              </th>
              <th scope="col" className="text-right">
                usually
              </th>
              <th scope="col" className="text-right">
                corrected
              </th>
              <th scope="col" className="text-right">
                rate now
              </th>
              <th scope="col" className="text-right">
                usual rate
              </th>
              <th scope="col" className="text-right">
                peers
              </th>
              <th scope="col" className="text-right">
                fixed limit
              </th>
              <th scope="col">beyond</th>
            </tr>
          </thead>
          <tbody>
            {metals.map((m) => (
              <tr key={m.id} className={`ruled ${m.id === metal.id ? "bg-sea-soft" : ""}`}>
                <td>
                  <button
                    type="button"
                    aria-pressed={m.id === metal.id}
                    onClick={() => choose(m.id)}
                    className="min-h-7 max-lg:min-h-11 hover:underline"
                  >
                    {analytes[m.id].label}
                  </button>
                </td>
                <td className="text-right">
                  {m.below ? "< " : ""}
                  {number(m.raw)}
                </td>
                <td className="text-right text-ink-2">{m.usualRaw === null ? "too little" : number(m.usualRaw)}</td>
                <td className="text-right">{number(m.corrected)}</td>
                <td className="text-right">{number(m.rate)}</td>
                <td className="text-right">{number(m.usual)}</td>
                <td className="text-right">{number(m.peers)}</td>
                <td className="text-right">
                  {number(m.fixed, 0)}
                  {m.fixedStated ? <span className="text-ink-2"> stated</span> : null}
                </td>
                <td className={m.passed.length ? "text-verm" : "text-ink-2"}>
                  {m.passed.length ? m.passed.map((p) => passedText[p]).join(", ") : "nothing"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-3 min-h-[220px]">
        {make ? (
          <ChartCanvas
            make={make}
            height={220}
            label={`${analytes[metal.id].label} in ppm over time, as read and corrected for top-ups. The samples hold the numbers.`}
          />
        ) : (
          <p className="pt-4 text-ink-2" role="status">
            Fetching its readings…
          </p>
        )}
      </div>
      <p className="text-sm text-ink-2">
        {"● "}
        {`${analytes[metal.id].label.toLowerCase()} corrected for top-ups ○ as read. Peers: 95 % of their ` +
          "samples stay below this. Fixed limits are typical unless marked as stated: the laboratory’s or " +
          "manufacturer’s own come first."}
      </p>
    </Section>
  );
}
