/** Pictures of a circuit's oil over time: counts on a log axis with their target, codes as steps, a metal as read and corrected. */
import { TZDate } from "@date-fns/tz";
import type { ChartConfiguration, ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import { addYears, format, startOfYear } from "date-fns";
import { countsOfCode, decimalsFor, formatNumber, type MetalPoint, type OilAssessment } from "@core";
import type { MakeChart } from "~/ui/charts/canvas";
import { faded, type Tone } from "~/ui/charts/tones";

const overSize = (size: number) => `over ${size} µm`;

interface Sampled {
  at: number;
  comparable: boolean;
  counts: (number | null)[];
  numbers: (number | null)[];
}

type XY = { x: number; y: number };
const figure = (value: number) => formatNumber(value, decimalsFor(value, 2));
const SIZES = [
  ["over4", 4, "sea", "circle"],
  ["over6", 6, "line-2", "rect"],
  ["over14", 14, "ink", "triangle"],
] as const satisfies readonly (readonly ["over4" | "over6" | "over14", number, Tone, string])[];

interface Axis {
  timeZone: string;
  now: number;
  dayOf(ms: number): string;
}

function yearTicks(first: number, last: number, timeZone: string): number[] {
  const ticks: number[] = [];
  for (
    let year = addYears(startOfYear(new TZDate(first, timeZone)), 1);
    year.getTime() < last;
    year = addYears(year, 1)
  )
    ticks.push(year.getTime());
  return ticks;
}

function overTime(
  tones: Record<Tone, string>,
  datasets: ChartDataset<"line", XY[]>[],
  annotations: Record<string, AnnotationOptions>,
  axis: Axis,
  y: { title: string; log?: boolean; least?: number },
): ChartConfiguration {
  const all = datasets.flatMap((d) => d.data.map((p) => p.x));
  const first = Math.min(...all, axis.now);
  const last = Math.max(...all, axis.now);
  const years = yearTicks(first, last, axis.timeZone);
  const configuration: ChartConfiguration<"line", XY[]> = {
    type: "line",
    data: { datasets },
    options: {
      responsive: true,
      maintainAspectRatio: false,
      animation: { duration: 200 },
      parsing: false,
      scales: {
        x: {
          type: "linear",
          min: first - (last - first) * 0.015,
          max: last + (last - first) * 0.02,
          grid: { display: false },
          border: { color: tones.line },
          afterBuildTicks: (scale) => {
            if (years.length >= 2) scale.ticks = years.map((value) => ({ value }));
          },
          ticks: {
            color: tones["ink-2"],
            maxRotation: 0,
            callback: (value) =>
              years.length >= 2 ? format(new TZDate(Number(value), axis.timeZone), "yyyy") : axis.dayOf(Number(value)),
          },
        },
        y: {
          type: y.log ? "logarithmic" : "linear",
          ...(y.least !== undefined && { suggestedMin: y.least }),
          grid: { color: tones.line },
          border: { display: false },
          title: { display: true, text: y.title, color: tones["ink-2"] },
          ticks: {
            color: tones["ink-2"],
            maxTicksLimit: 9,
            callback: (value) => (y.log && !/^1e/.test(Number(value).toExponential()) ? "" : figure(Number(value))),
          },
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          callbacks: {
            title: (items) => (items[0] ? axis.dayOf((items[0].raw as XY).x) : ""),
            label: (item) => `${item.dataset.label}: ${figure((item.raw as XY).y)}`,
          },
        },
        annotation: { annotations, clip: false },
      },
    },
  };
  return configuration;
}

function stepBand(
  tones: Record<Tone, string>,
  step: OilAssessment["step"],
  axis: Axis,
): Record<string, AnnotationOptions> {
  if (!step) return {};
  return {
    step: {
      type: "box",
      xMin: step.after,
      xMax: step.by,
      backgroundColor: faded(tones.ochre, 0.16),
      borderWidth: 0,
      drawTime: "beforeDatasetsDraw",
      label: {
        display: true,
        content: `contamination entered, ${axis.dayOf(step.after)} to ${axis.dayOf(step.by)}`,
        position: { x: "center", y: "start" },
        color: tones.ochre,
        font: { size: 11.5, weight: "normal" },
        yAdjust: -4,
        xAdjust: -110,
      },
    },
  };
}

/** Counts over three sizes, each with the count that its target number ends at. Samples that cannot be compared are hollow and not joined. */
export function countsChart(
  samples: readonly Sampled[],
  { target, step }: Pick<OilAssessment, "target" | "step">,
  axis: Axis,
): MakeChart {
  return (tones) => {
    const lines = SIZES.flatMap(([, size, tone, pointStyle], i): ChartDataset<"line", XY[]>[] => {
      const points = (comparable: boolean) =>
        samples.flatMap((s) => {
          const count = s.counts[i] ?? null;
          return s.comparable !== comparable || count === null || count <= 0 ? [] : [{ x: s.at, y: count }];
        });
      const style = { pointStyle, pointRadius: 3, pointBorderColor: tones[tone], borderColor: tones[tone] } as const;
      return [
        {
          label: overSize(size),
          data: points(true),
          ...style,
          borderWidth: 1.3,
          pointBackgroundColor: tones[tone],
          order: i,
        },
        {
          label: `over ${size} µm, not comparable`,
          data: points(false),
          ...style,
          showLine: false,
          pointBackgroundColor: tones.paper,
          order: 5,
        },
      ];
    });
    const annotations = stepBand(tones, step, axis);
    if (target)
      SIZES.forEach(([id, size, tone], i) => {
        const y = countsOfCode(target.codes[i]!).upTo;
        annotations[id] = {
          type: "line",
          yMin: y,
          yMax: y,
          borderColor: tones[tone],
          borderDash: [5, 4],
          borderWidth: 1.1,
          label: {
            display: true,
            content: `target ${target.codes[i]} over ${size} µm`,
            position: "start",
            backgroundColor: faded(tones.paper, 0.85),
            color: tones[tone === "line-2" ? "ink-2" : tone],
            font: { size: 11.5, weight: "normal" },
            yAdjust: -8,
            padding: 0,
          },
        };
      });
    return overTime(tones, lines, annotations, axis, { title: "particles per mL, log scale", log: true });
  };
}

/** Numbers of ISO 4406 as steps: what the laboratory's sheet shows, and what hides a doubling. */
export function codesChart(
  samples: readonly Sampled[],
  { target, step }: Pick<OilAssessment, "target" | "step">,
  axis: Axis,
): MakeChart {
  return (tones) => {
    const lines = SIZES.map(([, size, tone, pointStyle], i): ChartDataset<"line", XY[]> => ({
      label: overSize(size),
      data: samples.flatMap((s) =>
        s.comparable && typeof s.numbers[i] === "number" ? [{ x: s.at, y: s.numbers[i] }] : [],
      ),
      stepped: "after",
      pointStyle,
      pointRadius: 3,
      borderColor: tones[tone],
      pointBackgroundColor: tones[tone],
      pointBorderColor: tones[tone],
      borderWidth: 1.3,
    }));
    const annotations = stepBand(tones, step, axis);
    if (target)
      SIZES.forEach(([id, size, tone], i) => {
        annotations[id] = {
          type: "line",
          yMin: target.codes[i]!,
          yMax: target.codes[i]!,
          borderColor: tones[tone],
          borderDash: [5, 4],
          borderWidth: 1.1,
          label: {
            display: true,
            content: `target over ${size} µm`,
            position: "start",
            backgroundColor: faded(tones.paper, 0.85),
            color: tones[tone === "line-2" ? "ink-2" : tone],
            font: { size: 11.5, weight: "normal" },
            yAdjust: -8,
            padding: 0,
          },
        };
      });
    return overTime(tones, lines, annotations, axis, { title: "ISO 4406 number" });
  };
}

/** A metal as read (hollow) and corrected for top-ups (solid), a line a fill, with the samples between which it rose. */
export function metalChart(
  label: string,
  series: readonly MetalPoint[],
  since: { after: number; by: number } | null,
  axis: Axis,
): MakeChart {
  return (tones) => {
    const fills: MetalPoint[][] = [];
    for (const p of series) {
      if (p.rate === null) fills.push([]);
      fills.at(-1)?.push(p);
    }
    const datasets: ChartDataset<"line", XY[]>[] = [
      ...fills.map((fill): ChartDataset<"line", XY[]> => ({
        label: `${label}, corrected for top-ups`,
        data: fill.map((p) => ({ x: p.at, y: p.corrected })),
        borderColor: faded(tones.ink, 0.5),
        borderWidth: 1.2,
        pointRadius: 2.8,
        pointBackgroundColor: tones.ink,
        pointBorderColor: tones.ink,
        order: 1,
      })),
      {
        label: `${label}, as read`,
        data: series.map((p) => ({ x: p.at, y: p.raw })),
        showLine: false,
        pointRadius: 2.8,
        pointStyle: series.map((p) => (p.below ? "triangle" : "circle")),
        pointRotation: 180,
        pointBackgroundColor: "transparent",
        pointBorderColor: tones["line-2"],
        pointBorderWidth: 1.1,
        order: 2,
      },
    ];
    const annotations: Record<string, AnnotationOptions> = since
      ? {
          since: {
            type: "box",
            xMin: since.after,
            xMax: since.by,
            backgroundColor: faded(tones.ochre, 0.16),
            borderWidth: 0,
            drawTime: "beforeDatasetsDraw",
          },
        }
      : {};
    fills.slice(1).forEach((fill, i) => {
      annotations[`fill${i}`] = {
        type: "line",
        xMin: fill[0]!.at,
        xMax: fill[0]!.at,
        borderColor: tones["ink-2"],
        borderDash: [2, 3],
        borderWidth: 1.1,
        label: {
          display: true,
          content: "new oil",
          position: "start",
          backgroundColor: "transparent",
          color: tones["ink-2"],
          font: { size: 11.5, weight: "normal" },
        },
      };
    });
    return overTime(tones, datasets, annotations, axis, { title: "ppm", least: 0 });
  };
}
