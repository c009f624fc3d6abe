/** Axes and marks over time, as the charts of oil share them. */
import { TZDate } from "@date-fns/tz";
import type { ChartConfiguration, ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import { addYears, format, startOfYear } from "date-fns";
import { decimalsFor, formatNumber } from "@core";
import type { Tone } from "~/ui/charts/tones";

export const overSize = (size: number) => `over ${size} µm`;

export interface Sampled {
  at: number;
  comparable: boolean;
  counts: (number | null)[];
  numbers: (number | null)[];
}

export type XY = { x: number; y: number };

const figure = (value: number) => formatNumber(value, decimalsFor(value, 2));

export interface Axis {
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

export function overTime(
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
