/** A procedure of work as data: what is done in which order, what nobody passes by, and what is written down on the way. */
import type { ComponentKind } from "../equipment/kinds";
import type { QuantityId } from "../units/quantities";

/** What a step asks to be written down. */
export type Ask =
  /** `fills`: the field of the record that it is, so that nobody types it there again. */
  | { kind: "text"; label: string; optional?: true; fills?: "serial" | "settingsLeft" }
  /** Pieces counted; `equals`: the step whose count must come out again. */
  | { kind: "count"; label: string; equals?: string }
  /** `above`: the step whose value it must exceed; `below`: the later step whose value, where it stands already, it must not reach. */
  | {
      kind: "value";
      label: string;
      quantity: QuantityId;
      least?: number;
      greatest?: number;
      above?: string;
      below?: string;
      optional?: true;
    }
  /** The manufacturer's torque and the one that was reached, both N·m, and how many passes it took. */
  | { kind: "torque" }
  /** A calendar day, 2027-01-18. */
  | { kind: "day"; label: string; optional?: true }
  /** Each line that is taken off, by its tag. */
  | { kind: "lines" }
  /** One of several findings; `stops`: why the work cannot go on with it. */
  | { kind: "choice"; label: string; options: readonly { id: string; label: string; stops?: string }[] };

export interface WorkStep {
  /** Stands in records: it never changes its meaning. */
  id: string;
  text: string;
  /** A hold point: why nobody goes on without it. */
  hold?: string;
  caution?: string;
  ask?: Ask;
  /** A photograph tells more than words here. */
  photo?: true;
  /** It is closed by what it asks for, not by a press: a reading or test since the work began; a photograph or a finding of it. */
  closedBy?: "reading" | "evidence";
  /** With a day written down, the work is a stop-gap: its cause stays open until then. */
  interim?: true;
  /** What it leaves altered on the machine until it is put back. */
  alters?: string;
  /** The step whose alteration it takes back. */
  putsBack?: string;
}

export interface WorkPhase {
  title: string;
  steps: readonly WorkStep[];
}

export interface WorkProcedure {
  id: string;
  title: string;
  /** When it is the right one. */
  purpose: string;
  kinds: readonly ComponentKind[];
  /** What it is offered for first; others may take it all the same. */
  fits: readonly ("replacement" | "repair" | "inspection")[];
  cautions: readonly string[];
  /** Renewed at every opening, whatever it looks like. */
  renew: readonly string[];
  phases: readonly WorkPhase[];
  /** Heard of from people and warned against; not part of it. */
  notRecommended?: string;
}

/** One entry of the record of a run: written once, never changed. */
export interface StepEntry {
  /** The entry's own id, made where it was written. */
  submission: string;
  step: string;
  kind: "done" | "skipped" | "reopened" | "released";
  /** As typed, by the names of its ask. */
  values: Record<string, string>;
  /** Why it was skipped or taken back. */
  reason: string;
  at: number;
  by: string;
  /** Who sent it, where that was somebody else. */
  sentBy?: string | null;
}

/** What a plant asks of its procedures. */
export interface WorkRules {
  /** An engineer releases each hold point after it was done. */
  holdsReleased: boolean;
}
