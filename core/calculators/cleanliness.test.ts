/** What calculations of cleanliness and filters say, case by case. */
import { outcomeOf, problemsOf, rowOf, textOf } from "./testing";

describe("cleanliness code", () => {
  const code = (typed: Record<string, string>) => outcomeOf("iso-4406", typed);
  test("without a target there is only the code", () => {
    const outcome = code({ t4: "", t6: "", t14: "" });
    expect(textOf(outcome)).toBe("18/16/13.");
    expect(outcome.tone).toBe("plain");
    expect(outcome.chart!.series.map((s) => s.label)).toEqual(["sample"]);
  });
  test("one number over is twice the particles and a doubt, two are bad", () => {
    // 2500 per mL is the upper bound of 18 (ISO 4406)
    expect(code({ over4: "2500" }).tone).toBe("good");
    expect(textOf(code({ over4: "2501" }))).toContain("1 number over target, about 2 times");
    expect(code({ over4: "2501" }).tone).toBe("doubt");
    expect(code({ over4: "5001" }).tone).toBe("bad");
  });
  test("fewer than twenty particles really counted carry their sign", () => {
    expect(textOf(code({ raw: "12", t14: "" }))).toContain("≥13");
    expect(textOf(code({ raw: "20", t14: "" }))).not.toContain("≥");
  });
  test("larger sizes cannot be more than smaller ones", () =>
    expect(problemsOf("iso-4406", { over4: "10", over6: "400" }).form).toBeTruthy());
});

describe("target for a circuit", () => {
  test("the most sensitive part decides, and above 210 bar the stricter row", () => {
    const pressures = (pressure: string) => textOf(outcomeOf("cleanliness-target", { pressure }));
    expect(pressures("210")).not.toBe(pressures("211"));
    const outcome = outcomeOf("cleanliness-target");
    expect(outcome.table!.rows).toHaveLength(1);
  });
});

describe("what a code stands for", () => {
  test("18 is above 1300 and up to 2500 (ISO 4406)", () => {
    const outcome = outcomeOf("code-counts");
    expect(outcome.table!.rows[0]!.slice(1)).toEqual([
      { value: 1300, quantity: "count" },
      { value: 2500, quantity: "count" },
    ]);
  });
  test("a number out of the scale is refused beside its field", () =>
    expect(problemsOf("code-counts", { over4: "29" }).over4).toBeTruthy());
});

describe("classes", () => {
  test("the worst size decides, and a size that nobody counted is said so", () => {
    const outcome = outcomeOf("nas-1638", { e: "" });
    expect(outcome.table!.rows.at(-1)!.slice(0, 2)).toEqual([expect.any(String), "not counted"]);
    const worse = outcomeOf("nas-1638", { c: "100000" });
    expect(textOf(worse)).toContain("the size 25-50 µm decides");
  });
  test("more particles never give a better class (AS4059)", () => {
    const classOf = (over4: string) => Number(/\d+/.exec(textOf(outcomeOf("as-4059", { a: over4 })))![0]);
    expect(classOf("900000")).toBeGreaterThanOrEqual(classOf("90000"));
  });
});

describe("cleaning up a tank", () => {
  test("a loop of the same element shortens it, and the time without it stands beside", () => {
    const outcome = outcomeOf("clean-up", { loop: "40" });
    expect(textOf(outcome)).toMatch(/without the loop\)/);
    const minutes = (typed: Record<string, string>) => {
      const part = outcomeOf("clean-up", typed).answer.find((p) => "value" in p && p.quantity === "minutes");
      return part && "value" in part ? part.value : NaN;
    };
    expect(minutes({ loop: "40" })).toBeLessThan(minutes({ loop: "" }));
  });
  test("where the filter alone never gets there, the loop may", () => {
    // settles at R/(Q·η): 60 000/(60·0.995) is 1005, 60 000/(160·0.995) is 377
    const typed = { ingress: "60000", goal: "800" };
    expect(outcomeOf("clean-up", typed).tone).toBe("bad");
    expect(textOf(outcomeOf("clean-up", { ...typed, loop: "100" }))).toContain("never without the loop");
  });
});

describe("filtration ratio", () => {
  test("β 200 takes 99.5 %, and under 75 is a doubt", () => {
    expect(rowOf(outcomeOf("filter-ratio"), "β")).toBe(200);
    expect(textOf(outcomeOf("filter-ratio"))).toContain("99.50 %");
    expect(outcomeOf("filter-ratio", { after: "40" }).tone).toBe("doubt");
  });
  test("more after than before: the samples are swapped", () =>
    expect(problemsOf("filter-ratio", { after: "3000" }).form).toMatch(/swapped/));
});

describe("differential pressure of a filter", () => {
  const drop = (typed: Record<string, string>) => outcomeOf("filter-drop", { temperature: "50", flow: "60", ...typed });
  test.each([
    ["2.9", "bad", /change the element/],
    ["2.1", "doubt", /not blocked/],
    ["1.5", "good", /not blocked/],
  ])("%s bar at the reference under a limit of 2.8", (value, tone, words) => {
    const outcome = drop({ drop: value });
    expect(outcome.tone).toBe(tone);
    expect(textOf(outcome)).toMatch(words);
    expect(rowOf(outcome, "Δp_ref")).toBeCloseTo(Number(value), 9);
  });
  test("the housing's part goes with the square of the flow, the element's with the flow", () => {
    // 1 bar of housing at 60 L/min is 4 at 120: of 10 bar at 120 the element has 6, 3 at 60
    expect(rowOf(drop({ drop: "10", flow: "120", housing: "1" }), "Δp_ref")).toBeCloseTo(4, 9);
  });
});

describe("wear metal corrected for top-ups", () => {
  test("with nothing lost and nothing added it is as read", () => {
    const outcome = outcomeOf("wear-metal", { events: "" });
    expect(outcome.working.rows.map((r) => r.value)).toEqual([2, 9, 14, 21, 24]);
  });
  test("what was lost is put back into the sum: the true rate is above the one that is read", () => {
    const slopes = /It makes ([\d.]+) ppm.*looks like ([\d.]+)\./.exec(textOf(outcomeOf("wear-metal")))!;
    expect(Number(slopes[1])).toBeGreaterThan(Number(slopes[2]));
  });
});
