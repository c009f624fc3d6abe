/** What peer lives say of the exponents of the leakage correction. */

/** Exponents of pressure (a) and viscosity (b) in the leakage correction, with their standard deviations. */
export interface Exponents {
  a: number;
  b: number;
  ua: number;
  ub: number;
}

/** Laminar leakage, and how far real parts are from it. */
export const laminar: Exponents = { a: 1, b: 1, ua: 0.3, ub: 0.3 };

/** Like parts differ about this much in an exponent (common practice), counted as so many lives. */
const USUAL_SPREAD = 0.15;
const PSEUDO_LIVES = 3;
const TURNS = 3;
/** Least that readings must add to the precision of an exponent. */
const LEAST_PRECISION = 1;

interface Told {
  value: number;
  deviation: number;
}

/** Exponents of one more life, by lives whose own readings speak for `told` (empirical Bayes). */
export function learnExponents(told: readonly Exponents[], base: Exponents): Exponents {
  const a = learn(
    told.map((t) => ({ value: t.a, deviation: t.ua })),
    { value: base.a, deviation: base.ua },
  );
  const b = learn(
    told.map((t) => ({ value: t.b, deviation: t.ub })),
    { value: base.b, deviation: base.ub },
  );
  return { a: a.value, b: b.value, ua: a.deviation, ub: b.deviation };
}

/** Centre of the lives and their spread about it, in turn: expectation and maximisation. */
function learn(told: readonly Told[], base: Told): Told {
  let spread = USUAL_SPREAD;
  let value = base.value;
  let weight = 0;
  for (let turn = 0; turn < TURNS; turn++) {
    weight = base.deviation ** -2;
    let sum = weight * base.value;
    for (const t of told) {
      const w = 1 / (spread ** 2 + t.deviation ** 2);
      sum += w * t.value;
      weight += w;
    }
    value = sum / weight;
    const squares = told.reduce((total, t) => {
      const known = spread ** 2 / (spread ** 2 + t.deviation ** 2);
      return total + (known * (t.value - value)) ** 2 + known * t.deviation ** 2;
    }, 0);
    spread = Math.sqrt((PSEUDO_LIVES * USUAL_SPREAD ** 2 + squares) / (PSEUDO_LIVES + told.length));
  }
  return { value, deviation: Math.min(base.deviation, Math.sqrt(spread ** 2 + 1 / weight)) };
}

/** Exponents by the readings of a life alone: what was expected of them before is taken out again. */
export function ownExponents(found: Exponents, expected: Exponents): Exponents {
  const own = (value: number, deviation: number, value0: number, deviation0: number): Told => {
    const precision = Math.max(LEAST_PRECISION, deviation ** -2 - deviation0 ** -2);
    return { value: value + ((value - value0) * deviation0 ** -2) / precision, deviation: precision ** -0.5 };
  };
  const a = own(found.a, found.ua, expected.a, expected.ua);
  const b = own(found.b, found.ub, expected.b, expected.ub);
  return { a: a.value, b: b.value, ua: a.deviation, ub: b.deviation };
}
