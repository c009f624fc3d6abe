/** The hypotheses of a life before any reading: one for every regime, time scale and reading noise. */
import { Hypothesis } from "./hypothesis";
import type { WearPrior } from "./prior";
import { courseRegimes, regimes, type Regime } from "./regime";
import { toPath } from "./wearPath";

interface Share {
  value: number;
  share: number;
}

/** Uncertainty of the as-new level before any reading, ln units. */
const START_SD = 0.2;
/** Noise of a reading, over the expected one. */
const NOISE_LEVELS: readonly Share[] = [
  { value: 0.5, share: 0.5 },
  { value: 1, share: 0.5 },
];
/** Share of the course that peers took, when they tell one. */
const COURSE_SHARE = 0.6;
/** A course is held against so many time scales, as far as so many spreads of the lives: where it bends, age tells. */
const COURSE_SCALES = 25;
const COURSE_REACH = 2.1;
/** A law is held against fewer, farther apart, nearly all alike: what is usual is known to a factor, no better. */
const LAW_SCALES = 5;
const LAW_REACH = 1.7;
const LAW_WIDTH = 1.3;

/** The weights sum to one. */
export function startBank(lnLimit: number, prior: WearPrior, corrected: boolean): Hypothesis[] {
  const ofLaws = prior.course ? 1 - COURSE_SHARE : 1;
  const scales = lawScales(prior);
  const laws = regimes.map((regime) => ({
    regime,
    share: ofLaws * (prior.regimes?.[regime.id] ?? regime.prior),
    scales,
  }));
  const courses = prior.course
    ? courseRegimes(prior.course).map((regime) => ({
        regime,
        share: COURSE_SHARE * regime.prior,
        scales: courseScales(prior),
      }))
    : [];
  return [...laws, ...courses].flatMap(({ regime, share, scales }) =>
    scales.flatMap((scale) =>
      NOISE_LEVELS.map((noise) => {
        const h = started(regime, lnLimit, scale.value, noise.value * prior.noise, corrected ? prior.exponents : null);
        h.logWeight = Math.log(share * scale.share * noise.share);
        return h;
      }),
    ),
  );
}

function lawScales(prior: WearPrior): Share[] {
  return scalesAround(prior.timeScale, prior.spread, LAW_SCALES, LAW_REACH, LAW_WIDTH);
}

function courseScales(prior: WearPrior): Share[] {
  return scalesAround(prior.timeScale, prior.lifeSpread, COURSE_SCALES, COURSE_REACH, 1);
}

/** So many time scales about a centre, evenly in ln, as far as `reach` spreads; `width` of the bell that weighs them, in spreads. */
function scalesAround(centre: number, spread: number, count: number, reach: number, width: number): Share[] {
  const deviates = Array.from({ length: count }, (_, i) => reach * ((2 * i) / (count - 1) - 1));
  const bell = deviates.map((d) => Math.exp(-0.5 * (d / width) ** 2));
  const whole = bell.reduce((sum, b) => sum + b, 0);
  return deviates.map((d, i) => ({ value: centre * Math.exp(d * spread), share: bell[i]! / whole }));
}

function started(
  regime: Regime,
  lnLimit: number,
  timeScale: number,
  noise: number,
  exponents: WearPrior["exponents"] | null,
): Hypothesis {
  const { clock, lambda } = regime.path;
  const zLimit = toPath(Math.exp(lnLimit), lambda);
  const rate = zLimit / timeScale;
  const h = new Hypothesis(regime, zLimit, timeScale, (regime.wander * zLimit) ** 2 / timeScale, noise ** 2, rate);
  h.z = rate * clock.at(0, timeScale);
  h.d = regime.dormant ? 0 : rate;
  h.pzz = START_SD ** 2;
  h.pdd = (regime.rateSpread * rate) ** 2;
  if (regime.anchored) {
    // what it starts too high it has less to go
    const whole = timeScale - clock.at(0, timeScale);
    h.pzd = -(START_SD ** 2) / whole;
    h.pdd += (START_SD / whole) ** 2;
  }
  if (exponents) {
    h.a = exponents.a;
    h.b = exponents.b;
    h.paa = exponents.ua ** 2;
    h.pbb = exponents.ub ** 2;
  }
  return h;
}
