/** Readings as read and as corrected, with their uncertainty and marks. */
import { correctedPressureDrop } from "../contamination/filter";
import { fluidAt } from "../fluid/measured";
import { meterOffset, runningHours, type HoursAxis } from "../hours/runningHours";
import { dynamicViscosity, viscosityTemperatureSensitivity, type Fluid } from "../fluid/viscosity";
import { correctedUncertainty, correctLeakage } from "../leakage/correct";
import { learnExponents, type LearnedExponents } from "../leakage/exponents";
import { quantityOf } from "../units/quantities";
import { floorOf } from "./floor";
import type { AssessPoint, AssessReading, ReadingMark, SeriesContext } from "./types";

/** Usual standard uncertainties where an instrument is not stated (common practice). */
export const usualUncertainty = { flow: 0.02, pressure: 0.01, temperature: 1, plain: 0.01 } as const;

/** A leakage reading without its pressure or temperature could be this far off, relative. */
const NO_CONDITIONS = 0.25;
/** Readings of the baseline period from which the exponents are learned. */
const LEARNING_SPAN_HOURS = 9000;

export interface CorrectedReading {
  id: string;
  at: number;
  hours: number;
  raw: number;
  corrected: number;
  /** Absolute standard uncertainty. */
  uncertainty: number;
  lnPressure: number;
  lnViscosity: number;
  mark: ReadingMark | null;
  doubtful: boolean;
  recalled: boolean;
}

export interface CorrectedSeries {
  readings: CorrectedReading[];
  exponents: LearnedExponents | null;
  /** The exponents are those of the law, not learned: a filter element. */
  fixed: boolean;
}

/**
 * Running hours of each reading on the machine's one axis: as noted where that is believed, else by its neighbours and the duty.
 * @param readings of one life, in time order
 * @param context duty in hours a day, changes of the meter, begin of the life
 * @returns hours, never falling, and which were believed
 * @example
 * const context = { lifeStartedAt: 0, lifeStartHours: 100, meterChanges: [], duty: { hoursPerDay: 8, deviation: 0.15 } };
 * hoursOf([{ at: 0, hours: 100 }, { at: DAY, hours: null }], context).hours // [100, 108]
 */
export function hoursOf(readings: readonly AssessReading[], context: SeriesContext): HoursAxis {
  const start =
    context.lifeStartedAt === null ? {} : { start: { at: context.lifeStartedAt, hours: lifeStart(context) } };
  return runningHours(readings, { changes: context.meterChanges, hoursPerDay: context.duty.hoursPerDay, ...start });
}

/** Running hours at which the life began, on the same axis. */
export function lifeStart({
  lifeStartHours,
  lifeStartedAt,
  meterChanges,
}: Pick<SeriesContext, "lifeStartHours" | "lifeStartedAt" | "meterChanges">): number {
  return lifeStartHours + (lifeStartedAt === null ? 0 : meterOffset(meterChanges, lifeStartedAt));
}

/**
 * Correct a life's readings to the point's reference condition, with exponents learned from the life itself where it tells them.
 * @param readings of one life, in time order, core units
 * @param point what is read, with its reference in bar and °C
 * @param context oil, duty, changes of the meter
 * @returns each reading as read and as corrected, with its standard uncertainty in core units, and the exponents
 * @throws {RangeError} for a reference temperature outside ASTM D341
 * @example
 * const context = { lifeStartedAt: null, lifeStartHours: 0, meterChanges: [], measured: [], fluid: null, duty: { hoursPerDay: 8 } };
 * const reading = { id: "a", at: 0, hours: 100, value: 52, pressure: null, temperature: null, uncertainty: null };
 * correctSeries([reading], { quantity: "temperature", reference: null }, context).readings[0].corrected // 52
 */
export function correctSeries(
  readings: readonly AssessReading[],
  point: AssessPoint,
  context: SeriesContext,
): CorrectedSeries {
  const { hours } = hoursOf(readings, context);
  const quantity = quantityOf(point.quantity);
  const floor = floorOf(point);
  const { reference } = point;
  const { fluid } = context;
  if (quantity.correction === "element" && reference && fluid)
    return correctElement(readings, hours, point, context, reference, fluid);
  if (quantity.correction !== "leakage" || !reference || !fluid) {
    return {
      exponents: null,
      fixed: false,
      readings: readings.map((r, i) => ({
        id: r.id,
        at: r.at,
        hours: hours[i]!,
        raw: r.value,
        corrected: r.value,
        uncertainty: Math.max(floor, r.uncertainty ?? Math.abs(r.value) * usualUncertainty.plain),
        lnPressure: 0,
        lnViscosity: 0,
        mark: notBelieved(r) ?? (r.doubtful ? "doubtful" : null),
        doubtful: r.doubtful,
        recalled: r.recalled,
      })),
    };
  }
  const muRef = dynamicViscosity(fluid, believable(reference.temperature));
  const conditions = readings.map((r) => conditionOf(r, reference, fluidAt(fluid, context.measured, r.at), muRef));
  const start = hours[0] ?? 0;
  const learning = readings.flatMap((r, i) => {
    const c = conditions[i]!;
    return c.complete && r.value > 0 && !r.doubtful && !r.recalled && hours[i]! - start <= LEARNING_SPAN_HOURS
      ? [{ time: hours[i]!, lnFlow: Math.log(r.value), lnPressure: c.lnPressure, lnViscosity: c.lnViscosity }]
      : [];
  });
  const exponents = learnExponents(learning);
  const seenP = range(learning.map((l) => l.lnPressure));
  const seenV = range(learning.map((l) => l.lnViscosity));
  return {
    exponents,
    fixed: false,
    readings: readings.map((r, i) => {
      const c = conditions[i]!;
      const corrected = correctLeakage(
        { flow: r.value, pressure: Math.exp(c.lnPressure), viscosity: Math.exp(c.lnViscosity) },
        { pressure: 1, viscosity: 1 },
        exponents,
      );
      const uFlow = Math.max(
        floor / Math.max(r.value, 1e-9),
        r.uncertainty !== null ? r.uncertainty / Math.max(r.value, 1e-9) : usualUncertainty.flow,
      );
      const relative = Math.hypot(
        correctedUncertainty(
          { pressure: Math.exp(c.lnPressure), viscosity: Math.exp(c.lnViscosity) },
          { pressure: 1, viscosity: 1 },
          exponents,
          c.lambda,
          {
            flow: uFlow,
            pressure: usualUncertainty.pressure,
            temperature: usualUncertainty.temperature,
            a: exponents.ua,
            b: exponents.ub,
          },
        ),
        c.complete ? 0 : NO_CONDITIONS,
      );
      const off =
        exponents.readings > 0 && c.complete ? outside(c.lnPressure, seenP) + outside(c.lnViscosity, seenV) : 0;
      const mark: ReadingMark | null =
        notBelieved(r) ?? (r.doubtful ? "doubtful" : !c.complete ? "noConditions" : off > 0.1 ? "offCondition" : null);
      return {
        id: r.id,
        at: r.at,
        hours: hours[i]!,
        raw: r.value,
        corrected,
        uncertainty: Math.max(floor, corrected * Math.hypot(relative, off * 0.3)),
        lnPressure: c.lnPressure,
        lnViscosity: c.lnViscosity,
        mark,
        doubtful: r.doubtful,
        recalled: r.recalled,
      };
    }),
  };
}

/** Why a reading has no weight at all; null: it has. */
const notBelieved = (r: AssessReading): ReadingMark | null =>
  r.beforeRepair ? "beforeRepair" : r.recalled ? "recalled" : null;

/** Doubt of a differential pressure where the oil temperature was not noted, relative. */
const NO_TEMPERATURE = 0.3;

/** A filter element: Δp falls with viscosity and flow, in proportion. The flow follows the speed where that was noted. */
function correctElement(
  readings: readonly AssessReading[],
  hours: readonly number[],
  point: AssessPoint,
  context: SeriesContext,
  reference: { temperature: number },
  fluid: Fluid,
): CorrectedSeries {
  const floor = floorOf(point);
  const muRef = dynamicViscosity(fluid, believable(reference.temperature));
  return {
    exponents: { a: 0, b: -1, ua: 0, ub: 0.1, readings: 0 },
    fixed: true,
    readings: readings.map((r, i) => {
      const real = fluidAt(fluid, context.measured, r.at);
      const viscosity = r.temperature === null ? muRef : dynamicViscosity(real, believable(r.temperature));
      const flow = r.speed && point.referenceSpeed ? r.speed / point.referenceSpeed : 1;
      const corrected = correctedPressureDrop({ drop: r.value, flow, viscosity }, { flow: 1, viscosity: muRef });
      const relative = Math.hypot(
        r.temperature === null
          ? NO_TEMPERATURE
          : viscosityTemperatureSensitivity(real, believable(r.temperature)) * usualUncertainty.temperature,
        Math.max(floor, r.uncertainty ?? r.value * usualUncertainty.pressure) / Math.max(r.value, floor),
      );
      const mark: ReadingMark | null =
        notBelieved(r) ?? (r.doubtful ? "doubtful" : r.temperature === null ? "noConditions" : null);
      return {
        id: r.id,
        at: r.at,
        hours: hours[i]!,
        raw: r.value,
        corrected,
        uncertainty: Math.max(floor, corrected * relative),
        lnPressure: 0,
        lnViscosity: Math.log(viscosity / muRef),
        mark,
        doubtful: r.doubtful,
        recalled: r.recalled,
      };
    }),
  };
}

/** Below this load (bar) a leakage says nothing about its gap: the reading counts as one without a load. */
export const LEAST_PRESSURE = 1;

function conditionOf(
  r: AssessReading,
  reference: { pressure: number; temperature: number },
  fluid: Fluid,
  muRef: number,
) {
  const loaded = r.pressure !== null && r.pressure >= LEAST_PRESSURE;
  const complete = loaded && r.temperature !== null;
  const temperature = believable(r.temperature ?? reference.temperature);
  return {
    complete,
    lnPressure: loaded ? Math.log(r.pressure! / reference.pressure) : 0,
    lnViscosity: Math.log(dynamicViscosity(fluid, temperature) / muRef),
    lambda: viscosityTemperatureSensitivity(fluid, temperature),
  };
}

/** Oil is read between these, °C. */
const oilRange = [-40, 130] as const;

/** A stored oil temperature in °C, kept between −40 and 130: beyond them the law of viscosity says nothing. */
export const believable = (temperature: number) => Math.min(oilRange[1], Math.max(oilRange[0], temperature));

/** Least and greatest; nought for none. */
export function range(values: readonly number[]): [number, number] {
  return values.reduce<[number, number]>(
    ([low, high], v) => [Math.min(low, v), Math.max(high, v)],
    values.length === 0 ? [0, 0] : [Infinity, -Infinity],
  );
}

function outside(value: number, [low, high]: [number, number]): number {
  return Math.max(0, low - value, value - high);
}
