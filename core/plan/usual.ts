/**
 * Usual hours and costs of work by kind of component, where a plant has not stated its own: orders of magnitude of common
 * practice, shown as assumed. Money in the site's currency, set for euros.
 */
import type { ComponentKind } from "../equipment/kinds";
import type { CrewHours, PieceCosts, PlanCosts } from "./types";

/** What a site starts with until it sets its own. */
export const usualCosts: PlanCosts = {
  currency: "€",
  crewHour: 65,
  overHour: 260,
  opening: 400,
  extraStop: 1800,
  standing: 250,
  failsAMonth: 0.1,
};

/** Hours that one more reading takes, with the way there (assumed). */
export const READING_HOURS = 0.5;

interface Usual {
  hours: CrewHours;
  part: number;
  /** Failing in service over a planned renewal of the part: repair at short notice, standing, damage downstream. */
  failure: number;
}

const usual: Partial<Record<ComponentKind, Usual>> = {
  axialPistonPump: { hours: { mechanical: 10 }, part: 5200, failure: 28_000 },
  closedLoopPump: { hours: { mechanical: 12 }, part: 6800, failure: 36_000 },
  gearPump: { hours: { mechanical: 5 }, part: 900, failure: 9000 },
  pistonMotor: { hours: { mechanical: 10 }, part: 4300, failure: 22_000 },
  cylinder: { hours: { mechanical: 12 }, part: 2600, failure: 16_000 },
  proportionalValve: { hours: { mechanical: 5, electrical: 2 }, part: 3100, failure: 12_000 },
  directionalValve: { hours: { mechanical: 4, electrical: 1 }, part: 650, failure: 7000 },
  filter: { hours: { mechanical: 1 }, part: 120, failure: 4000 },
  accumulator: { hours: { mechanical: 4 }, part: 900, failure: 6000 },
};
const anyOther: Usual = { hours: { mechanical: 4 }, part: 450, failure: 7000 };

const usualOf = (kind: string): Usual => usual[kind as ComponentKind] ?? anyOther;

/**
 * Hours that renewing a component of this kind usually takes (common practice).
 * @param kind of the register; one that is not known takes as long as any other
 * @returns by trade
 * @example usualHours("gearPump") // { mechanical: 5 }
 */
export const usualHours = (kind: string): CrewHours => usualOf(kind).hours;

/**
 * What a part and its failing cost: the plant's own figures, or usual ones.
 * @param kind of the register
 * @param own the plant's figures
 * @param own.part null: not stated
 * @param own.failure null: not stated
 * @returns money, and whether any of it is assumed
 * @example costsOfKind("gearPump", { part: 1000, failure: null }) // { part: 1000, failure: 9000, assumed: true }
 */
export function costsOfKind(
  kind: string,
  own: { part: number | null; failure: number | null },
): PieceCosts & { assumed: boolean } {
  const { part, failure } = usualOf(kind);
  return {
    part: own.part ?? part,
    failure: own.failure ?? failure,
    assumed: own.part === null || own.failure === null,
  };
}
