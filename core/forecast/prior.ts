/**
 * What peer lives say before a life has readings of its own: time scale, noise and how often the
 * rate of wear changes. Empirical Bayes with a weak default.
 */
import { sharedCourse, type Course, type CoursePoint, type EndedCourse } from "./course";
import { laminar, learnExponents, type Exponents } from "./exponents";
import { regimes } from "./regime";

export interface WearPrior {
  /** Running hours from as new to the limit, centre of a wide range. */
  timeScale: number;
  /** How far the time scale may be off before any reading, ln units. */
  spread: number;
  /** Spread of the hours to the limit between lives, ln units. */
  lifeSpread: number;
  /** Standard deviation of a reading after correction, relative. */
  noise: number;
  /** Share of each regime of wear; left out: the usual ones. */
  regimes?: Readonly<Record<string, number>>;
  /** Exponents of the leakage correction: centre and standard deviation over lives. */
  exponents: Exponents;
  /** The course that peers took, when enough of them tell one. */
  course?: Course;
  /** Peers that ran to their limit. */
  ended?: readonly EndedCourse[];
  /** Damage that no reading has seen yet sets in once in so many running hours. */
  damageHours: number;
  /** Running hours at which dirt came in: the rate may well have changed then, for the worse. */
  contaminatedAt?: number;
  /** Lives that it was learned from; 0: the default. */
  lives: number;
}

/** Weak default: a hydraulic pump lasts of the order of 20 000 h (common practice). */
export const defaultPrior: WearPrior = {
  timeScale: 16_000,
  spread: 0.9,
  lifeSpread: 1,
  noise: 0.03,
  exponents: laminar,
  damageHours: 16_000,
  lives: 0,
};

/** A part whose age is not known cannot be held against a course. */
export function withoutCourse({ course: _course, ended: _ended, ...prior }: WearPrior): WearPrior {
  return prior;
}

/**
 * What holds where a life is not like its peers: about as long a life, known to a wide factor, and any law. That parts of a
 * plant last about as long as one another is told by its duty and its oil, whatever they wear like.
 */
export function withoutPeers({ noise, contaminatedAt, timeScale, damageHours }: WearPrior): WearPrior {
  return { ...defaultPrior, timeScale, noise, damageHours, ...(contaminatedAt !== undefined && { contaminatedAt }) };
}

export interface PeerLife {
  /** Running hours to the limit: reached, or the median forecast. */
  hours: number;
  /** True when the life ended before the limit or is still far from it: `hours` is a least value. */
  censored: boolean;
  /** True when the limit was reached, so that `hours` are measured. */
  reached?: boolean;
  /** Relative spread of its readings about its trend. */
  noise: number;
  /** Shares of the regimes of wear that its own readings speak for. */
  regimes?: Readonly<Record<string, number>>;
  /** Exponents that its readings speak for. */
  exponents?: Exponents;
  /** Its course from as new. */
  course?: readonly CoursePoint[];
}

/** Lives that the default counts for: in the noise and the doubt of the time scale, and in its centre, which parts of one kind share closely. */
const PSEUDO_LIVES = 1.5;
const PSEUDO_CENTRE = 0.4;
/** Like parts differ about this much in the hours they last, ln units (common practice), counted as so many lives. */
const USUAL_SPREAD = 0.4;
const PSEUDO_SPREAD = 3;
/** Like parts still differ this much in the hours they last, ln units. */
const LEAST_SPREAD = 0.3;
/** Lives that the usual shares of the regimes count for. */
const PSEUDO_REGIMES = 2;
const TURNS = 10;

/**
 * What to expect of a new life from the lives of its peers: geometric mean of their hours, shrunk to the default. A censored
 * life counts only when it lasted longer than the mean so far, since it says "at least".
 * @param peers lives of like parts: hours to the limit, relative noise, and what they tell of the law of wear
 * @param base what is expected without any
 * @returns time scale in running hours, with spreads in ln units
 * @example learnPrior([]).timeScale // 16000
 * @example learnPrior([9000, 10000, 11000].map((hours) => ({ hours, censored: false, noise: 0.02 })))
 * // { timeScale: 10537, spread: 0.5, lifeSpread: 0.3365, noise: 0.02289, lives: 3 }
 */
export function learnPrior(peers: readonly PeerLife[], base: WearPrior = defaultPrior): WearPrior {
  const reached = peers.filter((s) => !s.censored && s.hours > 0);
  let weight = PSEUDO_CENTRE;
  let ln = PSEUDO_CENTRE * Math.log(base.timeScale);
  for (const s of reached) {
    ln += Math.log(s.hours);
    weight += 1;
  }
  for (const s of peers) {
    if (s.censored && s.hours > Math.exp(ln / weight)) {
      ln += Math.log(s.hours);
      weight += 1;
    }
  }
  const noises = peers.filter((s) => s.noise > 0);
  const noise =
    noises.reduce((sum, s) => sum + Math.log(s.noise), PSEUDO_LIVES * Math.log(base.noise)) /
    (noises.length + PSEUDO_LIVES);
  const spread = LEAST_SPREAD + ((base.spread - LEAST_SPREAD) * PSEUDO_LIVES) / (reached.length + PSEUDO_LIVES);
  const mean = ln / weight;
  const squares = reached.reduce((sum, s) => sum + (Math.log(s.hours) - mean) ** 2, 0);
  // of one more life: the doubt of the centre beside the spread
  const lifeSpread = Math.sqrt(
    ((PSEUDO_SPREAD * USUAL_SPREAD ** 2 + squares) / (PSEUDO_SPREAD + reached.length)) *
      (1 + 1 / Math.max(1e-9, reached.length)),
  );
  return {
    timeScale: Math.exp(mean),
    spread,
    lifeSpread: Math.min(base.lifeSpread, lifeSpread),
    noise: Math.exp(noise),
    exponents: learnExponents(
      peers.flatMap((s) => s.exponents ?? []),
      base.exponents,
    ),
    ...learnRegimes(peers),
    ...learnCourse(peers),
    damageHours: learnDamage(peers, base.damageHours),
    lives: peers.length,
  };
}

/** Damage set in late where a life that ended had come no further than this at this share of its hours. */
const SET_IN = { margin: 0.25, at: 0.75 } as const;

/**
 * How seldom damage sets in that no reading has seen: the running hours of the plant's lives over those that it ended, the default
 * counting as one more of each.
 */
function learnDamage(peers: readonly PeerLife[], usual: number): number {
  const told = peers.filter((p) => p.hours > 0 && p.course && p.course.length > 0);
  const events = told.filter(
    ({ hours, course, reached }) =>
      reached &&
      Math.max(0, ...course!.filter((c) => c.hours <= SET_IN.at * hours).map((c) => c.margin)) < SET_IN.margin,
  ).length;
  const lived = told.reduce((sum, p) => sum + (p.reached ? p.hours : (p.course!.at(-1)?.hours ?? 0)), 0);
  // a plant that saw none has seen too little to rule it out
  return Math.min(usual, (usual + lived) / (1 + events));
}

/** A life that has not reached its limit tells its course when it has come so far. */
const NEARLY_THERE = 0.9;

/** More ended lives tell no more. */
const MOST_ENDED = 40;

function learnCourse(peers: readonly PeerLife[]): Pick<WearPrior, "course" | "ended"> {
  const told = peers.filter(
    ({ hours, course, censored, reached }) =>
      hours > 0 && course && course.length > 0 && !censored && (reached || course.at(-1)!.margin >= NEARLY_THERE),
  );
  const ended = told.slice(0, MOST_ENDED).map((s) => ({ hours: s.hours, points: s.course! }));
  const course = sharedCourse(ended);
  return { ...(course && { course }), ...(ended.length > 0 && { ended }) };
}

/**
 * Shares of the regimes by expectation and maximisation: a peer's likelihood of a regime is her share over the usual one.
 * A life that has shown no wear yet does not tell: any late or sudden path suits it, and many such lives would make a law of that.
 */
function learnRegimes(peers: readonly PeerLife[]): Pick<WearPrior, "regimes"> {
  const told = peers.filter((s) => s.regimes && !s.censored);
  if (told.length === 0) return {};
  const evidence = told.map((s) => regimes.map((r) => (s.regimes![r.id] ?? 0) / r.prior));
  let shares = regimes.map((r) => r.prior);
  for (let turn = 0; turn < TURNS; turn++) {
    const next = regimes.map((r) => PSEUDO_REGIMES * r.prior);
    for (const likelihood of evidence) {
      const whole = likelihood.reduce((sum, l, i) => sum + l * shares[i]!, 0);
      if (whole > 0) likelihood.forEach((l, i) => (next[i]! += (l * shares[i]!) / whole));
    }
    const total = next.reduce((a, b) => a + b, 0);
    shares = next.map((v) => v / total);
  }
  return { regimes: Object.fromEntries(regimes.map((r, i) => [r.id, shares[i]!])) };
}
