/**
 * Wear metals of a circuit: amounts corrected for what was drained, lost and topped up, the rate at which they are
 * made, and an alarm by the circuit's own history and its peers beside fixed limits.
 */
import { wearMetalAmounts, type OilEvent } from "../contamination/wearMetal";
import { inverseEcdf, median, robustSpread } from "../trend/robust";
import { YEAR } from "../units/time";
import type { AnalyteId } from "./analytes";
import { censoredQuantile } from "./censored";
import { middle, type OilSample, type Result } from "./sample";

export interface OilMove {
  at: number;
  hours: number;
  kind: "fill" | "change" | "topUp" | "drained";
  litres: number;
  /** Concentrations of the oil filled in; left out: none of it. */
  fresh?: Partial<Record<AnalyteId, number>>;
}

export interface MetalPoint {
  at: number;
  hours: number;
  raw: number;
  below: boolean;
  /** ppm in the whole volume had none been lost: since the last change of oil. */
  corrected: number;
  /** Running hours since the sample before. */
  length: number;
  /** ppm made per 1000 running hours since the sample before; null: the first after a change, or no hours passed. */
  rate: number | null;
  /** Half width of the rate from the laboratory's repeatability. */
  doubt: number | null;
}

/** Two determinations of one metal differ by about this share, and never by less than this many ppm (common practice). */
const REPEATABILITY = 0.08;
const REPEATABILITY_FLOOR = 0.4;

interface Dated extends Pick<OilSample, "at" | "results"> {
  hours: number;
}

/**
 * Series of one metal (or contaminant) over the samples that report it: what was made, whatever was drained, lost or topped up
 * since. A change of oil starts a new amount.
 * @param id of the metal
 * @param samples in time order: epoch ms, running hours, ppm
 * @param moves of oil, litres
 * @param volume of the circuit, L; null: not known, amounts are taken as read
 * @returns a point a sample: ppm as read and as made, and the rate in ppm per 1000 h
 * @example
 * const samples = [[0, 10], [500, 12]].map(([hours, iron]) => ({ at: hours, hours, results: { iron: { value: iron } } }));
 * metalSeries("iron", samples, [], 200)[1] // { raw: 12, corrected: 12, rate: 4, doubt: 2.499 }
 */
export function metalSeries(
  id: AnalyteId,
  samples: readonly Dated[],
  moves: readonly OilMove[],
  volume: number | null,
): MetalPoint[] {
  const reported = samples.flatMap((s) => (s.results[id] ? [{ at: s.at, hours: s.hours, result: s.results[id] }] : []));
  const changes = moves
    .filter((m) => m.kind === "change" || m.kind === "fill")
    .map((m) => m.at)
    .sort((a, b) => a - b);
  const fillOf = (at: number) => changes.filter((c) => c <= at).length;
  const points: MetalPoint[] = [];
  for (let from = 0; from < reported.length;) {
    const fill = fillOf(reported[from]!.at);
    let to = from;
    while (to < reported.length && fillOf(reported[to]!.at) === fill) to++;
    const part = reported.slice(from, to);
    const inFill = moves.filter((m) => fillOf(m.at) === fill && (m.kind === "topUp" || m.kind === "drained"));
    const concentrations = part.map((p) => ({ hours: p.hours, concentration: middle(p.result) }));
    const mid =
      volume && volume > 0
        ? wearMetalAmounts(concentrations, eventsOf(inFill, id, volume), volume).map((a) => a.corrected)
        : concentrations.map((c) => c.concentration);
    part.forEach((p, i) => {
      const hours = i === 0 ? 0 : p.hours - part[i - 1]!.hours;
      const u = (r: Result) => (r.below ? r.value / 2 : Math.max(REPEATABILITY_FLOOR, REPEATABILITY * r.value));
      points.push({
        at: p.at,
        hours: p.hours,
        raw: p.result.value,
        below: p.result.below === true,
        corrected: mid[i]!,
        length: hours,
        rate: hours > 0 ? ((mid[i]! - mid[i - 1]!) / hours) * 1000 : null,
        doubt: hours > 0 ? (Math.hypot(u(p.result), u(part[i - 1]!.result)) / hours) * 1000 : null,
      });
    });
    from = to;
  }
  return points;
}

/** A top-up replaces what was lost: the level is kept, so as much went out as came in, unless what was drained is stated. */
function eventsOf(moves: readonly OilMove[], id: AnalyteId, volume: number): OilEvent[] {
  const stated = moves.filter((m) => m.kind === "drained").reduce((sum, m) => sum + m.litres, 0);
  const filled = moves.filter((m) => m.kind === "topUp").reduce((sum, m) => sum + m.litres, 0);
  const unstated = filled > 0 ? Math.max(0, 1 - stated / filled) : 0;
  return moves.map((m) =>
    m.kind === "drained"
      ? { hours: m.hours, lost: m.litres }
      : { hours: m.hours, added: m.litres, lost: Math.min(volume, m.litres) * unstated, newOil: m.fresh?.[id] ?? 0 },
  );
}

/** Fixed limits of the concentration as read, ppm (memory; the laboratory's own for the fluid and the machine go first). */
export const fixedLimits: Partial<Record<AnalyteId, number>> = {
  iron: 30,
  chromium: 8,
  copper: 25,
  tin: 10,
  lead: 15,
  aluminium: 10,
  nickel: 5,
  silicon: 15,
  sodium: 30,
};

export interface MetalAlarm {
  id: AnalyteId;
  /** Newest concentration and corrected amount, ppm; rate since it rose, else the newest, ppm per 1000 h. */
  raw: number;
  below: boolean;
  corrected: number;
  /** What is usually read (median, "less than" values counted as such); null: mostly less than what the laboratory can read. */
  usualRaw: number | null;
  rate: number | null;
  /** Usual rate of this circuit before, and the rate that its own history makes unlikely (null: not passed). */
  usual: number | null;
  own: number | null;
  /** What nineteen of twenty peer samples stay under; null: too few peers. */
  peers: number | null;
  peerSamples: number;
  fixed: number | null;
  /** The fixed limit is the laboratory's or the maker's, not the typical one. */
  fixedStated: boolean;
  /** Which of them are passed. */
  passed: ("own" | "peers" | "fixed")[];
  /** It climbs sample by sample: from what, to what, over how many, and when it meets its limit, epoch ms. Null: it does not. */
  climb: { from: number; to: number; samples: number; reachesAt: number } | null;
  /** Moment of the sample before and of the first one on the higher rate, where the rise began. */
  since: { after: number; by: number } | null;
}

const FEWEST_OWN = 4;
const FEWEST_SISTERS = 12;
/** Clear of doubt by this many standard errors; the best of many places is looked for. */
const FAR_OUT = 3.5;
/** A rate that is a half more is worth a word, and a part's own rate is never steadier than this share. */
const LEAST_RISE = 1.5;
const STEADIEST = 0.12;

/** So many samples one above the other are no scatter of the laboratory, though each step is the usual one. */
const CLIMBS = 5;
/** And they end so many times the laboratory's doubt above where they began. */
const CLIMB_FAR = 4;
/** It has used this share of its limit, and meets it within a year. */
const NEAR_LIMIT = 0.5;
const LEADS_WITHIN = YEAR;

/** Samples of the present fill that climb one after another, and where that leads. */
function climbOf(series: readonly MetalPoint[], fixed: number | null): MetalAlarm["climb"] {
  const fresh = series.findLastIndex((p) => p.length === 0);
  const own = series.slice(Math.max(0, fresh));
  let from = own.length - 1;
  while (from > 0 && own[from]!.raw > own[from - 1]!.raw) from--;
  const climbing = own.slice(from);
  const [first, last] = [climbing[0], climbing.at(-1)];
  if (!first || !last || climbing.length < CLIMBS) return null;
  const doubt = Math.max(REPEATABILITY_FLOOR, REPEATABILITY * last.raw);
  if (last.raw - first.raw < CLIMB_FAR * doubt) return null;
  const pace = (last.raw - first.raw) / (last.at - first.at);
  // a metal gathers in an oil that stays in: it is a climb where it comes near its limit
  if (fixed === null || !(pace > 0) || last.raw < NEAR_LIMIT * fixed) return null;
  const reachesAt = last.at + Math.max(0, fixed - last.raw) / pace;
  if (reachesAt - last.at > LEADS_WITHIN) return null;
  return { from: first.raw, to: last.raw, samples: climbing.length, reachesAt };
}

type Rated = MetalPoint & { rate: number; doubt: number };

export interface RateRise {
  /** First of the rates on the higher level. */
  index: number;
  /** ppm per 1000 h before and since. */
  usual: number;
  now: number;
  /** Rate that the history before makes unlikely, over as many hours as have passed since. */
  limit: number;
}

/** Rate over a run of samples and its standard error: the laboratory's doubt counts at the two ends only. */
function rateOver(points: readonly Rated[]): { rate: number; error: number } {
  const lengths = points.map((p) => p.length);
  const whole = lengths.reduce((s, l) => s + l, 0);
  const rate = points.reduce((s, p, i) => s + p.rate * lengths[i]!, 0) / whole;
  const ends = Math.hypot(points[0]!.doubt * lengths[0]!, points.at(-1)!.doubt * lengths.at(-1)!) / Math.SQRT2;
  return { rate, error: ends / whole };
}

/**
 * Where did the rate rise, by its own history? The place at which the rate since stands clearest above the rate
 * before. Null: it did not, or fewer than four rates came before.
 */
export function rateRise(rated: readonly Rated[]): RateRise | null {
  let best: (RateRise & { clear: number }) | null = null;
  for (let i = FEWEST_OWN; i < rated.length; i++) {
    const before = rateOver(rated.slice(0, i));
    const since = rateOver(rated.slice(i));
    const usual = Math.max(0, before.rate);
    const error = Math.hypot(
      before.error,
      since.error,
      STEADIEST * usual,
      robustSpread(rated.slice(0, i).map((p) => p.rate)) / Math.sqrt(Math.max(1, rated.length - i)) / 2,
    );
    const clear = (since.rate - usual) / error;
    if (clear < FAR_OUT || since.rate < LEAST_RISE * usual || rated[i]!.rate < (usual + since.rate) / 2) continue;
    if (!best || clear > best.clear) best = { index: i, usual, now: since.rate, limit: usual + FAR_OUT * error, clear };
  }
  if (!best) return null;
  const { clear: _clear, ...rise } = best;
  return rise;
}

/**
 * What a metal says now.
 * @param peerRates rates of the same metal in peer circuits, ppm per 1000 h.
 * @param stated limit of the concentration as read, ppm, of the laboratory or the maker; left out: the typical one.
 */
export function metalAlarm(
  id: AnalyteId,
  series: readonly MetalPoint[],
  peerRates: readonly number[],
  stated?: number,
): MetalAlarm | null {
  const last = series.at(-1);
  if (!last) return null;
  const rated = series.filter((p): p is Rated => p.rate !== null);
  const rise = rateRise(rated);
  const newest = rated.at(-1);
  const peers =
    peerRates.length >= FEWEST_SISTERS
      ? inverseEcdf(
          [...peerRates].sort((a, b) => a - b),
          0.95,
        )
      : null;
  const fixed = stated ?? fixedLimits[id] ?? null;
  const passed: MetalAlarm["passed"] = [];
  if (rise) passed.push("own");
  // one laboratory figure must not call: the middle of the last three
  if (newest && peers !== null && median(rated.slice(-3).map((p) => p.rate)) > peers + newest.doubt / 2)
    passed.push("peers");
  if (fixed !== null && !last.below && last.raw > fixed) passed.push("fixed");
  const at = rise ? series.indexOf(rated[rise.index]!) : null;
  const usual = rise?.usual ?? (rated.length > 0 ? Math.max(0, rateOver(rated).rate) : null);
  return {
    id,
    raw: last.raw,
    below: last.below,
    corrected: last.corrected,
    usualRaw: censoredQuantile(
      series.map((p) => ({ value: p.raw, below: p.below })),
      0.5,
    ),
    rate: rise?.now ?? newest?.rate ?? null,
    usual,
    own: rise?.limit ?? null,
    peers,
    peerSamples: peerRates.length,
    fixed,
    fixedStated: stated !== undefined,
    passed,
    climb: climbOf(series, fixed),
    since: at === null ? null : { after: series[Math.max(0, at - 1)]!.at, by: series[at]!.at },
  };
}
