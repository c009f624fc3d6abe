/** Five years of monthly readings for a point of the plan, by the simulator. */
import { DAY, MONTH, YEAR, simulateLife, type Fluid, type Random, type SimulatedReading } from "@core";
import type { MachinePlan, PointPlan } from "./world";

export const HISTORY_MONTHS = 60;

export interface Schedule {
  /** Moments at which the round of this machine was walked, oldest first. */
  times: number[];
  /** When the machine began its running hours. */
  origin: number;
}

/** Monthly rounds that end `lastDaysAgo` before `now`, on working mornings, a few days early or late. */
export function roundTimes(now: number, lastDaysAgo: number, rng: Random): number[] {
  return Array.from({ length: HISTORY_MONTHS }, (_, i) => {
    const monthsBack = HISTORY_MONTHS - 1 - i;
    const jitter = monthsBack === 0 ? 0 : Math.round(rng.between(-3, 3));
    const day = Math.floor(now / DAY) - lastDaysAgo - Math.round(monthsBack * (MONTH / DAY)) + jitter;
    return day * DAY + Math.round(rng.between(8, 14) * 60) * 60_000;
  });
}

/** What a life of the part at this point reads. `lifeStart` and `lifeEnd` bound the life; `readFrom` is when the meter was fitted. */
export function readPoint(
  plan: PointPlan,
  machine: MachinePlan,
  fluidAt: (at: number) => Fluid,
  times: readonly number[],
  now: number,
  lifeStart: number,
  lifeHours: (at: number) => number,
  fault: ((at: number) => number) | undefined,
  rng: Random,
): SimulatedReading[] {
  const reference = plan.reference ?? { pressure: machine.pressure, temperature: 50 };
  const truth = plan.truth;
  const crossing = truth ? lifeHours(now + truth.crossesInDays * DAY) : 1;
  const changeAt = truth?.change ? lifeHours(now - truth.change.daysAgo * DAY) : undefined;
  // with a change of rate the law is run on an age that goes faster after it: the scale is that faster age at the crossing
  const timeScale =
    truth?.change && changeAt !== undefined ? changeAt + (crossing - changeAt) * truth.change.factor : crossing;
  const factor = (at: number) =>
    (plan.step && at > now - plan.step.daysAgo * DAY ? plan.step.factor : 1) * (fault?.(at) ?? 1);
  const temperatureAt = (at: number) => ({
    ...machine.temperature,
    mean: machine.temperature.mean + (machine.temperature.warming ?? 0) * ((at - lifeStart) / YEAR),
  });
  return times.flatMap((at) =>
    simulateLife(
      {
        asNew: plan.asNew,
        end: truth?.end ?? 1,
        timeScale,
        law: truth?.law ?? "none",
        a: plan.a ?? 0,
        b: plan.b ?? 0,
        reference,
        fluid: fluidAt(at),
        referenceFluid: fluidAt(0),
        pressure: { mean: machine.pressure * 0.985, scatter: 4 },
        temperature: temperatureAt(at),
        noise: plan.noise,
        fault: factor,
        ...(truth?.change && changeAt !== undefined && { change: { hours: changeAt, factor: truth.change.factor } }),
      },
      [{ at, hours: lifeHours(at) }],
      rng,
    ),
  );
}
