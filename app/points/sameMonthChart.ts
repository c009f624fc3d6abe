/** One month beside the same month of other years. */
import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import type { ChartConfiguration, ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import { DAY, MONTH } from "@core";
import type { MakeChart } from "~/ui/charts/canvas";
import { faded } from "~/ui/charts/tones";
import type { PointPage } from "~/domain/readings/index.server";
import { type Shown, figure, type XY } from "./shown";

/** Ends of lines nearer than this share of the tallest would write over one another. */
const NEAR = 0.045;

/** Readings as read by month of the year, a line a year: is it wear or is it the warm season? */
export function sameMonthChart(data: PointPage, shown: Shown, timeZone: string): MakeChart {
  return (tones) => {
    const byYear = new Map<number, XY[]>();
    for (const life of data.chart.slice(-1)) {
      // an outlier would press all years flat; it stands in the trend and in the table
      for (const r of life.readings.filter((reading) => !reading.mark)) {
        const date = new TZDate(r.at, timeZone);
        const list = byYear.get(date.getFullYear()) ?? [];
        list.push({ x: date.getMonth() + date.getDate() / (MONTH / DAY), y: shown.scale(r.raw) });
        byYear.set(date.getFullYear(), list);
      }
    }
    const years = [...byYear.keys()].sort();
    const latest = years.at(-1);
    const datasets = years.map((year, i): ChartDataset<"line", XY[]> => {
      const now = year === latest;
      return {
        label: String(year),
        data: byYear.get(year)!,
        borderColor: now ? tones.ink : faded(tones.sea, 0.25 + (0.5 * i) / years.length),
        borderWidth: now ? 2 : 1.3,
        pointRadius: now ? 3 : 1.8,
        pointBackgroundColor: now ? tones.ink : tones.sea,
      };
    });
    const annotations: Record<string, AnnotationOptions> = {};
    const tallest = Math.max(...[...byYear.values()].flat().map((p) => p.y));
    // years that end at the same height share one label, so that none is written over another
    const labels: { at: XY; years: number[] }[] = [];
    for (const year of years) {
      const end = byYear.get(year)!.at(-1)!;
      const near = labels.find((l) => Math.abs(l.at.y - end.y) < NEAR * tallest && Math.abs(l.at.x - end.x) < 1.5);
      if (near) near.years.push(year);
      else labels.push({ at: end, years: [year] });
    }
    for (const { at, years: named } of labels) {
      // near the right edge a label stands before its line's end: under a line that falls, over one that rises
      const before = byYear.get(named[0]!)!.at(-2);
      const atEdge = at.x > 9;
      annotations[`y${named[0]}`] = {
        type: "label",
        xValue: at.x,
        yValue: at.y,
        content: named.join(", "),
        color: named.includes(latest!) ? tones.ink : tones["ink-2"],
        font: { size: 11 },
        position: atEdge ? "end" : "start",
        xAdjust: atEdge ? -4 : 4,
        yAdjust: !atEdge ? -6 : before && before.y > at.y ? 14 : -4,
      };
    }
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
            min: 0,
            max: 12.6,
            grid: { display: false },
            border: { color: tones.line },
            afterBuildTicks: (axis) => {
              axis.ticks = Array.from({ length: 12 }, (_, i) => ({ value: i + 0.5 }));
            },
            ticks: {
              color: tones["ink-2"],
              callback: (value) => format(new Date(2024, Math.floor(Number(value)), 1), "MMM"),
            },
          },
          y: {
            type: "linear",
            beginAtZero: true,
            grid: { color: tones.line },
            border: { display: false },
            ticks: { color: tones["ink-2"], callback: (value) => figure(Number(value)) },
            title: { display: true, text: `${shown.unit}, as read`, color: tones["ink-2"] },
          },
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              title: (items) => items[0]?.dataset.label ?? "",
              label: (item) => `${figure((item.raw as XY).y)} ${shown.unit}`,
            },
          },
          annotation: { annotations, clip: false },
        },
      },
    };
    return configuration;
  };
}
