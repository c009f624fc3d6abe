/**
 * What one knows who knows how the universe of core/simulation/universe.ts is made: a library of its courses, and of a life its
 * level as new and its exponents, so that what is left to him is the course and the time scale.
 */
import { dynamicViscosity, random } from "@core";
import { fleetFluid, fleetReference, type FleetLife } from "../../core/simulation/fleet";
import { universeCourse, universeFamilies, type UniverseFamily } from "../../core/simulation/universe";

/** Ends that the library knows; a life takes the nearest. */
export const ENDS = [2.8, 3.4, 4, 4.6, 5.2, 5.8];
const PLACES = 320;
const LONGEST = 1.6;
/** ln time scales that are tried: about each centre, 0.35 between lives. */
const SCALES = 60;
const SPREAD = 0.35;
const ODD = { share: 0.02, reach: 0.6 };

/** Ways to the limit by share of the time scale, and the share at which each is there. */
export interface Library {
  ways: Float32Array[];
  crossings: number[];
}

export function libraryAt(end: number, count: number, only?: UniverseFamily): Library {
  const ways: Float32Array[] = [];
  const crossings: number[] = [];
  for (let i = 0; i < count; i++) {
    const family = only ?? universeFamilies[i % universeFamilies.length]!;
    const course = universeCourse(family, random(7_000_000 + i * 10 + ENDS.indexOf(end)).fork(family), 1, end);
    const way = Float32Array.from({ length: PLACES + 1 }, (_, k) => (course((k * LONGEST) / PLACES) - 1) / (end - 1));
    const first = way.findIndex((m) => m >= 1);
    ways.push(way);
    crossings.push(first < 0 ? LONGEST : (first * LONGEST) / PLACES);
  }
  return { ways, crossings };
}

/** ln of the level over as new, reading by reading, by one who knows the exponents. */
export function levels(
  { readings, asNew, exponents: { a, b } }: FleetLife,
  n: number,
): { hours: number; ln: number }[] {
  const muRef = dynamicViscosity(fleetFluid, fleetReference.temperature);
  return readings.slice(0, n).map((r) => {
    const viscosity = dynamicViscosity(fleetFluid, r.temperature) / muRef;
    const correction = a * Math.log(r.pressure / fleetReference.pressure) - b * Math.log(viscosity);
    return { hours: r.hours, ln: Math.log(r.value / asNew) - correction };
  });
}

/** Time scales that lives about these centres may have, with what speaks for each before any reading. */
export function scalesOf(centres: readonly number[]): { scale: number; prior: number }[] {
  const [low, high] = [Math.log(centres[0]!) - 3 * SPREAD, Math.log(centres.at(-1)!) + 3 * SPREAD];
  return Array.from({ length: SCALES }, (_, i) => {
    const ln = low + ((high - low) * (i + 0.5)) / SCALES;
    return {
      scale: Math.exp(ln),
      prior: centres.reduce((sum, c) => sum + Math.exp(-0.5 * ((ln - Math.log(c)) / SPREAD) ** 2), 0),
    };
  });
}

/** ln of the density of a reading, `hours` into a course of that time scale, by one who knows its noise. */
export function lnReading(
  way: Float32Array,
  scale: number,
  end: number,
  noise: number,
  { hours, ln: read }: { hours: number; ln: number },
): number {
  const place = Math.min(PLACES - 1e-6, (hours / scale) * (PLACES / LONGEST));
  const k = Math.floor(place);
  const margin = way[k]! + (place - k) * (way[k + 1]! - way[k]!);
  const e = read - Math.log(1 + margin * (end - 1));
  const usual = ((1 - ODD.share) / (noise * Math.sqrt(2 * Math.PI))) * Math.exp(-0.5 * (e / noise) ** 2);
  return Math.log(usual + (Math.abs(e) < ODD.reach ? ODD.share / (2 * ODD.reach) : 1e-12));
}

/** The library whose end is nearest to a life's. */
export function nearest<T>(libraries: readonly T[], end: number): T {
  return libraries[ENDS.reduce((best, e, i) => (Math.abs(e - end) < Math.abs(ENDS[best]! - end) ? i : best), 0)]!;
}

/** As many equally likely draws as a forecast has, of weighted times left, sorted. */
export function drawsOf(left: readonly { hours: number; weight: number }[], count: number): number[] {
  const sorted = [...left].sort((p, q) => p.hours - q.hours);
  const whole = sorted.reduce((sum, f) => sum + f.weight, 0);
  let [i, sum] = [0, sorted[0]?.weight ?? 0];
  return Array.from({ length: count }, (_, k) => {
    while (sum < ((k + 0.5) / count) * whole && i < sorted.length - 1) sum += sorted[++i]!.weight;
    return sorted[i]!.hours;
  });
}

/** How many equally likely ones weigh as much as these. */
export const effectiveOf = (weights: readonly number[]) =>
  weights.reduce((s, w) => s + w, 0) ** 2 / weights.reduce((s, w) => s + w * w, 0);
