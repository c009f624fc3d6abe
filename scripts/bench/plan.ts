/**
 * Policies over simulated years: the plan against a greedy rule, run to the limit, fixed intervals, and one who knows the
 * future. Lives, forecasts and failures are drawn; every policy meets the same ones.
 *
 *   npx tsx scripts/bench/plan.ts [machines] [years] [seed] [stated spread over true]
 */
import loadHighs from "highs";
import {
  ageReplacement,
  linesOf,
  noWishes,
  random,
  solvePlan,
  type PlanCosts,
  type PlanPiece,
  type PlanProblem,
  type PlanStop,
  type Random,
} from "@core";

const DAY = 86_400_000;
const MONTH = 30.4375 * DAY;
const YEAR = 365.25 * DAY;
/** Everything is looked at again so often. */
const EPOCH = 2 * MONTH;
const STOPS_APART = 4 * MONTH;
/** Parts whose P10 lies within this are pieces of the plan. */
const AHEAD = 1.5 * YEAR;
/** Lives are Weibull: shape, and scales in years by kind. */
const SHAPE = 2.5;
const kinds = [
  { scale: 6, hours: 10, part: 5200, failure: 28_000, lead: 70 },
  { scale: 8, hours: 7, part: 3100, failure: 12_000, lead: 42 },
  { scale: 9, hours: 12, part: 2600, failure: 16_000, lead: 35 },
  { scale: 4, hours: 4, part: 450, failure: 7000, lead: 10 },
];
const costs: PlanCosts = {
  currency: "€",
  crewHour: 65,
  overHour: 260,
  opening: 400,
  extraStop: 1800,
  standing: 250,
  failsAMonth: 0.1,
};
/** Spread of the time left that a forecast has, as a share of it: little when the limit is near, in ln units. */
const spreadAt = (left: number) => 0.15 + 0.35 * Math.min(1, left / (3 * YEAR));
const QUANTILES = 40;

interface Part {
  id: string;
  machine: string;
  kind: (typeof kinds)[number];
  rng: Random;
  born: number;
  crosses: number;
  fails: number;
  /** Where the forecast of this life errs, in its own standard deviations. */
  errs: number;
  orderedAt: number | null;
}

interface Tally {
  cost: number;
  failures: number;
  thrown: number;
  renewals: number;
  own: number;
}

function newLife(part: Part, at: number): void {
  part.born = at;
  part.crosses = at + part.kind.scale * YEAR * (-Math.log(1 - part.rng.uniform())) ** (1 / SHAPE);
  part.fails = part.crosses + (-Math.log(1 - part.rng.uniform()) / -Math.log(1 - costs.failsAMonth)) * MONTH;
  part.errs = part.rng.normal();
  part.orderedAt = null;
}

function fleet(machines: number, seed: number): Part[] {
  const rng = random(seed);
  return Array.from({ length: machines }, (_, m) =>
    kinds.map((kind, k): Part => {
      const part = {
        id: `${m}/${k}`,
        machine: `m${m}`,
        kind,
        rng: rng.fork(`${m}/${k}`),
        born: 0,
        crosses: 0,
        fails: 0,
        errs: 0,
        orderedAt: null,
      };
      newLife(part, -part.rng.uniform() * kind.scale * 0.6 * YEAR);
      // nobody begins with a part that has failed already
      while (part.fails < 0) newLife(part, 0);
      return part;
    }),
  ).flat();
}

/** Quantiles of the crossing as the forecast tells them; `stated`: the spread that it states over the one that it has. */
function forecastOf(part: Part, now: number, stated: number): number[] {
  const left = part.crosses - now;
  if (left <= 0) return [now];
  const spread = spreadAt(left);
  const median = left * Math.exp(spread * part.errs);
  return Array.from({ length: QUANTILES }, (_, i) => {
    const u = (i + 0.5) / QUANTILES;
    const z = Math.log(u / (1 - u)) / 1.702; // logistic for normal, within 0.01
    return now + median * Math.exp(-spread * stated * -z);
  });
}

type Action = { part: Part; at: number; stop: string | null };
type Policy = (parts: readonly Part[], now: number, stops: readonly PlanStop[]) => Action[];

const partAt = (part: Part, now: number) => (part.orderedAt ?? now) + part.kind.lead * DAY;

async function planned(crossings: (part: Part, now: number) => number[], hazard = costs.failsAMonth): Promise<Policy> {
  const highs = await loadHighs();
  return (parts, now, stops) => {
    const pieces = parts.flatMap((part): PlanPiece[] => {
      const told = crossings(part, now);
      if (told[Math.floor(told.length / 10)]! > now + AHEAD) return [];
      return [
        {
          id: part.id,
          label: part.id,
          machine: part.machine,
          circuit: part.machine,
          hours: { mechanical: part.kind.hours },
          partAt: Math.max(now, partAt(part, now)),
          partSure: part.orderedAt !== null,
          crossings: told,
          since: part.born,
          costs: { part: part.kind.part, failure: part.kind.failure },
          reads: null,
          booked: null,
        },
      ];
    });
    const problem: PlanProblem = {
      now,
      until: now + AHEAD,
      stops,
      pieces,
      costs: { ...costs, failsAMonth: hazard },
      wishes: noWishes,
    };
    const { prepared, step } = solvePlan(problem, highs, { gap: 0.01, seconds: 4 });
    return linesOf(prepared, step.choice).flatMap(({ piece, option }) =>
      option.kind === "wait"
        ? []
        : [
            {
              part: parts.find((p) => p.id === piece)!,
              at: option.at,
              stop: option.kind === "stop" ? option.id : null,
            },
          ],
    );
  };
}

/** Fill stops in order, as far as their crews go; what fits nowhere gets a stop of its own when its part is there. */
function fill(wanted: readonly { part: Part; by: number }[], now: number, stops: readonly PlanStop[]): Action[] {
  const left = new Map(stops.map((s) => [s.id, s.crew.mechanical ?? 0]));
  return [...wanted]
    .sort((a, b) => a.by - b.by)
    .map(({ part, by }): Action => {
      const ready = partAt(part, now);
      const stop = stops.find((s) => s.at >= ready && s.at <= by && left.get(s.id)! >= part.kind.hours);
      if (!stop) return { part, at: Math.max(now, ready, Math.min(by, now + AHEAD)), stop: null };
      left.set(stop.id, left.get(stop.id)! - part.kind.hours);
      return { part, at: stop.at, stop: stop.id };
    });
}

/** Earliest stop before P10, for parts whose P10 lies within so long. */
const greedy =
  (stated: number, within: number): Policy =>
  (parts, now, stops) =>
    fill(
      parts.flatMap((part) => {
        const told = forecastOf(part, now, stated);
        const p10 = told[Math.floor(told.length / 10)]!;
        return p10 <= now + within ? [{ part, by: p10 }] : [];
      }),
      now,
      stops,
    );

/** Wait until the limit is crossed, then order, then stop. */
const toTheLimit: Policy = (parts, now) =>
  parts.flatMap((part) => (part.crosses <= now ? [{ part, at: Math.max(now, partAt(part, now)), stop: null }] : []));

/** The age that costs least by the lives of a kind, ms. */
const bestAge = new Map(
  kinds.map((kind) => {
    const planned = kind.hours * costs.crewHour + costs.opening + kind.part;
    const { age } = ageReplacement({ shape: SHAPE, scale: kind.scale * YEAR, planned, unplanned: kind.failure });
    return [kind, age ?? Infinity] as const;
  }),
);

/** By age: the first stop after it. */
const byAge: Policy = (parts, now, stops) =>
  fill(
    parts.flatMap((part) => {
      const due = part.born + bestAge.get(part.kind)!;
      return due <= now + EPOCH ? [{ part, by: Math.max(due, now) + STOPS_APART }] : [];
    }),
    now,
    stops,
  );

function simulate(policy: Policy, machines: number, years: number, seed: number): Tally[] {
  const parts = fleet(machines, seed);
  const tallies = Array.from({ length: years }, (): Tally => ({
    cost: 0,
    failures: 0,
    thrown: 0,
    renewals: 0,
    own: 0,
  }));
  const of = (at: number) => tallies[Math.min(years - 1, Math.floor(at / YEAR))]!;
  const crew = (machines * 4 * 8 * STOPS_APART) / (5 * YEAR);
  for (let now = 0; now < years * YEAR; now += EPOCH) {
    const stops = Array.from({ length: 8 }, (_, i): PlanStop => {
      const at = (Math.floor(now / STOPS_APART) + i + 0.5) * STOPS_APART;
      return { id: String(at), name: String(at), at, crew: { mechanical: 1.6 * crew }, machines: null };
    }).filter((s) => s.at >= now);
    const actions = policy(parts, now, stops);
    for (const a of actions)
      if (a.part.orderedAt === null && a.at - now <= a.part.kind.lead * DAY + EPOCH) a.part.orderedAt = now;
    const until = now + EPOCH;
    const due = actions.filter((a) => a.at < until && a.at >= partAt(a.part, now) - 1);
    const opened = new Set<string>();
    const hours = new Map<string, number>();
    for (const part of parts) {
      const own = due.find((a) => a.part === part);
      const at = own?.at ?? until;
      if (part.fails < at) {
        const t = of(part.fails);
        t.failures += 1;
        t.cost += part.kind.failure;
        newLife(part, part.fails);
        continue;
      }
      if (!own) continue;
      const t = of(at);
      const left = Math.max(0, part.crosses - at) / (part.crosses - part.born);
      const key = `${part.machine} ${own.stop ?? Math.round(at / DAY)}`;
      const opens = opened.has(key) ? 0 : costs.opening + (own.stop === null ? costs.extraStop : 0);
      opened.add(key);
      if (own.stop) hours.set(own.stop, (hours.get(own.stop) ?? 0) + part.kind.hours);
      t.renewals += 1;
      t.own += own.stop === null && opens > 0 ? 1 : 0;
      t.thrown += left * part.kind.part;
      t.cost +=
        part.kind.hours * (costs.crewHour + (own.stop === null ? costs.standing : 0)) +
        part.kind.part * (1 + left) +
        opens;
      newLife(part, at);
    }
    for (const [stop, taken] of hours) {
      const over = Math.max(0, taken - 1.6 * crew);
      of(Number(stop)).cost += over * costs.overHour;
    }
  }
  return tallies;
}

const [machines = 24, years = 30, seed = 1, stated = 1] = process.argv.slice(2).map(Number);
const policies: [string, Policy][] = [
  ["plan", await planned((p, now) => forecastOf(p, now, stated))],
  ["greedy, earliest stop before P10, looks 9 months ahead", greedy(stated, AHEAD / 2)],
  ["greedy, looks 18 months ahead as the plan does", greedy(stated, AHEAD)],
  ["run to the limit", toTheLimit],
  ["fixed intervals", byAge],
  ["plan that knows the day of the limit", await planned((p) => [p.crosses])],
  ["plan that knows the day of the failure", await planned((p) => [p.fails], 0.999)],
];
const line = (text: string) => process.stdout.write(`${text}\n`);
line(`${machines} machines, ${machines * kinds.length} parts, ${years} years, seed ${seed}, stated spread × ${stated}`);
line("| policy | cost a year | sd over years | failures a year | life thrown away a year | own stops a year |");
line("|---|---|---|---|---|---|");
for (const [name, policy] of policies) {
  const began = performance.now();
  const all = simulate(policy, machines, years, seed);
  const mean = (f: (t: Tally) => number) => all.reduce((sum, t) => sum + f(t), 0) / all.length;
  const cost = mean((t) => t.cost);
  const sd = Math.sqrt(mean((t) => (t.cost - cost) ** 2));
  const row = [cost, sd, mean((t) => t.failures), mean((t) => t.thrown), mean((t) => t.own)];
  line(`| ${name} | ${row.map((v) => (v < 100 ? v.toFixed(1) : v.toFixed(0))).join(" | ")} |`);
  process.stderr.write(`${name}: ${((performance.now() - began) / 1000).toFixed(0)} s\n`);
}
