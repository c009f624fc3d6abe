import fc from "fast-check";
import { random } from "../random/random";
import { dynamicViscosity } from "../fluid/viscosity";
import { analyseLoadTest, type LoadStep, type LoadTestPump } from "./loadTest";
import { caseFlowShare, throttlingRise, volumetricEfficiency } from "./flow";

const fluid = { kv40: 46, kv100: 6.8, density15: 875 };
const pump: LoadTestPump = { displacement: 45, speed: 1450, workingPressure: 210, fluid, flowUncertainty: 0.005 };
const K = 14_000;

/** Steps of a pump with a known leak, the oil warming from step to step. */
function test1(
  leak: number,
  { noLoad = 0.98, noise = 0, top = 210, steps = 8, turbulent = 0, seed = 1 } = {},
): LoadStep[] {
  const rng = random(seed);
  return Array.from({ length: steps }, (_, i) => {
    const pressure = 10 + ((top - 10) * i) / (steps - 1);
    const temperature = 46 + i;
    const flow =
      65.25 * noLoad * (1 - pressure / K) -
      (leak * pressure) / dynamicViscosity(fluid, temperature) -
      turbulent * Math.sqrt(pressure);
    return { pressure, temperature, flow: flow * (1 + noise * rng.normal()) };
  });
}

test("known no-load flow and leak are found again, whatever the oil does", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.05, max: 1.5, noNaN: true }),
      fc.double({ min: 0.8, max: 1, noNaN: true }),
      (leak, noLoad) => {
        const found = analyseLoadTest(test1(leak, { noLoad }), pump);
        expect(found.conductance.value / leak).toBeCloseTo(1, 6);
        expect(found.noLoadShare.value).toBeCloseTo(noLoad, 6);
        expect(found.turbulent).toBeNull();
      },
    ),
  );
});

test("compressibility alone is no wear: 1.5 % at 210 bar", () => {
  const found = analyseLoadTest(test1(0), pump);
  expect(found.verdict).toBe("good");
  expect(found.drop.value).toBeCloseTo(0, 6);
  expect(found.flowAt(210) / found.noLoadFlow.value).toBeCloseTo(0.985, 3);
});

test("three ways: wear, inlet or speed or displacement, not conclusive", () => {
  expect(analyseLoadTest(test1(1.2, { noise: 0.003 }), pump).verdict).toBe("wear");
  expect(analyseLoadTest(test1(0.1, { noise: 0.003, noLoad: 0.85 }), pump).verdict).toBe("inlet");
  expect(analyseLoadTest(test1(1.2, { noise: 0.003, noLoad: 0.85 }), pump).verdict).toBe("wearAndInlet");
  expect(analyseLoadTest(test1(0.1, { noise: 0.003 }), pump).verdict).toBe("good");
  expect(analyseLoadTest(test1(1.2, { top: 120 }), pump)).toMatchObject({
    verdict: "notConclusive",
    reason: expect.stringContaining("do not reach working pressure"),
  });
  expect(
    analyseLoadTest(test1(0.8, { noise: 0.06, steps: 4, seed: 3 }), { ...pump, flowUncertainty: 0.06 }),
  ).toMatchObject({ verdict: "notConclusive", reason: expect.stringContaining("doubt") });
});

test("the interval of the leak holds the truth in at least 92 of 100 noisy tests, and is narrow enough to tell a worn pump", () => {
  const found = Array.from({ length: 200 }, (_, seed) =>
    analyseLoadTest(test1(0.5, { noise: 0.005, seed: seed + 1 }), pump),
  );
  expect(found.filter((f) => f.conductance.low <= 0.5 && f.conductance.high >= 0.5).length).toBeGreaterThanOrEqual(184);
  expect(found.filter((f) => f.conductance.low > 0.3 && f.conductance.high < 0.7).length).toBeGreaterThanOrEqual(180);
});

test("steps where the compensator acts are left out and said", () => {
  const steps = [...test1(0.3), { pressure: 222, flow: 12, temperature: 54 }];
  const found = analyseLoadTest(steps, { ...pump, compensatorPressure: 225 });
  expect(found.steps.at(-1)!.left).toContain("compensator");
  expect(found.conductance.value).toBeCloseTo(0.3, 6);
});

test("a meter in the tank line reads expanded oil: brought back to the outlet", () => {
  const tank = test1(0.3).map((s) => ({ ...s, flow: s.flow / (1 - s.pressure / K) }));
  expect(analyseLoadTest(tank, { ...pump, meter: "tank" }).conductance.value).toBeCloseTo(0.3, 6);
});

test("a turbulent part is found where the steps ask for it", () => {
  const found = analyseLoadTest(test1(0.2, { turbulent: 0.5, steps: 12 }), { ...pump, flowUncertainty: 0.002 });
  expect(found.turbulent).toBeCloseTo(0.5, 4);
  expect(found.conductance.value).toBeCloseTo(0.2, 4);
});

test("only the no-load flow goes with speed", () => {
  const slow = test1(0.5).map((s) => ({
    ...s,
    speed: 1400,
    flow: s.flow - 65.25 * 0.98 * (1 - 1400 / 1450) * (1 - s.pressure / K),
  }));
  expect(analyseLoadTest(slow, pump).noLoadShare.value).toBeCloseTo(0.98, 6);
});

test("without a fluid the leak is per bar; too few steps are refused", () => {
  const steps = [10, 110, 210].map((pressure) => ({ pressure, flow: 60 * (1 - pressure / K) - 0.01 * pressure }));
  expect(analyseLoadTest(steps, { displacement: 45, speed: 1450, workingPressure: 210 }).conductance.value).toBeCloseTo(
    0.01,
    9,
  );
  expect(() => analyseLoadTest(steps.slice(1), pump)).toThrow(/at least 3/);
  expect(() => analyseLoadTest(steps, { ...pump, workingPressure: 0 })).toThrow(RangeError);
});

test("efficiency, case share, throttled oil", () => {
  expect(volumetricEfficiency(60, 65.25)).toBeCloseTo(0.9195, 4);
  expect(caseFlowShare(1.305, 65.25)).toBeCloseTo(2, 9);
  expect(
    throttlingRise(100, { density: 870, specificHeat: 1900, expansion: 7e-4, temperature: 313 - 273.15 }),
  ).toBeCloseTo(4.72, 2);
  expect(throttlingRise(100, { density: 870, specificHeat: 1900, expansion: 0, temperature: 40 })).toBeCloseTo(6.05, 2);
  expect(() => volumetricEfficiency(-1, 1)).toThrow(RangeError);
  expect(() => throttlingRise(1, { density: 0, specificHeat: 1, expansion: 0, temperature: 0 })).toThrow(RangeError);
});
