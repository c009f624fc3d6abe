/**
 * A yardstick for the forecast: five power paths, three levels of noise, at most one change of rate, one generic prior and
 * no peers. Hypotheses as the forecast has them, without what it adds: a forecast that is worse than this has learned nothing.
 */
import { random, type SeriesPoint } from "@core";
import { drawFirstPassage } from "../../core/forecast/firstPassage";
import { drawState, systematic } from "../../core/forecast/draws";
import { Hypothesis } from "../../core/forecast/hypothesis";
import type { Regime } from "../../core/forecast/regime";
import { toPath, type WearPath } from "../../core/forecast/wearPath";
import { powerClock } from "../../core/forecast/clock";

const LAMBDAS = [2, 1, 1 / 3, 0, -0.5];
const NOISE = [0.02, 0.05, 0.1];
const SCALE = 18_000;
const RATE_SPREAD = 1.5;
const WANDER = 0.03;
const CHANGES = 1;
const MOST = 500;
const DRAWS = 400;

const regimeOf = (lambda: number): Regime => ({
  id: `power ${lambda}`,
  path: { id: "linear", lambda, clock: powerClock(1), label: "", prior: 1 } satisfies WearPath,
  dormant: false,
  wander: WANDER,
  changes: CHANGES,
  turn: 0,
  rateSpread: RATE_SPREAD,
  anchored: false,
  prior: 1,
});

/** Time left in hours, equally likely draws; Infinity: never. */
export function rivalForecast(series: readonly SeriesPoint[], limit: number): number[] {
  const used = series.filter((p) => p.mark !== "doubtful" && p.mark !== "recalled");
  const first = used
    .slice(0, 3)
    .map((p) => Math.log(p.corrected))
    .sort((a, b) => a - b)[1]!;
  const lnLimit = Math.log(limit) - first;
  let bank = LAMBDAS.flatMap((lambda) =>
    NOISE.map((noise) => {
      const zLimit = toPath(Math.exp(lnLimit), lambda);
      const rate = zLimit / SCALE;
      const h = new Hypothesis(regimeOf(lambda), zLimit, SCALE, (WANDER * zLimit) ** 2 / SCALE, noise ** 2, rate);
      h.d = rate;
      h.pzz = 0.1 ** 2;
      h.pdd = (RATE_SPREAD * rate) ** 2;
      return h;
    }),
  );
  used.forEach((point, k) => {
    const dt = k === 0 ? 0 : Math.max(0, point.hours - used[k - 1]!.hours);
    if (dt > 0) {
      const hazard = Math.min(0.3, (CHANGES * dt) / SCALE);
      const changed = bank
        .filter((h) => h.changedAt < 0)
        .map((h) => {
          const child = h.child();
          child.pdd += (3 * Math.max(h.d, h.driftMean)) ** 2;
          child.changedAt = used[k - 1]!.hours;
          child.logWeight += Math.log(hazard);
          return child;
        });
      for (const h of bank) if (h.changedAt < 0) h.logWeight += Math.log(1 - hazard);
      bank.push(...changed);
      for (const h of bank) h.advance(dt);
    }
    const reading = { hours: point.hours, y: Math.log(point.corrected) - first, lnPressure: 0, lnViscosity: 0, u: 0 };
    for (const h of bank) h.update(reading, k);
    bank.sort((p, q) => q.logWeight - p.logWeight);
    const best = bank[0]!.logWeight;
    bank = bank.filter((h, i) => i < MOST && h.logWeight > best - 12);
  });
  const rng = random(used.length * 31 + 5);
  const weights = bank.map((h) => Math.exp(h.logWeight - bank[0]!.logWeight));
  const sum = weights.reduce((a, b) => a + b, 0);
  return systematic(
    weights.map((w) => w / sum),
    DRAWS,
    rng.uniform(),
  ).map((i) => {
    const h = bank[i]!;
    const [z, d] = drawState(h, rng);
    return z >= h.zLimit ? 0 : drawFirstPassage(h.zLimit - z, d, Math.sqrt(h.q), rng);
  });
}
