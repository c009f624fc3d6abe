/** The procedures that ship. A plant makes copies of its own (a record keeps the one it was done with). */
import type { WorkProcedure } from "../types";
import { actuatorProcedures } from "./actuators";
import { fluidProcedures } from "./fluid";
import { loadHoldingProcedures } from "./loadHolding";
import { pumpProcedures } from "./pumps";
import { testProcedures } from "./tests";
import { valveProcedures } from "./valves";

export const workProcedures: readonly WorkProcedure[] = [
  // made for one kind of part before those for many: of what fits equally the first is offered first
  ...pumpProcedures,
  ...loadHoldingProcedures,
  ...actuatorProcedures,
  ...valveProcedures,
  ...fluidProcedures,
  ...testProcedures,
];

/**
 * Which procedures fit a piece of work, the likeliest first.
 * @param kind kind of the component
 * @param work what is to be done
 * @param all the procedures to choose from: those that ship, or a plant's own
 * @returns those made for the kind of component, those for this kind of work before the others,
 *   and last what goes beyond most manufacturers' books
 * @example
 * proceduresForWork("gearPump", "replacement", workProcedures)[0].id // "replace-fixed-pump"
 */
export function proceduresForWork<T extends WorkProcedure>(
  kind: string,
  work: WorkProcedure["fits"][number],
  all: readonly T[],
): T[] {
  const own = all.filter((p) => (p.kinds as readonly string[]).includes(kind));
  const rank = (p: T) => (p.notRecommended ? 2 : p.fits.includes(work) ? 0 : 1);
  return own.toSorted((a, b) => rank(a) - rank(b));
}
