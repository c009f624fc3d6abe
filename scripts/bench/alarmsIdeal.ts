/**
 * What anybody could reach with the words of core/state/state.ts on the families of scripts/bench/alarms.ts: the same rule, told
 * by a forecaster who knows how lives are made and of each life all but its course and its time scale (universeLibrary.ts), beside
 * the application on the same lives. No peers, no stops; told at each reading. Where too few of its courses fit, it knows less than
 * it seems to: the share of such readings is printed.
 *
 *   npx tsx scripts/bench/alarmsIdeal.ts [--lives N] [--library N]
 */
import { parseArgs } from "node:util";
import { decideBy, defaultPrior, type ConditionState } from "@core";
import type { FleetLife } from "../../core/simulation/fleet";
import type { UniverseFamily } from "../../core/simulation/universe";
import { conditionState } from "../../core/state/state";
import { drawnSeed } from "./drawn";
import { contextOf, pointOf, readingsOf } from "./origins";
import { drawsOf, effectiveOf, ENDS, levels, libraryAt, lnReading, nearest, scalesOf } from "./universeLibrary";
import {
  alarms,
  DAY,
  daysAhead,
  familyLives,
  LEAD_DAYS,
  LENGTHS,
  limitOf,
  takenBack,
  TO_ORDER,
  toldOf,
  warns,
  type Told,
} from "./words";

const { values: options } = parseArgs({
  options: { lives: { type: "string", default: "3" }, library: { type: "string", default: "6000" } },
});
const FAMILIES: UniverseFamily[] = ["jumps", "wanders", "blows", "rests", "renewals"];
const CENTRES = LENGTHS.map(([hours]) => hours);
const DRAWS = 400;
const INTERVAL = 30 * DAY;
/** Fewer courses than this say nothing. */
const ENOUGH = 10;
/** So much unlikelier than the best is nothing brought back by later readings. */
const LOST = 40;

const drawn = drawnSeed("alarmsIdeal");
const libraries = ENDS.map((end) => libraryAt(end, Number(options.library)));

const NOTHING: Told = { at: 0, state: "steady", p50: null, notBefore: null };

interface Course {
  way: Float32Array;
  scale: number;
  crossing: number;
  ln: number;
}

/** Told by the one who knows, at every reading from the third on; and at how many of them he knows too few courses. */
function toldByIdeal(life: FleetLife, noise: number): { told: Told[]; thin: number } {
  const end = life.limit / life.asNew;
  const { ways, crossings } = nearest(libraries, end);
  let courses: Course[] = scalesOf(CENTRES).flatMap(({ scale, prior }) =>
    ways.map((way, c) => ({ way, scale, crossing: crossings[c]! * scale, ln: Math.log(prior + 1e-300) })),
  );
  const told: Told[] = [];
  let thin = 0;
  let standing: ConditionState | null = null;
  for (const [n, read] of levels(life, life.readings.length).entries()) {
    let best = -Infinity;
    for (const course of courses) {
      course.ln += lnReading(course.way, course.scale, end, noise, read);
      if (course.crossing > read.hours) best = Math.max(best, course.ln);
    }
    courses = courses.filter((c) => c.crossing > read.hours && c.ln > best - LOST);
    const { at } = life.readings[n]!;
    if (n < 2) continue;
    if (courses.length === 0) {
      // nothing that he knows goes like this: what was said stands
      thin++;
      told.push({ ...(told.at(-1) ?? NOTHING), at });
      continue;
    }
    const left = courses.map((c) => ({ hours: c.crossing - read.hours, weight: Math.exp(c.ln - best) }));
    if (effectiveOf(left.map((l) => l.weight)) < ENOUGH) thin++;
    const crossingDates = drawsOf(left, DRAWS).map((hours) => at + (hours / life.hoursPerDay) * DAY);
    const context = { ...contextOf(life, defaultPrior, at), leadTimeDays: LEAD_DAYS, stops: [] };
    const within = (chance: number) => ((decideBy({ crossingDates }, context, chance)?.by ?? Infinity) - at) / INTERVAL;
    const chance = at + Math.max(LEAD_DAYS, context.nextChanceDays) * DAY;
    const state: ConditionState = conditionState({
      readings: n + 1,
      knownWhenNew: true,
      hasLimit: true,
      margin: 0,
      beyond: 0,
      trendProved: true,
      beforeUsableStop: crossingDates.filter((d) => d <= chance).length / DRAWS,
      decideWithin: { likely: within(0.5), earliest: within(0.1), withoutStops: within(0.5) },
      standing: standing && { state: standing, changed: "reading" },
    });
    standing = state;
    told.push({ at, state, p50: null, notBefore: null });
  }
  return { told, thin: thin / Math.max(1, told.length) };
}

interface Lived {
  alert: number;
  alarm: number;
  alertBack: boolean;
  alarmBack: boolean;
}

function lived(all: readonly Told[], limitAt: number): Lived {
  const told = all.filter((t) => t.at < limitAt);
  return {
    alert: daysAhead(told, warns, limitAt),
    alarm: daysAhead(told, alarms, limitAt),
    alertBack: takenBack(told, warns),
    alarmBack: takenBack(told, alarms),
  };
}

const ours: Lived[] = [];
const ideal: Lived[] = [];
const thinness: number[] = [];
for (const { noise, life: whole } of familyLives(drawn.seed, FAMILIES, Number(options.lives))) {
  const life = { ...whole, readings: whole.readings.filter((r) => r.hours <= whole.crossing) };
  const limitAt = limitOf(life);
  const context = (now: number) => contextOf(life, defaultPrior, now);
  ours.push(lived(toldOf(readingsOf(life, life.readings.length), pointOf(life), false, context), limitAt));
  const { told, thin } = toldByIdeal(life, noise);
  ideal.push(lived(told, limitAt));
  thinness.push(thin);
}

const IN_TIME = LEAD_DAYS + TO_ORDER / DAY;
const share = (lives: readonly Lived[], of: (l: Lived) => boolean) =>
  `${((100 * lives.filter(of).length) / lives.length).toFixed(0)} %`;
const row = (name: string, alert: (l: Lived) => boolean, alarm: (l: Lived) => boolean) =>
  `| ${name} | ${[ours, ideal].map((lives) => `${share(lives, alert)}, ${share(lives, alarm)}`).join(" | ")} |`;
const thin = thinness.reduce((sum, t) => sum + t, 0) / thinness.length;
process.stdout.write(
  [
    drawn.told,
    `| ${ours.length} lives: alert or alarm, alarm | this forecast | who knows how lives are made |`,
    "|---|---|---|",
    row(
      `told by ${IN_TIME} days before`,
      (l) => l.alert >= IN_TIME,
      (l) => l.alarm >= IN_TIME,
    ),
    row(
      "over a year early",
      (l) => l.alert > 365,
      (l) => l.alarm > 365,
    ),
    row(
      "taken back",
      (l) => l.alertBack,
      (l) => l.alarmBack,
    ),
    `At ${(100 * thin).toFixed(0)} % of the readings fewer than ${ENOUGH} of the courses fit.`,
    "",
  ].join("\n"),
);
