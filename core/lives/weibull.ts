/**
 * Weibull lives by maximum likelihood: R(t) = exp(−(t/η)^β). Right-censored lives, delayed entry (a part that
 * was already old when watching began) and interval censoring (found worn at an inspection) are ordinary.
 * Intervals by profile likelihood. Meeker and Escobar, Statistical Methods for Reliability Data (1998).
 */
export interface Life {
  /** Running hours at failure, or lasted so far. */
  time: number;
  failed: boolean;
  /** Running hours at which watching began; 0 when left out. */
  entry?: number;
  /** Found worn at `time`, was good at this age: the failure lies between. */
  goodAt?: number;
}

export interface WeibullFit {
  shape: number;
  /** Same unit as the times. */
  scale: number;
  shapeInterval: { low: number; high: number };
  scaleInterval: { low: number; high: number };
  logLikelihood: number;
  failures: number;
  lives: number;
}

const SMALLEST_SHAPE = 0.02;
const LARGEST_SHAPE = 50;

/** Likelihood with times over `unit`, so that powers stay in range. */
function logLikelihood(lives: readonly Life[], shape: number, lnScale: number): number {
  let total = 0;
  const hazard = (t: number) => Math.exp(shape * (Math.log(t) - lnScale));
  for (const { time, failed, entry, goodAt } of lives) {
    if (entry) total += hazard(entry);
    if (!failed) total -= hazard(time);
    else if (goodAt !== undefined) {
      const early = goodAt > 0 ? hazard(goodAt) : 0;
      total += -early + Math.log(Math.max(1e-300, -Math.expm1(early - hazard(time))));
    } else total += Math.log(shape) - lnScale + (shape - 1) * (Math.log(time) - lnScale) - hazard(time);
  }
  return total;
}

/** Greatest value of a function with one hill, by golden section. */
function greatest(f: (x: number) => number, low: number, high: number): { x: number; value: number } {
  const ratio = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [low, high];
  let c = b - ratio * (b - a);
  let d = a + ratio * (b - a);
  let [fc, fd] = [f(c), f(d)];
  for (let i = 0; i < 64; i++) {
    if (fc > fd) {
      [b, d, fd] = [d, c, fc];
      c = b - ratio * (b - a);
      fc = f(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + ratio * (b - a);
      fd = f(d);
    }
  }
  const x = (a + b) / 2;
  return { x, value: f(x) };
}

/** Where a falling or rising function passes a level, by bisection. */
function passes(f: (x: number) => number, inside: number, outside: number, level: number): number {
  let [a, b] = [inside, outside];
  if (f(b) > level) return b;
  for (let i = 0; i < 44; i++) {
    const middle = (a + b) / 2;
    if (f(middle) > level) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** Half of the chi-squared quantile with one degree of freedom: normal quantile squared over two. */
const HALF_CHI2 = { 0.8: 0.8211872075749087, 0.9: 1.352771727, 0.95: 1.9207294103 } as const;

/**
 * Fit a Weibull distribution to lives, R(t) = exp(−(t/η)^β), by maximum likelihood, with intervals by profile likelihood.
 * Meeker and Escobar, Statistical Methods for Reliability Data (1998).
 * @param lives running hours above 0; those that have not failed are censored
 * @param options how sure the intervals are
 * @param options.confidence 0.8, 0.9 or 0.95
 * @returns shape, scale in the unit of the times, and their intervals
 * @throws {RangeError} for no failure, times that are not above zero, an entry or
 * `goodAt` not before its time, or failures that all share one time without a censored life beyond it.
 * @example weibullFit([1000, 2000, 3000].map((time) => ({ time, failed: true })))
 * // { shape: 2.739, scale: 2259, shapeInterval: { low: 0.8543, high: 6.083 }, scaleInterval: { low: 1173, high: 4319 } }
 * @example weibullFit([{ time: 1000, failed: false }]) // RangeError
 */
export function weibullFit(lives: readonly Life[], { confidence = 0.95 as keyof typeof HALF_CHI2 } = {}): WeibullFit {
  const failures = lives.filter((l) => l.failed).length;
  if (failures === 0) throw new RangeError("No life has failed yet: nothing can be fitted.");
  for (const l of lives) {
    if (!(l.time > 0) || !Number.isFinite(l.time)) throw new RangeError("Every life needs hours above zero.");
    if ((l.entry ?? 0) < 0 || (l.entry ?? 0) >= l.time)
      throw new RangeError("Watching must begin before the life ends.");
    if (l.goodAt !== undefined && (l.goodAt < (l.entry ?? 0) || l.goodAt >= l.time))
      throw new RangeError("A part was good before it was found worn.");
  }
  const longest = Math.max(...lives.map((l) => l.time));
  const scaled = lives.map((l) => ({
    ...l,
    time: l.time / longest,
    ...(l.entry !== undefined && { entry: l.entry / longest }),
    ...(l.goodAt !== undefined && { goodAt: l.goodAt / longest }),
  }));
  // scale: from a thousandth of the longest life to a million times it
  const [lowScale, highScale] = [Math.log(1e-3), Math.log(1e6)];
  const exact = scaled.every((l) => !l.failed || l.goodAt === undefined);
  const shapeProfile = (lnShape: number) => {
    const shape = Math.exp(lnShape);
    if (!exact) return greatest((s) => logLikelihood(scaled, shape, s), lowScale, highScale);
    const x =
      Math.log(scaled.reduce((sum, l) => sum + l.time ** shape - (l.entry ? l.entry ** shape : 0), 0) / failures) /
      shape;
    return { x, value: logLikelihood(scaled, shape, x) };
  };
  const best = greatest((lnShape) => shapeProfile(lnShape).value, Math.log(SMALLEST_SHAPE), Math.log(LARGEST_SHAPE));
  if (Math.exp(best.x) > 0.98 * LARGEST_SHAPE)
    throw new RangeError("All failures share one age: the shape cannot be estimated.");
  const lnScale = shapeProfile(best.x).x;
  const level = best.value - HALF_CHI2[confidence];
  const profileOfShape = (lnShape: number) => shapeProfile(lnShape).value;
  const profileOfScale = (s: number) =>
    greatest(
      (lnShape) => logLikelihood(scaled, Math.exp(lnShape), s),
      Math.log(SMALLEST_SHAPE),
      Math.log(LARGEST_SHAPE),
    ).value;
  return {
    shape: Math.exp(best.x),
    scale: longest * Math.exp(lnScale),
    shapeInterval: {
      low: Math.exp(passes(profileOfShape, best.x, Math.log(SMALLEST_SHAPE), level)),
      high: Math.exp(passes(profileOfShape, best.x, Math.log(LARGEST_SHAPE), level)),
    },
    scaleInterval: {
      low: longest * Math.exp(passes(profileOfScale, lnScale, lowScale, level)),
      high: longest * Math.exp(passes(profileOfScale, lnScale, highScale, level)),
    },
    logLikelihood: best.value - failures * Math.log(longest),
    failures,
    lives: lives.length,
  };
}

/** Share of parts that still live at an age. */
export function weibullReliability(age: number, { shape, scale }: { shape: number; scale: number }): number {
  return Math.exp(-((Math.max(0, age) / scale) ** shape));
}
