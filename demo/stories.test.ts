/** The stories of the harbour have a known truth: what is said of each must agree with it. */
import {
  DAY,
  assess,
  defaultPrior,
  random,
  theoreticalFlow,
  type AssessContext,
  type AssessPoint,
  type Assessment,
} from "@core";
import { fleetPlan } from "./fleet";
import { readPoint, roundTimes } from "./readings";
import { fluidPlans, type MachinePlan } from "./world";

const NOW = Date.UTC(2026, 10, 24, 9);
const plans = fleetPlan();

/** Assess one point of the plan, read as the demo reads it. */
function assessed(machineName: string, componentName: string, pointName: string): Assessment {
  const machine = plans.find((m) => m.name === machineName) as MachinePlan;
  const component = machine.components.find((c) => c.name === componentName)!;
  const plan = component.points.find((p) => p.name === pointName)!;
  const fluid = fluidPlans.find((f) => f.name === machine.fluid)!;
  const origin = NOW - 5.3 * 365.25 * DAY;
  const hours = (at: number) => ((at - origin) / DAY) * machine.hoursPerDay;
  const from = plan.months === undefined ? 0 : NOW - plan.months * 30.4375 * DAY;
  const times = roundTimes(NOW, 12, random(7)).filter((t) => t >= from);
  const readings = readPoint(
    plan,
    machine,
    () => fluid,
    times,
    NOW,
    origin,
    hours,
    undefined,
    random(42).fork(`${machineName}/${componentName}/${pointName}`),
  );
  const point: AssessPoint = {
    quantity: plan.quantity,
    limit: plan.limit,
    reference: plan.reference ?? null,
    fullFlow:
      component.displacement && component.speed ? theoreticalFlow(component.displacement, component.speed) : null,
    knownWhenNew: component.knownWhenNew ?? true,
    makersNew: null,
  };
  const context: AssessContext = {
    now: NOW,
    fluid,
    measured: [],
    contamination: null,
    prior: defaultPrior,
    duty: { hoursPerDay: machine.hoursPerDay, deviation: 0.12 },
    stops: [55, 169, 301].map((d) => ({ id: String(d), at: NOW + d * DAY })),
    leadTimeDays: component.leadTimeDays ?? null,
    runInHours: 50,
    lifeStartHours: 0,
    lifeStartedAt: null,
    meterChanges: [],
    readingsInAll: null,
    partReadyAt: null,
    nextChanceDays: 28,
    accepted: 0.3,
    repairedAt: null,
    seed: 0,
  };
  return assess(
    readings.map((r, i) => ({
      id: String(i),
      at: r.at,
      hours: r.hours,
      value: r.value,
      pressure: r.pressure,
      temperature: r.temperature,
      uncertainty: null,
      doubtful: false,
    })),
    point,
    context,
  );
}

test("lock gate, outer north, pump A: an alarm, since the part comes after the next stop and the limit before the one after", () => {
  const a = assessed("Outer gate north", "Pump A", "Case drain flow");
  expect(a.state).toBe("alarm");
  expect(a.forecast!.dates.p10!).toBeLessThan(NOW + 90 * DAY);
  expect(a.forecast!.dates.p90!).toBeGreaterThan(NOW + 90 * DAY);
});

test("inner gate south: worn when its meter was fitted, so an alarm from its first reading on", () => {
  const a = assessed("Inner gate south", "Pump", "Case drain flow");
  expect(a).toMatchObject({ state: "alarm", alreadyBeyond: true, forecast: null });
  expect(a.readings).toBeLessThan(15);
  expect(a.verdict.map((p) => ("text" in p ? p.text : "")).join("")).toMatch(
    /Already beyond its limit of 10 % when first read; condition when fitted not known\./,
  );
});

test("bridge drive, pump 1: rises every summer; corrected, nothing has changed", () => {
  const a = assessed("Bascule bridge drive", "Pump 1", "Case drain flow");
  expect(a.trend.mannKendall.raw!).toBeLessThan(0.05);
  expect(a.state).toBe("steady");
  expect(a.noTrend).not.toBeNull();
});

test("quay crane 2: pump and valve wear faster since the dirt event, and the change is seen", () => {
  for (const [component, point] of [
    ["Hoist pump", "Case drain flow"],
    ["Hoist valve", "Null leakage"],
  ] as const) {
    const a = assessed("Quay crane 2", component, point);
    expect([point, a.trend.proved]).toEqual([point, true]);
    expect(["drifting", "alert", "alarm"]).toContain(a.state);
    expect(a.forecast!.change.probability).toBeGreaterThan(0.5);
  }
});

test("ro-ro ramp: the margin of the check valve shrinks towards its limit", () => {
  const a = assessed("Ro-ro ramp", "Port check valve", "Pilot check margin");
  expect(["alert", "alarm"]).toContain(a.state);
  expect(a.trend.slope!.high).toBeLessThan(0);
});

test("sluice unit 3: the relief was altered on a day, and has stood beyond its limit since", () => {
  const a = assessed("Sluice unit 3", "Relief valve", "Relief setting");
  expect(a.state).toBe("alarm");
  expect(a.forecast!.step.probability).toBeGreaterThan(0.9);
  expect(Math.abs(a.forecast!.step.at! - (NOW - 190 * DAY))).toBeLessThan(45 * DAY);
});

test("slipway winch motor: three readings prove nothing", () => {
  const a = assessed("Slipway winch", "Winch motor", "Case drain flow");
  expect(a.readings).toBeLessThan(5);
  expect(a.state).toBe("unproven");
});

test("bridge proportional valve: its bore wears, long before its limit", () => {
  const a = assessed("Bascule bridge drive", "Proportional valve 1", "Null leakage");
  expect(a.trend.proved).toBe(true);
  expect(a.margin!.value).toBeGreaterThan(0.4);
  expect(a.margin!.value).toBeLessThan(1);
});

test("most of the fleet is well, and is said to be", () => {
  const well = plans
    .flatMap((m) =>
      m.components.flatMap((c) =>
        c.points
          .filter((p) => !p.truth && !p.step && p.months === undefined)
          .map((p) => [m.name, c.name, p.name] as const),
      ),
    )
    .filter((_, i) => i % 4 === 0);
  expect(well.length).toBeGreaterThan(60);
  const states = well.map((path) => assessed(...path).state);
  expect(states.filter((s) => s === "alarm" || s === "alert")).toEqual([]);
  expect(states.filter((s) => s === "steady").length / states.length).toBeGreaterThan(0.95);
});
