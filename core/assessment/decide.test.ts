import fc from "fast-check";
import { decideBy, readingInterval } from "./decide";

const DAY = 86_400_000;
const context = {
  now: 0,
  stops: [] as { id: string; at: number }[],
  leadTimeDays: 56,
  partReadyAt: null,
  nextChanceDays: 28,
};
const limitAt = (day: number | null) => ({ crossingDates: [day === null ? null : day * DAY] });
const stops = (...days: number[]) => days.map((d) => ({ id: `day ${d}`, at: d * DAY }));

test.each<
  [
    string,
    Parameters<typeof decideBy>[0],
    Partial<typeof context> & { stops?: ReturnType<typeof stops> },
    number | null,
    string | null,
  ]
>([
  ["no stop: the lead time before the limit", limitAt(100), {}, 44, null],
  ["the part is on the shelf: what the plant needs to stop", limitAt(100), { leadTimeDays: 0 }, 72, null],
  ["too late for the part: in the past", limitAt(30), {}, -26, null],
  ["the last stop in time, less the lead time", limitAt(200), { stops: stops(90, 180, 270) }, 124, "day 180"],
  ["a stop before which the part cannot be there does not count", limitAt(100), { stops: stops(40, 180) }, 44, null],
  ["beyond the last known stop the machine can still be stopped", limitAt(400), { stops: stops(90) }, 344, null],
  ["just behind the last known stop that one is taken", limitAt(100), { stops: stops(95) }, 44, null],
  ["beyond the horizon there is nothing to decide", limitAt(null), {}, null, null],
])("%s", (_what, forecast, change, day, stop) => {
  const decision = decideBy(forecast, { ...context, ...change }, 0.1);
  if (day === null) expect(decision).toBeNull();
  else expect([decision!.by / DAY, decision!.stopId]).toEqual([day, stop]);
});

test("a part that is ordered is waited for, not ordered again", () => {
  const ordered = { ...context, partReadyAt: 60 * DAY, stops: stops(50, 80, 120) };
  expect(decideBy(limitAt(100), ordered, 0.1)).toEqual({ by: 80 * DAY, stopId: "day 80" });
});

test("a limit that is nearer is never decided later, and one more stop never makes it earlier", () =>
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 900 }), { maxLength: 6 }),
      fc.integer({ min: 1, max: 900 }),
      fc.integer({ min: 0, max: 300 }),
      fc.integer({ min: 0, max: 120 }),
      (days, limit, later, leadTimeDays) => {
        const given = { ...context, leadTimeDays, stops: stops(...days) };
        const near = decideBy(limitAt(limit), given, 0.1)!;
        const far = decideBy(limitAt(limit + later), given, 0.1)!;
        expect(near.by).toBeLessThanOrEqual(far.by);
        expect(near.by).toBeLessThanOrEqual(limit * DAY);
      },
    ),
  ));

test("the usual interval is the middle one, within a week and two months", () => {
  const at = (...days: number[]) => days.map((d) => ({ at: d * DAY }));
  expect(readingInterval(at(0, 30, 61, 90)) / DAY).toBe(30);
  expect(readingInterval(at(0, 1, 2)) / DAY).toBe(7);
  expect(readingInterval(at(0, 365)) / DAY).toBe(60);
  expect(readingInterval(at(0)) / DAY).toBe(30);
});
