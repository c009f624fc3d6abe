/**
 * A shape: the share of the way to the limit (margin) at even shares of a life, through noisy points of several lives.
 * Penalised least squares on second differences; how smooth it is, the likelihood of the points decides.
 */
import { solvePositive } from "../trend/linear";

export interface ShapePoint {
  /** Share of the life, 0 to 1. */
  x: number;
  margin: number;
  variance: number;
}

const CELLS = 20;
/** Second differences of a shape, standard deviation: the likeliest of these is taken. */
const ROUGHNESS = [0.003, 0.01, 0.03, 0.1];
/** Uncertainty of the margin as new. */
const START_DOUBT = 0.05;
/** Even at its ends a life may be off by this share of the variance of its wander. */
const LEAST_BRIDGE = 0.01;
/** A shape gains at least this share of an even one, so that it never stands still. */
const LEAST_GAIN = 0.005;
/** No life starts nearer to its limit. */
const LATEST_START = 0.5;
/** After its life it goes on as in this last share of it. */
const LAST = 0.1;

/** Value of a shape at a share of a life, straight between its knots; beyond 1 it goes on with the pace of its last tenth. */
export function shapeAt(shape: readonly number[], x: number): number {
  const cells = shape.length - 1;
  if (x > 1) return shape[cells]! + lastPace(shape) * (x - 1);
  const place = Math.max(0, x) * cells;
  const i = Math.min(cells - 1, Math.floor(place));
  return shape[i]! + (place - i) * (shape[i + 1]! - shape[i]!);
}

/** Gain of a shape per life at its end. */
export function lastPace(shape: readonly number[]): number {
  const cells = shape.length - 1;
  const back = Math.max(1, Math.round(cells * LAST));
  return ((shape[cells]! - shape[cells - back]!) * cells) / back;
}

/** Normal equations of the free knots; the last knot is 1. */
interface System {
  normal: number[][];
  right: number[];
  squares: number;
  lnVariances: number;
}

/** One equation more: knots by their weights come to `target`. */
function add(
  system: System,
  terms: readonly (readonly [knot: number, weight: number])[],
  target: number,
  variance: number,
): void {
  let rest = target;
  for (const [knot, weight] of terms) if (knot === CELLS) rest -= weight;
  for (const [i, p] of terms) {
    if (i === CELLS) continue;
    system.right[i]! += (p * rest) / variance;
    for (const [j, q] of terms) if (j < CELLS) system.normal[i]![j]! += (p * q) / variance;
  }
  system.squares += (rest * rest) / variance;
  system.lnVariances += Math.log(variance);
}

/**
 * The likeliest shape: always rising, 1 at the end of a life.
 * @param wander standard deviation of a Wiener process that takes a life away from the shape; it is a bridge, since a life ends at its limit.
 */
export function fitShape(points: readonly ShapePoint[], wander: number): number[] {
  const seen: System = {
    normal: Array.from({ length: CELLS }, () => new Array<number>(CELLS).fill(0)),
    right: new Array<number>(CELLS).fill(0),
    squares: 0,
    lnVariances: 0,
  };
  for (const { x, margin, variance } of points) {
    const place = Math.min(CELLS - 1e-9, Math.max(0, x) * CELLS);
    const i = Math.floor(place);
    add(
      seen,
      [
        [i, 1 - (place - i)],
        [i + 1, place - i],
      ],
      margin,
      variance + wander ** 2 * Math.max(LEAST_BRIDGE, x * (1 - x)),
    );
  }
  add(seen, [[0, 1]], 0, START_DOUBT ** 2);
  const made = ROUGHNESS.map((roughness) => smooth(seen, roughness));
  return rising(made.reduce((best, one) => (one.logLikelihood > best.logLikelihood ? one : best)).knots);
}

function smooth(seen: System, roughness: number): { knots: number[]; logLikelihood: number } {
  const system: System = { ...seen, normal: seen.normal.map((row) => [...row]), right: [...seen.right] };
  for (let k = 1; k < CELLS; k++)
    add(
      system,
      [
        [k - 1, 1],
        [k, -2],
        [k + 1, 1],
      ],
      0,
      roughness ** 2,
    );
  const { x, lnDeterminant } = solvePositive(system.normal, system.right);
  const explained = x.reduce((sum, v, i) => sum + v * system.right[i]!, 0);
  return { knots: [...x, 1], logLikelihood: -0.5 * (system.lnVariances + lnDeterminant + system.squares - explained) };
}

/** Never falling: neighbours that fall are taken together (pool adjacent violators), then every cell gains a little. */
function rising(knots: readonly number[]): number[] {
  const blocks: { mean: number; size: number }[] = [];
  for (const knot of knots) {
    let block = { mean: Math.min(1, knot), size: 1 };
    for (let last = blocks.at(-1); last && last.mean > block.mean; last = blocks.at(-1)) {
      blocks.pop();
      block = {
        mean: (last.mean * last.size + block.mean * block.size) / (last.size + block.size),
        size: last.size + block.size,
      };
    }
    blocks.push(block);
  }
  const pooled = blocks.flatMap(({ mean, size }) => new Array<number>(size).fill(mean));
  const [first, cells] = [Math.min(LATEST_START, pooled[0]!), pooled.length - 1];
  pooled[0] = first;
  const whole = pooled[cells]! - first;
  // the end of a life stays at 1, even where the last knots were pooled
  return pooled.map(
    (v, i) =>
      1 -
      (1 - LEAST_GAIN) * ((1 - first) * (whole > 0 ? 1 - (v - first) / whole : 1 - i / cells)) -
      LEAST_GAIN * (1 - first) * (1 - i / cells),
  );
}
