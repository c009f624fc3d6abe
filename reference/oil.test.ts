/** Oil against things outside the project: quantiles of "less than" values by R, and a tank with top-ups integrated step by step. */
import censored from "./censored.R.json";
import { metalSeries, random } from "@core";
import { censoredQuantile } from "../core/oil/censored";

describe(`quantiles of values with "less than": ${censored.made}, survfit on turned values`, () => {
  test.each(censored.cases.map((c, i) => [i, c] as const))("case %i", (_i, c) => {
    const own = censoredQuantile(
      c.values.map((value, k) => ({ value, below: c.below[k]! })),
      c.p,
    );
    if (c.quantile === null) expect(own).toBeNull();
    else expect(own).toBeCloseTo(c.quantile, 9);
  });
});

test("top-ups, a drain and a leak: the rate of a circuit whose truth is known is recovered within 5 %, through laboratory scatter", () => {
  // the circuit itself: metal made every hour, oil lost through a weep every hour, filled up again at uneven hours
  const rng = random(44);
  const [volume, rate, weep] = [180, 2.4, 0.006];
  let oil = volume;
  let metal = 0;
  const samples: { at: number; hours: number; results: { iron: { value: number } } }[] = [];
  const moves: {
    at: number;
    hours: number;
    kind: "topUp" | "drained";
    litres: number;
    fresh: Record<string, number>;
  }[] = [];
  for (let h = 1; h <= 9000; h++) {
    metal += (rate / 1000) * volume;
    metal -= (metal / oil) * weep;
    oil -= weep;
    if (h === 4200) {
      metal -= (metal / oil) * 40;
      oil -= 40;
      moves.push({ at: h, hours: h, kind: "drained", litres: 40, fresh: {} });
    }
    if (oil < volume - (h === 4201 ? 30 : 2 + 4 * rng.uniform())) {
      moves.push({ at: h, hours: h, kind: "topUp", litres: volume - oil, fresh: {} });
      oil = volume;
    }
    if (h % 300 === 0)
      samples.push({
        at: h + 0.5,
        hours: h + 0.5,
        results: { iron: { value: (metal / oil) * (1 + 0.03 * rng.normal()) } },
      });
  }
  const series = metalSeries("iron", samples, moves, volume);
  const [first, last] = [series[0]!, series.at(-1)!];
  const recovered = ((last.corrected - first.corrected) / (last.hours - first.hours)) * 1000;
  expect(Math.abs(recovered / rate - 1)).toBeLessThan(0.05);
  // what the bottle alone shows
  expect(((last.raw - first.raw) / (last.hours - first.hours)) * 1000).toBeLessThan(0.85 * rate);
});
