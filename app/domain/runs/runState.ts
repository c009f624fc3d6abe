/** What a procedure under way looks like on a tablet: as the server last had it. */
import type { FindingKindId, StepEntry } from "@core";

/** A reason is a few words at least. */
export const SHORTEST_REASON = 10;

export interface RunFinding {
  id: string;
  kind: FindingKindId;
  values: Record<string, string>;
  at: number;
  by: string;
  sentBy?: string | null;
  /** It was wrong: who took it back and why. It stays on the record. */
  withdrawn: { by: string; at: number; because: string } | null;
}

export interface RunPhoto {
  id: string;
  /** The entry that brought it: what a tablet knows it by. */
  submission: string;
  step: string;
  findingId: string | null;
  caption: string;
  marks: { x: number; y: number; radius: number }[];
  width: number;
  height: number;
  at: number;
  by: string;
  sentBy?: string | null;
}

export interface RunState {
  entries: StepEntry[];
  findings: RunFinding[];
  photos: RunPhoto[];
  /** The record is signed, or the work cancelled: nothing is taken any more. Empty: it goes on. */
  closed: string;
}
