/** A word that was told is taken back by the point alone: neither by days, nor by peers or the oil. */
import { assess } from "./assess";
import { rememberState, standingOf } from "./standing";
import { fullContext, fullPoint, fullReadings } from "./inputs";
import type { AssessReading } from "./types";

const DAY = 86_400_000;
const HOUR = DAY / 24;
const readings = fullReadings(
  Array.from({ length: 14 }, (_, i) => ({ id: String(i), at: i * 30 * DAY, value: 20 + i + 0.05 * (i % 3) })),
);
const point = fullPoint({ quantity: "pressureDrop", limit: { upper: 40 } });
const context = fullContext(
  { now: readings.at(-1)!.at + DAY, leadTimeDays: 56, stops: [{ id: "a", at: 500 * DAY }] },
  readings,
);
const told = rememberState("alert", readings, point, context);
const changed = (
  now: readonly AssessReading[],
  change: Partial<typeof context> = {},
  otherPoint: typeof point = point,
) => standingOf(told, now, otherPoint, { ...context, ...change })!.changed;

test("days, what peers tell and what a laboratory found of the oil change nothing of it", () => {
  expect(changed(readings, { now: context.now + 20 * DAY })).toBe("nothing");
  const later = { now: context.now + DAY };
  expect(changed(readings, { ...later, measured: [{ at: 0, temperature: 40, viscosity: 44 }] as never })).toBe(
    "nothing",
  );
  expect(changed(readings, { ...later, contamination: { at: 0, factor: 2 } })).toBe("nothing");
  // a stop that went by is no change of the plan
  expect(changed(readings, { now: 510 * DAY, stops: [] })).toBe("nothing");
});

test("a long plan of stops that moves on by one stop is the same plan", () => {
  const plan = Array.from({ length: 40 }, (_, i) => ({ id: String(i), at: (500 + 180 * i) * DAY }));
  const first = { ...context, stops: plan };
  const memory = rememberState("alert", readings, point, first);
  const after = (stops: typeof plan) =>
    standingOf(memory, readings, point, { ...first, now: 510 * DAY, stops })!.changed;
  expect(after(plan.slice(1))).toBe("nothing");
  expect(after(plan.slice(2))).toBe("all");
});

test("a new reading may take it back; a corrected one, the limit, the part or the plan frees it", () => {
  const more = [...readings, { ...readings.at(-1)!, id: "new", at: 14 * 30 * DAY }];
  expect(changed(more)).toBe("reading");
  expect(changed(readings.with(3, { ...readings[3]!, value: 99 }))).toBe("all");
  expect(changed(readings.slice(0, -1))).toBe("all");
  expect(changed(readings, {}, fullPoint({ quantity: "pressureDrop", limit: { upper: 60 } }))).toBe("all");
  expect(changed(readings, { partReadyAt: 480 * DAY })).toBe("all");
  expect(changed(readings, { stops: [...context.stops, { id: "b", at: 600 * DAY }] })).toBe("all");
  expect(standingOf(null, readings, point, context)).toBeNull();
});

test("what came in together settles within hours, whatever was judged first; telling it again does not begin anew", () => {
  expect(changed(readings, { now: context.now + 5 * HOUR })).toBe("all");
  const again = rememberState("drifting", readings, point, { ...context, now: context.now + 5 * HOUR }, told);
  expect(standingOf(again, readings, point, { ...context, now: context.now + 7 * HOUR })!.changed).toBe("nothing");
});

test("of a life too long to be given whole another selection is a new reading, not a correction", () => {
  const selection = readings.filter((_, i) => i % 2 === 0);
  expect(changed(selection, { readingsInAll: 9000 })).toBe("reading");
  expect(changed(selection)).toBe("all");
});

test("told of a point: it stands though days go by, and says so", () => {
  const fresh = assess(readings, point, context);
  expect(fresh).toMatchObject({ state: "alert", held: false });
  const standing = { state: "alarm", changed: "nothing" } as const;
  const later = assess(readings, point, { ...context, standing });
  expect(later).toMatchObject({ state: "alarm", held: true });
  expect(later.verdict.at(-1)).toEqual({ text: " It stays an alarm until a reading speaks against it." });
  expect(later.urgency).toBeGreaterThanOrEqual(50);
});
