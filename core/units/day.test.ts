import { addDays, dayOf, daysBetween, dayStart, stopEnds } from "./day";

test("days of a site, not of Greenwich", () => {
  expect(dayOf(Date.UTC(2026, 10, 24, 23), "America/Los_Angeles")).toBe("2026-11-24");
  expect(dayOf(Date.UTC(2026, 10, 24, 23), "Pacific/Auckland")).toBe("2026-11-25");
  expect(new Date(dayStart("2026-11-24", "America/Los_Angeles")).toISOString()).toBe("2026-11-24T08:00:00.000Z");
  expect(addDays("2026-12-31", 1)).toBe("2027-01-01");
  expect(daysBetween("2026-03-28", "2026-03-30")).toBe(2); // over a change of the clocks
  expect(stopEnds({ startsOn: "2027-01-18", days: 3 })).toBe("2027-01-21");
});
