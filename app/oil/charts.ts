/** Pictures of a circuit's oil over time: counts on a log axis with their target, codes as steps, a metal as read and corrected. */
import type { ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import { countsOfCode, type OilAssessment } from "@core";
import type { MakeChart } from "~/ui/charts/canvas";
import { faded, type Tone } from "~/ui/charts/tones";
import { overSize, type Sampled, type XY, type Axis, overTime } from "./overTime";
const SIZES = [
  ["over4", 4, "sea", "circle"],
  ["over6", 6, "line-2", "rect"],
  ["over14", 14, "ink", "triangle"],
] as const satisfies readonly (readonly ["over4" | "over6" | "over14", number, Tone, string])[];

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
