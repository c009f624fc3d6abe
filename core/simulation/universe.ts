/**
 * A universe of wear: lives whose rate is composed at random, so that no law of them can be known by name. Every life has
 * what its family is named for, of random size and place, on top of a rate that bends smoothly and of wear that feeds on
 * itself more or less.
 */
import type { Random } from "../random/random";

/** A hidden indicator over as new by running hours, and the hours at which its rate changed. */
export type UniverseCourse = ((hours: number) => number) & { changes: readonly number[] };

/** Rate of wear beside the usual one at a share x of the time scale, at a level s. */
type Rate = (x: number, s: number) => number;

interface Composed {
  rate: Rate;
  /** Shares of the time scale. */
  changes?: number[];
  /** Sudden steps of the level, share of the way to the limit, by share of the time scale. */
  steps?: { x: number; size: number }[];
}

/** A smooth random factor: three waves of the logarithm. */
function smooth(rng: Random, size: number): (x: number) => number {
  const waves = Array.from({ length: 3 }, (_, k) => ({
    size: (size * rng.normal()) / (k + 1),
    turns: Math.PI * (k + 0.5) * rng.between(0.7, 1.3),
    from: rng.between(0, 2 * Math.PI),
  }));
  return (x) => Math.exp(waves.reduce((sum, w) => sum + w.size * Math.sin(w.turns * x + w.from), 0));
}

/** A rate that jumps by factors at places. */
const jumping = (places: readonly number[], factors: readonly number[]) => (x: number) =>
  places.reduce((rate, at, i) => (x >= at ? rate * factors[i]! : rate), 1);

const sorted = (values: number[]) => values.sort((a, b) => a - b);

const simple = {
  /** Wear that feeds on itself, or starves: ds ∝ s^γ. */
  feedback: (rng) => {
    const gamma = rng.between(-1.5, 1.6);
    return { rate: (_x, s) => s ** gamma };
  },
  /** A rate that goes by age: any power, hastening or slowing. */
  ageing: (rng) => {
    const power = rng.uniform() < 0.5 ? rng.between(-0.6, 0) : rng.between(0, 3);
    return { rate: (x) => Math.max(0.02, x) ** power };
  },
  /** Three to six times as fast from some moment on. */
  multiplies: (rng) => {
    const at = rng.between(0.15, 0.8);
    return { rate: jumping([at], [rng.between(3, 6)]), changes: [at] };
  },
  /** Several changes, up and down. */
  jumps: (rng) => {
    const places = sorted(Array.from({ length: 1 + Math.floor(rng.uniform() * 4) }, () => rng.between(0.1, 0.9)));
    return {
      rate: jumping(
        places,
        places.map(() => Math.exp(rng.between(-1.1, 1.6))),
      ),
      changes: places,
    };
  },
  /** A rate that walks at random. */
  wanders: (rng) => {
    const path = [0];
    const size = rng.between(0.06, 0.16);
    return {
      rate: (x) => {
        const i = Math.floor(x * 200);
        while (path.length <= i) path.push(0.99 * path[path.length - 1]! + size * rng.normal());
        return Math.exp(path[i]!);
      },
    };
  },
  /** Blows and sudden steps between which it wears evenly. */
  blows: (rng) => {
    const count = 2 + Math.floor(rng.uniform() * 14);
    const share = rng.between(0.3, 0.8);
    return {
      rate: () => 1 - share,
      steps: Array.from({ length: count }, () => ({
        x: rng.between(0.03, 1.2),
        size: (share / count) * -Math.log(1 - rng.uniform()),
      })),
    };
  },
  /** Hard and easy seasons of duty. */
  seasons: (rng) => {
    const depth = rng.between(0.3, 0.95);
    const turns = 2 * Math.PI * rng.between(1, 5);
    const from = rng.between(0, 2 * Math.PI);
    return { rate: (x) => 1 + depth * Math.sin(turns * x + from) };
  },
  /** Nothing for long stretches: a late onset, or rests. */
  rests: (rng) => {
    const late = rng.uniform() < 0.4 ? rng.between(0.15, 0.6) : 0;
    const rests = Array.from({ length: 2 }, () => rng.between(0.1, 0.9)).map((from) => [
      from,
      from + rng.between(0.05, 0.25),
    ]);
    return {
      rate: (x) => (x < late || (late === 0 && rests.some(([from, to]) => x >= from! && x < to!)) ? 0.02 : 1),
      changes: late > 0 ? [late] : sorted(rests.flat()),
    };
  },
  /** Beds in, and its oil is renewed now and then: fast after each, slower afterwards. */
  renewals: (rng) => {
    const every = rng.between(0.12, 0.5);
    const fast = rng.between(1, 6);
    const settle = rng.between(0.02, 0.12);
    return { rate: (x) => 1 + fast * Math.exp(-(x % every) / settle) };
  },
} satisfies Record<string, (rng: Random) => Composed>;

type Simple = keyof typeof simple;
const compose = (family: Simple, rng: Random): Composed => simple[family](rng);

/** Two of the others at once. */
function compound(rng: Random): Composed {
  const names = ["feedback", "ageing", "jumps", "wanders", "seasons", "rests"] as const;
  const [first, second] = [compose(rng.pick(names), rng.fork("one")), compose(rng.pick(names), rng.fork("two"))];
  return {
    rate: (x, s) => first.rate(x, s) * second.rate(x, s),
    changes: sorted([...(first.changes ?? []), ...(second.changes ?? [])]),
  };
}

export type UniverseFamily = Simple | "compound";
export const universeFamilies: readonly UniverseFamily[] = [...(Object.keys(simple) as Simple[]), "compound"];

/** Steps in which a course is followed, a time scale. */
const STEPS = 1000;
/** A life that would take longer than this many time scales is drawn at a faster pace. */
const LONGEST = 1.6;

/**
 * One course of a family.
 * @param timeScale running hours that the life lasts, about
 * @param end indicator over as new at the limit
 */
export function universeCourse(family: UniverseFamily, rng: Random, timeScale: number, end: number): UniverseCourse {
  const own = rng.fork("family");
  const { rate, changes = [], steps = [] } = family === "compound" ? compound(own) : compose(family, own);
  const bend = smooth(rng.fork("smooth"), 0.18);
  const gamma = rng.uniform() < 0.5 ? 0 : rng.between(-0.3, 0.8);
  const of = (x: number, s: number) => bend(x) * s ** gamma * rate(x, s);
  // the pace at which it lasts about one time scale: what it wears in one at pace 1, over the whole way, found by trying
  const follow = (pace: number, until: number) => {
    const path = [1];
    for (let i = 1; i <= until * STEPS; i++) {
      const x = i / STEPS;
      const s = path[i - 1]!;
      const step = steps.reduce((sum, e) => (e.x > x - 1 / STEPS && e.x <= x ? sum + e.size : sum), 0);
      path.push(Math.min(3 * end, s + (pace * (end - 1) * of(x, s)) / STEPS + step * (end - 1)));
    }
    return path;
  };
  let [low, high] = [0.001, 1000];
  for (let turn = 0; turn < 40; turn++) {
    const pace = Math.sqrt(low * high);
    if (follow(pace, 1)[STEPS]! > end) high = pace;
    else low = pace;
  }
  const path = follow(high, LONGEST);
  const at = (hours: number) => {
    const place = Math.min(LONGEST * STEPS - 1e-6, Math.max(0, (hours / timeScale) * STEPS));
    const i = Math.floor(place);
    return path[i]! + (place - i) * (path[i + 1]! - path[i]!);
  };
  return Object.assign(at, { changes: changes.map((x) => x * timeScale) });
}
