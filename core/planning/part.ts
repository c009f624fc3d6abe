/** Will the part be there? One rule for every screen and for the assessment. */
import { addDays, daysBetween } from "./day";

export interface PartFacts {
  /** Days from order to delivery; null: not stated; 0: on the shelf. */
  leadTimeDays: number | null;
  /** Day of the order; null: not ordered. */
  orderedOn: string | null;
  /** Today at the site. */
  today: string;
}

export interface PartAnswer {
  late: boolean;
  text: string;
}

/** The day on which the part is there, ordered when it was, or today. Never before today. */
export function partReadyOn({ leadTimeDays, orderedOn, today }: PartFacts): string {
  const ready = addDays(orderedOn ?? today, leadTimeDays ?? 0);
  return ready < today ? today : ready;
}

/** In words: whether the part comes in time for a stop that begins on a day; null: no stop. */
export function partAgainstStop(facts: PartFacts, startsOn: string | null): PartAnswer {
  const { leadTimeDays, orderedOn } = facts;
  if (leadTimeDays === null) return { late: false, text: "lead time of the part not stated" };
  if (leadTimeDays === 0) return { late: false, text: "part on hand" };
  if (startsOn === null)
    return { late: false, text: orderedOn ? "part is ordered" : `part takes ${leadTimeDays} days` };
  const days = daysBetween(partReadyOn(facts), startsOn);
  const count = (n: number) => `${n} day${n === 1 ? "" : "s"}`;
  if (days < 0) return { late: true, text: `part ${count(-days)} after the stop begins` };
  return {
    late: false,
    text: orderedOn
      ? "part in time"
      : days === 0
        ? "part in time if ordered today"
        : `part in time if ordered within ${count(days)}`,
  };
}
