/** What the trade knows of faults, as data: parts, causes, tests and symptoms, and how often what goes with what. */
import type { ElementKindId } from "../../circuit/kinds";

/**
 * How often, in grades: of a hundred like it, about this many. Grades, because nobody has counted: they order what
 * common practice says and no more.
 */
export const grades = { always: 0.95, mostly: 0.8, half: 0.5, seldom: 0.15, hardly: 0.03 } as const;
export type Grade = keyof typeof grades;

/** How a cause ranks among those of a symptom, or among all faults of a circuit: its weight beside the others. */
export const ranks = { often: 6, sometimes: 3, seldom: 1, rare: 0.3 } as const;
export type Rank = keyof typeof ranks;

export interface Part {
  label: string;
  /** Elements of a circuit that it is; none: the circuit has one of it, drawn or not. */
  kinds: readonly ElementKindId[];
  /** A drawn circuit has parts of its own for it: only where none is drawn is it a place. */
  undrawn?: true;
}

/** What the cause asks for. Setting a valve is not a stop. */
export interface Act {
  do: "set" | "clean" | "replace" | "refill" | "repair" | "free" | "restore" | "check";
  text: string;
  minutes: number;
  /** Does it need a part, and the machine stopped and its circuit opened? */
  part: boolean;
  stop: boolean;
  /** A stop-gap leaves the cause open. */
  interim?: true;
}

export interface Cause {
  part: string;
  label: string;
  rank: Rank;
  /** Found and put right from outside: nothing is opened. */
  outside?: true;
  /** Its name among the faults of the circuit model, where the model has it. */
  fault?: string;
  act: Act;
}

/** What has to be made ready; tests that need the same share it. */
export const preparations = {
  none: { label: "nothing", minutes: 0 },
  warm: { label: "oil at working temperature", minutes: 15 },
  gauge: { label: "a gauge of the right range at the test port", minutes: 10 },
  meter: { label: "a flow meter in the line, the circuit isolated and without pressure meanwhile", minutes: 30 },
  isolated: { label: "isolated and locked, pressure released and proved zero at a gauge, load propped", minutes: 20 },
} as const;
export type Preparation = keyof typeof preparations;

/** What a test risks: nothing; care; an outlet closed against the pump; an opened circuit. */
export const risks = { none: 0, care: 4, deadhead: 15, opens: 45 } as const;
export type Risk = keyof typeof risks;

export interface Test {
  /** The part that it is made on; left out: the circuit as a whole. */
  at?: string;
  /** Made at this port of it: where none is drawn there, it cannot be made. */
  port?: string;
  label: string;
  how: string;
  minutes: number;
  prepare: Preparation;
  risk: Risk;
  caution?: string;
  /** The guided test that leads through it. */
  procedure?: string;
  /** Not in most manufacturers' books: marked, and never first. */
  outsideBook?: true;
  /** Results by id, in words; the first is what a healthy circuit gives. */
  results: Record<string, string>;
  /** How often each other result comes with nothing wrong that it could show; left out: hardly. */
  falsely?: Record<string, Grade>;
  /** How often each other result comes with a cause; causes left out give what a healthy circuit gives. */
  shows: Record<string, Record<string, Grade>>;
  basis: string;
}

export interface Symptom {
  label: string;
  /** What is asked so that the right one is chosen. */
  seen: string;
  causes: Partial<Record<Rank, readonly string[]>>;
  basis: string;
}

/** Where most of it comes from: said by every table that rests on nothing counted. */
export const COMMON_PRACTICE = "common practice, graded and not counted";
