import { DAY } from "../units/time";
import { questionHours } from "./question";

const day = (at: number) => `day ${at / DAY}`;
const before = { at: 0, hours: 9000 };

test.each([
  [{ at: 30 * DAY, hours: 9240 }, undefined],
  [{ at: 30 * DAY, hours: 90_000 }, /ten times/],
  [{ at: 30 * DAY, hours: 9800 }, /more than has passed/],
  [{ at: 30 * DAY, hours: 50 }, /runs backwards.*Was the meter replaced or reset\?/],
  [{ at: 30 * DAY, hours: 9715 }, undefined],
  [{ at: 60 * DAY, hours: 10_400 }, /much more than the usual 6 h a day/],
] as const)("%p", (typed, message) => {
  const asked = questionHours(typed, before, null, typed.at === 60 * DAY ? 6 : 20, day);
  if (message) expect(asked).toMatch(message);
  else expect(asked).toBeUndefined();
});
test("against what stands after it, and against nothing", () => {
  expect(questionHours({ at: 0, hours: 9500 }, null, { at: 10 * DAY, hours: 9100 }, 8, day)).toMatch(
    /shows 9100\u00a0h on day 10/,
  );
  expect(questionHours({ at: 0, hours: 9500 }, null, null, 8, day)).toBeUndefined();
});
