/** The whole judgement of an oil: it never breaks on what a record may hold, and its shares and states keep their bounds. */
import { DAY } from "../units/time";
import fc from "fast-check";
import { assessOil } from "./assess";
import type { OilSample, Results } from "./sample";
import type { OilComponentInput, OilInput } from "./types";

const NOW = Date.UTC(2026, 10, 24);
const fluid = {
  id: "f",
  name: "Oil 46",
  type: "mineral" as const,
  kv40: 46,
  kv100: 6.8,
  density15: 875,
  solubility: { a: 7.5, b: 1550 },
  acidNew: 0.4,
};
const component = (change: Partial<OilComponentInput>): OilComponentInput => ({
  id: "p",
  name: "Pump",
  kind: "axialPistonPump",
  makersCode: null,
  materials: [],
  fluidNeed: null,
  filter: null,
  lives: [{ id: "l", startedAt: 0, endedAt: null }],
  drops: [],
  ...change,
});
const input = (change: Partial<OilInput> = {}): OilInput => ({
  now: NOW,
  volume: 200,
  workingPressure: 200,
  hoursPerDay: 8,
  hoursAt: (at) => ((at - NOW) / DAY) * 8 + 20_000,
  targetSet: null,
  fluid,
  temperatures: { start: 5, working: 48, hottest: 60 },
  samples: [],
  moves: [],
  components: [component({})],
  leaks: [],
  metalLimits: {},
  longest: { hours: null, months: null },
  peerRates: {},
  ...change,
});
const sample = (daysAgo: number, results: Results, change: Partial<OilSample> = {}): OilSample => ({
  id: String(daysAgo),
  number: String(daysAgo),
  at: NOW - daysAgo * DAY,
  hours: null,
  place: "port",
  state: "working",
  results,
  code: null,
  ...change,
});
const clean = { over4: { value: 900 }, over6: { value: 240 }, over14: { value: 30 } };
const said = (parts: OilInput extends never ? never : ReturnType<typeof assessOil>["verdict"]) =>
  parts.map((p) => ("text" in p ? p.text : "")).join("");

test("nothing sampled, nothing comparable, nothing asked for: each says what to do", () => {
  expect(said(assessOil(input()).verdict)).toMatch(/^No sample yet/);
  expect(said(assessOil(input({ samples: [sample(3, clean, { place: "drain" })] })).verdict)).toMatch(
    /No sample that can be compared/,
  );
  const untargeted = assessOil(input({ samples: [sample(3, clean)], components: [component({ kind: "other" })] }));
  expect(untargeted).toMatchObject({ state: "unproven", target: null, margin: null });
  expect(said(untargeted.verdict)).toMatch(/no target set/);
});

test.each([
  [{ water: { value: 1200 } }, "alarm", /1200 ppm of water/],
  [{ water: { value: 560 } }, "alert", /560 ppm/],
  [{ kv40: { value: 36 } }, "alarm", /thinner than stated/],
  [{ kv40: { value: 40 } }, "alert", /thinner/],
  [{ kv40: { value: 53 } }, "alert", /thicker/],
  [{ acidNumber: { value: 1.0 } }, "alert", /acid number has risen by 0.60/],
  [{ acidNumber: { value: 1.5 } }, "alarm", /ageing/],
  [{ over14: { value: 130 } }, "alert", /1 number over its target/],
  [{ over6: { value: 700 }, over14: { value: 300 } }, "alarm", /2 numbers over/],
  [{ iron: { value: 40 } }, "alert", /./],
  [{ water: { value: 50, below: true } }, "steady", /within its target/],
] as const)("%p is %s", (change, state, words) => {
  const a = assessOil(input({ fluid: { ...fluid, solubility: null }, samples: [sample(3, { ...clean, ...change })] }));
  expect(a.state).toBe(state);
  expect(said(a.verdict)).toMatch(words);
});

test("the longest interval is a backstop: soon due drifts, past it asks for a change, even where nothing was sampled", () => {
  const fill = {
    at: NOW - 700 * DAY,
    hours: 14_400,
    kind: "fill" as const,
    litres: 200,
    fresh: {},
    fluidName: "Oil 46",
    otherFluid: false,
    changeBackBy: null,
  };
  const aged = (months: number | null, samples = [sample(3, clean)]) =>
    assessOil(input({ samples, moves: [fill], longest: { hours: null, months } }));
  expect(aged(null)).toMatchObject({ state: "steady", age: { dueAt: null } });
  expect(aged(36)).toMatchObject({ state: "steady", margin: { of: "particles" } });
  expect(aged(24)).toMatchObject({ state: "drifting", margin: { of: "age" } });
  expect(said(aged(24).verdict)).toMatch(/maximum drain interval of the oil ends about/);
  expect(aged(18).state).toBe("alert");
  expect(said(aged(18).verdict)).toMatch(/within its target.*passed on.*take a sample to justify/);
  expect(aged(18, []).state).toBe("alert");
  expect(said(aged(18, []).verdict)).toMatch(/^No sample yet.*passed on/);
  expect(aged(24, []).state).toBe("unread");
});

test("the margin is that of what is worst, and says of what", () => {
  expect(assessOil(input({ samples: [sample(3, clean)] })).margin).toMatchObject({ of: "particles" });
  expect(
    assessOil(
      input({ fluid: { ...fluid, solubility: null }, samples: [sample(3, { ...clean, water: { value: 900 } })] }),
    ).margin,
  ).toMatchObject({ of: "water", value: 0.9 });
  expect(assessOil(input({ samples: [sample(3, { ...clean, kv40: { value: 37 } })] })).margin!.of).toBe("viscosity");
  expect(assessOil(input({ samples: [sample(3, { ...clean, acidNumber: { value: 1.6 } })] })).margin!.of).toBe("acid");
});

test("an element that is full, one that fills soon, and a stop-gap that was not changed back are told", () => {
  const filter = (drops: number[]) =>
    component({
      id: "f",
      name: "Return filter",
      kind: "filter",
      filter: { beta: 200, size: 6, flow: 60, bypass: 3, element: "" },
      drops: drops.map((drop, i) => ({
        at: NOW - (drops.length - i) * 30 * DAY,
        hours: i * 240,
        drop,
        temperature: 48,
        flow: null,
        lifeId: "l",
      })),
    });
  expect(said(assessOil(input({ samples: [sample(3, clean)], components: [filter([1, 2.9, 3, 3])] })).verdict)).toMatch(
    /return filter is blocked/,
  );
  const soon = assessOil(input({ samples: [sample(3, clean)], components: [filter([1, 1.3, 1.7, 2.2, 2.6, 2.7])] }));
  expect(said(soon.verdict)).toMatch(/blocks in \d+ to/);
  expect(soon.state).toBe("drifting");
  const stopGap = assessOil(
    input({
      samples: [sample(3, clean)],
      moves: [
        {
          at: NOW - 90 * DAY,
          hours: 100,
          kind: "topUp",
          litres: 20,
          fluidName: "Winter oil",
          otherFluid: true,
          changeBackBy: NOW - DAY,
        },
      ],
    }),
  );
  expect(stopGap.findings.map((f) => f.text).join()).toMatch(/not the circuit's fluid.*was to be changed back/);
});

test("whatever a record holds, it is judged without breaking, and shares stay shares", () => {
  const result = fc.record(
    { value: fc.oneof(fc.constant(0), fc.double({ min: 0, max: 30_000, noNaN: true })), below: fc.boolean() },
    { requiredKeys: ["value"] },
  );
  const samples = fc.array(
    fc.record({
      daysAgo: fc.integer({ min: 0, max: 1500 }),
      size: fc.double({ min: 0, max: 1e6, noNaN: true }),
      iron: fc.option(result, { nil: undefined }),
      copper: fc.option(result, { nil: undefined }),
      water: fc.option(result, { nil: undefined }),
      kv40: fc.option(fc.record({ value: fc.double({ min: 0.1, max: 500, noNaN: true }) }), { nil: undefined }),
      hours: fc.option(fc.double({ min: 0, max: 30_000, noNaN: true }), { nil: null }),
      place: fc.constantFrom("port" as const, "drain" as const),
    }),
    { maxLength: 25 },
  );
  const moves = fc.array(
    fc.record({
      daysAgo: fc.integer({ min: 0, max: 1500 }),
      kind: fc.constantFrom("fill" as const, "change" as const, "topUp" as const, "drained" as const),
      litres: fc.double({ min: 0, max: 500, noNaN: true }),
    }),
    { maxLength: 10 },
  );
  const drops = fc.array(
    fc.record({
      daysAgo: fc.integer({ min: 0, max: 900 }),
      drop: fc.double({ min: 0, max: 5, noNaN: true }),
      temperature: fc.option(fc.double({ min: -40, max: 150, noNaN: true }), { nil: null }),
    }),
    { maxLength: 20 },
  );
  const leaks = fc.array(
    fc.record({ daysAgo: fc.integer({ min: 0, max: 1500 }), value: fc.double({ min: 0, max: 20, noNaN: true }) }),
    { maxLength: 30 },
  );
  const newestLast = <T extends { daysAgo: number }>(list: T[]) => [...list].sort((a, b) => b.daysAgo - a.daysAgo);
  fc.assert(
    fc.property(samples, moves, drops, leaks, (s, m, d, l) => {
      const a = assessOil(
        input({
          samples: newestLast(s).map(({ daysAgo, size, hours, place, ...rest }, i) => ({
            ...sample(
              daysAgo,
              {
                over4: { value: size },
                over6: { value: size / 3 },
                over14: { value: size / 30 },
                ...(Object.fromEntries(Object.entries(rest).filter(([, v]) => v !== undefined)) as Results),
              },
              { hours, place },
            ),
            id: String(i),
          })),
          moves: newestLast(m).map(({ daysAgo, ...rest }) => ({
            ...rest,
            at: NOW - daysAgo * DAY,
            hours: 20_000 - daysAgo * 8,
            fluidName: "Oil",
            otherFluid: false,
            changeBackBy: null,
          })),
          components: [
            component({}),
            component({
              id: "f",
              name: "Filter",
              kind: "filter",
              filter: { beta: 200, size: 6, flow: 60, bypass: 3, element: "" },
              drops: newestLast(d).map(({ daysAgo, ...rest }) => ({
                ...rest,
                at: NOW - daysAgo * DAY,
                hours: 20_000 - daysAgo * 8,
                flow: null,
                lifeId: "l",
              })),
            }),
          ],
          leaks: [
            {
              pointId: "x",
              componentId: "p",
              component: "pump",
              what: "case drain",
              readings: newestLast(l).map(({ daysAgo, value }) => ({ at: NOW - daysAgo * DAY, value })),
            },
          ],
        }),
      );
      for (const share of [...a.causes, ...a.suspects].map((c) => c.share)) expect(share >= 0 && share <= 1).toBe(true);
      if (a.causes.length) expect(a.causes.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 9);
      expect(Number.isFinite(a.urgency)).toBe(true);
      expect(JSON.stringify(a)).not.toContain("NaN");
    }),
    { numRuns: 300 },
  );
});

describe("what is said of an oil is of what is in the tank", () => {
  const at = (day: number) => NOW - (1000 - day) * DAY;
  const bottle = (day: number, results: OilSample["results"], remark = ""): OilSample => ({
    id: String(day),
    number: `N-${day}`,
    at: at(day),
    hours: day * 8,
    place: "port",
    state: "working",
    results,
    code: "18/16/13",
    remark,
  });
  const judged = (samples: OilSample[], change: Partial<OilInput> = {}) => assessOil(input({ samples, ...change }));
  const spoken = (a: ReturnType<typeof assessOil>) => a.verdict.map((v) => ("text" in v ? v.text : "")).join("");
  const changed = (day: number) => [
    {
      at: at(day),
      hours: day * 8,
      kind: "change" as const,
      litres: 200,
      fluidName: "VG 46",
      otherFluid: false,
      changeBackBy: null,
    },
  ];

  test("an oil that was changed is not in alarm for what was drained", () => {
    const wet = [bottle(800, { water: { value: 80 } }), bottle(900, { water: { value: 1500 } })];
    expect(judged(wet).state).toBe("alarm");
    const after = judged(wet, { moves: changed(910) });
    expect(["unproven", "steady"]).toContain(after.state);
    expect(after.water).toBeNull();
    expect(spoken(after)).toContain("Not sampled since the oil was changed on ");
    expect(judged([...wet, bottle(950, { water: { value: 60 } })], { moves: changed(910) }).state).toBe("steady");
  });
  test("a leap of water asks for a second sample, free water in the remark is an alarm", () => {
    const dry = [500, 600, 700, 800].map((day) => bottle(day, { water: { value: 70 } }));
    const leap = judged([...dry, bottle(900, { water: { value: 440 } })]);
    expect(leap.state).toBe("alert");
    expect(spoken(leap)).toMatch(/440 ppm of water, 6\.3 times the usual 70.*second sample at once/);
    const free = judged([...dry, bottle(900, { water: { value: 474 } }, "free water seen")]);
    expect(free.state).toBe("alarm");
    expect(spoken(free)).toContain("“free water seen”");
    expect(judged([...dry, bottle(900, { water: { value: 75 } }, "no free water")]).state).toBe("steady");
  });
  test("a metal that climbs to its limit is told with its date, though each step is the usual one", () => {
    const copper = [4, 8, 11, 14, 18, 22];
    const climbing = judged(copper.map((value, i) => bottle(490 + i * 100, { copper: { value } })));
    expect(climbing.state).toBe("alert");
    expect(spoken(climbing)).toMatch(/Copper climbs: 4 to 22 ppm in 6 samples, reaches its limit of 25 about/);
    const flat = [12, 13, 12, 14, 13, 13];
    expect(judged(flat.map((value, i) => bottle(400 + i * 100, { copper: { value } }))).state).toBe("steady");
  });
});
