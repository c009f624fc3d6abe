/**
 * Forecasts as issued against what came. A life that was replaced, or goes on, has not crossed yet: it counts as long as
 * it was seen, by the estimate of Kaplan and Meier (J. Am. Stat. Assoc. 53, 1958) over places within the forecast.
 */
import { random } from "../random/random";
import { median } from "../trend/robust";

export interface IssuedForecast {
  /** Forecasts of one life stand or fall together: each life counts once, however often it was forecast. */
  life: string;
  issuedAt: number;
  p10: number | null;
  p50: number | null;
  p90: number | null;
  /** When the limit was crossed, or until when it had not been; epoch ms. */
  outcome: { at: number; crossed: boolean };
}

export interface Scorecard {
  lives: number;
  forecasts: number;
  /** Lives that crossed their limit. */
  crossed: number;
  /** Share that came between P10 and P90, with its 90 % interval over lives; null: too little came. */
  covered: { share: number; low: number; high: number } | null;
  /** Shares that came before P10 and after P90; together with `covered` one. */
  before: number | null;
  after: number | null;
  /** Median of (P50 − crossing) over the time that was left: above 0 the forecast was late. */
  late: number | null;
}

/** Fewest lives that crossed for a share to be told. */
export const FEWEST_CROSSED = 3;
const BOOTSTRAPS = 200;
const BEYOND = 1e15;

/** Place of a moment within a forecast, 0 to 1: its distribution function, by its three quantiles. */
export function placeIn({ issuedAt, p10, p50, p90 }: Omit<IssuedForecast, "life" | "outcome">, at: number): number {
  const line = (a: number, b: number, low: number, high: number) =>
    low + ((high - low) * (at - a)) / Math.max(1, b - a);
  const [first, middle, last] = [p10 ?? BEYOND, p50 ?? BEYOND, p90 ?? BEYOND];
  if (at <= first) return Math.max(0, line(issuedAt, first, 0, 0.1));
  if (at <= middle) return middle >= BEYOND ? 0.1 : line(first, middle, 0.1, 0.5);
  if (at <= last) return last >= BEYOND ? 0.5 : line(middle, last, 0.5, 0.9);
  return 0.9 + 0.1 * -Math.expm1(-(at - last) / Math.max(1, last - middle));
}

interface Placed {
  life: string;
  place: number;
  crossed: boolean;
  weight: number;
}

/** Chance of a place above each of two levels, places of lives that have not crossed counted as "above". */
function above(placed: readonly Placed[], levels: readonly [number, number]): [number, number] {
  const sorted = [...placed].sort((a, b) => a.place - b.place || Number(b.crossed) - Number(a.crossed));
  let atRisk = sorted.reduce((sum, p) => sum + p.weight, 0);
  let survival = 1;
  const found: [number, number] = [1, 1];
  for (const { place, crossed, weight } of sorted) {
    if (crossed && atRisk > 0) survival *= Math.max(0, 1 - weight / atRisk);
    atRisk -= weight;
    if (place <= levels[0]) found[0] = survival;
    if (place <= levels[1]) found[1] = survival;
  }
  return found;
}

/**
 * Hold issued forecasts to account: how many crossings came between P10 and P90. Kaplan and Meier, J. Am. Stat. Assoc. 53 (1958),
 * over places within the forecast, so that lives without a crossing count as long as they were seen.
 * @param issued forecasts with what came, epoch ms; those issued after the crossing are left out
 * @returns shares over lives, 0 to 1; null where fewer than three lives have crossed
 * @example
 * const issued = ["a", "b", "c"].map((life) => (
 *   { life, issuedAt: 0, p10: 100, p50: 200, p90: 300, outcome: { at: 250, crossed: true } }
 * ));
 * scorecard(issued) // { lives: 3, forecasts: 3, crossed: 3, covered: { share: 1, low: 1, high: 1 }, before: 0, after: 0, late: -0.2 }
 */
export function scorecard(issued: readonly IssuedForecast[]): Scorecard {
  const due = issued.filter((f) => f.outcome.at > f.issuedAt);
  const byLife = new Map<string, IssuedForecast[]>();
  for (const f of due) {
    const own = byLife.get(f.life);
    if (own) own.push(f);
    else byLife.set(f.life, [f]);
  }
  const lives = [...byLife.values()].map((own) =>
    own.map((f): Placed => ({
      life: f.life,
      place: placeIn(f, f.outcome.at),
      crossed: f.outcome.crossed,
      weight: 1 / own.length,
    })),
  );
  const crossed = lives.filter((own) => own[0]!.crossed).length;
  const base = { lives: lives.length, forecasts: due.length, crossed };
  if (crossed < FEWEST_CROSSED) return { ...base, covered: null, before: null, after: null, late: null };
  const shares = (from: readonly Placed[][]) => above(from.flat(), [0.1, 0.9]);
  const [low, high] = shares(lives);
  const rng = random(lives.length * 31 + due.length);
  const again = Array.from({ length: BOOTSTRAPS }, () => {
    const [a, b] = shares(lives.map(() => rng.pick(lives)));
    return a - b;
  }).sort((a, b) => a - b);
  const lateness = due
    .filter((f) => f.outcome.crossed && f.p50 !== null)
    .map((f) => (f.p50! - f.outcome.at) / (f.outcome.at - f.issuedAt));
  return {
    ...base,
    covered: {
      share: low - high,
      low: again[Math.floor(0.05 * BOOTSTRAPS)]!,
      high: again[Math.ceil(0.95 * BOOTSTRAPS) - 1]!,
    },
    before: 1 - low,
    after: high,
    late: lateness.length > 0 ? median(lateness) : null,
  };
}
