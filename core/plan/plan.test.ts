import { DAY } from "../units/time";
import { beforeAll, describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import loadHighs, { type Highs } from "highs";
import { prepare } from "./blocks";
import { improve } from "./improve";
import { helpsOf } from "./helps";
import { linesOf } from "./lines";
import { costAt } from "./options";
import { crossingsOf, fatesOf, hazardOf } from "./scenarios";
import { solvePlan } from "./solve";
import { noWishes, type PlanPiece, type PlanProblem, type PlanStop } from "./types";
import { objectiveOf, valueOf } from "./value";

const NOW = Date.UTC(2026, 10, 24);
const at = (days: number) => NOW + days * DAY;

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});

const COSTS = {
  currency: "€",
  crewHour: 60,
  overHour: 400,
  opening: 600,
  extraStop: 2500,
  standing: 120,
  failsAMonth: 0.15,
};

const piece = (id: string, change: Partial<PlanPiece> = {}): PlanPiece => ({
  id,
  label: id,
  machine: "m",
  circuit: "k",
  hours: { mechanical: 6 },
  partAt: null,
  partSure: true,
  crossings: [at(60), at(90), at(120), at(180)],
  since: at(-900),
  costs: { part: 2000, failure: 20_000 },
  reads: null,
  booked: null,
  ...change,
});

const stop = (id: string, days: number, change: Partial<PlanStop> = {}): PlanStop => ({
  id,
  name: `stop ${id}`,
  at: at(days),
  crew: { mechanical: 40 },
  machines: null,
  ...change,
});

const problem = (change: Partial<PlanProblem> = {}): PlanProblem => ({
  now: NOW,
  until: at(300),
  stops: [stop("a", 20), stop("b", 58), stop("c", 200)],
  pieces: [piece("p")],
  costs: COSTS,
  wishes: noWishes,
  ...change,
});

const solved = (p: PlanProblem) => {
  const { prepared, step } = solvePlan(p, highs, { gap: 1e-6, seconds: 30 });
  return { prepared, step, lines: linesOf(prepared, step.choice) };
};
const chosen = (p: PlanProblem) => Object.fromEntries(solved(p).lines.map((l) => [l.piece, l.option.id]));

/** Every choice of every block, tried one by one. */
function exhaustive(p: PlanProblem): number {
  const prepared = prepare(p);
  const { blocks } = prepared;
  let least = Infinity;
  const walk = (choice: number[]) => {
    if (choice.length === blocks.length) {
      least = Math.min(least, objectiveOf(prepared, choice));
      return;
    }
    blocks[choice.length]!.options.forEach((_, j) => walk([...choice, j]));
  };
  walk([]);
  return least;
}

const days = fc.integer({ min: 1, max: 280 });
const anyPiece = (id: string) =>
  fc
    .record({
      machine: fc.constantFrom("m", "n"),
      hours: fc.integer({ min: 1, max: 20 }),
      partAt: fc.option(fc.integer({ min: -20, max: 250 })),
      crossings: fc.uniqueArray(fc.integer({ min: -50, max: 900 }), { minLength: 2, maxLength: 6 }),
      part: fc.integer({ min: 0, max: 6000 }),
      failure: fc.integer({ min: 0, max: 50_000 }),
    })
    .map(({ machine, hours, partAt, crossings, part, failure }) =>
      piece(id, {
        machine,
        hours: { mechanical: hours },
        partAt: partAt === null ? null : at(partAt),
        crossings: [...crossings].sort((a, b) => a - b).map(at),
        costs: { part, failure },
      }),
    );
const anyProblem = fc
  .record({
    pieces: fc.tuple(anyPiece("p"), anyPiece("q"), anyPiece("r")),
    stops: fc.array(fc.record({ days, crew: fc.integer({ min: 0, max: 30 }), all: fc.boolean() }), { maxLength: 3 }),
    together: fc.boolean(),
    taken: fc.option(fc.integer({ min: 0, max: 10 })),
    caution: fc.constantFrom(0, 0, 0.4),
  })
  .map(({ pieces, stops, together, taken, caution }) =>
    problem({
      pieces,
      stops: stops.map((s, i) =>
        stop(`s${i}`, s.days, { crew: { mechanical: s.crew }, machines: s.all ? null : ["m"] }),
      ),
      wishes: {
        ...noWishes,
        together: together ? [["p", "q"]] : [],
        crewAt: taken === null ? {} : { s0: { mechanical: taken } },
        caution,
      },
    }),
  );

describe("the plan is the cheapest", () => {
  test("of all that can be chosen, tried one by one", () => {
    fc.assert(
      fc.property(anyProblem, (p) => {
        const { step } = solved(p);
        expect(step.objective).toBeCloseTo(exhaustive(p), 4);
        expect(step.bound).toBeLessThanOrEqual(step.objective + 1e-6);
      }),
      { numRuns: 25 },
    );
  });
  test("no plan of the rule of thumb is below the proven one, and what is minimised is what is told", () => {
    fc.assert(
      fc.property(anyProblem, (p) => {
        const prepared = prepare(p);
        const { step } = solved(p);
        expect(objectiveOf(prepared, improve(prepared))).toBeGreaterThanOrEqual(step.objective - 1e-6);
        const { expected, worst } = valueOf(prepared, step.choice);
        const { caution } = p.wishes;
        expect((1 - caution) * expected + caution * worst).toBeCloseTo(step.objective, 4);
      }),
      { numRuns: 25 },
    );
  });
  test("nothing due: an empty plan that costs nothing", () => {
    const { step, lines } = solved(problem({ pieces: [] }));
    expect([step.gap, step.objective, lines]).toEqual([0, 0, []]);
  });
});

describe("which stop", () => {
  test("before the risk grows, after the part is there", () => {
    expect(chosen(problem())).toEqual({ p: "b" });
    expect(chosen(problem({ pieces: [piece("p", { partAt: at(100) })] })).p).toMatch(/^own:/);
    expect(chosen(problem({ pieces: [piece("p", { crossings: [null] })] }))).toEqual({ p: "wait" });
  });
  test("a stop of its own when no planned one comes in time, at once when every day costs", () => {
    const p = piece("p", { crossings: [at(-60), at(-30)], costs: { part: 500, failure: 200_000 } });
    expect(chosen(problem({ pieces: [p], stops: [stop("late", 150)] }))).toEqual({ p: `own:${NOW}` });
  });
  test("a machine is opened once where that costs less", () => {
    const p = problem({
      pieces: [piece("p"), piece("q", { crossings: [at(150), at(180), at(250)], costs: { part: 300, failure: 3000 } })],
    });
    const { lines } = solved(p);
    expect(lines.map((l) => [l.option.id, l.shares])).toEqual([
      ["b", 1],
      ["b", 1],
    ]);
  });
  test("crew hours: what does not fit goes elsewhere, unless it is pinned", () => {
    const both = [piece("p"), piece("q", { machine: "n" })];
    const stops = [stop("a", 60, { crew: { mechanical: 6 } }), stop("b", 80, { crew: { mechanical: 6 } })];
    expect(Object.values(chosen(problem({ pieces: both, stops }))).sort()).toEqual(["a", "b"]);
    const pinned = solved(problem({ pieces: both, stops, wishes: { ...noWishes, pinned: { p: "a", q: "a" } } }));
    expect(pinned.lines.map((l) => l.option.id)).toEqual(["a", "a"]);
    expect(valueOf(pinned.prepared, pinned.step.choice).parts.over).toBe(6 * COSTS.overHour);
  });
  test("a stop that does not tell trades apart has one crew; one that does has each its own", () => {
    const both = [piece("p", { hours: { mechanical: 4, electrical: 4 } })];
    const over = (crew: PlanStop["crew"]) => {
      const { prepared, step } = solved(
        problem({ pieces: both, stops: [stop("b", 58, { crew })], wishes: { ...noWishes, pinned: { p: "b" } } }),
      );
      return valueOf(prepared, step.choice).parts.over / COSTS.overHour;
    };
    expect([over({ mechanical: 8 }), over({ mechanical: 5 }), over({ mechanical: 8, electrical: 1 })]).toEqual([
      0, 3, 3,
    ]);
  });
  test("wishes are heeded and cost what they cost", () => {
    const free = solved(problem());
    const wish = solved(problem({ wishes: { ...noWishes, forbidden: { p: ["b"] } } }));
    expect(wish.lines[0]!.option.id).not.toBe("b");
    expect(wish.step.objective - free.step.objective).toBeCloseTo(free.lines[0]!.next!.more, 4);
    expect(chosen(problem({ wishes: { ...noWishes, without: ["b"] } })).p).not.toBe("b");
    expect(chosen(problem({ wishes: { ...noWishes, pinned: { p: "c" } } }))).toEqual({ p: "c" });
  });
  test("caution pays for less risk", () => {
    const p = problem({ stops: [stop("a", 20), stop("b", 95), stop("c", 200)] });
    const [bold, careful] = [solved(p), solved({ ...p, wishes: { ...noWishes, caution: 0.8 } })];
    const value = (s: typeof bold) => valueOf(s.prepared, s.step.choice);
    expect(value(careful).worst).toBeLessThanOrEqual(value(bold).worst + 1e-6);
    expect(careful.lines[0]!.option.fails).toBeLessThanOrEqual(bold.lines[0]!.option.fails);
  });
});

describe("what it costs", () => {
  test("failing, life thrown away and work, by hand", () => {
    const p = piece("p", { crossings: [at(30), at(130)], since: at(-170) });
    const { fails, crossed, parts } = costAt(p, at(80), { now: NOW, costs: COSTS });
    const failed = (1 - Math.exp((Math.log(1 - 0.15) * 50) / 30.4375)) / 2;
    expect(crossed).toBe(0.5);
    expect(fails).toBeCloseTo(failed, 12);
    expect(parts.failing).toBeCloseTo(failed * 20_000, 8);
    expect(parts.life).toBeCloseTo(((50 / 300) * 2000) / 2, 8);
    expect(parts.work).toBeCloseTo((1 - failed) * (360 + 2000), 8);
  });
  test("scenarios have the forecast's spread; a piece beside it changes none of them; one circuit fails together", () => {
    const [p, q, far] = [piece("p"), piece("q"), piece("far", { circuit: "other" })];
    const draws = fatesOf(problem({ pieces: [p, q, far] }), 2000).map((f) => f.map((x) => x.crosses));
    expect(fatesOf(problem({ pieces: [p] }), 2000)[0]!.map((x) => x.crosses)).toEqual(draws[0]);
    const quantiles = crossingsOf(p, NOW);
    for (const c of quantiles) expect(draws[0]!.filter((d) => d === c).length / 2000).toBeCloseTo(0.25, 1);
    const agree = (a: number[], b: number[]) => a.filter((v, i) => v === b[i]).length / 2000;
    expect(agree(draws[0]!, draws[1]!)).toBeGreaterThan(agree(draws[0]!, draws[2]!) + 0.05);
  });
  test("a chance of failing of 0 never fails, one of 1 is no infinity", () => {
    expect(hazardOf(0)).toBe(0);
    expect(Number.isFinite(hazardOf(1))).toBe(true);
    const p = problem({ costs: { ...COSTS, failsAMonth: 0 } });
    expect(fatesOf(p, 10)[0]!.every((f) => f.fails === Infinity)).toBe(true);
    expect(solved(p).lines[0]!.option.fails).toBe(0);
  });
});

describe("what would help", () => {
  test("a part that comes late is worth having on the shelf; knowing is never worth less than nothing", () => {
    const late = piece("p", { partAt: at(210), partSure: false });
    const { prepared, step } = solved(problem({ pieces: [late] }));
    const helps = helpsOf(prepared, step.choice);
    const shelf = helps.find((h) => h.kind === "part")!;
    const same = solved(problem({ pieces: [{ ...late, partAt: null }] }));
    expect(shelf.saves).toBeCloseTo(step.objective - same.step.objective, 4);
    expect(helps.every((h) => h.saves > 0)).toBe(true);
  });
  test("one more reading is worth less than knowing, and nothing where the reading says nothing", () => {
    const unsure = piece("p", {
      crossings: [at(45), at(150), at(260), at(290)],
      reads: { level: 0.6, deviation: 0.03 },
    });
    const readingOf = (p: PlanPiece) => {
      const { prepared, step } = solved(
        problem({ pieces: [p], stops: [stop("b", 40), stop("c", 140), stop("d", 250)] }),
      );
      return helpsOf(prepared, step.choice).find((h) => h.kind === "reading");
    };
    const sharp = readingOf(unsure)!;
    expect(sharp).toMatchObject({ kind: "reading", at: expect.any(Number) });
    expect(sharp.saves).toBeLessThan((sharp as { most: number }).most);
    expect(readingOf({ ...unsure, reads: { level: 0.6, deviation: 5 } })).toBeUndefined();
    expect(readingOf({ ...unsure, reads: null })).toBeUndefined();
  });
});

describe("what cannot be done is told, with what can", () => {
  const texts = (p: PlanProblem) => prepare(p).troubles.map((t) => t.text);
  const pinned = (to: string) => ({ ...noWishes, pinned: { p: to } });
  test.each<[string, PlanProblem, RegExp]>([
    ["a stop that has passed", problem({ stops: [stop("old", -9)], wishes: pinned("old") }), /stop old has passed/],
    ["a stop that is gone", problem({ wishes: pinned("nowhere") }), /is gone/],
    ["a stop beyond the plan", problem({ stops: [stop("far", 900)], wishes: pinned("far") }), /beyond the plan/],
    [
      "a machine that does not stand there",
      problem({ stops: [stop("a", 20, { machines: ["n"] }), stop("b", 80)], wishes: pinned("a") }),
      /does not stand at stop a/,
    ],
    ["no crew", problem({ stops: [stop("a", 20, { crew: {} })] }), /stop a has no crew/],
    ["a late part", problem({ pieces: [piece("p", { partAt: at(250) })] }), /after every planned stop/],
    [
      "a machine that never stands",
      problem({ stops: [stop("a", 20, { machines: ["n"] })] }),
      /stands at no planned stop/,
    ],
    [
      "wished for and forbidden",
      problem({ wishes: { ...pinned("b"), forbidden: { p: ["b"] } } }),
      /both wished for and forbidden/,
    ],
  ])("%s", (_, p, text) => {
    expect(texts(p).join(" ")).toMatch(text);
    expect(prepare(p).troubles.every((t) => t.offers.length > 0)).toBe(true);
    expect(solved(p).lines).toHaveLength(1);
  });
  test("a crew that is partly wanted elsewhere: the hours over it are paid, or the work goes to another stop", () => {
    const wishes = { ...noWishes, pinned: { p: "b" } };
    const whole = solved(problem({ wishes })).step.objective;
    const split = solved(problem({ wishes: { ...wishes, crewAt: { b: { mechanical: 2 } } } })).step.objective;
    const { hours } = piece("p");
    const { overHour } = problem().costs;
    expect(split - whole).toBeCloseTo((hours.mechanical! - 2) * overHour, 6);
    const none = texts(problem({ wishes: { ...noWishes, crewAt: { b: { mechanical: 0 } } } }));
    expect(none.join(" ")).toMatch(/has no crew/);
  });
  test("pieces that go together in a circle are one; pinned apart, that is told", () => {
    const pieces = [piece("p"), piece("q", { machine: "n" }), piece("r")];
    const together = [
      ["p", "q"],
      ["q", "r"],
      ["r", "p"],
    ];
    expect(new Set(Object.values(chosen(problem({ pieces, wishes: { ...noWishes, together } })))).size).toBe(1);
    const apart = problem({ pieces, wishes: { ...noWishes, together, pinned: { p: "a", q: "b" } } });
    expect(texts(apart).join(" ")).toMatch(/goes together with cannot be done there/);
  });
});
