import { partAgainstStop, partReadyOn } from "./part";

describe("the part against the stop", () => {
  const today = "2026-11-24";
  test.each([
    [{ leadTimeDays: 70, orderedOn: null }, true, "part 15 days after the stop begins"],
    [{ leadTimeDays: 35, orderedOn: null }, false, "part in time if ordered within 20 days"],
    [{ leadTimeDays: 70, orderedOn: "2026-11-01" }, false, "part in time"],
    [{ leadTimeDays: 0, orderedOn: null }, false, "part on hand"],
    [{ leadTimeDays: null, orderedOn: null }, false, "lead time of the part not stated"],
    [{ leadTimeDays: 55, orderedOn: null }, false, "part in time if ordered today"],
    [{ leadTimeDays: 56, orderedOn: null }, true, "part 1 day after the stop begins"],
  ] as const)("%p", (facts, late, text) =>
    expect(partAgainstStop({ ...facts, today }, "2027-01-18")).toEqual({ late, text }),
  );
  test("without a stop, and ordered long ago", () => {
    expect(partAgainstStop({ leadTimeDays: 10, orderedOn: null, today }, null)).toEqual({
      late: false,
      text: "part takes 10 days",
    });
    expect(partReadyOn({ leadTimeDays: 10, orderedOn: "2026-09-01", today })).toBe(today);
  });
});
