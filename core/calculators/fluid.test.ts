/** What calculations of the fluid, of heat and of instruments say, case by case. */
import { outcomeOf, problemsOf, rowOf, textOf } from "./testing";

describe("viscosity at a temperature", () => {
  test("at 40 and 100 °C it is what was given", () => {
    expect(rowOf(outcomeOf("viscosity", { temperature: "40" }), "ν")).toBeCloseTo(46, 6);
    expect(rowOf(outcomeOf("viscosity", { temperature: "100" }), "ν")).toBeCloseTo(6.8, 6);
  });
  test("the range in which it suits ends where its viscosity is the least and the greatest", () => {
    // least 10 and greatest 1000: at those temperatures the calculation gives them back
    const ends = outcomeOf("viscosity").answer.flatMap((p) =>
      "value" in p && p.quantity === "oilTemperature" ? [p.value] : [],
    );
    const [, cold, hot] = ends;
    expect(rowOf(outcomeOf("viscosity", { temperature: cold!.toFixed(6) }), "ν")).toBeCloseTo(1000, 0);
    expect(rowOf(outcomeOf("viscosity", { temperature: hot!.toFixed(6) }), "ν")).toBeCloseTo(10, 4);
  });
  test("outside what is permitted it is bad, inside plain", () => {
    expect(outcomeOf("viscosity", { temperature: "90" }).tone).toBe("bad");
    expect(outcomeOf("viscosity", { temperature: "-15" }).tone).toBe("bad");
    expect(outcomeOf("viscosity", { temperature: "60" }).tone).toBe("plain");
  });
  test("an oil that thickens with heat is refused", () =>
    expect(problemsOf("viscosity", { kv40: "6", kv100: "46" }).form).toBeTruthy());
});

describe("viscosity grade", () => {
  test.each([
    ["46", /^It is VG 46 \(41\.4 to 50\.6/, "good"],
    ["41.4", /^It is VG 46/, "good"],
    ["40", /^It lies outside every grade, nearest to VG 46/, "doubt"],
    ["33", /^It is VG 32/, "doubt"],
  ])("%s mm²/s beside 46 as new", (kv40, words, tone) => {
    const outcome = outcomeOf("viscosity-grade", { kv40 });
    expect(textOf(outcome)).toMatch(words);
    expect(outcome.tone).toBe(tone);
  });
  test("more than a tenth from new asks the laboratory which of four it is", () => {
    expect(outcomeOf("viscosity-grade", { kv40: "32", new40: "46" }).notes![0]).toMatch(
      /sheared, diluted, aged or mixed/,
    );
    expect(outcomeOf("viscosity-grade", { kv40: "44", new40: "46" }).notes).toEqual([]);
    expect(textOf(outcomeOf("viscosity-grade", { kv40: "44", new40: "46" }))).toContain("4.3 % thinner than new");
  });
});

describe("water in oil", () => {
  // 120 ppm at 20 °C and 600 at 80 °C: at 20 °C the saturation is 120 itself
  test.each([
    ["60", "good"],
    ["100", "doubt"],
    ["150", "bad"],
  ])("%s ppm at 20 °C is %s", (ppm, tone) => {
    expect(outcomeOf("water", { ppm, temperature: "20" }).tone).toBe(tone);
  });
  test("it comes free at the temperature at which what was found saturates", () => {
    const free = outcomeOf("water", { ppm: "120" }).answer.flatMap((p) => ("value" in p ? [p.value] : []));
    expect(free[0]).toBeCloseTo(20, 6);
    expect(textOf(outcomeOf("water", { ppm: "700", temperature: "80" }))).toContain(": free water.");
  });
  test("solubilities that do not rise with temperature are refused", () =>
    expect(problemsOf("water", { t1: "20", t2: "20" }).form).toBeTruthy());
});

describe("does this fluid suit", () => {
  const suits = (typed: Record<string, string>) => outcomeOf("fluid-suitability", typed);
  test("cold, at work and hot in the range", () => expect(suits({ start: "20", hottest: "60" }).tone).toBe("good"));
  test("too thick at a cold start is no, and names the cold start", () => {
    const outcome = suits({ start: "-20" });
    expect(outcome.tone).toBe("bad");
    expect(textOf(outcome)).toMatch(/^No\./);
  });
  test("outside the best range it is a cost, not a no", () => {
    const outcome = suits({ working: "68", hottest: "72", start: "20" });
    expect(outcome.tone).toBe("doubt");
    expect(textOf(outcome)).toMatch(/^Yes, with a cost\./);
  });
  test("a fluid of another type than the component is made for is no, whatever its viscosity", () => {
    const types = (type: string, made: string) => suits({ type, made, start: "20", hottest: "60" }).tone;
    expect(types("mineral", "mineral")).toBe("good");
    expect(types("hfc", "mineral")).toBe("bad");
  });
});

describe("viscosity under pressure", () => {
  test("no coefficient, no change", () => {
    const outcome = outcomeOf("viscosity-pressure", { alpha: "0" });
    expect(rowOf(outcome, "factor")).toBe(1);
    expect(textOf(outcome)).toContain("0 % less");
  });
});

describe("heat", () => {
  test("the rise as measured is judged beside the one that throttling explains", () => {
    // 4.7 K are explained; a quarter and a kelvin either way pass
    const said = (rise: string) => textOf(outcomeOf("throttling", { rise }));
    expect(said("4.5")).toMatch(/as measured\.$/);
    expect(said("9")).toMatch(/another source of heat/);
    expect(said("1")).toMatch(/not all the pressure is lost here/);
    expect(outcomeOf("throttling", { rise: "9" }).tone).toBe("doubt");
    expect(outcomeOf("throttling", { rise: "" }).tone).toBe("plain");
  });
  test("without expansion it is the common 6 K per 100 bar", () =>
    expect(rowOf(outcomeOf("throttling", { expansion: "0" }), "ΔT")).toBeCloseTo(6.05, 2));
  test("a leak's heat by year and beside the cooler", () => {
    // 200 bar and 6 L/min are 2 kW; 12 h a day for a year are 8760 kWh
    const outcome = outcomeOf("leak-heat", { cooler: "5" });
    expect(textOf(outcome)).toMatch(
      /8.?760 kWh a year \(about 2.?190 at that price\), 40 % of what the cooler takes\.$/,
    );
    expect(outcome.tone).toBe("doubt");
    expect(outcomeOf("leak-heat", { cooler: "10" }).tone).toBe("plain");
    expect(textOf(outcomeOf("leak-heat", { cooler: "" }))).not.toContain("cooler");
  });
});

describe("is this gauge fit", () => {
  const gauge = (typed: Record<string, string>) => outcomeOf("gauge-fitness", typed);
  test("a scale of twice the value and a fine class is suitable", () => {
    // 40 bar class 0.6: U = 2·0.24/√3 = 0.277, a third of 3 bar is 1
    const outcome = gauge({ scale: "40", accuracy: "0.6", expected: "20", greatest: "30", change: "3" });
    expect(outcome.tone).toBe("good");
    expect(rowOf(outcome, "U, k = 2")).toBeCloseTo(0.2771, 4);
  });
  test("a value in the lowest quarter is fit, and not the best", () => {
    const outcome = gauge({ scale: "160", accuracy: "0.6", expected: "20", greatest: "30", change: "10" });
    expect(outcome.tone).toBe("doubt");
    expect(textOf(outcome)).toContain("lowest quarter");
  });
  test("what closing an outlet brings must lie under full scale", () =>
    expect(textOf(gauge({ scale: "25", greatest: "30" }))).toContain("over-ranged"));
});

describe("units", () => {
  test("every other unit of the kind is given, and the figure reads as a person writes it", () => {
    const outcome = outcomeOf("units", { dimension: "temperature", unit: "°F", value: "122" });
    expect(rowOf(outcome, "°C")).toBeCloseTo(50, 9);
    expect(textOf(outcome)).toMatch(/^122(\.0+)? °F is 50/);
  });
  test("nothing is nothing in every unit of pressure", () =>
    expect(rowOf(outcomeOf("units", { value: "0" }), "bar")).toBe(0));
});
