/**
 * What the lives of peers say of a whole lifetime, over what the bank holds of one before any reading. Draws of
 * the crossing weighed by it have the peers' lifetimes for their prior, and the bank's own for all else.
 */
import { normalPdf } from "../numeric/normal";
import { studentCdf, studentPdf } from "../numeric/student";
import { startBank } from "./bank";
import { drawCrossing, drawState, systematic, type Rng } from "./draws";
import type { WearPrior } from "./prior";

const PRIOR_DRAWS = 400;
/** Neither side is trusted further than this. */
const LARGEST_ODDS = 20;
/** Degrees of freedom of the peers' lifetimes, in ln hours: few lives, so heavy tails. */
const TAILS = 4;
/** Fewer draws that reach the limit say nothing of a lifetime. */
const FEWEST_REACHED = 20;
const STEPS = 30;
/** From this many ln units below the usual lifetime. */
const REACH = 5;

/** Odds of a lifetime in running hours (Infinity: beyond the horizon); 1 for all when no peer is known. */
export function lifetimeOdds(
  lnLimit: number,
  prior: WearPrior,
  corrected: boolean,
  horizon: number,
  rng: Rng,
): (hours: number) => number {
  if (prior.lives === 0) return () => 1;
  const bank = startBank(lnLimit, prior, corrected);
  const lives = systematic(
    bank.map((h) => Math.exp(h.logWeight)),
    PRIOR_DRAWS,
    rng.uniform(),
  ).map((i) => drawCrossing(bank[i]!, ...drawState(bank[i]!, rng), 0, horizon, rng));
  const reached = lives.filter((hours) => Number.isFinite(hours)).map((hours) => Math.log(Math.max(1, hours)));
  if (reached.length < FEWEST_REACHED) return () => 1;
  const mean = reached.reduce((sum, ln) => sum + ln, 0) / reached.length;
  const deviation = Math.sqrt(reached.reduce((sum, ln) => sum + (ln - mean) ** 2, 0) / reached.length);
  const width = deviation * reached.length ** -0.2;
  const ofBank = (ln: number) =>
    reached.reduce((sum, at) => sum + normalPdf((ln - at) / width) / width, 0) / PRIOR_DRAWS;
  const standard = (ln: number) => (ln - Math.log(prior.timeScale)) / prior.lifeSpread;
  const ofPeers = (ln: number) => studentPdf(standard(ln), TAILS) / prior.lifeSpread;
  const odds = (peers: number, held: number) =>
    Math.min(LARGEST_ODDS, Math.max(1 / LARGEST_ODDS, peers / Math.max(1e-6, held)));

  const low = Math.log(prior.timeScale) - REACH;
  const step = (Math.log(horizon) - low) / STEPS;
  const table = Array.from({ length: STEPS + 1 }, (_, i) => odds(ofPeers(low + i * step), ofBank(low + i * step)));
  const beyond = odds(1 - studentCdf(standard(Math.log(horizon)), TAILS), 1 - reached.length / PRIOR_DRAWS);
  return (hours) => {
    if (!Number.isFinite(hours)) return beyond;
    const place = Math.min(STEPS - 1e-9, Math.max(0, (Math.log(Math.max(1, hours)) - low) / step));
    const i = Math.floor(place);
    return table[i]! + (place - i) * (table[i + 1]! - table[i]!);
  };
}
