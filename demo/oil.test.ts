/** The oil of the harbour has a known truth: what is said of each circuit must agree with it. */
import { DAY, assessOil, random, type OilAssessment, type OilInput } from "@core";
import { fleetPlan } from "./fleet";
import { lifePlan, livesOf } from "./lives";
import { oilHistory } from "./oil";
import { readPoint, roundTimes } from "./readings";
import { fluidPlans } from "./world";

const NOW = Date.UTC(2026, 10, 24, 9);
const ORIGIN = NOW - 5.3 * 365.25 * DAY;

function judged(name: string): OilAssessment {
  const machine = fleetPlan().find((m) => m.name === name)!;
  const hoursAt = (at: number) => Math.round(((at - ORIGIN) / DAY) * machine.hoursPerDay);
  const oil = oilHistory(machine, fluidPlans, NOW, hoursAt, random(42).fork(`${name}/oil`));
  const stated = fluidPlans.find((f) => f.name === machine.fluid)!;
  const times = roundTimes(NOW, 20, random(7));
  const components = machine.components.map((c, i) => {
    const { starts, ids } = livesOf(c, NOW, ORIGIN);
    const drop = c.points.find((p) => p.quantity === "pressureDrop");
    const readings = !drop
      ? []
      : starts.flatMap((start, life) =>
          readPoint(
            lifePlan(drop, c, starts, life, NOW),
            machine,
            oil.fluidAt,
            times.filter((t) => (life === 0 || t >= start) && t < (starts[life + 1] ?? Infinity)),
            NOW,
            start,
            (at) => hoursAt(at) - (life === 0 ? 0 : hoursAt(start)),
            undefined,
            random(9).fork(c.name + life),
          ).map((r) => ({
            at: r.at,
            hours: hoursAt(r.at),
            drop: r.value,
            temperature: r.temperature,
            lifeId: ids[life]!,
            flow: null,
          })),
        );
    return {
      id: String(i),
      name: c.name,
      kind: c.kind,
      makersCode: null,
      materials: [],
      fluidNeed: null,
      filter: c.filter ?? null,
      lives: starts.map((startedAt, k) => ({ id: ids[k]!, startedAt, endedAt: starts[k + 1] ?? null })),
      drops: readings,
    };
  });
  // leakages as they truly are, at the reference condition
  const leaks = machine.components.flatMap((c, i) =>
    c.points
      .filter((p) => p.quantity === "caseDrainFlow" || p.quantity === "leakageFlow")
      .map((p) => ({
        pointId: `${i}/${p.name}`,
        componentId: String(i),
        component: c.name.toLowerCase(),
        what: p.quantity === "caseDrainFlow" ? "case drain" : "leakage",
        readings: readPoint(
          p,
          machine,
          oil.fluidAt,
          times.filter((t) => p.months === undefined || t > NOW - p.months * 30 * DAY),
          NOW,
          ORIGIN,
          hoursAt,
          undefined,
          random(3).fork(c.name),
        ).map((r) => ({ at: r.at, value: r.truth * (1 + 0.02 * random(r.at % 1e6).normal()) })),
      })),
  );
  const input: OilInput = {
    now: NOW,
    volume: machine.oil?.volume ?? 250,
    workingPressure: machine.pressure,
    hoursPerDay: machine.hoursPerDay,
    hoursAt,
    targetSet: null,
    longest: { hours: null, months: 36 },
    temperatures: { start: 4, working: 48, hottest: 60 },
    fluid: {
      id: stated.name,
      ...stated,
      solubility: { a: stated.waterA, b: stated.waterB },
      acidNew: stated.fresh.acidNumber ?? null,
    },
    samples: oil.samples.map((s, i) => ({
      id: String(i),
      number: String(i),
      at: s.at,
      hours: s.hours,
      place: s.place,
      state: s.state,
      results: s.results,
      code: null,
    })),
    moves: oil.moves.map((m) => ({
      ...m,
      hours: hoursAt(m.at),
      fresh: fluidPlans.find((f) => f.name === m.fluid)!.fresh,
      fluidName: m.fluid,
      otherFluid: m.fluid !== machine.fluid,
      changeBackBy: null,
    })),
    components,
    leaks,
    metalLimits: {},
    peerRates: {},
  };
  return assessOil(input);
}

test("quay crane 2: the step is found, the filter named, and the metal traced to the pump that wears", () => {
  const a = judged("Quay crane 2");
  expect(a).toMatchObject({ state: "alarm", step: { still: true } });
  expect(a.step!.after).toBeLessThan(NOW - 252 * DAY);
  expect(a.step!.by).toBeGreaterThan(NOW - 252 * DAY);
  // eightfold in truth
  expect(a.step!.factor).toBeGreaterThan(5);
  expect(a.step!.factor).toBeLessThan(13);
  expect(a.causes[0]).toMatchObject({ id: "filterPast" });
  expect(a.causes[0]!.share).toBeGreaterThan(0.5);
  expect(a.causes[0]!.at).toBe(NOW - 261 * DAY);
  expect(a.suspects[0]).toMatchObject({ name: "Hoist pump", agrees: true });
  expect(
    a.leaks
      .filter((l) => l.worse)
      .map((l) => l.component)
      .sort(),
  ).toEqual(["hoist pump", "hoist valve"]);
  expect(a.contamination).not.toBeNull();
});

test("bridge drive: fine particles rise within a number of the code, and the valve's leakage with them", () => {
  const a = judged("Bascule bridge drive");
  expect(a.state).toBe("drifting");
  expect(a.step).toBeNull();
  expect(a.trends.over4!.doublingYears).toBeGreaterThan(1.2);
  expect(a.trends.over4!.doublingYears).toBeLessThan(3);
  expect(a.leaks.filter((l) => l.worse).map((l) => l.component)).toEqual(["proportional valve 1"]);
  expect(a.verdict.map((v) => ("text" in v ? v.text : "")).join("")).toContain(
    "proportional valve 1's leakage rises with them",
  );
});

test("ro-ro ramp: the wrong drum is seen in the viscosity and in the record of fills", () => {
  const a = judged("Ro-ro ramp");
  expect(a.viscosityOff!).toBeLessThan(-0.1);
  expect(a.findings.some((f) => f.text.includes("not the circuit's fluid"))).toBe(true);
});

test("cradle jacks: water is called; waste compactor: the flush is history", () => {
  expect(judged("Cradle jacks")).toMatchObject({ state: "alarm", margin: { of: "water" } });
  const compactor = judged("Waste compactor");
  expect(compactor.step?.still ?? false).toBe(false);
  expect(compactor.over.every((o) => (o ?? 0) <= 0)).toBe(true);
});

test("most of the harbour is well, and boring", () => {
  const well = [
    "Outer gate north",
    "Outer gate south",
    "Inner gate north",
    "Inner gate south",
    "Sluice unit 1",
    "Sluice unit 2",
    "Sluice unit 3",
    "Sluice unit 4",
    "Quay crane 1",
    "Quay crane 3",
    "Straddle carrier 1",
    "Straddle carrier 2",
    "Mobile harbour crane",
    "Slipway winch",
    "Dredge tender hoist",
    "Passenger gangway",
    "Workshop press",
    "Fender jack set",
  ].map((name) => [name, judged(name).state]);
  expect(well.filter(([, state]) => state === "alarm" || state === "alert")).toEqual([]);
  expect(well.filter(([, state]) => state === "drifting").length).toBeLessThanOrEqual(2);
});
