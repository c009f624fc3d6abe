/** Will the part be there? One rule for every screen and for the assessment. */
import { addDays, daysBetween } from "../units/day";

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

/**
 * The day on which the part is there: ordered on its day, or else today.
 * @param facts lead time in days (null: taken as 0), day of the order, today at the site
 * @returns a day, never before today
 * @example partReadyOn({ leadTimeDays: 10, orderedOn: null, today: "2026-11-24" }) // "2026-12-04"
 */
export function partReadyOn({ leadTimeDays, orderedOn, today }: PartFacts): string {
  const ready = addDays(orderedOn ?? today, leadTimeDays ?? 0);
  return ready < today ? today : ready;
}

/**
 * Does the part come in time for a stop? One rule for every screen and for the assessment.
 * @param facts lead time in days (null: not stated, 0: on the shelf), day of the order, today at the site
 * @param startsOn day on which the stop begins; null: there is none
 * @returns whether it comes too late, and the answer in words
 * @example partAgainstStop({ leadTimeDays: 70, orderedOn: null, today: "2026-11-24" }, "2027-01-18")
 * // { late: true, text: "part 15 days after the stop begins" }
 */
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
