import { fleetLaws, heldOutLaws, simulateFleet, tunedLaws, unseenLaws, type FleetLaw } from "./fleet";
import { random } from "../random/random";

const plan = { noise: 0.03, readingsPerLife: 40, lives: 6, seed: 5 };

test("the same plan gives the same fleet, another seed another", () => {
  expect(simulateFleet({ ...plan, law: "linear" })).toEqual(simulateFleet({ ...plan, law: "linear" }));
  expect(simulateFleet({ ...plan, law: "linear", seed: 6 })).not.toEqual(simulateFleet({ ...plan, law: "linear" }));
});

test.each(Object.keys(fleetLaws) as FleetLaw[])(
  "%s: readings end before the crossing, in time order, and grow from as new",
  (law) => {
    for (const life of simulateFleet({ ...plan, law })) {
      expect(life.readings.length).toBeGreaterThan(8);
      expect(life.readings.at(-1)!.hours).toBeLessThan(life.crossing);
      life.readings.slice(1).forEach((r, i) => expect(r.hours).toBeGreaterThanOrEqual(life.readings[i]!.hours));
      expect(life.limit / life.asNew).toBeGreaterThan(2.4);
    }
  },
);

test.each(
  [...tunedLaws, ...heldOutLaws, ...unseenLaws].filter(
    (law) => !["lumpy", "wanderingRate", "shocks", "ratchet"].includes(law),
  ),
)("%s starts as new and reaches its end at the time scale", (law) => {
  const course: (h: number) => number = fleetLaws[law](random(3), 10_000, 4);
  expect(course(0)).toBeCloseTo(1, 9);
  expect(course(10_000)).toBeCloseTo(4, 1);
});

test("every law stands in one set", () =>
  expect([...tunedLaws, ...heldOutLaws, ...unseenLaws].sort()).toEqual(Object.keys(fleetLaws).sort()));
