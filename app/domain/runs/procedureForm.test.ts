import fc from "fast-check";
import { stepsOf, workProcedures } from "@core";
import { procedureFrom, procedureText } from "./procedureForm";

const base = workProcedures.find((p) => p.id === "replace-compensated-pump")!;
const read = (steps: string, more: Record<string, string> = {}) =>
  procedureFrom(base, { title: base.title, steps, ...more });

test.each(workProcedures.map((p) => [p.id, p] as const))("%s written as text and read back is the same", (_id, p) => {
  const back = procedureFrom(p, { title: p.title, steps: procedureText(p) });
  expect(back).toEqual({ ok: true, procedure: p });
});

test("a reworded step keeps what it asks for, a new one asks for nothing", () => {
  const text = procedureText(base).replace("Cardboard under the place: a drip shows.", "Card under it.");
  const back = read(`${text}\n! Our own lamp test | the siren is for everybody\nAnd another`);
  if (!back.ok) throw new Error("refused");
  const steps = stepsOf(back.procedure);
  expect(steps.find((s) => s.id === "card")!.text).toBe("Card under it.");
  expect(steps.find((s) => s.id === "zero")!.ask).toMatchObject({ kind: "value", greatest: 0.5 });
  expect(steps.at(-2)).toEqual({ id: "own-1", text: "Our own lamp test", hold: "the siren is for everybody" });
  expect(steps.at(-1)).toEqual({ id: "own-2", text: "And another" });
});

test.each([
  ["torque", { kind: "torque" }],
  ["lines", { kind: "lines" }],
  ["text: Serial", { kind: "text", label: "Serial" }],
  ["text", { kind: "text", label: "What" }],
  ["count: Clamps", { kind: "count", label: "Clamps" }],
  ["day: Look again on", { kind: "day", label: "Look again on" }],
  ["pressure: At port T: cold", { kind: "value", quantity: "pressure", label: "At port T: cold" }],
  ["Temperature rise", { kind: "value", quantity: "temperatureRise", label: "Temperature rise" }],
] as const)("a new step may ask: %s", (text, ask) => {
  const back = read(`${procedureText(base)}\n! Read it there | the siren => ${text}`);
  if (!back.ok) throw new Error(JSON.stringify(back.problems));
  const own = stepsOf(back.procedure).at(-1)!;
  expect(own).toEqual({ id: "own-1", text: "Read it there", hold: "the siren", ask });
  // kept where the line is kept, gone where the line no longer says it
  const kept = procedureFrom(back.procedure, { title: base.title, steps: procedureText(back.procedure) });
  expect(kept).toEqual(back);
  const without = procedureFrom(back.procedure, {
    title: base.title,
    steps: procedureText(back.procedure).replace(/ => [^[]*\[own-1\]/, " [own-1]"),
  });
  if (!without.ok) throw new Error("refused");
  expect(stepsOf(without.procedure).at(-1)!.ask).toBeUndefined();
});

test("what nobody can write down is told with its line", () => {
  const lines = procedureText(base).split("\n").length;
  expect(read(`${procedureText(base)}\nSmell it => smell`)).toMatchObject({
    ok: false,
    problems: { steps: expect.stringMatching(new RegExp(`^Line ${lines + 1}: after =>.*torque`)) },
  });
});

test("a hold point is not lost by accident", () => {
  const without = procedureText(base)
    .split("\n")
    .filter((l) => !l.includes("[zero]"))
    .join("\n");
  expect(read(without)).toMatchObject({ ok: false, problems: { without: expect.stringContaining("Zero read") } });
  expect(read(without, { without: "on" })).toMatchObject({ ok: true });
  // unmarked, it is no hold point any more, and that is somebody's decision too
  const plain = read(procedureText(base).replace(/^! (Zero read[^|]*)\|[^[]*/m, "$1"));
  if (!plain.ok) throw new Error("refused");
  expect(stepsOf(plain.procedure).find((s) => s.id === "zero")!.hold).toBeUndefined();
});

test("a count whose pair was left out stands for itself", () => {
  const back = read(
    procedureText(base)
      .split("\n")
      .filter((l) => !l.includes("[off]"))
      .join("\n"),
  );
  if (!back.ok) throw new Error("refused");
  expect(stepsOf(back.procedure).find((s) => s.id === "plugs-back")!.ask).toEqual({
    kind: "count",
    label: "Plugs back",
  });
});

test.each([
  ["", "at least one step"],
  ["# Only a heading", "at least one step"],
  ["ab", "say what is done"],
  ["x".repeat(301), "at most 300"],
  [Array.from({ length: 121 }, (_, i) => `Step number ${i}`).join("\n"), "At most 120"],
])("%#: what cannot be a procedure is told", (steps, problem) => {
  expect(read(steps, { without: "on" })).toMatchObject({
    ok: false,
    problems: { steps: expect.stringContaining(problem) },
  });
});

test("a title is needed, and one id is used once", () => {
  expect(read("Look", { title: "a", without: "on" })).toMatchObject({
    ok: false,
    problems: { title: expect.any(String) },
  });
  const twice = read("Look [card]\nLook again [card]", { without: "on" });
  if (!twice.ok) throw new Error("refused");
  expect(stepsOf(twice.procedure).map((s) => s.id)).toEqual(["card", "own-1"]);
});

test("whatever is typed, it is refused in words or it is a whole procedure", () => {
  const lines = procedureText(base).split("\n");
  const line = fc.oneof(
    fc.constantFrom(...lines),
    fc.string({ maxLength: 60 }),
    fc.constantFrom(
      "# ",
      "! ",
      "!",
      "[zero]",
      "! | [x]",
      "a|b|c [card]",
      "",
      "Read => pressure: P",
      "Do => x",
      "=> text",
    ),
    fc.constantFrom("Own step => torque [own-1]", "Own step [own-1]", "Own => day: D [own-2]", "Ask => lines [zero]"),
  );
  fc.assert(
    fc.property(fc.array(line, { maxLength: 60 }), fc.boolean(), (typed, without) => {
      const back = read(typed.join("\n"), without ? { without: "on" } : {});
      if (!back.ok) {
        expect(Object.values(back.problems).every((p) => p.length > 5)).toBe(true);
        return;
      }
      const steps = stepsOf(back.procedure);
      const ids = steps.map((s) => s.id);
      expect(new Set(ids).size).toBe(ids.length);
      expect(back.procedure.phases.every((p) => p.steps.length > 0)).toBe(true);
      for (const s of steps) {
        expect(s.text.length).toBeGreaterThanOrEqual(3);
        if (s.putsBack) expect(ids).toContain(s.putsBack);
        if (s.ask?.kind === "count" && s.ask.equals) expect(ids).toContain(s.ask.equals);
      }
      // written again and read again it stays the same
      const again = procedureFrom(back.procedure, {
        title: back.procedure.title,
        steps: procedureText(back.procedure),
      });
      expect(again).toMatchObject({ ok: true, procedure: { phases: back.procedure.phases } });
    }),
  );
});

test("a form of a hundred thousand lines is refused at its hundred and twenty-first step, not after all of them", () => {
  const made = procedureFrom(base, {
    title: base.title,
    steps: Array.from({ length: 100_000 }, () => "abc").join("\n"),
  });
  expect(made).toMatchObject({ ok: false, problems: { steps: "At most 120 steps." } });
});
