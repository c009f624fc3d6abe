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

/** The weights sum to one. */
export function startBank(lnLimit: number, prior: WearPrior, corrected: boolean): Hypothesis[] {
  const ofLaws = prior.course ? 1 - COURSE_SHARE : 1;
  const laws = regimes.map((regime) => ({
    regime,
    share: ofLaws * (prior.regimes?.[regime.id] ?? regime.prior),
    scales: threeScales(prior),
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

function threeScales(prior: WearPrior): Share[] {
  const ratio = Math.exp(prior.spread);
  return [
    { value: prior.timeScale / ratio, share: 0.3 },
    { value: prior.timeScale, share: 0.4 },
    { value: prior.timeScale * ratio, share: 0.3 },
  ];
}

function courseScales(prior: WearPrior): Share[] {
  const deviates = Array.from({ length: COURSE_SCALES }, (_, i) => COURSE_REACH * ((2 * i) / (COURSE_SCALES - 1) - 1));
  const whole = deviates.reduce((sum, d) => sum + Math.exp(-0.5 * d * d), 0);
  return deviates.map((d) => ({
    value: prior.timeScale * Math.exp(d * prior.lifeSpread),
    share: Math.exp(-0.5 * d * d) / whole,
  }));
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
