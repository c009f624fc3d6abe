/**
 * How a person lives with the words: lives read every month to their limit, and lives that never wear, each told its state at
 * every reading and once between two of them, as the application does. Printed as one table.
 *
 *   tsx scripts/bench/alarms.ts [--part tuned|reported|report] [--peers none|mixed] [--stops on|off] [--lives 1]
 */
import { parseArgs } from "node:util";
import {
  defaultPrior,
  dynamicViscosity,
  learnPrior,
  random,
  type AssessPoint,
  type AssessReading,
  type WearPrior,
} from "@core";
import { fleetFluid, fleetReference, simulateFleet, type FleetLaw, type FleetLife } from "../../core/simulation/fleet";
import { oilTemperatureAt } from "../../core/simulation/life";
import type { UniverseFamily } from "../../core/simulation/universe";
import { drawnSeed } from "./drawn";
import { contextOf, peerOf, pointOf, readingsOf } from "./origins";
import {
  alarms,
  DAY,
  daysAhead,
  familyLives,
  LEAD_DAYS,
  LENGTHS,
  limitOf,
  NOISES,
  takenBack,
  TO_ORDER,
  toldOf,
  warns,
  YEAR,
  type Told,
} from "./words";

const { values: options } = parseArgs({
  options: {
    part: { type: "string", default: "tuned" },
    peers: { type: "string", default: "none" },
    stops: { type: "string", default: "off" },
    lives: { type: "string", default: "1" },
    worst: { type: "boolean", default: false },
  },
});
const stops = options.stops === "on";
const tuned = options.part === "tuned";
const laws: FleetLaw[] = tuned
  ? ["linear", "exponential", "oneChange", "delayedOnset"]
  : ["clearance", "accelerating", "lumpy", "fading", "squareRoot", "twoChanges", "wanderingRate"];
const families: UniverseFamily[] = tuned
  ? ["feedback", "ageing", "multiplies", "seasons", "compound"]
  : ["jumps", "wanders", "blows", "rests", "renewals"];
/** "reported" has been looked at for long; "report" is drawn anew every day, of the same families. */
const drawn = options.part === "report" ? drawnSeed("alarms") : null;
let seed = drawn?.seed ?? (tuned ? 140_000 : 190_000);

function mixedPeers(turn: number, hours: number, noise: number, count: number): WearPrior {
  if (options.peers === "none") return defaultPrior;
  const told = Array.from({ length: 8 }, (_, i) => {
    const law = laws[(turn + i) % laws.length]!;
    const [life] = simulateFleet({
      law,
      noise,
      readingsPerLife: count,
      seed: turn * 100 + i,
      lives: 1,
      timeScale: hours,
    });
    return life ? peerOf(life, i, i % 3 === 0 ? "replaced" : "ended") : [];
  }).flat();
  return learnPrior(told, defaultPrior);
}

interface Lived {
  key: string;
  alert: number;
  alarm: number;
  alertBack: boolean;
  alarmBack: boolean;
  silent: boolean;
  /** How often "not before" was said of it, and how often that was wrong. */
  notBefore: number;
  wrong: number;
}

function lived(key: string, life: FleetLife, prior: WearPrior): Lived {
  const before = life.readings.filter((r) => r.hours <= life.crossing);
  const limitAt = limitOf(life);
  const told = toldOf(readingsOf(life, before.length), pointOf(life), stops, (now) =>
    contextOf(life, prior, now),
  ).filter((t) => t.at < limitAt);
  return {
    key,
    alert: daysAhead(told, warns, limitAt),
    alarm: daysAhead(told, alarms, limitAt),
    alertBack: takenBack(told, warns),
    alarmBack: takenBack(told, alarms),
    silent: told.some((t) => !warns(t) && t.p50 !== null && t.p50 <= t.at + LEAD_DAYS * DAY),
    notBefore: told.filter((t) => t.notBefore !== null).length,
    wrong: told.filter((t) => t.notBefore !== null && t.notBefore > limitAt).length,
  };
}

const wearing: Lived[] = [];
for (const [i, [hours, count]] of LENGTHS.entries())
  for (const law of laws)
    for (let n = 0; n < Number(options.lives); n++) {
      seed++;
      const noise = NOISES[(seed + i) % NOISES.length]!;
      const [life] = simulateFleet({ law, noise, readingsPerLife: count, seed, lives: 1, timeScale: hours });
      if (life) wearing.push(lived(`${law} ${hours} ${noise}`, life, mixedPeers(seed, hours, noise, count)));
    }
const lives = Number(options.lives);
for (const { family, hours, count, noise, seed: own, life } of familyLives(seed, families, lives))
  wearing.push(lived(`${family} ${hours} ${noise}`, life, mixedPeers(own, hours, noise, count)));
seed += LENGTHS.length * families.length * lives;

/** Points that never wear: a case drain, a pressure, a flow, a temperature with its seasons; five years, every month. */
const steadyKinds: {
  point: AssessPoint;
  read(at: number, rng: ReturnType<typeof random>): Partial<AssessReading> & { value: number };
}[] = [
  {
    point: {
      quantity: "caseDrainFlow",
      limit: { basis: "absolute", upper: 4.8, lower: null },
      reference: fleetReference,
      fullFlow: null,
      knownWhenNew: true,
      makersNew: null,
    },
    read: (at, rng) => {
      const temperature = oilTemperatureAt(at, {}, rng);
      const pressure = 208 + 6 * rng.normal();
      const thin = dynamicViscosity(fleetFluid, temperature) / dynamicViscosity(fleetFluid, fleetReference.temperature);
      return {
        value: 1.2 * (pressure / fleetReference.pressure) * thin ** -1 * Math.exp(0.06 * rng.normal()),
        temperature,
        pressure,
      };
    },
  },
  ...(
    [
      ["pressure", 210, 2.5, { upper: 235, lower: 190 }, 0],
      ["flow", 92, 1.6, { upper: null, lower: 80 }, 0],
      ["temperatureRise", 9, 0.8, { upper: 20, lower: null }, 2],
      ["temperature", 55, 1.5, { upper: 80, lower: null }, 6],
    ] as const
  ).map(([quantity, level, scatter, limit, season]) => ({
    point: {
      quantity,
      limit: { basis: "absolute" as const, ...limit },
      reference: null,
      fullFlow: null,
      knownWhenNew: true,
      makersNew: null,
    },
    read: (at: number, rng: ReturnType<typeof random>) => ({
      value: level + season * Math.sin((2 * Math.PI * at) / YEAR) + scatter * rng.normal(),
    }),
  })),
];
let [falseAlerts, falseAlarms, pointYears] = [0, 0, 0];
for (const [k, kind] of steadyKinds.entries())
  for (let n = 0; n < 6 * Number(options.lives); n++) {
    const rng = random(seed + 1000 * k + n).fork("steady");
    const start = Date.UTC(2019, Math.floor(rng.uniform() * 12), 1);
    const readings = Array.from({ length: 60 }, (_, i): AssessReading => {
      const at = start + i * 30 * DAY + Math.floor(rng.uniform() * 5) * DAY;
      return {
        id: String(i),
        at,
        hours: i * 360,
        pressure: null,
        temperature: null,
        uncertainty: null,
        doubtful: false,
        recalled: false,
        ...kind.read(at, rng),
      };
    });
    const life = { hoursPerDay: 12 } as FleetLife;
    const told = toldOf(readings, kind.point, stops, (now) => contextOf(life, defaultPrior, now));
    const begins = (says: (t: Told) => boolean) =>
      told.filter((t, i) => says(t) && !(i > 0 && says(told[i - 1]!))).length;
    falseAlerts += begins(warns);
    falseAlarms += begins(alarms);
    pointYears += (readings.at(-1)!.at - readings[0]!.at) / YEAR;
    if (options.worst && begins(warns)) process.stderr.write(`false: ${kind.point.quantity} ${n}\n`);
  }

const share = (of: (l: Lived) => boolean) => `${((100 * wearing.filter(of).length) / wearing.length).toFixed(0)} %`;
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!.toFixed(0);
const inTime = LEAD_DAYS + TO_ORDER / DAY;
if (options.worst)
  for (const l of wearing)
    process.stderr.write(
      `${l.key}: alert ${l.alert.toFixed(0)}${l.alertBack ? " taken back" : ""}, alarm ${l.alarm.toFixed(0)}` +
        `${l.alarmBack ? " taken back" : ""}${l.silent ? ", silent" : ""}\n`,
    );
const sum = (of: (l: Lived) => number) => wearing.reduce((total, l) => total + of(l), 0);
if (drawn) process.stdout.write(`${drawn.told}\n`);
process.stdout.write(
  [
    `| ${options.part}, peers ${options.peers}, stops ${options.stops}: ${wearing.length} lives | alert or alarm | alarm |`,
    "|---|---|---|",
    `| told by ${inTime} days before (aim 95 %) | ${share((l) => l.alert >= inTime)} | ${share((l) => l.alarm >= inTime)} |`,
    `| told at all before | ${share((l) => l.alert > 0)} | ${share((l) => l.alarm > 0)} |`,
    `| days ahead, median | ${median(wearing.map((l) => l.alert))} | ${median(wearing.map((l) => l.alarm))} |`,
    `| over a year early (under 25 %) | ${share((l) => l.alert > 365)} | ${share((l) => l.alarm > 365)} |`,
    `| taken back (under 10 %) | ${share((l) => l.alertBack)} | ${share((l) => l.alarmBack)} |`,
    `| silent though P50 is inside the lead time (none) | ${share((l) => l.silent)} | |`,
    `| “not before” is wrong (at most 8 %), of ${sum((l) => l.notBefore)} | ${(
      (100 * sum((l) => l.wrong)) /
      Math.max(
        1,
        sum((l) => l.notBefore),
      )
    ).toFixed(0)} % | |`,
    `| false, a point-year (under 0.02), of ${pointYears.toFixed(0)} | ${(falseAlerts / pointYears).toFixed(3)} | ${(falseAlarms / pointYears).toFixed(3)} |`,
    "",
  ].join("\n"),
);
