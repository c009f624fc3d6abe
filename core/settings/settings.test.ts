import { instrumentFitness } from "../instrument/fitness";
import { vacuumIndex } from "../instrument/vacuum";
import { settingsLadder } from "./ladder";

const hose = [
  { name: "pressure hose", pressure: 250 },
  { name: "filter housing", pressure: 280 },
];

describe("settings ladder", () => {
  test("a ladder in order is good, and the weakest part ends it", () => {
    const ladder = settingsLadder({ compensator: 200, relief: 220, ratings: hose });
    expect(ladder.good).toBe(true);
    expect(ladder.rungs.map((r) => r.id)).toEqual(["compensator", "relief", "rating"]);
    expect(ladder.rungs.at(-1)!.name).toContain("pressure hose");
    expect(ladder.reliefHeat).toBeNull();
  });
  test("relief under the unloader carries the pump's flow: 160 bar and 45 L/min make 12 kW", () => {
    const ladder = settingsLadder({
      cutIn: 140,
      cutOut: 170,
      relief: { set: 190, measured: 160 },
      ratings: hose,
      pumpFlow: 45,
    });
    expect(ladder.reliefHeat).toBeCloseTo(12, 9);
    expect(ladder.steps.find((s) => s.to.id === "relief")).toMatchObject({ verdict: "wrong", gap: -10 });
    expect(ladder.rungs.find((r) => r.id === "relief")).toMatchObject({ set: 190, measured: 160, pressure: 160 });
  });
  test("a small gap, a relief above the weakest hose, cut-in above cut-out", () => {
    expect(settingsLadder({ compensator: 200, relief: 208, ratings: hose }).steps[0]!.verdict).toBe("small");
    expect(settingsLadder({ compensator: 200, relief: 260, ratings: hose }).steps[1]!.message).toContain(
      "lower it before the machine runs",
    );
    expect(settingsLadder({ cutIn: 180, cutOut: 170, relief: 220, ratings: hose }).steps[0]!.verdict).toBe("wrong");
  });
  test("peaks count, and a slow logger does not see them", () => {
    const ladder = settingsLadder({
      compensator: 200,
      relief: 220,
      ratings: hose,
      peak: { pressure: 310, samplesPerSecond: 10 },
    });
    expect(ladder).toMatchObject({ peakOverRating: 60, peakSeen: false, good: false });
  });
  test("refuses a ladder without working control, rating or pressure", () => {
    expect(() => settingsLadder({ relief: 200, ratings: hose })).toThrow(/cut-out or a compensator/);
    expect(() => settingsLadder({ compensator: 100, relief: 200, ratings: [] })).toThrow(/rating/);
    expect(() => settingsLadder({ compensator: {}, relief: 200, ratings: hose })).toThrow(/Compensator/);
  });
});

describe("instrument fitness", () => {
  test("14 bar on a 420 bar gauge of class 1: ± 4.2 bar, U 4.85, 35 % of the reading, not fit to see 14 bar", () => {
    const f = instrumentFitness({ fullScale: 420, accuracyClass: 1 }, { expected: 14, greatest: 30, change: 14 });
    expect(f.permissible).toBeCloseTo(4.2, 9);
    expect(f.expanded).toBeCloseTo(4.85, 2);
    expect(f.share).toBeCloseTo(0.35, 2);
    expect(f.allowed).toBeCloseTo(4.67, 2);
    expect(f.fit).toBe(false);
  });
  test("a 40 bar gauge: U 0.46, at 35 % of scale, fit and preferred", () => {
    const f = instrumentFitness({ fullScale: 40, accuracyClass: 1 }, { expected: 14, greatest: 30, change: 14 });
    expect(f.expanded).toBeCloseTo(0.46, 2);
    expect(f).toMatchObject({ fit: true, preferred: true, place: 35, reasons: [] });
  });
  test("each reason by itself", () => {
    const need = { expected: 14, greatest: 30, change: 14, viscosity: 30, now: 100, cleanOil: true };
    const reasons = (instrument: object, more: object = {}) =>
      instrumentFitness({ fullScale: 40, accuracyClass: 1, ...instrument }, { ...need, ...more })
        .reasons.filter((r) => r.must)
        .map((r) => r.message)
        .join(" ");
    expect(reasons({}, { greatest: 40 })).toContain("over-ranged");
    expect(reasons({ leastReading: 20 })).toContain("below what it reads");
    expect(reasons({ viscosity: { low: 40, high: 100 } })).toContain("thinner or thicker");
    expect(reasons({ principle: "ultrasonic" })).toContain("needs particles");
    expect(reasons({ calibrationDue: null })).toContain("never calibrated");
    expect(reasons({ calibrationDue: 50 })).toContain("run out");
    expect(reasons({ calibrationDue: 150, principle: "turbine", viscosity: { low: 10, high: 100 } })).toBe("");
  });
  test("in the outer quarters it is fit but not preferred", () => {
    expect(
      instrumentFitness({ fullScale: 100, accuracyClass: 0.5 }, { expected: 14, greatest: 30, change: 14 }),
    ).toMatchObject({ fit: true, preferred: false });
    expect(
      instrumentFitness({ fullScale: 40, accuracyClass: 0.5 }, { expected: 38, greatest: 39, change: 14 }).reasons[0]!
        .message,
    ).toContain("uppermost");
    expect(
      instrumentFitness({ fullScale: 40, accuracyClass: 0.5 }, { expected: 0, greatest: 39, change: 14 }).share,
    ).toBe(Infinity);
    expect(() =>
      instrumentFitness({ fullScale: 0, accuracyClass: 1 }, { expected: 1, greatest: 2, change: 1 }),
    ).toThrow(RangeError);
  });
});

test("vacuum bench: 5 open, 25 blocked, 15 read is half way", () => {
  expect(vacuumIndex(15, { open: 5, blocked: 25 })).toBe(0.5);
  expect(() => vacuumIndex(15, { open: 25, blocked: 5 })).toThrow(RangeError);
});
