/** Where a run of a procedure stands, from its entries. Hold points bar the way: nothing after one is taken before it is passed. */
import type { StepEntry, WorkProcedure, WorkRules, WorkStep } from "./types";

export interface StepStand {
  step: WorkStep;
  /** Title of its phase. */
  phase: string;
  state: "open" | "done" | "skipped";
  /** A hold point that was done and waits for its release. */
  waits: boolean;
  /** The entry that counts; null: open. */
  entry: StepEntry | null;
  released: StepEntry | null;
  /** The newest entry of the step, of any kind: what the next one builds on. */
  last: string | null;
}

export interface RunStand {
  steps: StepStand[];
  /** The first step that is open or waits; null: through. */
  next: string | null;
  /** The hold point at which the run stands: later steps are barred. Null: none. */
  held: string | null;
  /** Hold points that were skipped, by step. */
  skippedHolds: string[];
  closed: number;
}

/**
 * All steps of a procedure.
 * @param procedure with its phases
 * @returns in order
 * @example
 * stepsOf({ phases: [{ title: "A", steps: [{ id: "a" }] }, { title: "B", steps: [{ id: "b" }] }] })
 * // [{ id: "a" }, { id: "b" }]
 */
export const stepsOf = (procedure: WorkProcedure): WorkStep[] => procedure.phases.flatMap((p) => [...p.steps]);

function standOf(step: WorkStep, phase: string, entries: readonly StepEntry[], rules: WorkRules): StepStand {
  let entry: StepEntry | null = null;
  let released: StepEntry | null = null;
  for (const e of entries) {
    if (e.kind === "released") released = entry ? e : null;
    else {
      entry = e.kind === "reopened" ? null : e;
      released = null;
    }
  }
  const state = entry === null ? "open" : entry.kind === "skipped" ? "skipped" : "done";
  return {
    step,
    phase,
    state,
    waits: rules.holdsReleased && step.hold !== undefined && state !== "open" && released === null,
    entry,
    released,
    last: entries.at(-1)?.submission ?? null,
  };
}

/**
 * Where a run of a procedure stands. Hold points bar the way: nothing after one is taken before it is passed.
 * @param procedure as it was when the run began
 * @param entries in the order in which they were taken
 * @param rules what the plant asks
 * @returns each step with what counts for it, the next one, and the hold point at which the run stands
 * @example
 * const procedure = { phases: [{ title: "Make safe", steps: [{ id: "lock", hold: "Locked off" }, { id: "open" }] }] };
 * standOfRun(procedure, [], { holdsReleased: false }) // { next: "lock", held: "lock", closed: 0 }
 * standOfRun(procedure, [{ step: "lock", kind: "done" }], { holdsReleased: false }) // { next: "open", held: null, closed: 1 }
 */
export function standOfRun(procedure: WorkProcedure, entries: readonly StepEntry[], rules: WorkRules): RunStand {
  const byStep = new Map<string, StepEntry[]>();
  for (const e of entries) byStep.set(e.step, [...(byStep.get(e.step) ?? []), e]);
  const steps = procedure.phases.flatMap((phase) =>
    phase.steps.map((step) => standOf(step, phase.title, byStep.get(step.id) ?? [], rules)),
  );
  const open = (s: StepStand) => s.state === "open" || s.waits;
  return {
    steps,
    next: steps.find(open)?.step.id ?? null,
    held: steps.find((s) => s.step.hold !== undefined && open(s))?.step.id ?? null,
    skippedHolds: steps.filter((s) => s.step.hold && s.state === "skipped").map((s) => s.step.id),
    closed: steps.filter((s) => !open(s)).length,
  };
}

const SHORTEST_REASON = 10;

/**
 * Why an entry of a run cannot be taken.
 * @param stand where the run stands
 * @param entry what is to be taken
 * @param may what the person may do
 * @param may.passHolds release and skip hold points
 * @returns a message for the person; null: it can be taken
 * @example
 * const steps = [{ id: "lock", text: "Lock off", hold: "Locked off" }, { id: "open", text: "Open it" }];
 * const stand = standOfRun({ phases: [{ title: "Make safe", steps }] }, [], { holdsReleased: false });
 * entryProblem(stand, { step: "open", kind: "done", reason: "" }, { passHolds: true }) // "Not before the hold point “Lock off”."
 */
export function entryProblem(
  stand: RunStand,
  entry: Pick<StepEntry, "step" | "kind" | "reason">,
  may: { passHolds: boolean },
): string | null {
  const index = stand.steps.findIndex((s) => s.step.id === entry.step);
  const own = stand.steps[index];
  if (!own) return "This procedure has no such step.";
  const held = stand.steps.findIndex((s) => s.step.id === stand.held);
  if (held >= 0 && index > held && entry.kind !== "reopened")
    return `Not before the hold point “${stand.steps[held]!.step.text}”.`;
  if (entry.kind === "released") {
    if (!may.passHolds) return "An engineer releases a hold point.";
    if (!own.step.hold || own.state === "open") return "There is nothing to release at this step.";
    return null;
  }
  if (entry.kind === "reopened" && own.state === "open") return "This step is open.";
  if (entry.kind === "skipped" && own.step.hold && !may.passHolds)
    return "A hold point is not skipped. An engineer may, with a reason that stays on the record.";
  if (entry.kind !== "done" && entry.reason.trim().length < SHORTEST_REASON)
    return "Say why in a few words: the record keeps it.";
  return null;
}
