/** The tables are proper: nothing is named that is not there, every cause can be reached and told from its neighbours. */
import { describe, expect, test } from "@jest/globals";
import { elementKinds } from "../../circuit/kinds";
import { checks } from "../../checks";
import { causesOf } from "../candidates";
import { beginCase, chancesOf, chancesUnderAll } from "../case";
import { causeIds, causes } from "./causes";
import { parts } from "./parts";
import { symptomIds, symptoms } from "./symptoms";
import { testIds, tests } from "./tests";
import type { Test } from "./types";

describe("what is named is there", () => {
  test.each(causeIds)("cause %s", (id) => {
    const { part, label, act, fault } = causes[id];
    expect(Object.keys(parts)).toContain(part);
    expect(label.length).toBeGreaterThan(5);
    expect(act.minutes).toBeGreaterThan(0);
    const { kinds } = parts[part as keyof typeof parts];
    if (fault && kinds.length > 0)
      expect(kinds.some((kind) => Object.hasOwn(elementKinds[kind].faults, fault))).toBe(true);
  });
  test.each(testIds)("test %s", (id) => {
    const t: Test = tests[id];
    const results = Object.keys(t.results);
    expect(results.length).toBeGreaterThan(1);
    expect(t.basis).not.toBe("");
    if (t.at) expect(Object.keys(parts)).toContain(t.at);
    if (t.procedure) expect(checks.map((p) => p.id)).toContain(t.procedure);
    // the first result is the ordinary one: no cause brings it
    expect(Object.keys(t.shows)).not.toContain(results[0]);
    for (const [result, given] of Object.entries(t.shows)) {
      expect(results).toContain(result);
      for (const cause of Object.keys(given)) expect(causeIds).toContain(cause);
    }
    for (const result of Object.keys(t.falsely ?? {})) expect(results.slice(1)).toContain(result);
    if (t.risk !== "none" && t.risk !== "care") expect(t.caution).toBeTruthy();
  });
  test.each(symptomIds)("symptom %s", (id) => {
    const listed = Object.values(symptoms[id].causes).flat();
    expect(new Set(listed).size).toBe(listed.length);
    for (const cause of listed) expect(causeIds).toContain(cause);
    expect(listed.length).toBeGreaterThan(2);
    expect(symptoms[id].basis).not.toBe("");
  });
});

test("every fault of the circuit model has a name in practice", () => {
  for (const [kind, { faults }] of Object.entries(elementKinds))
    for (const fault of Object.keys(faults))
      expect([kind, fault, causesOf(kind as keyof typeof elementKinds, fault).length > 0]).toEqual([kind, fault, true]);
});

test("chances of a test add up to 1 with every cause, with two, and with something else", () => {
  for (const symptom of symptomIds) {
    const c = beginCase(symptom, null);
    for (const at of c.tests)
      for (const possibility of c.possibilities) {
        const chances = Object.values(chancesOf(c, at, possibility));
        expect(chances.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
        expect(Math.min(...chances)).toBeGreaterThan(0);
      }
  }
});

test("every cause is reached from some symptom, and some test shows it", () => {
  const reached = new Set(symptomIds.flatMap((s) => Object.values(symptoms[s].causes).flat()));
  const shown = new Set(
    testIds.flatMap((id) => Object.values((tests[id] as Test).shows).flatMap((g) => Object.keys(g))),
  );
  for (const id of causeIds) expect([id, reached.has(id), shown.has(id)]).toEqual([id, true, true]);
});

test("two causes of one symptom are told apart by some test, but for none", () => {
  const alike = new Set<string>();
  for (const symptom of symptomIds) {
    const c = beginCase(symptom, null);
    const usable = c.tests.filter((t) => !t.about.outsideBook).map((t) => chancesUnderAll(c, t));
    c.suspects.forEach((a, i) =>
      c.suspects.slice(i + 1).forEach((b, k) => {
        const apart = Math.max(
          ...usable.map((of) => {
            const [p, q] = [of[i]!, of[i + 1 + k]!];
            return Object.keys(p).reduce((s, r) => s + Math.abs(p[r]! - q[r]!), 0) / 2;
          }),
        );
        if (apart < 0.5) alike.add(`${a.cause} ~ ${b.cause}`);
      }),
    );
  }
  expect([...alike]).toEqual([]);
});

test("a method outside the manufacturer's book carries a caution", () => {
  const outside = testIds.map((id): Test => tests[id]).filter((t) => t.outsideBook);
  expect(outside.length).toBeGreaterThan(0);
  for (const t of outside) expect(t.caution).toBeTruthy();
});
