import { describe, expect, test } from "@jest/globals";
import { isolationTests } from "@core";
import { knowledgeOf, plantCause, plantRank, plantTest } from "./plantForm";
import { resultOfTone } from "./testRecords.server";

const submission = "3f2b8c1e-1111-4222-8333-444455556666";
const cause = {
  label: "Drain cock V7 left open",
  part: "relief",
  symptom0: "lowPressure",
  rank0: "often",
  like: "relief.heldOpen",
  do: "restore",
  act: "Shut V7 and seal it",
  minutes: "5",
  basis: "found three times since 2024",
  submission,
};

describe("a cause", () => {
  test("as typed; without a stop it is one that is put right from outside", async () => {
    const done = await plantCause(cause);
    expect(done).toMatchObject({
      ok: true,
      value: { symptoms: { lowPressure: "often" }, outside: true, act: { minutes: 5, part: false, stop: false } },
    });
    const stops = await plantCause({ ...cause, needsStop: "on", needsPart: "on" });
    expect(stops).toMatchObject({ ok: true, value: { act: { part: true, stop: true } } });
    expect(stops.ok && "outside" in stops.value).toBe(false);
  });
  test.each([
    ["label", { label: "V7" }],
    ["part", { part: "flux" }],
    ["symptom0", { symptom0: "" }],
    ["rank0", { rank0: "" }],
    ["symptom1", { symptom1: "purple", rank1: "often" }],
    ["minutes", { minutes: "soon" }],
    ["minutes", { minutes: "0" }],
    ["like", { like: "nobody" }],
    ["basis", { basis: "" }],
    ["do", { do: "hit" }],
  ])("a mistake in %s is said there", async (field, typed) => {
    const done = await plantCause({ ...cause, ...typed });
    expect(done.ok).toBe(false);
    expect(!done.ok && Object.keys(done.problems)).toEqual([field]);
  });
});

describe("a test", () => {
  const typed = {
    label: "Drain cock V7",
    part: "",
    how: "Behind the pump, red handle",
    minutes: "1",
    prepare: "none",
    risk: "none",
    usual: "Shut",
    sign: "Open",
    cause0: "plant:1",
    grade0: "always",
    basis: "the plant",
    submission,
  };
  const own = { "plant:1": {} as never };
  test("tells of causes of the plant and of the house", async () => {
    const done = await plantTest(
      { ...typed, usual: "It is shut", sign: "It is open", cause1: "fluid.low", grade1: "seldom" },
      own,
    );
    expect(done).toMatchObject({
      ok: true,
      value: { shows: { sign: { "plant:1": "always", "fluid.low": "seldom" } } },
    });
  });
  test.each([
    ["cause0", { cause0: "plant:2" }],
    ["cause0", { cause0: "" }],
    ["grade0", { grade0: "" }],
    ["caution", { risk: "opens" }],
    ["how", { how: "" }],
    ["sign", { sign: "" }],
  ])("a mistake in %s is said there", async (field, wrong) => {
    const done = await plantTest({ ...typed, usual: "It is shut", sign: "It is open", ...wrong }, own);
    expect(!done.ok && Object.keys(done.problems)).toEqual([field]);
  });
});

test("a rank names a symptom, a cause and how often", async () => {
  const typed = { symptom: "slow", cause: "fluid.low", rank: "rare", basis: "two years of records", submission };
  expect(await plantRank(typed)).toMatchObject({
    ok: true,
    value: { symptom: "slow", cause: "fluid.low", rank: "rare" },
  });
  expect(await plantRank({ ...typed, cause: "plant:1" })).toMatchObject({ ok: false });
});

test("of two that rank one cause the newer one holds", () => {
  const rank = (r: "often" | "rare") => ({ symptom: "slow", cause: "fluid.low", rank: r, basis: "" }) as const;
  const known = knowledgeOf([
    { id: "1", cause: null, test: null, rank: rank("often") },
    { id: "2", cause: null, test: null, rank: rank("rare") },
  ]);
  expect(known.ranks).toEqual({ slow: { "fluid.low": "rare" } });
});

test("a guided test stands for a result only where its record leaves no doubt", () => {
  expect(resultOfTone(isolationTests["motor.caseDrain"], "good")).toBe("usual");
  expect(resultOfTone(isolationTests["motor.caseDrain"], "bad")).toBe("high");
  expect(resultOfTone(isolationTests["hold.both"], "bad")).toBeNull();
  expect(resultOfTone(isolationTests["hold.both"], "doubt")).toBeNull();
});
