/** What the pictures of the oil are made of. */
import { DAY } from "@core";
import type { MetalPoint } from "@core";
import { codesChart, countsChart } from "./charts";
import { metalChart } from "./metalChart";

const NOW = Date.UTC(2026, 10, 24);
const tones = Object.fromEntries(
  ["ink", "ink-2", "line", "line-2", "sea", "sea-soft", "ochre", "verm", "verm-soft", "sheet", "paper"].map((t) => [
    t,
    `rgb(${t.length}, 0, 0)`,
  ]),
) as Parameters<ReturnType<typeof countsChart>>[0];
const axis = { timeZone: "Europe/London", now: NOW, dayOf: (ms: number) => new Date(ms).toISOString().slice(0, 10) };
const samples = Array.from({ length: 30 }, (_, i) => ({
  at: NOW - (30 - i) * 45 * DAY,
  comparable: i !== 4,
  counts: [900 * (i > 20 ? 8 : 1), i === 7 ? null : 240, i === 8 ? 0 : 30],
  numbers: [17, i === 7 ? null : 15, 12],
}));
const judged = {
  target: { codes: [18, 16, 13] as [number, number, number], text: "18/16/13", because: "" },
  step: { after: samples[20]!.at, by: samples[21]!.at, factor: 8, size: "over4" as const, still: true },
};

interface Drawn {
  data: { datasets: { label: string; data: { x: number; y: number }[]; showLine?: boolean; stepped?: string }[] };
  options: {
    scales: { y: { type: string; title: { text: string } } };
    plugins: {
      annotation: {
        annotations: Record<string, { yMin?: number; xMin?: number; xMax?: number; label?: { content: string } }>;
      };
    };
  };
}
const draw = (make: ReturnType<typeof countsChart>) => make(tones) as unknown as Drawn;

describe("counts", () => {
  const drawn = draw(countsChart(samples, judged, axis));
  test("three sizes on a log axis; what cannot be compared stands apart and is not joined", () => {
    expect(drawn.options.scales.y).toMatchObject({
      type: "logarithmic",
      title: { text: "particles per mL, log scale" },
    });
    expect(drawn.data.datasets.map((d) => [d.label, d.data.length])).toEqual([
      ["over 4 µm", 29],
      ["over 4 µm, not comparable", 1],
      ["over 6 µm", 28],
      ["over 6 µm, not comparable", 1],
      ["over 14 µm", 28],
      ["over 14 µm, not comparable", 1],
    ]);
    expect(drawn.data.datasets[1]!.showLine).toBe(false);
  });
  test("the target stands where its number ends, and the step between its two samples", () => {
    const { annotations } = drawn.options.plugins.annotation;
    expect([annotations.over4!.yMin, annotations.over6!.yMin, annotations.over14!.yMin]).toEqual([2500, 640, 80]);
    expect(annotations.step).toMatchObject({ xMin: samples[20]!.at, xMax: samples[21]!.at });
    expect(annotations.step!.label!.content).toContain("contamination entered");
  });
  test("without a target or a step nothing is drawn for them", () => {
    expect(
      draw(countsChart(samples, { target: null, step: null }, axis)).options.plugins.annotation.annotations,
    ).toEqual({});
  });
});

test("codes are steps, against the target's own numbers", () => {
  const drawn = draw(codesChart(samples, judged, axis));
  expect(drawn.data.datasets.map((d) => [d.stepped, d.data.length])).toEqual([
    ["after", 29],
    ["after", 28],
    ["after", 29],
  ]);
  expect(drawn.options.plugins.annotation.annotations.over6!.yMin).toBe(16);
  expect(drawn.options.scales.y.type).toBe("linear");
});

test("a metal: a line a fill, new oil marked, as read beside corrected", () => {
  const point = (i: number, rate: number | null, below = false): MetalPoint => ({
    at: NOW - (10 - i) * 60 * DAY,
    hours: i * 100,
    raw: i + 1,
    below,
    corrected: i + 1.5,
    length: 100,
    rate,
    doubt: 1,
  });
  const drawn = draw(
    metalChart(
      "Iron",
      [point(0, null), point(1, 2, true), point(2, 2), point(3, null), point(4, 3)],
      { after: NOW - 400 * DAY, by: NOW - 360 * DAY },
      axis,
    ),
  );
  expect(drawn.data.datasets.map((d) => d.data.length)).toEqual([3, 2, 5]);
  expect(drawn.data.datasets[2]!.showLine).toBe(false);
  expect(Object.keys(drawn.options.plugins.annotation.annotations).sort()).toEqual(["fill0", "since"]);
  expect(draw(metalChart("Iron", [point(0, null)], null, axis)).options.plugins.annotation.annotations).toEqual({});
});
