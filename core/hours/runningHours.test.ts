import { DAY } from "../units/time";
import fc from "fast-check";
import { hoursFit, meterOffset, runningHours } from "./runningHours";

const monthly = (hours: (number | null)[]) => hours.map((h, i) => ({ at: i * 30 * DAY, hours: h }));
const axisOf = (hours: (number | null)[], changes: { at: number; before: number; after: number }[] = []) =>
  runningHours(monthly(hours), { hoursPerDay: 10, changes });

describe("running hours", () => {
  test("a replaced meter without a record: the clock goes on at the machine's own pace", () => {
    const { hours, believed } = axisOf([9000, 9300, 50, 350]);
    expect(hours).toEqual([9000, 9300, 9600, 9900]);
    expect(believed).toEqual([true, true, true, true]);
  });
  test("one mistyped figure does not stop the clock", () => {
    expect(axisOf([900, 11_400, 1400, 1650]).hours).toEqual([900, 1150, 1400, 1650]);
    expect(axisOf([900, 11_400, 1400, 1650]).believed).toEqual([true, false, true, true]);
  });
  test("a newest figure ten times too large is not believed", () => {
    expect(axisOf([8400, 8700, 9000, 93_000])).toEqual({
      hours: [8400, 8700, 9000, 9300],
      believed: [true, true, true, false],
    });
  });
  test("a newest figure of a meter that somebody set back is not believed until a second one says so", () => {
    expect(axisOf([8400, 8700, 9000, 12]).hours.at(-1)).toBe(9300);
    expect(axisOf([8400, 8700, 9000, 12, 300]).believed.slice(-2)).toEqual([true, true]);
  });
  test("a recorded change is taken as it is", () => {
    const changes = [{ at: 45 * DAY, before: 9450, after: 0 }];
    expect(axisOf([9000, 9300, 150, 450], changes).hours).toEqual([9000, 9300, 9600, 9900]);
    expect(meterOffset(changes, 44 * DAY)).toBe(0);
    expect(meterOffset(changes, 45 * DAY)).toBe(9450);
  });
  test("hours that were not noted come from the nearest that were, on both sides", () => {
    const { hours } = runningHours(
      [
        { at: 0, hours: 0 },
        { at: 100 * DAY, hours: null },
        { at: 365 * DAY, hours: 5000 },
        { at: 380 * DAY, hours: null },
      ],
      { hoursPerDay: 8 },
    );
    expect(hours[1]).toBeCloseTo((100 / 365) * 5000, 6);
    expect(hours[3]).toBe(5000 + 15 * 8);
  });
  test("nothing noted: the duty from the start", () => {
    expect(
      runningHours([{ at: 10 * DAY, hours: null }], { hoursPerDay: 8, start: { at: 0, hours: 100 } }).hours,
    ).toEqual([180]);
    expect(runningHours([], { hoursPerDay: 8 })).toEqual({ hours: [], believed: [] });
  });
  test("never runs backwards, never is no number, whatever was written", () => {
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.double({ min: 0, max: 1e6, noNaN: true })), { maxLength: 30 }),
        fc.array(fc.nat({ max: 40 }), { minLength: 30, maxLength: 30 }),
        (hours, gaps) => {
          let at = 0;
          const axis = runningHours(
            hours.map((h, i) => ({ at: (at += gaps[i]! * DAY), hours: h })),
            { hoursPerDay: 10 },
          ).hours;
          axis.forEach((h, i) => {
            expect(Number.isFinite(h)).toBe(true);
            if (i > 0) expect(h).toBeGreaterThanOrEqual(axis[i - 1]!);
          });
        },
      ),
    );
  });
  test("a meter that runs true is kept to the letter", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 24, noNaN: true }), { minLength: 2, maxLength: 40 }), (perDay) => {
        let h = 500;
        const noted = perDay.map((rate, i) => ({ at: i * 7 * DAY, hours: (h += i === 0 ? 0 : rate * 7) }));
        const { hours, believed } = runningHours(noted, { hoursPerDay: 10 });
        expect(believed.every(Boolean)).toBe(true);
        hours.forEach((value, i) => expect(value).toBeCloseTo(noted[i]!.hours, 6));
      }),
    );
  });
});

test("a meter goes no faster than the clock", () => {
  expect(hoursFit(100, 124, DAY)).toBe(true);
  expect(hoursFit(100, 130, DAY)).toBe(false);
  expect(hoursFit(100, 90, DAY)).toBe(false);
  expect(hoursFit(100, 100, 0)).toBe(true);
});
