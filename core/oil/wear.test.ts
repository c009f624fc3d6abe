/** Steps of counts, wear metals with their alarms, suspects, and what the machine says. */
import { DAY } from "../units/time";
import { random } from "../random/random";
import { agreementOf, leakRising, leakSince } from "./agreement";
import { dirtCauses } from "./causes";
import { metalList, partSuspects, type PartComponent } from "./parts";
import { stepUp } from "./step";
import { metalAlarm, metalSeries, rateRise, type OilMove } from "./wear";

describe("a step of the counts", () => {
  test("about one steady series in a hundred shows one", () => {
    const rng = random(7);
    let shown = 0;
    for (let i = 0; i < 1500; i++) if (stepUp(Array.from({ length: 20 }, () => 5 + 0.3 * rng.normal()))) shown++;
    expect(shown / 1500).toBeLessThan(0.02);
  });
  test("a sevenfold step is found where it is, even on its first sample", () => {
    const rng = random(3);
    const values = Array.from({ length: 16 }, (_, i) => (i >= 11 ? Math.log(7) : 0) + 0.25 * rng.normal());
    expect(stepUp(values)).toMatchObject({ index: 11, after: 5 });
    expect(stepUp(values)!.low).toBeLessThan(Math.log(7));
    expect(stepUp(values)!.high).toBeGreaterThan(Math.log(7));
    expect(stepUp(values.slice(0, 12))).toMatchObject({ index: 11, after: 1 });
    expect(stepUp(values.slice(0, 11))).toBeNull();
  });
  test("a fall is no step upward", () => {
    expect(stepUp([3, 3, 3, 3, 1, 1, 1, 1])).toBeNull();
  });
});

/** A circuit that makes a metal at a known rate, loses oil and is topped up; sampled every 250 h. */
function circuit(rate: (hours: number) => number, { volume = 200, topUp = 10, fresh = 0 } = {}) {
  let metal = 0;
  const samples: { at: number; hours: number; results: { iron: { value: number; below?: boolean } } }[] = [];
  const moves: OilMove[] = [];
  for (let h = 0; h <= 5000; h++) {
    metal += (rate(h) / 1000) * volume;
    if (h > 0 && h % 500 === 0) {
      metal += topUp * (fresh - metal / volume);
      moves.push({ at: h * DAY, hours: h, kind: "topUp", litres: topUp, fresh: { iron: fresh } });
    }
    if (h % 250 === 0) samples.push({ at: h * DAY + 1, hours: h + 0.01, results: { iron: { value: metal / volume } } });
  }
  return { samples, moves };
}

describe("wear metals", () => {
  test("the true rate is recovered within 5 % through top-ups, which the raw concentration hides", () => {
    for (const fresh of [0, 2]) {
      const { samples, moves } = circuit(() => 3, { topUp: 20, fresh });
      const series = metalSeries("iron", samples, moves, 200);
      const rate =
        ((series.at(-1)!.corrected - series[0]!.corrected) / (series.at(-1)!.hours - series[0]!.hours)) * 1000;
      expect(Math.abs(rate / 3 - 1)).toBeLessThan(0.05);
      if (fresh === 0) expect(((series.at(-1)!.raw - series[0]!.raw) / 5000) * 1000).toBeLessThan(2.6);
    }
  });
  test("a change of oil starts a new amount; a drain without refill is lost metal", () => {
    const { samples } = circuit(() => 3, { topUp: 0 });
    const series = metalSeries("iron", samples, [{ at: 2600 * DAY, hours: 2600, kind: "change", litres: 200 }], 200);
    expect(series.filter((p) => p.rate === null)).toHaveLength(2);
    const drained = metalSeries(
      "iron",
      [
        { at: 1, hours: 0, results: { iron: { value: 10 } } },
        { at: 9, hours: 100, results: { iron: { value: 10 } } },
      ],
      [{ at: 5, hours: 50, kind: "drained", litres: 20 }],
      200,
    );
    expect(drained[1]!.corrected).toBeCloseTo(10 + (20 * 10) / 200);
  });
  test("a bound stands at its half, and stays marked as one", () => {
    const [p] = metalSeries("iron", [{ at: 1, hours: 0, results: { iron: { value: 2, below: true } } }], [], null);
    expect(p).toMatchObject({ raw: 2, below: true, corrected: 1, rate: null });
    const mostly = metalSeries(
      "iron",
      [2, 2, 5].map((value, i) => ({
        at: i,
        hours: i,
        results: { iron: { value, ...(value === 2 && { below: true }) } },
      })),
      [],
      null,
    );
    expect(metalAlarm("iron", mostly, [])!.usualRaw).toBeNull();
  });
  test("a doubled rate is called by its own history, with the samples between which it began", () => {
    const rng = random(11);
    const { samples, moves } = circuit((h) => (h > 3100 ? 12 : 3));
    for (const s of samples) s.results.iron.value *= 1 + 0.03 * rng.normal();
    const alarm = metalAlarm(
      "iron",
      metalSeries("iron", samples, moves, 200),
      Array.from({ length: 20 }, (_, i) => 2.5 + i / 20),
    )!;
    expect(alarm.passed).toEqual(expect.arrayContaining(["own", "peers"]));
    expect(alarm.since!.by / DAY).toBeGreaterThan(3100);
    expect(alarm.since!.after / DAY).toBeLessThan(3300);
    expect(alarm.usual!).toBeGreaterThan(2);
    expect(alarm.usual!).toBeLessThan(4);
  });
  test("the laboratory's own limit goes before the typical one", () => {
    const series = metalSeries(
      "iron",
      [18, 21, 24].map((value, i) => ({ at: i * DAY, hours: i * 100, results: { iron: { value } } })),
      [],
      null,
    );
    expect(metalAlarm("iron", series, [])).toMatchObject({ fixed: 30, fixedStated: false, passed: [] });
    expect(metalAlarm("iron", series, [], 20)).toMatchObject({ fixed: 20, fixedStated: true, passed: ["fixed"] });
  });
  test("a steady rate is not called", () => {
    const rng = random(2);
    let called = 0;
    for (let k = 0; k < 60; k++) {
      const { samples, moves } = circuit(() => 3);
      for (const s of samples) s.results.iron.value *= 1 + 0.04 * rng.normal();
      if (metalAlarm("iron", metalSeries("iron", samples, moves, 200), [])!.passed.includes("own")) called++;
    }
    expect(called).toBeLessThan(5);
    expect(rateRise([])).toBeNull();
    expect(metalAlarm("iron", [], [])).toBeNull();
  });
});

describe("which part", () => {
  const part = (change: Partial<PartComponent>): PartComponent => ({
    componentId: "x",
    name: "X",
    kind: "cylinder",
    materials: [],
    worse: null,
    ...change,
  });
  const pump = part({ componentId: "p", name: "Pump", kind: "axialPistonPump" });
  const valve = part({ componentId: "v", name: "Valve", kind: "proportionalValve" });
  test("iron, copper and tin are a piston pump; chromium is a rod", () => {
    expect(partSuspects(["iron", "copper", "tin"], ["chromium"], [pump, valve, part({})]).suspects[0]).toMatchObject({
      name: "Pump",
      parts: expect.arrayContaining(["bronze slippers and port plate"]),
    });
    expect(partSuspects(["chromium"], ["iron", "copper"], [pump, valve, part({})]).suspects[0]).toMatchObject({
      name: "X",
    });
  });
  test("its own reading decides between two that are alike, and stated materials before usual ones", () => {
    const two = partSuspects(
      ["iron", "copper"],
      [],
      [
        { ...pump, worse: false },
        { ...pump, componentId: "q", name: "Other pump", worse: true },
      ],
    );
    expect(two.suspects[0]).toMatchObject({ name: "Other pump", agrees: true });
    expect(
      partSuspects(["nickel"], ["iron"], [pump, { ...valve, materials: [{ metal: "nickel", part: "plated spool" }] }])
        .suspects[0],
    ).toMatchObject({ name: "Valve", parts: ["plated spool"] });
  });
  test("metals are named as in a sentence", () => {
    expect([metalList([]), metalList(["iron"]), metalList(["iron", "copper", "tin"])]).toEqual([
      "",
      "iron",
      "iron, copper and tin",
    ]);
  });
  test("shares and what is left over sum to one; nothing risen suspects nobody", () => {
    const { suspects, none } = partSuspects(["iron"], ["copper"], [pump, valve, part({})]);
    expect(suspects.reduce((s, p) => s + p.share, none)).toBeGreaterThan(0.9);
    expect(suspects.reduce((s, p) => s + p.share, none)).toBeLessThanOrEqual(1 + 1e-9);
    expect(partSuspects([], ["iron"], [pump])).toEqual({ suspects: [], none: 1 });
  });
  test("Bayes by hand: the readings of the others count for and against each", () => {
    const motor: PartComponent = { componentId: "m", name: "Motor", kind: "pistonMotor", materials: [], worse: null };
    const share = (worse: boolean, name: string) =>
      partSuspects(["iron", "copper"], [], [{ ...pump, worse }, motor]).suspects.find((s) => s.name === name)!.share;
    // 0.85² · (1 · 0.8 : 1 · 0.12 : 0.08 · 0.12) and 0.85² · (0.2 : 0.88 : 0.08 · 0.88)
    expect(share(true, "Pump")).toBeCloseTo(0.8 / (0.8 + 0.12 + 0.08 * 0.12), 6);
    expect(share(true, "Motor")).toBeCloseTo(0.12 / (0.8 + 0.12 + 0.08 * 0.12), 6);
    expect(share(false, "Pump")).toBeCloseTo(0.2 / (0.2 + 0.88 + 0.08 * 0.88), 6);
    expect(share(false, "Motor")).toBeCloseTo(0.88 / (0.2 + 0.88 + 0.08 * 0.88), 6);
  });
});

describe("does the machine agree", () => {
  const series = (after: (i: number) => number) => ({
    pointId: "1",
    componentId: "p",
    component: "hoist pump",
    what: "case drain",
    readings: Array.from({ length: 30 }, (_, i) => ({
      at: i * 30 * DAY,
      value: (1.5 + 0.003 * i) * (1 + 0.02 * Math.sin(i * 7)) * after(i),
    })),
  });
  const moment = 20.5 * 30 * DAY;
  test("a leakage that leaves its course is worse, one that keeps it is not, few readings say nothing", () => {
    expect(
      leakSince(
        series((i) => (i > 20 ? 1 + 0.05 * (i - 20) : 1)),
        moment,
      ),
    ).toMatchObject({ worse: true });
    expect(
      leakSince(
        series(() => 1),
        moment,
      ),
    ).toMatchObject({ worse: false });
    expect(leakSince({ ...series(() => 1), readings: series(() => 1).readings.slice(0, 6) }, moment)).toMatchObject({
      worse: null,
      factor: null,
    });
  });
  test("both said in a sentence", () => {
    const worse = leakSince(
      series((i) => (i > 20 ? 1.6 : 1)),
      moment,
    );
    const same = leakSince(
      series(() => 1),
      moment,
    );
    const said = (metals: string[], leaks: (typeof worse)[]) =>
      agreementOf(metals, moment, leaks)
        ?.map((p) => ("text" in p ? p.text : "date" in p ? "<day>" : ""))
        .join("") ?? null;
    expect(said(["iron"], [worse])).toBe("Iron and the hoist pump's case drain both rose after <day>: hoist pump.");
    expect(said(["iron", "copper"], [worse])).toBe(
      "Iron, copper and the hoist pump's case drain all rose after <day>: hoist pump.",
    );
    expect(said(["iron"], [same])).toMatch(/did not: look at parts that no point reads/);
    expect(said(["iron"], [])).toMatch(/no case drain/);
    expect(said([], [worse])).toMatch(/without more metal/);
    expect(said([], [same])).toBeNull();
  });
  test("a slow rise is one, scatter is none, few readings say nothing", () => {
    expect(leakRising(series((i) => 1 + 0.02 * i))).toMatchObject({ worse: true });
    expect(
      leakRising({
        ...series(() => 1),
        readings: series(() => 1).readings.map((r, i) => ({ ...r, value: 1 + 0.02 * ((i * 7) % 5) })),
      }),
    ).toMatchObject({ worse: false });
    expect(leakRising({ ...series(() => 1), readings: [] }).worse).toBeNull();
  });
});

describe("what made it dirty", () => {
  const none = { filters: [], fitted: [], fills: [], outside: "", metals: null };
  const step = { after: 100 * DAY, by: 130 * DAY };
  test("a filter that lets oil past about then comes first, whatever else happened", () => {
    const causes = dirtCauses({
      ...none,
      step,
      filters: [
        { componentId: "f", name: "return filter", past: "the bypass hangs open", pastSince: 95 * DAY, blocked: [] },
      ],
      fills: [{ at: 110 * DAY, litres: 20, fluid: "Oil 46", other: false }],
    });
    const often = [1, 5, 9, 110].map((d) => ({ at: d * DAY, litres: 20, fluid: "Oil 46", other: false }));
    expect(dirtCauses({ ...none, step, fills: often }).map((c) => c.id)).toEqual(["unknown", "filled"]);
    expect(
      dirtCauses({ ...none, step, fills: [...often, { at: 105 * DAY, litres: 60, fluid: "Oil 32", other: true }] })[0],
    ).toMatchObject({ id: "filled", text: expect.stringContaining("not the circuit's fluid") });
    expect(causes.map((c) => c.id)).toEqual(["filterPast", "filled", "unknown"]);
    expect(causes.reduce((s, c) => s + c.share, 0)).toBeCloseTo(1);
  });
  test("a filter that is blocked today, long after the step, is not its cause", () => {
    const filter = { componentId: "f", name: "return filter", past: null, pastSince: null };
    expect(
      dirtCauses({ ...none, step, filters: [{ ...filter, blocked: [{ since: 400 * DAY, until: null }] }] }).map(
        (c) => c.id,
      ),
    ).toEqual(["unknown"]);
    expect(
      dirtCauses({ ...none, step, filters: [{ ...filter, blocked: [{ since: 5 * DAY, until: 20 * DAY }] }] }).map(
        (c) => c.id,
      ),
    ).toEqual(["unknown"]);
    expect(
      dirtCauses({ ...none, step, filters: [{ ...filter, blocked: [{ since: 90 * DAY, until: null }] }] })[0],
    ).toMatchObject({ id: "filterBlocked", at: 90 * DAY });
  });
  test("what happened long before or after is no reason; metal before the particles is a part breaking up", () => {
    expect(
      dirtCauses({
        ...none,
        step,
        fitted: [
          { componentId: "p", name: "pump", at: 10 * DAY },
          { componentId: "p", name: "pump", at: 140 * DAY },
        ],
      }).map((c) => c.id),
    ).toEqual(["unknown"]);
    expect(dirtCauses({ ...none, step, metals: { words: "iron", by: 100 * DAY } })[0]).toMatchObject({
      id: "fromWithin",
      text: expect.stringContaining("before"),
    });
    expect(dirtCauses({ ...none, step, metals: { words: "iron", by: 160 * DAY } })[0]!.id).toBe("unknown");
    expect(
      dirtCauses({
        ...none,
        step,
        outside: "silicon",
        fitted: [{ componentId: "c", name: "cylinder", at: 105 * DAY }],
        filters: [
          {
            componentId: "f",
            name: "filter",
            past: null,
            pastSince: null,
            blocked: [{ since: 20 * DAY, until: 108 * DAY }],
          },
        ],
      }).map((c) => c.id),
    ).toEqual(["filterBlocked", "opened", "fromOutside", "unknown"]);
  });
});
