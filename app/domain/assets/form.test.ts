import { check } from "~/platform/validate";
import { recordSpecs } from "./form";

test("fleet records refuse what cannot be", async () => {
  expect(await check(recordSpecs.site.schema, { name: "A", timeZone: "Mars/Base" })).toMatchObject({
    ok: false,
    problems: { timeZone: expect.stringContaining("Not a time zone") },
  });
  expect(
    await check(recordSpecs.stop.schema, {
      siteId: crypto.randomUUID(),
      name: "S",
      startsOn: "2027-02-30",
      days: "1",
      crewHours: "8",
    }),
  ).toMatchObject({ ok: false, problems: { startsOn: expect.any(String) } });
  expect(await check(recordSpecs.fluid.schema, { name: "F", kv40: "5", kv100: "6", density15: "870" })).toMatchObject({
    ok: false,
    problems: { kv40: expect.stringContaining("above") },
  });
  expect(
    await check(recordSpecs.point.schema, {
      componentId: crypto.randomUUID(),
      name: "P",
      quantity: "pressure",
      state: "idle",
      unit: "L/min",
      intervalDays: "30",
    }),
  ).toMatchObject({ ok: false, problems: { unit: expect.stringContaining("not a unit") } });
  expect(await check(recordSpecs.machine.schema, { siteId: "x", name: "", tag: "", hoursPerDay: "abc" })).toMatchObject(
    {
      ok: false,
      problems: {
        siteId: "Choose a site.",
        name: expect.any(String),
        tag: expect.any(String),
        hoursPerDay: "Write a number.",
      },
    },
  );
  expect(
    await check(recordSpecs.component.schema, {
      circuitId: crypto.randomUUID(),
      kind: "gearPump",
      name: "P",
      displacement: "1 in³/rev",
      speed: "",
      leadTimeDays: "",
      position: "",
      runInHours: "",
    }),
  ).toMatchObject({ ok: true, values: { displacement: { value: 16.387064 } } });
});
