/** What is filled: since when, how long, what was added, whether it may be mixed, and how thick it really is. */
import { DAY, MONTH } from "../units/time";
import type { MeasuredViscosity } from "../fluid/measured";
import { kinematicViscosity, type Fluid } from "../fluid/viscosity";
import type { FluidType } from "../fluid/suitability";
import type { OilSample } from "./sample";
import type { OilMove } from "./wear";

export interface NamedFluid extends Fluid {
  id: string;
  name: string;
  type: FluidType;
}

/** The fill that is in now: the newest fill or change. Null: nothing is recorded. */
export function currentFill<T extends Pick<OilMove, "at" | "hours" | "kind">>(
  moves: readonly T[],
  now: number,
): T | null {
  const fills = moves.filter((m) => (m.kind === "fill" || m.kind === "change") && m.at <= now);
  return fills.reduce<T | null>((latest, m) => (latest && latest.at > m.at ? latest : m), null);
}

/** The longest that a fill may stay in, whichever comes first; null: nobody has stated it. */
export interface LongestFill {
  /** Running hours. */
  hours: number | null;
  months: number | null;
}

export interface FillAge {
  since: number;
  /** Running hours of the fill. */
  hours: number;
  /** Share of the longest interval that is used up, and when it ends; null: no interval is stated. */
  share: number | null;
  dueAt: number | null;
}

/**
 * Age of a fill against its longest interval. Analysis decides when oil is changed; the interval is the backstop.
 * @param hoursNow running hours of the machine now.
 * @param hoursPerDay above 0.
 */
export function fillAge(
  fill: Pick<OilMove, "at" | "hours">,
  longest: LongestFill,
  now: number,
  hoursNow: number,
  hoursPerDay: number,
): FillAge {
  const hours = Math.max(0, hoursNow - fill.hours);
  const ends = [
    ...(longest.hours === null
      ? []
      : [{ share: hours / longest.hours, dueAt: now + ((longest.hours - hours) / hoursPerDay) * DAY }]),
    ...(longest.months === null
      ? []
      : [{ share: (now - fill.at) / (longest.months * MONTH), dueAt: fill.at + longest.months * MONTH }]),
  ].sort((a, b) => a.dueAt - b.dueAt);
  return { since: fill.at, hours, share: ends[0]?.share ?? null, dueAt: ends[0]?.dueAt ?? null };
}

/**
 * Why two fluids should not stand in one circuit. The manufacturers of the fluids decide.
 * @param there the fluid that is filled, kv40 in mm²/s above 0
 * @param added the fluid that is to be filled in
 * @returns how serious it is, in words; null: nothing against it
 * @example
 * const [there, thin] = [46, 32].map((kv40) => ({ id: `vg${kv40}`, name: `VG ${kv40}`, type: "mineral", kv40 }));
 * mixing(there, thin).serious // true
 * mixing(there, there) // null
 */
export function mixing(there: NamedFluid, added: NamedFluid): { serious: boolean; message: string } | null {
  if (there.id === added.id) return null;
  if (there.type !== added.type)
    return {
      serious: true,
      message:
        `${added.name} is another type of fluid than ${there.name}: they may gel, foam or attack the seals. ` +
        `Do not mix them unless both manufacturers say so; if it has happened, drain, flush and look at the seals.`,
    };
  const ratio = added.kv40 / there.kv40;
  const thinner = Math.round(Math.abs(1 - ratio) * 100);
  if (Math.abs(Math.log(ratio)) > Math.log(1.1))
    return {
      serious: true,
      message:
        `${added.name} is ${thinner} % ${ratio < 1 ? "thinner" : "thicker"} than ${there.name} at 40 °C: the ` +
        `mixture corrects readings otherwise, and additives may not agree. Ask the manufacturer, and send a sample.`,
    };
  return {
    serious: false,
    message: `${added.name} is not what is filled (${there.name}). Additives may not agree: ask the manufacturer.`,
  };
}

/**
 * Viscosity (mm²/s) of a mixture of shares by volume, by the viscosity blending of ASTM D7152 in its ln ln form: W = ln ln(ν + 0.7), W = Σ x·W.
 * @param parts shares in any unit of volume; viscosities above 0.7 mm²/s at one temperature
 * @returns mm²/s at that temperature
 * @throws {RangeError} for shares that add up to nothing, or a viscosity out of range
 * @example mixtureViscosity([{ share: 1, viscosity: 46 }, { share: 1, viscosity: 46 }]) // 46
 */
export function mixtureViscosity(parts: readonly { share: number; viscosity: number }[]): number {
  const whole = parts.reduce((sum, p) => sum + p.share, 0);
  if (!(whole > 0) || parts.some((p) => !(p.viscosity > 0.7)))
    throw new RangeError("Shares above zero and viscosities above 0.7 mm²/s are needed.");
  return (
    Math.exp(Math.exp(parts.reduce((sum, p) => sum + (p.share / whole) * Math.log(Math.log(p.viscosity + 0.7)), 0))) -
    0.7
  );
}

/** A laboratory's figure this far from what is filled is a mixed-up bottle before it is an oil. */
const MOST_OFF = Math.log(1.6);

/** Viscosities that the laboratory found in comparable samples since the oil was filled. */
export function measuredViscosities(
  samples: readonly Pick<OilSample, "at" | "results">[],
  stated: Pick<Fluid, "kv40">,
  since: number,
): MeasuredViscosity[] {
  return samples
    .filter(
      (s) =>
        s.at >= since &&
        s.results.kv40 &&
        !s.results.kv40.below &&
        Math.abs(Math.log(s.results.kv40.value / stated.kv40)) < MOST_OFF,
    )
    .map((s) => ({ at: s.at, kv40: s.results.kv40!.value, kv100: s.results.kv100?.value ?? null }))
    .sort((a, b) => a.at - b.at);
}

/** Share by which a fluid is thicker (+) or thinner (−) than stated at a temperature. */
export function viscosityOff(stated: Fluid, real: Fluid, temperature: number): number {
  return kinematicViscosity(real, temperature) / kinematicViscosity(stated, temperature) - 1;
}
