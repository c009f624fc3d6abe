/** The newest sample: counts over size against the target, codes and classes with their working. */
import { useMemo } from "react";
import { Link } from "react-router";
import {
  countIds,
  countSizes,
  countsOfCode,
  sampleCodes,
  type CalculatorChart,
  type OilAssessment,
  type OilSample,
} from "@core";
import { calculatorChart } from "~/ui/charts/calculation";
import { ChartCanvas } from "~/ui/charts/canvas";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";
import { WorkingTable } from "~/ui/working";

export function sizeChart(sample: OilSample, target: OilAssessment["target"]): CalculatorChart | null {
  const counted = countIds.flatMap((id): [number, number][] =>
    sample.results[id] ? [[countSizes[id], Math.max(0.005, sample.results[id].value)]] : [],
  );
  if (counted.length < 2) return null;
  return {
    x: { label: "size, µm(c)", log: true },
    y: { label: "particles over this size", quantity: "count", log: true },
    series: [
      { label: "sample", style: "line", points: counted },
      { label: "", style: "points", points: counted },
      ...(target
        ? [
            {
              label: `target ${target.text}`,
              style: "dashed" as const,
              points: [4, 6, 14].map((size, i): [number, number] => [size, countsOfCode(target.codes[i]!).upTo]),
            },
          ]
        : []),
    ],
  };
}

export function CodeLines({
  sample,
  target,
  over,
}: {
  sample: OilSample;
  target: OilAssessment["target"];
  over: OilAssessment["over"];
}) {
  const codes = sampleCodes(sample);
  if (!codes) return <p className="py-2 text-ink-2">No particle count in this sample.</p>;
  return (
    <>
      <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1 py-2">
        <dt className="text-ink-2">ISO 4406</dt>
        <dd>
          <strong className="font-semibold">{codes.iso.text}</strong>
          {codes.from === "code" ? ", as the laboratory wrote it" : ""}
        </dd>
        {target ? (
          <>
            <dt className="text-ink-2">Target</dt>
            <dd>
              {target.text}, {target.because}
            </dd>
          </>
        ) : (
          <>
            <dt className="text-ink-2">Target</dt>
            <dd>none: no part asks for one</dd>
          </>
        )}
        {target && over.length > 0 ? (
          <>
            <dt className="text-ink-2">Over target</dt>
            <dd>
              {over
                .map(
                  (o, i) =>
                    `${o === null ? "not counted" : o === Infinity ? "too many to count" : o <= 0 ? "met" : `+${o}`}` +
                    ` over ${[4, 6, 14][i]} µm`,
                )
                .join(", ")}
            </dd>
          </>
        ) : null}
        {codes.nas ? (
          <>
            <dt className="text-ink-2">NAS 1638</dt>
            <dd>{`${codes.nas.text.replace("NAS 1638 ", "")}, by ${codes.nas.decides} µm`}</dd>
          </>
        ) : null}
        {codes.as ? (
          <>
            <dt className="text-ink-2">SAE AS4059</dt>
            <dd>{`${codes.as.text.replace("SAE AS4059 ", "")}, by ${codes.as.decides} µm(c)`}</dd>
          </>
        ) : null}
      </dl>
      {codes.disagrees ? <p className="text-sm text-ochre">{codes.disagrees}</p> : null}
      <details className="mt-1">
        <summary className="text-sm text-sea">Show the working</summary>
        <WorkingTable working={codes.working} />
      </details>
    </>
  );
}

export function SizeSection({
  sample,
  target,
  over,
}: {
  sample: OilSample;
  target: OilAssessment["target"];
  over: OilAssessment["over"];
}) {
  const site = useSite();
  const make = useMemo(() => {
    const chart = sizeChart(sample, target);
    return chart ? calculatorChart(chart, site.units) : null;
  }, [sample, target, site.units]);
  return (
    <Section
      title={
        <>
          Newest comparable sample,{" "}
          <Link to={`/oil/samples/${sample.id}`} className="way">
            {sample.number}
          </Link>
        </>
      }
      aside={dayText(sample.at, site)}
    >
      <div className="grid gap-x-8 xl:grid-cols-2">
        <div>
          <CodeLines sample={sample} target={target} over={over} />
        </div>
        {make ? (
          <div className="mt-2">
            <ChartCanvas
              make={make}
              height={240}
              label="Particles over each size against the target, both on log scales. The working holds the numbers."
            />
          </div>
        ) : null}
      </div>
    </Section>
  );
}
