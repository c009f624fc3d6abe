import { check } from "~/platform/validate";
import { bookingSchema } from "./form";
import { partAgainstStop } from "./part";

test("a booking needs its component and hours", async () => {
  expect(await check(bookingSchema, { componentId: "", kind: "dance", crewHours: "", submission: "x" })).toMatchObject({ ok: false, problems: { componentId: expect.any(String), kind: expect.any(String), crewHours: expect.any(String), submission: expect.any(String) } });
});

describe("the part against the stop", () => {
  const now = Date.UTC(2026, 10, 24);
  const stopAt = Date.UTC(2027, 0, 18);
  test.each([
    [{ leadTimeDays: 70, orderedOn: null }, true, "part 15 days after the stop"], [{ leadTimeDays: 35, orderedOn: null }, false, "part in time if ordered within 20 days"], [{ leadTimeDays: 70, orderedOn: "2026-11-01" }, false, "part in time"], [{ leadTimeDays: 0, orderedOn: null }, false, "part on hand"], [{ leadTimeDays: null, orderedOn: null }, false, "lead time of the part not stated"],
  ] as const)("%p", (facts, late, text) => expect(partAgainstStop({ ...facts, stopAt, now })).toEqual({ late, text }));
  test("without a stop", () => expect(partAgainstStop({ leadTimeDays: 10, orderedOn: null, stopAt: null, now })).toEqual({ late: false, text: "part takes 10 days" }));
});
