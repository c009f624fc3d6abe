/** The two pictures of a point: the trend with its forecast, and the months of the years over one another. */
import { TZDate } from "@date-fns/tz";
import { addDays, addYears, format, startOfDay, startOfYear } from "date-fns";
import type { ChartConfiguration, ChartDataset } from "chart.js";
import type { AnnotationOptions } from "chartjs-plugin-annotation";
import { DAY, quantityOf } from "@core";
import type { MakeChart } from "~/ui/charts/canvas";
import { faded } from "~/ui/charts/tones";
import type { PointPage } from "~/domain/readings/index.server";
import { type Shown, figure, type XY } from "./shown";

/** Days named under a trend of less than two years. */
const MOST_DAYS = 8;

export function trendChart(
  data: PointPage,
  shown: Shown,
  timeZone: string,
  limitLabel: string,
  momentOf: (ms: number) => string,
): MakeChart {
  return (tones) => {
    const { chart, detail, stops } = data;
    const readings = chart.flatMap((life) => life.readings);
    const first = Math.min(data.now, ...readings.map((r) => r.at));
    const forecast = detail?.forecast && !detail.noTrend ? detail.forecast : null;
    const limitsCore = [detail?.limits?.upper, detail?.limits?.lower].filter((l): l is number => typeof l === "number");
    const top = Math.max(...limitsCore, ...readings.map((r) => Math.max(r.raw, r.corrected)));
    const least = Math.min(...limitsCore, ...readings.map((r) => Math.min(r.raw, r.corrected)));
    const room = (top - least) * 0.12 || Math.abs(top) * 0.1 || 1;
    const ceiling = top + room;
    const floor = least >= 0 && least < top * 0.5 ? 0 : least - room;
    const fan = (forecast?.fan ?? []).filter(
      (f, i) => i === 0 || (f.p50 <= ceiling * 1.6 && f.p50 >= floor - Math.abs(floor) * 0.6),
    );
    const nextStop = stops.find((s) => s.at > data.now);
    const last = Math.max(
      data.now,
      nextStop?.at ?? 0,
      forecast ? Math.min(fan.at(-1)?.at ?? 0, data.now + 550 * DAY) : 0,
    );
    const span = Math.max(last - first, 8 * DAY);
    const scale = (y: number) => shown.scale(y);
    const state = data.state === "alarm" ? tones.verm : data.state === "alert" ? tones.ochre : tones.ink;

    const datasets: ChartDataset<"line", XY[]>[] = [
      ...chart.map((life): ChartDataset<"line", XY[]> => ({
        label: "corrected",
        data: life.readings.map((r) => ({ x: r.at, y: scale(r.corrected) })),
        borderColor: faded(tones.ink, 0.45),
        borderWidth: 1,
        pointRadius: life.readings.map((r) => (r.mark ? 3 : 2.6)),
        pointBackgroundColor: life.readings.map((r) => (r.mark ? tones.paper : tones.ink)),
        pointBorderColor: tones.ink,
        pointBorderWidth: 1,
        pointStyle: life.readings.map((r) => (r.mark ? "rectRot" : "circle")),
        order: 1,
      })),
      ...(detail?.correction
        ? chart.map((life): ChartDataset<"line", XY[]> => ({
            label: "as read",
            data: life.readings.map((r) => ({ x: r.at, y: scale(r.raw) })),
            showLine: false,
            pointRadius: 2.6,
            pointBackgroundColor: "transparent",
            pointBorderColor: tones["line-2"],
            pointBorderWidth: 1.1,
            order: 2,
          }))
        : []),
      ...(fan.length > 1
        ? [
            {
              label: "P90",
              data: fan.map((f) => ({ x: f.at, y: scale(f.p90) })),
              pointRadius: 0,
              borderWidth: 0,
              borderColor: "transparent",
              order: 4,
              clip: 0,
            } as ChartDataset<"line", XY[]>,
            {
              label: "P10",
              data: fan.map((f) => ({ x: f.at, y: scale(f.p10) })),
              pointRadius: 0,
              borderWidth: 0,
              borderColor: "transparent",
              backgroundColor: faded(state, 0.18),
              fill: "-1",
              order: 4,
              clip: 0,
            } as ChartDataset<"line", XY[]>,
            {
              label: "P50",
              data: fan.map((f) => ({ x: f.at, y: scale(f.p50) })),
              pointRadius: 0,
              borderColor: state,
              borderDash: [5, 4],
              borderWidth: 1.6,
              order: 3,
              clip: 0,
            } as ChartDataset<"line", XY[]>,
          ]
        : []),
    ];

    const annotations: Record<string, AnnotationOptions> = {};
    const baseline = detail?.baseline;
    const currentLife = chart.at(-1);
    // a part fitted a moment ago leaves no room for the words to its right
    const startsLate = (currentLife?.readings[0]?.at ?? first) > first + 0.6 * span;
    const wearsDown = quantityOf(data.quantity).harm === "falling";
    if (baseline && currentLife) {
      annotations.baseline = {
        type: "box",
        xMin: currentLife.readings[0]?.at ?? first,
        yMin: scale(baseline.centre - 2 * baseline.spread),
        yMax: scale(baseline.centre + 2 * baseline.spread),
        backgroundColor: faded(tones.sea, 0.1),
        borderWidth: 0,
        drawTime: "beforeDatasetsDraw",
        label: {
          display: true,
          content:
            `baseline ${figure(scale(baseline.centre))} ± ` +
            `${figure(Math.abs(scale(2 * baseline.spread) - scale(0)))}${baseline.provisional ? ", provisional" : ""}`,
          // on the side that readings do not wear towards
          position: { x: startsLate ? "end" : "start", y: wearsDown ? "start" : "end" },
          color: tones.sea,
          font: { size: 11.5, weight: "normal" },
          yAdjust: wearsDown ? -20 : 20,
          xAdjust: -4,
        },
      };
    }
    for (const [name, value] of [
      ["upper", detail?.limits?.upper],
      ["lower", detail?.limits?.lower],
    ] as const) {
      if (typeof value !== "number") continue;
      annotations[name] = {
        type: "line",
        yMin: scale(value),
        yMax: scale(value),
        borderColor: tones.verm,
        borderWidth: 1.4,
        label: {
          display: true,
          content: name === "lower" && detail?.limits?.upper !== null ? "lower limit" : limitLabel,
          position: "start",
          backgroundColor: "transparent",
          color: tones.verm,
          font: { size: 11.5, weight: "normal" },
          yAdjust: name === "lower" ? 10 : -10,
          xAdjust: 2,
          padding: 0,
        },
      };
    }
    if (nextStop && nextStop.at <= last) {
      annotations.stop = {
        type: "box",
        xMin: nextStop.at - span * 0.006,
        xMax: nextStop.at + span * 0.006,
        backgroundColor: faded(tones.sea, 0.16),
        borderWidth: 0,
        label: {
          display: true,
          content: `stop ${momentOf(nextStop.at)}`,
          position: { x: "center", y: "start" },
          color: tones.sea,
          font: { size: 11.5, weight: "bold" },
          xAdjust: -34,
        },
      };
    }
    chart.slice(1).forEach((life, i) => {
      annotations[`life${i}`] = {
        type: "line",
        xMin: life.startedAt,
        xMax: life.startedAt,
        borderColor: tones["ink-2"],
        borderDash: [2, 3],
        borderWidth: 1.2,
        label: {
          display: true,
          content: `new part ${life.serial}`,
          position: "start",
          backgroundColor: "transparent",
          color: tones["ink-2"],
          font: { size: 11.5, weight: "normal" },
        },
      };
    });

    const years: number[] = [];
    for (let year = startOfYear(new TZDate(first, timeZone)); year.getTime() <= last; year = addYears(year, 1))
      if (year.getTime() >= first) years.push(year.getTime());

    // no day is named twice
    const days: number[] = [];
    const step = Math.max(1, Math.ceil(span / DAY / MOST_DAYS));
    for (let day = startOfDay(new TZDate(first, timeZone)); day.getTime() <= first + span; day = addDays(day, step))
      days.push(day.getTime());

    const configuration: ChartConfiguration<"line", XY[]> = {
      type: "line",
      data: { datasets },
      options: {
        responsive: true,
        maintainAspectRatio: false,
        animation: { duration: 200 },
        parsing: false,
        normalized: true,
        interaction: { mode: "nearest", intersect: true },
        scales: {
          x: {
            type: "linear",
            min: first - span * 0.015,
            max: Math.max(last, first + span) + span * 0.02,
            grid: { display: false },
            border: { color: tones.line },
            afterBuildTicks: (axis) => {
              axis.ticks = (years.length >= 2 ? years : days).map((value) => ({ value }));
            },
            ticks: {
              color: tones["ink-2"],
              maxRotation: 0,
              autoSkip: true,
              callback: (value) =>
                format(new TZDate(Number(value), timeZone), years.length >= 2 ? "yyyy" : "d\u00a0MMM"),
            },
          },
          y: {
            type: "linear",
            // what was read and the limit fill the height; a forecast is cut, not they flattened
            min: scale(floor),
            max: scale(ceiling),
            grid: { color: tones.line },
            border: { display: false },
            ticks: {
              color: tones["ink-2"],
              maxTicksLimit: 8,
              includeBounds: false,
              callback: (value) => figure(Number(value)),
            },
            title: { display: true, text: shown.unit, color: tones["ink-2"] },
          },
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            filter: (item) => item.dataset.label === "corrected" || item.dataset.label === "as read",
            callbacks: {
              title: (items) => (items[0] ? momentOf((items[0].raw as XY).x) : ""),
              label: (item) => `${item.dataset.label}: ${figure((item.raw as XY).y)} ${shown.unit}`,
            },
          },
          annotation: { annotations, clip: false },
        },
      },
    };
    return configuration;
  };
}
