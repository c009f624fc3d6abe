/** Screens of work in states that a walk seldom meets: barred, waiting, refused, worse than before, long, empty. */
import { standOfRun, workProcedures, type StepEntry } from "@core";
import type { BeforeAfter } from "~/domain/record/proof.server";
import type { RunFinding } from "~/domain/runs/runState";
import { Compared } from "./compared";
import { PhotoStrip } from "./photo";
import { RunFindings } from "./runFindings";
import { RunStep } from "./runStep";
import { RunTroubles } from "./runTroubles";
import { TypedFields } from "./typedFields";
import type { Run } from "./useRun";
import { rendered, TEST_NOW, wordsOf } from "~/ui/testing";

const now = TEST_NOW;
const procedure = workProcedures.find((p) => p.id === "replace-compensated-pump")!;

const entry = (step: string, change: Partial<StepEntry> = {}): StepEntry => ({
  submission: `of-${step}`,
  step,
  kind: "done",
  values: {},
  reason: "",
  at: now - 60_000,
  by: "T. Wren",
  ...change,
});

function runOf(entries: StepEntry[] = [], change: Partial<Run> = {}, holdsReleased = false): Run {
  return {
    stand: standOfRun(procedure, entries, { holdsReleased }),
    entries,
    findings: [],
    photos: [],
    closed: "",
    outbox: {} as Run["outbox"],
    waiting: 0,
    troubles: [],
    keep: () => Promise.resolve(""),
    settle: () => Promise.resolve(),
    ...change,
  };
}

function step(id: string, run: Run, { barred = null as string | null, mayPass = false } = {}): string {
  const stand = run.stand.steps.find((s) => s.step.id === id)!;
  const nothing = () => undefined;
  return rendered(
    <RunStep
      stand={stand}
      run={run}
      number={1}
      barred={barred}
      open
      onOpen={nothing}
      onDone={nothing}
      tags={["H-17", "H-18"]}
      pointId="p9"
      units={{}}
      mayPass={mayPass}
    />,
  );
}

describe("a step", () => {
  test("behind an open hold point is not offered", () => {
    const html = step("card", runOf(), { barred: "Isolated" });
    expect(html).toContain("Not before the hold point:");
    expect(html).not.toContain(">Done<");
  });
  test("that is a hold point says why, and only an engineer may skip it", () => {
    const technician = step("zero", runOf());
    expect(technician).toContain("Nobody goes on without it:");
    expect(technician).not.toContain(">Skip it<");
    expect(step("zero", runOf(), { mayPass: true })).toContain(">Skip it<");
  });
  test("that was done tells what was entered, by whom, and can be taken back", () => {
    const html = step("zero", runOf([entry("zero", { values: { value: "0 bar" } })]));
    expect(html).toContain("0 bar, T. Wren");
    expect(html).toContain(">Take it back<");
    expect(html).not.toContain(">Done<");
  });
  test("that waits for its release offers it to who may", () => {
    const waits = runOf([entry("isolated")], {}, true);
    expect(wordsOf(step("isolated", waits))).toContain("; waits for an engineer's release");
    expect(step("isolated", waits)).not.toContain(">Release it<");
    expect(step("isolated", waits, { mayPass: true })).toContain(">Release it<");
  });
  test("that was skipped shows its reason for ever", () => {
    const html = step("propped", runOf([entry("propped", { kind: "skipped", reason: "no load is on it" })]));
    expect(html).toContain("skipped: no load is on it");
  });
  test("that asks for the reading leads to the point that condemned the part", () => {
    expect(step("again", runOf())).toContain('href="/points/p9"');
    expect(step("zero", runOf())).not.toContain('href="/points/p9"');
  });
  test("that tags lines begins with the circuit's own", () => {
    expect(step("tags", runOf())).toContain('value="H-17, H-18"');
  });
  test("of a signed record offers nothing", () => {
    const html = step("zero", runOf([], { closed: "signed" }), { mayPass: true });
    for (const act of [">Done<", ">Skip it<", ">Photograph"]) expect(html).not.toContain(act);
  });
});

describe("entries that the server refused", () => {
  const item = {
    kind: "step" as const,
    submission: "s",
    runId: "r",
    at: now,
    step: "torque",
    entry: "done" as const,
    values: { stated: "42 N·m", reached: "45 N·m", passes: "3" },
    reason: "",
    after: "",
    order: 1,
  };
  test("none: nothing is shown", () => expect(rendered(<RunTroubles run={runOf()} />)).toBe(""));
  test("a conflict shows both and offers both", () => {
    const problem = { fate: "conflict" as const, message: "R. Oduya did this in the meantime: 42 N·m." };
    const html = rendered(<RunTroubles run={runOf([], { troubles: [{ ...item, problem }] })} />);
    expect(html).toContain("1 entry needs you");
    expect(html).toContain("45 N·m, stated 42 N·m, in 3 passes");
    expect(html).toContain("R. Oduya did this");
    expect(html).toContain("Record mine as well");
    expect(html).toContain("Keep theirs");
  });
  test("a refusal can be sent again or given up; a step that is gone is still told", () => {
    const problem = { fate: "refused" as const, message: "This procedure has no such step." };
    const gone = { ...item, submission: "t", step: "gone", problem };
    const html = rendered(<RunTroubles run={runOf([], { troubles: [gone, { ...item, problem }] })} />);
    expect(html).toContain("2 entries need you");
    expect(html).toContain("Send again");
    expect(html).toContain("Discard");
  });
});

describe("findings", () => {
  const wear: RunFinding = {
    id: "f",
    kind: "wear",
    values: { where: "plate", pattern: "scored" },
    at: now,
    by: "L. Aske",
    withdrawn: null,
  };
  const me = { name: "T. Wren", engineer: false };
  test("none yet", () =>
    expect(rendered(<RunFindings run={runOf()} units={{}} me={me} />)).toContain("Write one down"));
  test("each says what follows; of a signed record none is added", () => {
    const findings = [wear];
    const open = rendered(<RunFindings run={runOf([], { findings })} units={{}} me={me} />);
    expect(open).toContain("replaced as a set");
    expect(open).toContain("Write down another");
    expect(rendered(<RunFindings run={runOf([], { findings, closed: "signed" })} units={{}} me={me} />)).not.toContain(
      "Write down another",
    );
  });
  test("the writer or an engineer may withdraw one; withdrawn, it stays struck out and advises nothing", () => {
    const shown = (finding: RunFinding, who: typeof me) =>
      rendered(<RunFindings run={runOf([], { findings: [finding] })} units={{}} me={who} />);
    expect(shown(wear, me)).not.toContain("Withdraw it");
    expect(shown(wear, { ...me, name: wear.by })).toContain("Withdraw it");
    expect(shown(wear, { ...me, engineer: true })).toContain("Withdraw it");
    const withdrawn = { by: wear.by, at: now, because: "the scores were dirt" };
    const html = shown({ ...wear, withdrawn }, { ...me, engineer: true });
    expect(html).toContain("<s>");
    expect(html).toContain("the scores were dirt");
    expect(html).not.toContain("Withdraw it");
    expect(html).not.toContain("replaced as a set");
  });
});

describe("before beside after", () => {
  const row = (change: Partial<BeforeAfter>): BeforeAfter => ({
    pointId: "p",
    name: "Case drain flow",
    quantity: "caseDrainFlow",
    unit: "L/min",
    fullFlow: 65,
    reference: { pressure: 210, temperature: 50 },
    before: { value: 6.5, readings: 3 },
    after: { value: 1.4, readings: 1 },
    expected: { value: 1.3, basis: "manufacturer’s value" },
    proof: { difference: -5.1, uncertainty: 0.2, better: 1, verdict: "proven" },
    ...change,
  });
  test("proven, with the difference, its uncertainty and what was expected", () => {
    const html = rendered(<Compared rows={[row({})]} condemned="p" />);
    expect(html).toContain("proven");
    expect(html).toContain("(10.0 %)");
    expect(html).toMatch(/−5\.1.*±/);
    expect(html).toContain("manufacturer’s value");
  });
  test("not read since", () => {
    const html = rendered(<Compared rows={[row({ after: null, proof: null })]} condemned="p" />);
    expect(html).toContain("not measured");
    expect(html).toContain("not known yet");
  });
  test.each([
    ["p", "text-ochre"],
    ["another", "text-ink-2"],
  ])("no change counts where it condemned the part (%s)", (condemned, tone) => {
    const proof = { difference: 0.01, uncertainty: 0.2, better: 0.5, verdict: "no change seen" as const };
    const html = rendered(<Compared rows={[row({ proof })]} condemned={condemned} />);
    expect(/<span class="([^"]*)">no change seen/.exec(html)![1]).toContain(tone);
  });
});

test("a photograph that is not sent yet is shown from the device, one that is from its address", () => {
  const photo = {
    step: "",
    findingId: null,
    marks: [{ x: 0.5, y: 0.25, radius: 0.1 }],
    width: 4,
    height: 3,
    at: now,
    by: "T. Wren",
  };
  const html = rendered(
    <PhotoStrip
      photos={[
        { ...photo, id: "a", submission: "a", caption: "Plate", base64: "AAAA" },
        { ...photo, id: "b", submission: "b", caption: "" },
      ]}
    />,
  );
  expect(html).toContain("data:image/jpeg;base64,AAAA");
  expect(html).toContain('src="/work/photos/b"');
  expect(html).toContain('alt="Photograph without a caption"');
  expect(html).toContain("left:50%");
});

test("a field has its unit, its message, and is tied to it", () => {
  const html = rendered(
    <TypedFields
      form="f"
      fields={[
        { name: "value", label: "Measured", quantity: "pressure" },
        { name: "where", label: "Where", optional: true },
        { name: "kind", label: "Kind", options: [{ id: "a", label: "A" }] },
      ]}
      values={{ value: "12" }}
      problems={{ value: "At most 0.5 bar." }}
      units={{ pressure: "psi" }}
      onSet={() => undefined}
      onEnter={() => undefined}
    />,
  );
  expect(html).toContain("Measured (psi)");
  expect(html).toContain('aria-describedby="p-f-value"');
  expect(html).toContain("At most 0.5 bar.");
  expect(html).toContain("Where, where known");
  expect(html).toContain('value="12"');
});
