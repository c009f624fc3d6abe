/** What calculations of cylinders and held loads say, case by case. */
import fc from "fast-check";
import { outcomeOf, problemsOf, rowOf, textOf } from "./testing";

describe("margin of a load-holding valve", () => {
  const margin = (typed: Record<string, string>) => outcomeOf("holding-margin", typed);
  test("nearer than three tenths of the opening pressure is a doubt, past it is bad and opens now", () => {
    const opensAt = rowOf(margin({}), "opens at");
    const near = { load: "133", opposite: String(Math.round(0.8 * opensAt)) };
    expect(["doubt", "bad"]).toContain(margin(near).tone);
    expect(margin({ load: "60", opposite: "60" }).tone).toBe("bad");
    expect(textOf(margin({ load: "60", opposite: "60" }))).toContain("It opens now.");
  });
  test("a pilot ratio under the area ratio can never open by this path", () => {
    // 12272/8765 = 1.4001
    const outcome = margin({ ratio: "1.3" });
    expect(outcome.tone).toBe("good");
    expect(outcome.chart).toBeUndefined();
    expect(outcome.working.rows.map((r) => r.label)).not.toContain("margin");
  });
  test("without a rise there is no day; with one the middle lies between the ends", () => {
    expect(textOf(margin({ rise: "" }))).not.toContain("P10 to P90");
    expect(textOf(margin({ rise: "0.7" }))).toMatch(/opens in .+ to .+ \(P10 to P90, middle/);
  });
  test("an uncertainty as large as the rise leaves the late end open", () =>
    expect(textOf(margin({ rise: "0.5", riseDoubt: "0.5" }))).toContain("to never"));
  test("an intensified pressure above the rating is bad and said", () => {
    const outcome = margin({ rating: "100" });
    expect(outcome.tone).toBe("bad");
    expect(outcome.notes![0]).toContain("intensified");
  });
  test("a balance that pushes the other way sends to areas and gauges", () => {
    // 10 bar on the load side under 20 on a larger opposite side
    expect(margin({ load: "10", opposite: "20" }).notes!.join()).toContain("check the areas and the gauges");
  });
  test("a counterbalance valve opens where load and pilot together reach its setting", () => {
    const outcome = margin({ kind: "counterbalance", setting: "200", pilot: "outside", ratio: "4", opposite: "0" });
    // p_l + R·p ≥ setting: 114 + 4 p = 200, p = 21.5
    expect(rowOf(outcome, "opens at")).toBeCloseTo(21.5, 6);
    expect(outcome.working.formula).toContain("setting");
    expect(textOf(outcome)).toContain("of pilot pressure");
  });
});

describe("leak from a falling pressure", () => {
  test("a fall that cooling explains whole is no leak; more than that is less than nothing", () => {
    // 9 bar/K times 0.2 K/min
    expect(rowOf(outcomeOf("pressure-decay", { fall: "1.8", drift: "-0.2" }), "Q")).toBeCloseTo(0, 9);
    const odd = outcomeOf("pressure-decay", { fall: "1.8", drift: "-0.3" });
    expect(odd.tone).toBe("doubt");
    expect(odd.notes![0]).toMatch(/Less than nothing/);
  });
  test("warming oil hides a leak: it is more than the fall alone says", () => {
    const warm = rowOf(outcomeOf("pressure-decay", { drift: "0.1" }), "Q");
    const steady = rowOf(outcomeOf("pressure-decay", { drift: "0" }), "Q");
    expect(warm).toBeGreaterThan(steady);
    // 5 L/14 000 bar times 1.9 bar/min
    expect(steady).toBeCloseTo((5 / 14_000) * 1.9, 9);
  });
});

describe("leak from a creeping cylinder", () => {
  test("the whole bore, or the ring round the rod", () => {
    const bore = outcomeOf("creep");
    // π/4·125² mm² at 0.25 mm/min
    expect(rowOf(bore, "Q") * 1000).toBeCloseTo(((Math.PI / 4) * 125 ** 2 * 0.25) / 1000, 6);
    const ring = outcomeOf("creep", { rod: "90" });
    expect(rowOf(ring, "A")).toBeCloseTo((Math.PI / 4) * (125 ** 2 - 90 ** 2), 6);
  });
  test("a time of nothing is refused", () => expect(problemsOf("creep", { time: "0" }).form).toContain("above zero"));
  test("a property: twice as long for the same travel is half the leak", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), (minutes) => {
        const leak = (time: number) => rowOf(outcomeOf("creep", { time: String(time) }), "Q");
        expect(leak(minutes) / leak(2 * minutes)).toBeCloseTo(2, 9);
      }),
      { numRuns: 20 },
    ));
});

describe("stroke time against flow", () => {
  // π/4·125²·900 mm³ are 11.04 L: 11.04 s at 60 L/min
  test.each([
    ["11", "plain", false],
    ["11.8", "plain", true],
    ["14", "doubt", true],
  ])("%s s is %s", (time, tone, short) => {
    const outcome = outcomeOf("stroke-time", { time });
    expect(outcome.tone).toBe(tone);
    expect(textOf(outcome).includes("does not move it")).toBe(short);
  });
  test("retracting, the rod takes its part of the volume", () =>
    expect(rowOf(outcomeOf("stroke-time", { rod: "90" }), "volume swept")).toBeCloseTo(
      ((Math.PI / 4) * (125 ** 2 - 90 ** 2) * 900) / 1e6,
      6,
    ));
});
