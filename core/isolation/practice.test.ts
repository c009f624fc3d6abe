import { describe, expect, test } from "@jest/globals";
import { usualCosts } from "../plan/usual";
import { curedBy, debriefOf, drawPractice, minutesOf, practiceCase, type PracticeLevel } from "./practice";
import { renewable, renewalOf } from "./practiceCost";
import { walk } from "./walk";

const caseOf = (level: PracticeLevel, seed: number) => practiceCase(drawPractice(level, seed), level, seed)!;

describe("a case to practise on", () => {
  test("the same level and seed are the same case, another seed is another", () => {
    const [a, b] = [caseOf(2, 17), caseOf(2, 17)];
    expect([a.template, a.symptom, a.truth]).toEqual([b.template, b.symptom, b.truth]);
    for (const t of a.own.tests) expect(a.show(t)).toEqual(b.show(t));
    const seen = new Set(Array.from({ length: 12 }, (_, i) => caseOf(2, i + 1)).map((c) => `${c.symptom} ${c.truth}`));
    expect(seen.size).toBeGreaterThan(6);
  });
  test("what a run hides stays when seeds come to draw something else; what is gone from the knowledge is no case", () => {
    const [hidden, other] = [drawPractice(1, 3), drawPractice(1, 4)];
    expect(hidden).not.toEqual(other);
    const kept = practiceCase(other, 1, 3)!;
    expect([kept.template, kept.symptom, kept.own.suspects[kept.truth]!.id]).toEqual([
      other.template,
      other.symptom,
      other.suspect,
    ]);
    expect(practiceCase({ ...hidden, suspect: "nothing" }, 1, 3)).toBeNull();
    expect(practiceCase({ ...hidden, template: "gone" as typeof hidden.template }, 1, 3)).toBeNull();
  });
  test("every test has an answer that it can have", () => {
    for (const level of [1, 2, 3] as const)
      for (let seed = 1; seed <= 4; seed++) {
        const c = caseOf(level, seed);
        for (const t of c.own.tests) expect(Object.keys(t.about.results)).toContain(c.show(t).result);
      }
  });
  test("an instrument shows the fault in the circuit with its error", () => {
    const withGauge = Array.from({ length: 60 }, (_, i) => caseOf(1, i + 1)).flatMap((c) =>
      c.own.tests.map((t) => c.show(t)).filter((s) => s.times !== null),
    );
    expect(withGauge.length).toBeGreaterThan(20);
    expect(withGauge.some((s) => Math.abs(s.times! - 1) > 0.2)).toBe(true);
    expect(withGauge.every((s) => Number.isFinite(s.times!))).toBe(true);
  });
});

describe("the debrief", () => {
  const c = caseOf(1, 3);
  const truth = c.own.suspects[c.truth]!.id;
  const best = walk(c.own, (t) => c.show(t).result).steps.map((s) => s.test.id);
  test("the best path and the right name: full marks", () => {
    expect(debriefOf(c, best, truth)).toMatchObject({ right: true, rightAct: true, unsafe: [], score: 100 });
  });
  test("the best path of no case is called unsafe", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const other = caseOf(1, seed);
      const path = walk(other.own, (t) => other.show(t).result).steps.map((s) => s.test.id);
      const { unsafe, score } = debriefOf(other, path, other.own.suspects[other.truth]!.id);
      expect([seed, unsafe.filter((u) => u !== "blamed the pump"), score >= 85]).toEqual([seed, [], true]);
    }
  });
  test("a wrong name costs, and is said not to cure", () => {
    const other = c.own.suspects.find(
      (s) => s.id !== truth && s.about.act.do !== c.own.suspects[c.truth]!.about.act.do,
    )!;
    const { score, unsafe, right } = debriefOf(c, best, other.id);
    expect(right).toBe(false);
    expect(unsafe).toContain("not cured");
    expect(score).toBeLessThan(50);
  });
  test("opening the circuit first is unsafe, and so is a pump that is blamed without a look", () => {
    const opens = c.own.tests.find((t) => t.about.risk === "opens")!;
    expect(debriefOf(c, [opens.id], truth).unsafe).toContain("opened early");
    const pump = c.own.suspects.find((s) => s.about.part === "pump");
    if (pump) expect(debriefOf(c, [opens.id], pump.id).unsafe).toContain("blamed the pump");
  });
  test("what is made ready counts once, what is not a test counts for nothing", () => {
    expect(minutesOf(c, [])).toBe(0);
    expect(minutesOf(c, ["nonsense"])).toBe(0);
    const warm = c.own.tests.filter((t) => t.about.prepare === "warm").slice(0, 2);
    const alone = warm.reduce((s, t) => s + minutesOf(c, [t.id]), 0);
    expect(
      alone -
        minutesOf(
          c,
          warm.map((t) => t.id),
        ),
    ).toBe(15);
  });
  test("nothing named, nothing done", () => {
    expect(debriefOf(c, [], "").right).toBe(false);
  });
});

describe("what it costs", () => {
  const c = caseOf(1, 3);
  const truth = c.own.suspects[c.truth]!;
  const best = walk(c.own, (t) => c.show(t).result).steps.map((s) => s.test.id);
  const pump = c.netlist.elements.find((e) => /pump/i.test(e.kind))!.id;

  test("the best path costs its hours and the cure, and nobody pays less", () => {
    const { cost, best: path } = debriefOf(c, best, truth.id);
    expect(cost).toBe(path.cost);
    expect(cost).toBeGreaterThanOrEqual(Math.round((path.minutes / 60) * usualCosts.crewHour));
  });
  test("a wrong name is paid for, and the cure after it", () => {
    const wrong = c.own.suspects.find((s) => s.about.act.part && s.about.act.text !== truth.about.act.text)!;
    expect(debriefOf(c, best, wrong.id).cost).toBeGreaterThan(debriefOf(c, best, truth.id).cost);
  });
  test("a pump renewed on a guess costs its hours and its part, and is told", () => {
    expect(truth.element).not.toBe(pump);
    const guessed = debriefOf(c, [renewalOf(pump), ...best], truth.id);
    const { cost, minutes } = renewable(c.netlist).find((r) => r.element === pump)!;
    expect(guessed.cost - debriefOf(c, best, truth.id).cost).toBeCloseTo(cost, 0);
    expect(guessed.minutes - debriefOf(c, best, truth.id).minutes).toBe(minutes);
    expect(guessed.unsafe).toEqual(expect.arrayContaining(["blamed the pump", "renewed in vain"]));
    expect(guessed.score).toBeLessThan(75);
  });
  test("the part that has the fault cures it, where a new part does; then nothing more is paid", () => {
    const cases = Array.from({ length: 40 }, (_, i) => caseOf(1, i + 1));
    const worn = cases.find((x) => {
      const { element, about } = x.own.suspects[x.truth]!;
      return about.act.do === "replace" && renewable(x.netlist).some((r) => r.element === element);
    })!;
    const { element, id } = worn.own.suspects[worn.truth]!;
    expect(curedBy(worn, element!)).toBe(true);
    const { cost, unsafe } = debriefOf(worn, [renewalOf(element!)], id);
    expect(cost).toBe(Math.round(renewable(worn.netlist).find((r) => r.element === element)!.cost));
    expect(unsafe).not.toContain("renewed in vain");
    const set = cases.find((x) => x.own.suspects[x.truth]!.about.act.do === "set")!;
    expect(curedBy(set, set.own.suspects[set.truth]!.element!)).toBe(false);
  });
  test("a reservoir or a pipe is not renewed on a guess", () => {
    const kinds = renewable(c.netlist).map((r) => c.netlist.elements.find((e) => e.id === r.element)!.kind);
    expect(kinds).not.toContain("tank");
    expect(kinds).not.toContain("line");
  });
});
