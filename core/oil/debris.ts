/** A debris event: what it threatens, how the circuit is flushed, and when samples are due. Common practice; the makers' documents go first. */
import type { ComponentKind } from "../equipment/kinds";

/** What a part does when dirt sticks in it. */
const stuckSymptoms: Record<ComponentKind, string> = {
  axialPistonPump: "case drain rises, the compensator hunts or stays low",
  gearPump: "flow falls at pressure, side plates score",
  closedLoopPump: "case drain rises, it does not reach its stroke or does not come back to none",
  flushingValve: "stuck in the middle, the loop runs hot; stuck to one side, charge pressure falls in one direction",
  pistonMotor: "case drain rises, it turns slower under load",
  reliefValve: "held open, no pressure anywhere, and heat; held shut, no relief, and hoses fail",
  unloaderValve: "held open, the pump never loads; held shut, it runs over the relief valve and heats",
  reducingValve: "stuck open, full pressure behind it; stuck shut, none, and clutches slip",
  proportionalValve: "erratic, does not come back to null, drifts from its command",
  directionalValve: "stuck part-way, alive unloaded and not carrying load; or not shifting at all",
  loadHoldingValve: "held open, the load creeps or comes down at once. Prop the load before it is touched",
  cylinder: "dirt stays behind at its ends; seals score, the load creeps",
  filter: "blocks, or its bypass hangs open and all dirt goes round",
  accumulator: "dirt settles in its shell and comes back later",
  other: "dirt settles where oil stands still and comes back later",
};
const valves: readonly string[] = [
  "reliefValve",
  "unloaderValve",
  "reducingValve",
  "flushingValve",
  "proportionalValve",
  "directionalValve",
  "loadHoldingValve",
];

export interface EventComponent {
  id: string;
  name: string;
  kind: string;
  position: number;
  /** Stated for this component; empty: usual of its kind. */
  symptomIfStuck: string;
}

export interface DebrisCheck {
  componentId: string;
  name: string;
  isValve: boolean;
  symptom: string;
  /** Downstream of where it was found, or reached through the tank. */
  reached: "downstream" | "throughTank";
}

/**
 * Everything the debris can have reached, what lies downstream of the find first, valves before the rest. What
 * returns to the tank is drawn in again, so nothing in the circuit is left out; unknown place: all is downstream.
 */
export function debrisChecks(components: readonly EventComponent[], foundAt: string | null): DebrisCheck[] {
  const from = components.find((c) => c.id === foundAt)?.position ?? -Infinity;
  return components
    .map((c): DebrisCheck & { position: number } => ({
      componentId: c.id,
      name: c.name,
      isValve: valves.includes(c.kind),
      position: c.position,
      symptom:
        c.symptomIfStuck || stuckSymptoms[(Object.hasOwn(stuckSymptoms, c.kind) ? c.kind : "other") as ComponentKind],
      reached: c.position >= from ? "downstream" : "throughTank",
    }))
    .sort(
      (a, b) =>
        Number(a.reached === "throughTank") - Number(b.reached === "throughTank") ||
        Number(b.isValve) - Number(a.isValve) ||
        a.position - b.position,
    )
    .map(({ position: _position, ...check }) => check);
}

export interface FlushStep {
  title: string;
  detail: string;
}

/**
 * Flow that makes a bore turbulent: Re 4000 = v·d/ν, Q = Re·π·d·ν/4. Bore in mm, viscosity in mm²/s, result in
 * L/min.
 * @throws {RangeError} when they are not above zero.
 */
export function flushFlow(bore: number, viscosity: number, reynolds = 4000): number {
  if (!(bore > 0) || !(viscosity > 0)) throw new RangeError("Bore and viscosity must be above zero.");
  return (reynolds * Math.PI * (bore / 1000) * (viscosity * 1e-6) * 60_000) / 4;
}

/**
 * Flush plan in order.
 * @param wanted what the circuit needs
 * @param wanted.targetText its target code
 * @param wanted.cleanerText the code two numbers below it
 * @param wanted.minutes running minutes that the balance asks for; null: the filters cannot reach it
 * @param wanted.proportional a proportional or servo valve is in the circuit
 */
export function flushPlan({
  targetText,
  cleanerText,
  minutes,
  proportional,
}: {
  targetText: string;
  cleanerText: string;
  minutes: number | null;
  proportional: boolean;
}): FlushStep[] {
  return [
    {
      title: "Keep the evidence",
      detail:
        "Sample before anything is drained. Look at the debris before washing it away: metal, rubber, grit, " +
        "where it lay. Photograph and keep it in a marked bag.",
    },
    {
      title: "Make it safe",
      detail:
        "Isolate and lock, prop loads, release pressure and accumulators, prove zero at a gauge. Isolation and lifting by licensed people and the local code.",
    },
    {
      title: "Stop the source",
      detail:
        "A part that breaks up goes on feeding the circuit: find and renew it before flushing, or the flush is lost.",
    },
    {
      title: "Drain and clean the tank",
      detail:
        "Drain warm, open the tank, wipe it out, clean the strainer, renew every element and look at the breather. Open coolers and dead ends: they keep dirt.",
    },
    ...(proportional
      ? [
          {
            title: "Take proportional and servo valves out of the flow",
            detail: "Fit flushing plates in their place; their bores are finer than the dirt.",
          },
        ]
      : []),
    {
      title: "Flush",
      detail:
        `Through a flushing filter, warm oil, flow turbulent in the largest line (25 mm of thin warm oil, ` +
        `20 mm²/s, asks for ${Math.round(flushFlow(25, 20))} L/min), each line by itself, cylinders moved end to end. ` +
        (minutes === null
          ? "The circuit's own filter cannot reach the target: use an off-line unit. "
          : `By the tank balance at least ${Math.ceil(minutes / 60)} h of running. `) +
        `Until ${cleanerText}, two numbers below the target ${targetText}.`,
    },
    {
      title: "Check each valve",
      detail:
        "Each by its symptom in the list, then driven through its stroke. A part that stuck once is opened, not freed and forgotten.",
    },
    {
      title: "Start again",
      detail:
        "Fill through a filter, fill pump cases, bleed, low pressure first. Everything altered for the flush is put back.",
    },
  ];
}

/** Days after opening on which samples are due: at once, when flushed, and until it has proved clean. */
export const debrisSampleDays = [0, 2, 9, 30] as const;

/** Two numbers below a target, size by size. */
export function twoCleaner(codes: readonly number[]): string {
  return codes.map((c) => Math.max(0, c - 2)).join("/");
}

export interface DebrisTask {
  kind: "check" | "flush" | "sample";
  componentId: string | null;
  title: string;
  detail: string;
  /** Days after opening; null: no date of its own. */
  dueDays: number | null;
}

const sampleWords = [
  "before anything is drained",
  "after the flush",
  "after a week's running",
  "after a month's running: it has proved clean",
];

/**
 * Everything that opening an event of debris puts on the list, in the order of doing: parts to look at, flushing, samples.
 * @param components of the circuit, in the order of the flow
 * @param foundAt component at which the debris was found; null: not known
 * @param flush how it is flushed
 * @param flush.targetCodes ISO 4406 numbers to flush to; null: 18/16/13
 * @param flush.minutes running minutes that it takes; null: not known
 * @returns the tasks
 * @example debrisTasks([], null, { targetCodes: null, minutes: null }).filter((task) => task.kind === "sample").length // 4
 */
export function debrisTasks(
  components: readonly EventComponent[],
  foundAt: string | null,
  flush: { targetCodes: readonly number[] | null; minutes: number | null },
): DebrisTask[] {
  const codes = flush.targetCodes ?? [18, 16, 13];
  const plan = flushPlan({
    targetText: codes.join("/"),
    cleanerText: twoCleaner(codes),
    minutes: flush.minutes,
    proportional: components.some((c) => c.kind === "proportionalValve"),
  });
  return [
    ...debrisChecks(components, foundAt).map((c): DebrisTask => ({
      kind: "check",
      componentId: c.componentId,
      title: c.name,
      detail: `${c.reached === "throughTank" ? "Reached through the tank. " : ""}When dirt sticks in it: ${c.symptom}.`,
      dueDays: null,
    })),
    ...plan.map((s): DebrisTask => ({
      kind: "flush",
      componentId: null,
      title: s.title,
      detail: s.detail,
      dueDays: null,
    })),
    ...debrisSampleDays.map((days, i): DebrisTask => ({
      kind: "sample",
      componentId: null,
      title: `Sample ${i + 1}`,
      detail: sampleWords[i]!,
      dueDays: days,
    })),
  ];
}

export interface Closing {
  checksOpen: number;
  /** Newest comparable sample since it was opened: does it meet the target? null: none. */
  clean: boolean | null;
  sourceComponent: boolean;
  /** Words: the source, or what was looked at in vain. */
  words: string;
  notFound: boolean;
}

const FEWEST_WORDS = 12;

/**
 * What still stands against closing an event of debris.
 * @param closing checks left, whether the newest sample is clean, and what is said of the source
 * @returns messages by field; empty: it may be closed
 * @example closingProblems({ checksOpen: 0, clean: true, sourceComponent: true, words: "", notFound: false }) // {}
 * @example closingProblems({ checksOpen: 0, clean: null, sourceComponent: true, words: "", notFound: false })
 * // { form: "There is no sample since the event was opened. It closes with a clean one." }
 */
export function closingProblems({
  checksOpen,
  clean,
  sourceComponent,
  words,
  notFound,
}: Closing): Record<string, string> {
  const problems: Record<string, string> = {};
  if (checksOpen > 0)
    problems.form = `${checksOpen} part${checksOpen === 1 ? " is" : "s are"} still unchecked. Write what was found at each, or why it was left.`;
  if (clean === null) problems.form = "There is no sample since the event was opened. It closes with a clean one.";
  else if (!clean) problems.form = "The newest sample is not clean: it must meet the target at every size.";
  if (notFound ? words.trim().length < FEWEST_WORDS : !sourceComponent && words.trim().length < 3)
    problems.source = notFound
      ? "Say what was looked at in vain: the next person starts from there."
      : "Name the source, or say that it was not found and what was looked at.";
  return problems;
}
