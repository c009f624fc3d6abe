/** Wear metals of an oil over its years. */
import type { ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import type { MetalPoint } from "@core";
import type { MakeChart } from "~/ui/charts/canvas";
import { faded } from "~/ui/charts/tones";
import { type XY, type Axis, overTime } from "./overTime";

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
