/** A reading as it was understood: what is asked about, saved and handed on. */
import type { ParsedQuantity } from "@core";

export interface CheckedReading {
  takenAt: Date;
  value: ParsedQuantity;
  least: ParsedQuantity | null;
  temperature: number | null;
  pressure: number | null;
  speed: number | null;
  hours: number | null;
  instrumentId: string | null;
  note: string;
  keptBecause: string;
  submission: string;
  lifeId: string;
  /** What is odd about the hours, to be answered before it is saved. */
  hoursQuestion: string | undefined;
}
