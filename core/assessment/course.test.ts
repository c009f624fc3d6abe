/** Readings that go on in one direction: told in time, and not cried out where nothing wears. */
import { random } from "../random/random";
import { DAY } from "../units/time";
import type { PointQuantityId } from "../units/quantities";
import { assess } from "./assess";
import { fastCourse } from "./course";
import type { PointInput, ReadingInput } from "./types";

const START = Date.UTC(2025, 0, 10);
const monthly = (values: readonly number[]): ReadingInput[] =>
  values.map((value, i) => ({ at: START + i * 30 * DAY, hours: 1000 + 240 * i, value }));
const stateAfter = (values: readonly number[], point: PointInput) => assess(monthly(values), point).state;
const plain = (quantity: PointQuantityId, limit: PointInput["limit"]): PointInput => ({ quantity, limit: limit! });

interface Wear {
  name: string;
  point: PointInput;
  sound: number;
  /** The k-th reading of the course. */
  at: (k: number) => number;
}
/** Of the distance to its limit so much a reading: falling and two-sided quantities at the pace of a factor. */
const FACTORS = [1.2, 1.35, 1.4, 1.45, 1.6, 1.8];
const wears: Wear[] = FACTORS.flatMap((factor): Wear[] => [
  {
    name: `case drain, times ${factor} a month`,
    point: plain("leakageFlow", { upper: 6.5 }),
    sound: 2,
    at: (k) => 2 * factor ** k,
  },
  {
    name: `flow that falls, its loss times ${factor}`,
    point: plain("flow", { lower: 55 }),
    sound: 80,
    at: (k) => 80 - 5 * factor ** (k - 1) * k,
  },
  {
    name: `a setting with two limits that sinks, ${factor}`,
    point: plain("pressure", { upper: 230, lower: 150 }),
    sound: 200,
    at: (k) => 200 - 14 * factor ** (k - 1) * k,
  },
]);

describe.each([
  ["without scatter", 0],
  ["with scatter", 0.012],
])("fast wear %s", (_how, scatter) => {
  test.each(wears.map((w) => [w.name, w] as const))("%s: alert at the second, alarm at the third", (_name, w) => {
    let told = 0;
    const lives = scatter === 0 ? 1 : 20;
    for (let seed = 1; seed <= lives; seed++) {
      const rng = random(seed * 7 + 3);
      const noisy = (value: number) => value * (1 + scatter * rng.normal());
      const sound = Array.from({ length: 12 }, () => noisy(w.sound));
      const course = [1, 2, 3].map((k) => noisy(w.at(k)));
      const [second, third] = [2, 3].map((n) => stateAfter([...sound, ...course.slice(0, n)], w.point));
      if (["alert", "alarm"].includes(second!) && third === "alarm") told++;
    }
    expect(told / lives).toBeGreaterThanOrEqual(scatter === 0 ? 1 : 0.9);
  });
});

test("a temperature that runs away is told, though it follows the weather", () => {
  const point = plain("temperature", { upper: 80 });
  const rng = random(4);
  const sound = Array.from({ length: 12 }, () => 50 + 0.5 * rng.normal());
  expect(stateAfter([...sound, 51, 54, 59], point)).toBe("alert");
  expect(stateAfter([...sound, 51, 54, 59, 66], point)).toBe("alarm");
});

test("beyond the limit after one on the way is an alarm, of every quantity", () => {
  expect(
    stateAfter(
      [...Array.from({ length: 10 }, (_, i) => 50 + (i % 3) * 0.5), 71, 86],
      plain("temperature", { upper: 80 }),
    ),
  ).toBe("alarm");
  expect(
    stateAfter([...Array.from({ length: 10 }, (_, i) => 80 + (i % 3) * 0.4), 62, 48], plain("flow", { lower: 55 })),
  ).toBe("alarm");
});

test("a meter that was changed to another unit asks, and does not wear", () => {
  const before = Array.from({ length: 10 }, (_, i) => ({
    at: i * 30 * DAY,
    value: 2 + (i % 3) * 0.02,
    uncertainty: 0.02,
  }));
  const read = (...values: number[]) => [
    ...before,
    ...values.map((value, i) => ({ at: (10 + i) * 30 * DAY, value, uncertainty: 0.02 })),
  ];
  const rule = { floor: 0.01, weather: false };
  const limits = { upper: 60, lower: null };
  expect(fastCourse(read(20.1, 20.3), limits, rule)).toBeNull();
  expect(fastCourse(read(7.6, 7.65), limits, rule)).toBeNull();
  expect(fastCourse(read(12, 30), limits, rule)).not.toBeNull();
});

/** A thousand were read once (docs/decisions.md); two hundred are read each time. */
const LIVES = 200;

/** False alarms at the end of steady lives, each with so many wild readings at places drawn, the newest among them. */
function cried(wild: number, quantity: PointQuantityId, limit: PointInput["limit"], level: number): number {
  let alarms = 0;
  for (let seed = 1; seed <= LIVES; seed++) {
    const rng = random(seed * 13 + wild);
    const months = 10 + (seed % 30);
    const values = Array.from({ length: months }, () => level * (1 + 0.015 * rng.normal()));
    for (let w = 0; w < wild; w++) values[Math.floor(rng.uniform() * months)]! *= Math.exp(1.5 * rng.normal());
    if (stateAfter(values, plain(quantity, limit)) === "alarm") alarms++;
  }
  return alarms / LIVES;
}

test.each([1, 2])("at most one false alarm in 200 steady lives with %d wild readings", (wild) => {
  expect(cried(wild, "leakageFlow", { upper: 6.5 }, 2)).toBeLessThanOrEqual(1 / 200);
});

test("dates, hours, stops, workings of a course say one thing", () => {
  const values = [2, 2.02, 1.98, 2.01, 1.99, 2, 2.02, 1.98, 2.8, 3.9];
  const given = monthly(values);
  const last = given.at(-1)!.at;
  const stop = { id: "s", at: last + 60 * DAY };
  const { forecast, workings, course } = assess(given, plain("leakageFlow", { upper: 6.5 }), {
    now: last,
    stops: [stop],
    duty: { hoursPerDay: 8, deviation: 0.1 },
  });
  expect(course).toBe(2);
  const { dates, hours } = forecast!;
  for (const p of ["p10", "p50", "p90"] as const) expect(hours[p]!).toBeCloseTo(((dates[p]! - last) / DAY) * 8, 6);
  expect(forecast!.beforeStops[0]!.probability > 0.5).toBe(dates.p50! < stop.at);
  expect(forecast!.paths).toEqual([]);
  expect(workings.forecast!.formula).toContain("pace");
});

test("a course that went past its limit months ago says since when, not that it did at its newest reading", () => {
  const values = [2, 2.02, 1.98, 2.01, 1.99, 2, 2.8, 3.9, 5.2, 6.8, 8.5, 10.3];
  const { forecast } = assess(monthly(values), plain("leakageFlow", { upper: 6.5 }));
  expect(forecast!.crossedSince).toBe(START + 9 * 30 * DAY);
  const within = assess(monthly(values.slice(0, 9)), plain("leakageFlow", { upper: 6.5 }));
  expect(within.forecast!.crossedSince).toBeNull();
});

test("one odd reading neither ends a course nor puts its being beyond down to its not having been read", () => {
  const values = [2, 2.02, 1.98, 2.01, 1.99, 2, 2.8, 3.9, 5.2, 6.8, 8.5, 10.3];
  const point = plain("leakageFlow", { upper: 6.5 });
  const [before, after] = [values, [...values, 1.5]].map((v) => assess(monthly(v), point));
  expect(after!.unconfirmed).not.toBeNull();
  expect(after!.state).toBe("alarm");
  expect(after!.margin!.value).toBeCloseTo(before!.margin!.value, 1);
  const words = after!.verdict.map((v) => ("text" in v ? v.text : "")).join("");
  expect(words).not.toContain("By its course, and not read since");
});
