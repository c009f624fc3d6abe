import { DAY } from "@core";
import type { ChartConfiguration } from "chart.js";
import { trendChart } from "./charts";
import { sameMonthChart } from "./sameMonthChart";
import type { PointPage } from "~/domain/readings/pointPage.server";

const now = Date.UTC(2026, 10, 24);
const tones = Object.fromEntries(
  ["ink", "ink-2", "line", "line-2", "sea", "sea-soft", "ochre", "verm", "verm-soft", "sheet", "paper"].map((name) => [
    name,
    "rgb(1, 2, 3)",
  ]),
) as Parameters<ReturnType<typeof trendChart>>[0];
const shown = { scale: (v: number) => v * 10, unit: "% of full flow" };

/** A point page with what the charts look at. */
function pageWith(change: Record<string, unknown> = {}): PointPage {
  const readings = Array.from({ length: 24 }, (_, i) => ({
    at: now - (24 - i) * 30 * DAY,
    raw: 1 + i / 20,
    corrected: 1 + i / 24,
    mark: i === 5 ? "outlier" : null,
  }));
  return {
    now,
    quantity: "caseDrainFlow",
    state: "drifting",
    stops: [{ id: "s", at: now + 55 * DAY }],
    chart: [
      {
        id: "a",
        startedAt: now - 900 * DAY,
        endedAt: now - 750 * DAY,
        serial: "E1",
        readings: [{ at: now - 800 * DAY, raw: 3, corrected: 3, mark: null }],
      },
      { id: "b", startedAt: now - 750 * DAY, endedAt: null, serial: "E2", readings },
    ],
    detail: {
      noTrend: null,
      correction: {},
      limits: { upper: 4, lower: null },
      baseline: { centre: 1, spread: 0.1, provisional: true },
      forecast: {
        fan: [0, 100, 200].map((d) => ({ at: now + d * DAY, p10: 2, p50: 2.2 + d / 200, p90: 2.4 + d / 100 })),
      },
    },
    ...change,
  } as unknown as PointPage;
}

const make = (page: PointPage) =>
  trendChart(page, shown, "Europe/London", "limit 10 %", () => "a day")(tones) as ChartConfiguration<
    "line",
    { x: number; y: number }[]
  >;
const annotationsOf = (chart: ChartConfiguration<"line", { x: number; y: number }[]>) =>
  (
    chart.options!.plugins as unknown as {
      annotation: { annotations: Record<string, { yMin?: number; label?: { content: string } }> };
    }
  ).annotation.annotations;

describe("trend chart", () => {
  test("lives are separate lines, as read stands beside corrected, and the fan begins at the forecast", () => {
    const { datasets } = make(pageWith()).data;
    expect(datasets.filter((d) => d.label === "corrected")).toHaveLength(2);
    expect(datasets.filter((d) => d.label === "as read")).toHaveLength(2);
    expect(datasets.find((d) => d.label === "P50")!.data[0]).toEqual({ x: now, y: 22 });
  });
  test("is drawn in the unit of the axis, with limit, baseline, stop and the new part", () => {
    const chart = make(pageWith());
    const annotations = annotationsOf(chart);
    expect(chart.data.datasets[1]!.data[0]!.y).toBeCloseTo(10, 9);
    expect(annotations.upper).toMatchObject({ yMin: 40, label: { content: "limit 10 %" } });
    expect(annotations.baseline!.label!.content).toBe("baseline 10 ± 2.0, provisional");
    expect(annotations.stop!.label!.content).toBe("stop a day");
    expect(annotations.life0!.label!.content).toBe("new part E2");
    expect(annotations.lower).toBeUndefined();
  });
  test("without a proved trend there is no fan to believe in", () => {
    const page = pageWith();
    const { datasets } = make({ ...page, detail: { ...page.detail!, noTrend: { earliest: null, slow: false } } }).data;
    expect(datasets.map((d) => d.label)).not.toContain("P50");
  });
  test("readings and limit fill the height, whatever the forecast reaches", () => {
    const page = pageWith();
    const wide = {
      ...page.detail!,
      forecast: { fan: [0, 100, 200].map((d) => ({ at: now + d * DAY, p10: 2, p50: 2.2, p90: 2 + d })) },
    } as PointPage["detail"];
    const y = make({ ...page, detail: wide }).options!.scales!.y as { min: number; max: number };
    expect(y.min).toBe(0);
    expect(y.max).toBeGreaterThan(40);
    expect(y.max).toBeLessThan(50);
  });
  test("one reading of today: no day is named twice", () => {
    const page = pageWith({
      stops: [],
      chart: [{ ...pageWith().chart[1]!, readings: [{ at: now - DAY / 24, raw: 1, corrected: 1, mark: null }] }],
      detail: null,
    });
    const x = make(page).options!.scales!.x as unknown as {
      afterBuildTicks(axis: { ticks: { value: number }[] }): void;
      ticks: { callback(value: number): string };
    };
    const axis = { ticks: [] as { value: number }[] };
    x.afterBuildTicks(axis);
    const named = axis.ticks.map((t) => x.ticks.callback(t.value));
    expect(named.length).toBeGreaterThan(4);
    expect(new Set(named).size).toBe(named.length);
  });
  test("an odd reading has a mark of its own shape", () => {
    const styles = make(pageWith()).data.datasets[1]!.pointStyle as string[];
    expect(styles.filter((s) => s === "rectRot")).toHaveLength(1);
  });
  test("a point that is not corrected shows one series; without an assessment it still draws", () => {
    const page = pageWith();
    expect(
      make({ ...page, detail: { ...page.detail!, correction: null } }).data.datasets.map((d) => d.label),
    ).not.toContain("as read");
    expect(make({ ...page, detail: null }).data.datasets.length).toBeGreaterThan(0);
  });
});

test("same month: a line a year, of the present life only", () => {
  const chart = sameMonthChart(pageWith(), shown, "Europe/London")(tones) as ChartConfiguration<
    "line",
    { x: number; y: number }[]
  >;
  const years = chart.data.datasets.map((d) => d.label);
  expect(years).toEqual(["2024", "2025", "2026"]);
  const points = chart.data.datasets.flatMap((d) => d.data);
  // the odd one would press all years flat
  expect(points).toHaveLength(23);
  for (const { x } of points) {
    expect(x).toBeGreaterThanOrEqual(0);
    expect(x).toBeLessThan(12.1);
  }
});
