/** The picture of a calculation. */
import type { ChartConfiguration, ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import {
  decimalsFor,
  findUnit,
  formatNumber,
  fromCore,
  preferredUnit,
  quantityOf,
  type CalculatorChart,
  type UnitPreference,
} from "@core";
import type { MakeChart } from "./canvas";
import { faded } from "./tones";

type XY = { x: number; y: number };
const figure = (value: number) => formatNumber(value, decimalsFor(value, 2));

function axisOf(axis: CalculatorChart["x"], units: UnitPreference) {
  if (!axis.quantity) return { scale: (v: number) => v, title: axis.label };
  const { dimension } = quantityOf(axis.quantity);
  const unit = findUnit(preferredUnit(axis.quantity, units), dimension)!;
  return { scale: (v: number) => fromCore(v, unit), title: `${axis.label}, ${unit.symbol}` };
}

export function calculatorChart(chart: CalculatorChart, units: UnitPreference): MakeChart {
  return (tones) => {
    const x = axisOf(chart.x, units);
    const y = axisOf(chart.y, units);
    const lines = ["ink", "sea", "line-2"] as const;
    let line = 0;
    const datasets = chart.series.map((s): ChartDataset<"line", XY[]> => {
      const points = s.style === "points" || s.style === "steps";
      const tone = points ? tones.ink : tones[lines[line++ % lines.length]!];
      return {
        label: s.label,
        data: s.points.map(([px, py]) => ({ x: x.scale(px), y: y.scale(py) })),
        borderColor: tone,
        borderWidth: s.style === "steps" ? 1 : 1.8,
        ...(s.style === "dashed" && { borderDash: [5, 4] }),
        showLine: s.style !== "points",
        stepped: s.style === "steps" ? "after" : false,
        pointRadius: points ? 4 : 0,
        pointBackgroundColor: tone,
        pointBorderColor: tone,
        order: points ? 1 : 2,
      };
    });
    const annotations: Record<string, AnnotationOptions> = {};
    chart.bands?.forEach((band, i) => {
      const [from, to] = [band.from, band.to].map(band.axis === "y" ? y.scale : x.scale) as [number, number];
      annotations[`band${i}`] = {
        type: "box",
        ...(band.axis === "y" ? { yMin: from, yMax: to } : { xMin: from, xMax: to }),
        backgroundColor: faded(tones.sea, 0.1),
        borderWidth: 0,
        drawTime: "beforeDatasetsDraw",
        label: {
          display: true,
          content: band.label,
          position: { x: "end", y: "start" },
          color: tones.sea,
          font: { size: 11.5, weight: "normal" },
        },
      };
    });
    chart.marks?.forEach((mark, i) => {
      const at = (mark.axis === "y" ? y : x).scale(mark.at);
      const tone = mark.tone === "limit" ? tones.verm : tones["ink-2"];
      annotations[`mark${i}`] = {
        type: "line",
        ...(mark.axis === "y" ? { yMin: at, yMax: at } : { xMin: at, xMax: at }),
        borderColor: tone,
        borderWidth: 1.2,
        ...(mark.tone !== "limit" && { borderDash: [2, 3] }),
        label: {
          display: true,
          content: mark.label,
          position: mark.axis === "y" && i % 2 === 1 ? "end" : "start",
          backgroundColor: mark.axis === "y" ? "transparent" : tones.paper,
          color: tone,
          font: { size: 11.5, weight: "normal" },
          padding: 2,
          ...(mark.axis === "y" ? { yAdjust: -9 } : { yAdjust: -6 }),
        },
      };
    });
    const scale = (axis: CalculatorChart["x"], title: string, grid: boolean) => ({
      type: axis.log ? ("logarithmic" as const) : ("linear" as const),
      ...(grid && !axis.log && { grace: "8%" }),
      ...(axis.least !== undefined && !axis.log && { min: axis.least }),
      grid: grid ? { color: tones.line } : { display: false },
      border: { color: tones.line },
      title: { display: title !== "", text: title, color: tones["ink-2"] },
      ticks: {
        display: axis.places !== true,
        color: tones["ink-2"],
        maxTicksLimit: 8,
        callback: (value: string | number) =>
          axis.log && !/^[125]/.test(Number(value).toExponential()) ? "" : figure(Number(value)),
      },
    });
    const configuration: ChartConfiguration<"line", XY[]> = {
      type: "line",
      data: { datasets },
      options: {
        responsive: true,
        maintainAspectRatio: false,
        animation: false,
        parsing: false,
        scales: { x: scale(chart.x, x.title, false), y: scale(chart.y, y.title, true) },
        plugins: {
          legend: {
            display: datasets.length > 1,
            labels: { color: tones["ink-2"], boxWidth: 18, boxHeight: 1, filter: (item) => item.text !== "" },
          },
          tooltip: {
            callbacks: {
              title: () => "",
              label: (item) => `${item.dataset.label}: ${figure((item.raw as XY).y)} at ${figure((item.raw as XY).x)}`,
            },
          },
          annotation: { annotations },
        },
      },
    };
    return configuration;
  };
}
