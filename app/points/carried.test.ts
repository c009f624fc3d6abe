import { stillHolds } from "./carried";

const kept = JSON.stringify({ machineId: "m", at: 1000, temperature: "48", pressure: "210", hours: "" });

test("conditions go along at one machine, for half an hour", () => {
  expect(stillHolds(kept, "m", 1000 + 29 * 60_000)).toBe(kept);
  expect(stillHolds(kept, "m", 1000 + 31 * 60_000)).toBeNull();
  expect(stillHolds(kept, "another", 2000)).toBeNull();
  expect(stillHolds(null, "m", 2000)).toBeNull();
  expect(stillHolds("{", "m", 2000)).toBeNull();
});
