/** A forecast that moved without a reading says why. */
import { DAY } from "../units/time";
import { fullContext, fullPoint, fullReadings } from "./inputs";
import { forecastBasis, rememberForecast, type ToldForecast } from "./moved";

const readings = fullReadings([1, 2, 3].map((k) => ({ at: k * 30 * DAY, value: 4 + k })));
const point = fullPoint({ quantity: "caseDrainFlow", limit: { upper: 12 } });
const context = fullContext({ now: 100 * DAY }, readings);
const basis = forecastBasis(readings, point, context, ["a peer"]);
const told = (p50: number | null, change: Partial<ToldForecast["basis"]> = {}): ToldForecast => ({
  at: 100 * DAY,
  dates: p50 === null ? { p10: null, p50: null, p90: null } : { p10: p50 - 50 * DAY, p50, p90: p50 + 50 * DAY },
  basis: { ...basis, ...change },
});
const first = rememberForecast(null, told(400 * DAY));

test("the first forecast of a life has not moved", () => expect(first.moved).toBeNull());

test.each([
  ["readings", forecastBasis([{ ...readings[0]!, recalled: true }, ...readings.slice(1)], point, context, ["a peer"])],
  ["peers", forecastBasis(readings, point, context, ["a peer", "another"])],
  ["oil", forecastBasis(readings, point, { ...context, contamination: { at: 50 * DAY, factor: 2 } }, ["a peer"])],
  ["duty", forecastBasis(readings, point, { ...context, duty: { hoursPerDay: 20, deviation: 0.1 } }, ["a peer"])],
  ["point", forecastBasis(readings, { ...point, makersNew: 3 }, context, ["a peer"])],
] as const)("moved by more than a tenth of its width: %s", (cause, after) => {
  expect(rememberForecast(first, told(411 * DAY, after)).moved).toEqual({
    toldAt: 100 * DAY,
    from: 400 * DAY,
    to: 411 * DAY,
    because: [cause],
  });
});

test("what changed and moved it by less is not told; many small moves are", () => {
  const little = rememberForecast(first, told(409 * DAY, { peers: "x" }));
  expect(little).toBe(first);
  const more = rememberForecast(little, told(418 * DAY, { peers: "y", oil: "z" }));
  expect(more.moved).toMatchObject({ from: 400 * DAY, to: 418 * DAY, because: ["peers", "oil"] });
  // told until the point is read again
  expect(rememberForecast(more, told(418 * DAY, { peers: "y", oil: "z" })).moved).toEqual(more.moved);
  expect(rememberForecast(more, told(300 * DAY, { taken: "new" })).moved).toBeNull();
});

test("days alone move it too, and a date that goes beyond the horizon has moved", () => {
  expect(rememberForecast(first, told(440 * DAY)).moved!.because).toEqual(["time"]);
  expect(rememberForecast(first, told(null)).moved).toMatchObject({ from: 400 * DAY, to: null });
  const none = rememberForecast(null, told(null));
  expect(rememberForecast(none, told(null, { peers: "x" })).moved).toBeNull();
});
