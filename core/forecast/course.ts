/**
 * The course that peer lives took: which share of the way to the limit they had gone at which share of their life.
 * Like parts under like work wear alike, by a law that need not be on any list.
 */
import { fitShape, shapeAt, type ShapePoint } from "./shape";

/** A few neighbouring readings of one life, taken together. */
export interface CoursePoint {
  /** Running hours since new. */
  hours: number;
  /** Share of the way from as new to the limit. */
  margin: number;
  /** Variance of the margin by the noise of the readings. */
  variance: number;
}

export interface Course {
  /** Margin at even shares of a life, rising to 1. */
  shape: readonly number[];
  /** How far a life strays from it: standard deviation of a Wiener process over one life, share of the way to the limit. */
  wander: number;
}

/** A life that ran to its limit. */
export interface EndedCourse {
  /** Running hours from new to the limit. */
  hours: number;
  points: readonly CoursePoint[];
}

/** A life is told by at most so many points. */
const MOST_POINTS = 24;
const FEWEST_POINTS = 3;
/** Fewest lives that make a course. */
const FEWEST_LIVES = 3;
/** More lives tell no more: the first so many are heard. */
const MOST_LIVES = 40;
const TURNS = 4;
const FIRST_WANDER = 0.1;
const LEAST_WANDER = 0.014;
/** Doubt of a life's margin as new: its baseline may be off. */
const AS_NEW_DOUBT = 0.1;
/** Nearer to an end nothing is seen of the wander. */
const LEAST_BRIDGE = 0.03;
/** A point farther off than this many variances counts as so far. */
const FARTHEST = 9;
const OUTLIER = 0.5;

/**
 * One life's course from its readings, in time order.
 * @param readings running hours, ln of the corrected reading over as new, and its chance of being an outlier.
 * @param lnLimit ln of the limit over as new, above 0.
 * @param newAt running hours at which the part was new.
 * @param noise relative standard deviation of a reading.
 */
export function courseOf(
  readings: readonly { hours: number; lnS: number; outlier: number }[],
  lnLimit: number,
  newAt: number,
  noise: number,
): CoursePoint[] {
  const good = readings.filter((r) => r.outlier < OUTLIER);
  const span = Math.expm1(lnLimit);
  const groups = Math.min(MOST_POINTS, good.length);
  const rounded = (value: number, digits: number) => Number(value.toPrecision(digits));
  return Array.from({ length: groups }, (_, g) => {
    const group = good.slice(Math.round((g * good.length) / groups), Math.round(((g + 1) * good.length) / groups));
    const mean = (f: (r: (typeof group)[number]) => number) => group.reduce((sum, r) => sum + f(r), 0) / group.length;
    const s = mean((r) => Math.exp(r.lnS));
    return {
      hours: rounded(mean((r) => r.hours) - newAt, 6),
      margin: rounded((s - 1) / span, 4),
      variance: rounded(((noise * s) / span) ** 2 / group.length, 3),
    };
  });
}

/** The course that lives share, or null when fewer than three tell one. */
export function sharedCourse(lives: readonly EndedCourse[]): Course | null {
  const told = lives
    .slice(0, MOST_LIVES)
    .map(({ hours, points }) =>
      points
        .filter((p) => p.hours >= 0 && p.hours <= hours)
        .map(({ hours: h, margin, variance }): ShapePoint => ({ x: h / hours, margin, variance })),
    )
    .filter((points) => points.length >= FEWEST_POINTS);
  if (told.length < FEWEST_LIVES) return null;
  let points = told.flat();
  let shape = fitShape(points, FIRST_WANDER);
  let wander = FIRST_WANDER;
  for (let turn = 0; turn < TURNS; turn++) {
    if (turn > 0) shape = fitShape(points, wander);
    points = told.flatMap((life) => levelled(life, shape, wander));
    wander = wanderOf(points, shape, wander);
  }
  return { shape, wander };
}

/** A life whose as-new level was taken a little wrong, brought back: the error fades out towards the limit. */
function levelled(life: readonly ShapePoint[], shape: readonly number[], wander: number): ShapePoint[] {
  let sum = 0;
  let weight = 1 / AS_NEW_DOUBT ** 2;
  for (const { x, margin, variance } of life) {
    const f = shapeAt(shape, x);
    const w = (1 - f) / (variance + Math.max(0, wander ** 2 * f * (1 - f)));
    sum += w * (margin - f);
    weight += w * (1 - f);
  }
  const offset = sum / weight;
  return life.map((p) => ({ ...p, margin: p.margin - offset * (1 - shapeAt(shape, p.x)) }));
}

/** Wander by moments: what the noise of the readings leaves unexplained. Between its two ends a Wiener process is a bridge. */
function wanderOf(points: readonly ShapePoint[], shape: readonly number[], before: number): number {
  let sum = 0;
  let weight = 0;
  for (const { x, margin, variance } of points) {
    const f = shapeAt(shape, x);
    const bridge = f * (1 - f);
    if (bridge < LEAST_BRIDGE) continue;
    const expected = bridge * before ** 2 + variance;
    const w = (bridge / expected) ** 2;
    sum += (w * (Math.min((margin - f) ** 2, FARTHEST * expected) - variance)) / bridge;
    weight += w;
  }
  return weight > 0 ? Math.sqrt(Math.max(LEAST_WANDER ** 2, sum / weight)) : FIRST_WANDER;
}
