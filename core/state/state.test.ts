/** Which word a condition gets: each rule by itself, and what must hold whatever the figures are. */
import fc from "fast-check";
import {
  BEYOND,
  conditionState,
  conditionStates,
  MAYBE_BEYOND,
  PROVED_READINGS,
  stateOfUrgency,
  urgenciesOf,
  urgencyOf,
  type ConditionState,
  type StateFacts,
} from "./state";

const facts = (change: Partial<StateFacts> = {}): StateFacts => ({
  readings: 20,
  knownWhenNew: true,
  hasLimit: true,
  margin: 0.1,
  beyond: 0,
  trendProved: false,
  beforeUsableStop: 0,
  ...change,
});
const rank: Record<ConditionState, number> = {
  steady: 0,
  unproven: 1,
  unread: 2,
  drifting: 3,
  alert: 4,
  alarm: 5,
};

describe("the rule", () => {
  test.each<[string, Partial<StateFacts>, ConditionState]>([
    ["nothing moves", {}, "steady"],
    ["no limit", { hasLimit: false, beyond: 1, margin: 3 }, "unproven"],
    ["no reading", { readings: 0 }, "unread"],
    ["the second reading of a fast course", { course: 2, decideWithin: { likely: 6, earliest: 1 } }, "alert"],
    ["one that is not so fast", { course: 2, decideWithin: { likely: 8, earliest: 1 } }, "steady"],
    [
      "the third, to be decided before the next",
      { course: 3, margin: 0.2, readings: 6, decideWithin: { likely: 1, earliest: -1 } },
      "alarm",
    ],
    [
      "the third, with more time",
      { course: 3, margin: 0.2, readings: 6, decideWithin: { likely: 2.1, earliest: 1 } },
      "alert",
    ],
    ["two readings beyond one limit", { twoBeyond: true }, "alarm"],
    ["to be decided within six readings", { trendProved: true, decideWithin: { likely: 6, earliest: 1 } }, "alert"],
    ["to be decided later than that", { trendProved: true, decideWithin: { likely: 6.1, earliest: 1 } }, "drifting"],
    ["a date without a trend", { decideWithin: { likely: -3, earliest: -4 } }, "steady"],
    ["no margin can be told", { margin: null }, "unproven"],
    ["few readings, nothing odd", { readings: PROVED_READINGS - 1 }, "unproven"],
    ["few readings, perhaps beyond", { readings: 2, beyond: MAYBE_BEYOND }, "alert"],
    ["one reading, more likely than not beyond", { readings: 1, beyond: BEYOND }, "alert"],
    ["one reading, surely beyond", { readings: 1, beyond: 0.95 }, "alarm"],
    ["three readings, more likely than not beyond", { readings: 3, beyond: BEYOND }, "alarm"],
    ["a proved trend", { trendProved: true }, "drifting"],
    ["a proved trend, three chances in ten before a stop", { trendProved: true, beforeUsableStop: 0.3 }, "alarm"],
    [
      "a proved trend, six in ten before a planned stop",
      { trendProved: true, beforeUsableStop: 0.6, stopIsPlanned: true },
      "drifting",
    ],
    [
      "a proved trend, seven in ten before a planned stop",
      { trendProved: true, beforeUsableStop: 0.7, stopIsPlanned: true },
      "alarm",
    ],
    [
      "one chance in ten before it can be helped, where the plant accepts no more than that",
      { trendProved: true, beforeUsableStop: 0.1, accepted: 0.1 },
      "alarm",
    ],
    [
      "four in ten, where the plant accepts a half",
      { trendProved: true, beforeUsableStop: 0.4, accepted: 0.5 },
      "drifting",
    ],
    [
      "to be decided for a planned stop within two readings",
      { trendProved: true, stopIsPlanned: true, decideWithin: { likely: 2, earliest: 1, withoutStops: 9 } },
      "alert",
    ],
    [
      "to be decided for a planned stop, with more time",
      { trendProved: true, stopIsPlanned: true, decideWithin: { likely: 3, earliest: 1, withoutStops: 9 } },
      "drifting",
    ],
    [
      "a stop with more time, and the limit as near as without one",
      { trendProved: true, stopIsPlanned: true, decideWithin: { likely: 3, earliest: 1, withoutStops: 6 } },
      "alert",
    ],
    ["a proved trend, and the level perhaps beyond", { trendProved: true, beyond: 0.2 }, "drifting"],
    ["chances before a stop without a trend", { beforeUsableStop: 0.9 }, "steady"],
    ["much of the margin used, and nothing moves", { margin: 0.9 }, "steady"],
    ["one chance in ten of being beyond", { beyond: 0.1 }, "alert"],
    ["not known when new, few readings", { knownWhenNew: false, readings: 9 }, "unproven"],
    ["not known when new, and long steady since", { knownWhenNew: false, readings: 10 }, "steady"],
  ])("%s: %j is %s", (_what, change, state) => expect(conditionState(facts(change))).toBe(state));
});

const anyFacts = fc.record<StateFacts>({
  readings: fc.integer({ min: 0, max: 60 }),
  knownWhenNew: fc.boolean(),
  hasLimit: fc.boolean(),
  margin: fc.option(fc.double({ min: -0.5, max: 4, noNaN: true })),
  beyond: fc.double({ min: 0, max: 1, noNaN: true }),
  trendProved: fc.boolean(),
  beforeUsableStop: fc.double({ min: 0, max: 1, noNaN: true }),
});

describe("whatever the figures are", () => {
  test("it is one of five words", () =>
    fc.assert(fc.property(anyFacts, (f) => expect(conditionStates).toContain(conditionState(f)))));
  test("more likely beyond the limit is never a milder word", () =>
    fc.assert(
      fc.property(anyFacts, fc.double({ min: 0, max: 1, noNaN: true }), (f, more) => {
        const worse = { ...f, beyond: Math.max(f.beyond, more) };
        expect(rank[conditionState(worse)]).toBeGreaterThanOrEqual(
          // "steady" with few readings is "unproven" first: neither asks for anything
          conditionState(f) === "unproven" ? 0 : rank[conditionState(f)],
        );
      }),
    ));
  test("more of the margin used, or a likelier crossing, is never milder once it is proved", () =>
    fc.assert(
      fc.property(
        anyFacts,
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (f, margin, before) => {
          const proved = { ...f, readings: Math.max(f.readings, 10), hasLimit: true, margin: f.margin ?? 0 };
          const worse = {
            ...proved,
            margin: Math.max(proved.margin, margin),
            beforeUsableStop: Math.max(f.beforeUsableStop, before),
          };
          expect(rank[conditionState(worse)]).toBeGreaterThanOrEqual(rank[conditionState(proved)]);
        },
      ),
    ));
  test("without a limit nothing is ever called an alarm", () =>
    fc.assert(
      fc.property(anyFacts, (f) =>
        expect(conditionState({ ...f, hasLimit: false })).toBe(f.readings === 0 ? "unread" : "unproven"),
      ),
    ));
});

describe("a word that stands", () => {
  const near = { trendProved: true, decideWithin: { likely: 9, earliest: 2 } };
  const far = { trendProved: true, decideWithin: { likely: 19, earliest: 13 } };
  test.each<[string, Partial<StateFacts>, ConditionState]>([
    [
      "an alert is kept where it would not be entered",
      { ...near, standing: { state: "alert", changed: "reading" } },
      "alert",
    ],
    ["and left when a reading says so", { ...far, standing: { state: "alert", changed: "reading" } }, "drifting"],
    ["not by days that go by", { ...far, standing: { state: "alert", changed: "nothing" } }, "alert"],
    [
      "at once where the limit or the plan was changed",
      { ...near, standing: { state: "alert", changed: "all" } },
      "drifting",
    ],
    [
      "it is kept though the rank test no longer proves it",
      { decideWithin: { likely: 8, earliest: 1 }, standing: { state: "alert", changed: "reading" } },
      "alert",
    ],
    [
      "an alarm is kept at a smaller chance",
      { trendProved: true, beforeUsableStop: 0.05, standing: { state: "alarm", changed: "reading" } },
      "alarm",
    ],
    [
      "and becomes an alert below that",
      { ...near, beforeUsableStop: 0.02, standing: { state: "alarm", changed: "reading" } },
      "alert",
    ],
    [
      "an alert does not become an alarm by the figures that keep one",
      { ...near, beforeUsableStop: 0.2, standing: { state: "alert", changed: "reading" } },
      "alert",
    ],
    ["a worse word is entered at once", { beyond: 0.9, standing: { state: "alert", changed: "nothing" } }, "alarm"],
    ["drifting goes by its own proof", { standing: { state: "drifting", changed: "reading" } }, "steady"],
    ["and not by days", { standing: { state: "drifting", changed: "nothing" } }, "drifting"],
    ["nothing stands without a reading", { readings: 0, standing: { state: "alarm", changed: "nothing" } }, "unread"],
  ])("%s: %j is %s", (_what, change, state) => expect(conditionState(facts(change))).toBe(state));
  test("it is never milder for having stood", () =>
    fc.assert(
      fc.property(
        anyFacts,
        fc.constantFrom<ConditionState>(...conditionStates),
        fc.constantFrom<"nothing" | "reading" | "all">("nothing", "reading", "all"),
        (f, state, changed) => {
          const fresh = conditionState(f);
          const told = conditionState({ ...f, standing: { state, changed } });
          expect(rank[told]).toBeGreaterThanOrEqual(rank[fresh]);
          expect(rank[told]).toBeLessThanOrEqual(Math.max(rank[fresh], rank[state]));
        },
      ),
    ));
});

describe("urgency", () => {
  const anyState = fc.constantFrom<ConditionState>(...conditionStates);
  test("a worse word is always more urgent, whatever its figures", () =>
    fc.assert(
      fc.property(
        anyState,
        anyState,
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.option(fc.double({ min: -1, max: 50, noNaN: true })),
        (a, b, before, margin) => {
          fc.pre(rank[a] > rank[b]);
          expect(urgencyOf(a, 0, null)).toBeGreaterThan(urgencyOf(b, before, margin));
        },
      ),
    ));
  test("the word comes back out of it, and lies in its own range", () =>
    fc.assert(
      fc.property(
        anyState,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.option(fc.double({ min: -1, max: 50, noNaN: true })),
        (state, before, margin) => {
          const urgency = urgencyOf(state, before, margin);
          expect(stateOfUrgency(urgency)).toBe(state);
          const [from, to] = urgenciesOf(state);
          expect(urgency).toBeGreaterThanOrEqual(from);
          expect(urgency).toBeLessThan(to);
        },
      ),
    ));
  test("ranges of the words touch and do not overlap", () => {
    const ranges = (["steady", "unproven", "unread", "drifting", "alert", "alarm"] as const).map(urgenciesOf);
    for (const [i, [from]] of ranges.entries()) if (i > 0) expect(from).toBe(ranges[i - 1]![1]);
    expect([ranges[0]![0], ranges.at(-1)![1]]).toEqual([-Infinity, Infinity]);
  });
  test("of two alarms the one that comes before a usable stop is first, then the one that used more", () => {
    expect(urgencyOf("alarm", 0.9, 0)).toBeGreaterThan(urgencyOf("alarm", 0.1, 0.7));
    expect(urgencyOf("alarm", 0.5, 2)).toBeGreaterThan(urgencyOf("alarm", 0.5, 1.5));
    expect(urgencyOf("alarm", 0.5, 4)).toBe(urgencyOf("alarm", 0.5, 400));
  });
});
