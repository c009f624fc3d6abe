/** Wear metals: a table of what each says by its own history, its peers and fixed limits, and the chosen one over time. */
import { useMemo, useState } from "react";
import { useFetcher } from "react-router";
import { analytes, formatNumber, type AnalyteId, type MetalAlarm, type MetalPoint } from "@core";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Section } from "~/ui/page";
import { metalChart } from "./charts";
import { metals as texts } from "./texts";

const number = (value: number | null, digits = 1) => (value === null ? "–" : formatNumber(value, digits));
const passedText: Record<MetalAlarm["passed"][number], string> = {
  own: texts.itsOwnHistory,
  peers: texts.itsPeers,
  fixed: texts.theFixedLimit,
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
    <Section title={texts.wearMetalsAndDirt} aside={texts.madePer1000Running}>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={texts.wearMetals}>
        <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">{texts.metal}</th>
              <th scope="col" className="text-right">
                {texts.read}
              </th>
              <th scope="col" className="text-right">
                {texts.usually}
              </th>
              <th scope="col" className="text-right">
                {texts.corrected}
              </th>
              <th scope="col" className="text-right">
                {texts.rateNow}
              </th>
              <th scope="col" className="text-right">
                {texts.usualRate}
              </th>
              <th scope="col" className="text-right">
                {texts.peers}
              </th>
              <th scope="col" className="text-right">
                {texts.fixedLimit}
              </th>
              <th scope="col">{texts.beyond}</th>
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
                <td className="text-right text-ink-2">{m.usualRaw === null ? texts.tooLittle : number(m.usualRaw)}</td>
                <td className="text-right">{number(m.corrected)}</td>
                <td className="text-right">{number(m.rate)}</td>
                <td className="text-right">{number(m.usual)}</td>
                <td className="text-right">{number(m.peers)}</td>
                <td className="text-right">
                  {number(m.fixed, 0)}
                  {m.fixedStated ? <span className="text-ink-2"> {texts.stated}</span> : null}
                </td>
                <td className={m.passed.length ? "text-verm" : "text-ink-2"}>
                  {m.passed.length ? m.passed.map((p) => passedText[p]).join(", ") : texts.nothing}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-3 min-h-[220px]">
        {make ? (
          <ChartCanvas make={make} height={220} label={texts.inPpmOverTime(analytes[metal.id].label)} />
        ) : (
          <p className="pt-4 text-ink-2" role="status">
            {texts.fetchingItsReadings}
          </p>
        )}
      </div>
      <p className="text-sm text-ink-2">
        {"● "}
        {texts.correctedForTopUps(analytes[metal.id].label.toLowerCase())}
      </p>
    </Section>
  );
}
