/**
 * What anybody could reach on the universe of scripts/bench/universe.ts without peers: a forecaster that knows how the
 * universe is made (all families, how their size and place are drawn), and of each life its level as new, its limit, the
 * exponents of the correction and the noise of a reading. What is left to it is the course and the time scale, which it weighs
 * by the readings over a library of courses. With many quiet readings few of its courses fit: how many count is told,
 * and where they are too few its figure says nothing.
 *
 *   npx tsx scripts/bench/universeIdeal.ts [--part reported|report] [--lives N] [--library N] [--peers]
 *
 * With --peers it knows what an endless number of peers of its own kind would tell too: its family, and the centre of the
 * lives; ours knows eight of them.
 */
import { parseArgs } from "node:util";
import { assess, defaultPrior, random, type WearPrior } from "@core";
import { crps } from "../../core/forecast/score";
import { measuredLives, type FleetLife } from "../../core/simulation/fleet";
import { universeCourse, type UniverseFamily } from "../../core/simulation/universe";
import { drawnSeed } from "./drawn";
import {
  binName,
  bins,
  contextOf,
  median,
  NOISES,
  PEERS,
  pointOf,
  priorOf,
  READINGS,
  readingsOf,
  share,
  TIME_SCALES,
} from "./origins";
import {
  drawsOf,
  effectiveOf,
  ENDS,
  levels,
  libraryAt,
  lnReading,
  nearest,
  scalesOf,
  type Library,
} from "./universeLibrary";

const { values: options } = parseArgs({
  options: {
    part: { type: "string", default: "reported" },
    lives: { type: "string", default: "3" },
    library: { type: "string", default: "3000" },
    peers: { type: "boolean", default: false },
  },
});
const DAY = 86_400_000;
const ORIGINS = [0.25, 0.4, 0.55, 0.7, 0.85, 0.95];
const REPORTED: UniverseFamily[] = ["jumps", "wanders", "blows", "rests", "renewals"];
/** Fewer courses than this say nothing. */
const ENOUGH = 10;
/** `--part report`: on lives that are drawn anew every day. */
const drawn = options.part === "report" ? drawnSeed("universeIdeal") : null;

const made = new Map<UniverseFamily | "all", Library[]>();

/** Courses by end: of all families, or with peers of the life's own, as many in all. */
function librariesOf(family: UniverseFamily): Library[] {
  const name = options.peers ? family : "all";
  const there = made.get(name);
  if (there) return there;
  const own = ENDS.map((end) => libraryAt(end, Number(options.library), options.peers ? family : undefined));
  made.set(name, own);
  return own;
}

interface Told {
  /** Time left and its weight. */
  left: { hours: number; weight: number }[];
  /** How many courses count. */
  effective: number;
}

function ideal(life: FleetLife, n: number, noise: number, family: UniverseFamily, centre: number): Told {
  const end = life.limit / life.asNew;
  const { ways, crossings } = nearest(librariesOf(family), end);
  const seen = levels(life, n);
  const now = seen.at(-1)!.hours;
  const found: { hours: number; ln: number }[] = [];
  let best = -Infinity;
  for (const { scale, prior } of scalesOf(options.peers ? [centre] : TIME_SCALES))
    for (let c = 0; c < ways.length; c++) {
      const crossing = crossings[c]! * scale;
      if (crossing <= now) continue;
      let ln = Math.log(prior + 1e-300);
      for (const read of seen) {
        ln += lnReading(ways[c]!, scale, end, noise, read);
        // so far behind that nothing brings it back: the rest is not worth reckoning
        if (ln < best - 40) break;
      }
      if (ln < best - 25) continue;
      best = Math.max(best, ln);
      found.push({ hours: crossing - now, ln });
    }
  const left = found.map((f) => ({ hours: f.hours, weight: Math.exp(f.ln - best) })).filter((f) => f.weight > 1e-9);
  return { left, effective: effectiveOf(left.map((f) => f.weight)) };
}

interface Compared {
  family: UniverseFamily;
  noise: number;
  readings: number;
  effective: number;
  ideal: number;
  idealCovers: boolean;
  ours: number;
}

function compare(life: FleetLife, family: UniverseFamily, noise: number, centre: number, prior: WearPrior): Compared[] {
  let before = 0;
  return ORIGINS.flatMap((origin): Compared[] => {
    const n = life.readings.filter((r) => r.hours <= origin * life.crossing).length;
    if (n < 3 || n === before) return [];
    before = n;
    const last = life.readings[n - 1]!;
    const made = assess(readingsOf(life, n), pointOf(life), contextOf(life, prior, last.at)).forecast;
    if (!made) return [];
    const truth = life.crossing - last.hours;
    const { left, effective } = ideal(life, n, noise, family, centre);
    const draws = drawsOf(left, 200);
    const own = made.crossingDates.map((d) =>
      d === null ? made.horizonHours : Math.min(made.horizonHours, ((d - last.at) / DAY) * life.hoursPerDay),
    );
    const covers = truth >= draws[19]! && truth <= draws[179]!;
    const of = (values: readonly number[]) => crps([...values], truth) / truth;
    return [{ family, noise, readings: n, effective, ideal: of(draws), idealCovers: covers, ours: of(own) }];
  });
}

const compared: Compared[] = [];
let turn = drawn?.seed ?? 80_000;
for (const family of REPORTED)
  for (const noise of NOISES)
    for (const readings of READINGS) {
      turn++;
      const timeScale = TIME_SCALES[turn % TIME_SCALES.length]!;
      const plan = {
        seed: turn,
        lives: Number(options.lives) + (options.peers ? PEERS : 0),
        noise,
        readingsPerLife: readings,
        timeScale,
      };
      const lives = measuredLives(plan, random(turn).fork(`${family} ${noise} ${readings}`), (rng, scale, end) =>
        universeCourse(family, rng, scale, end),
      );
      // lives of the same fleet come first as peers, run to their limit
      const prior = options.peers ? priorOf(lives.splice(0, PEERS), "ended") : defaultPrior;
      for (const life of lives) compared.push(...compare(life, family, noise, timeScale, prior));
    }

const mean = (values: number[]) => values.reduce((s, v) => s + Math.min(3, v), 0) / values.length;
function row(name: string, all: readonly Compared[]): void {
  const group = all.filter((c) => c.effective >= ENOUGH);
  const figures = (of: (c: Compared) => number) =>
    `${median(group.map(of)).toFixed(3)} | ${mean(group.map(of)).toFixed(3)}`;
  process.stdout.write(
    group.length < 15
      ? `| ${name} | ${group.length} of ${all.length} | | | | | |\n`
      : `| ${name} | ${group.length} of ${all.length} | ${median(group.map((c) => c.effective)).toFixed(0)} | ` +
          `${figures((c) => c.ideal)} | ${share(group.map((c) => c.idealCovers)).toFixed(2)} | ${figures((c) => c.ours)} |\n`,
  );
}
if (drawn) process.stdout.write(`${drawn.told}\n`);
process.stdout.write(
  "| | origins where enough courses fit | courses that count | ideal: median | mean | covers | " +
    "this forecast: median | mean |\n|---|---|---|---|---|---|---|---|\n",
);
const six = compared.filter((c) => c.readings >= 6);
row("six readings and more", six);
for (const [low] of bins)
  row(
    `${binName(low)} readings`,
    compared.filter((c) => binName(c.readings) === binName(low)),
  );
for (const family of REPORTED)
  row(
    family,
    six.filter((c) => c.family === family),
  );
for (const noise of NOISES)
  row(
    `noise ${noise}`,
    six.filter((c) => c.noise === noise),
  );
