/** The oil of a circuit over five years: fills, top-ups and samples, by what truly happens to it. */
import { DAY, MONTH, YEAR, mixtureViscosity, type AnalyteId, type Random, type Results } from "@core";
import type { MachinePlan } from "./world";

export interface DemoFluid {
  name: string;
  kv40: number;
  kv100: number;
  density15: number;
  fresh: Partial<Record<AnalyteId, number>>;
}

export interface DemoMove {
  kind: "fill" | "change" | "topUp";
  at: number;
  litres: number;
  fluid: string;
  note: string;
}

export interface DemoSample {
  at: number;
  hours: number;
  results: Results;
  place: "port" | "drain";
  state: "working" | "cold";
  note: string;
}

/** Particles per mL over each size in clean oil here: a little under half of what 18/16/13 allows. */
const cleanCounts = { over4: 900, over6: 240, over14: 30, over21: 8, over38: 1.2, over70: 0.15 };
/** ppm made per 1000 running hours as long as nothing is wrong. */
const usualRates: Partial<Record<AnalyteId, number>> = {
  iron: 1.6,
  chromium: 0.25,
  copper: 0.8,
  tin: 0.2,
  aluminium: 0.3,
  lead: 0.25,
  nickel: 0.1,
  silicon: 0.45,
  sodium: 0.25,
};
/** What the laboratory can still read, ppm. */
const leastRead = 0.6;
/** Oil is changed after so many years and topped up every so many months. */
const CHANGE_YEARS = 2.4;
const TOP_UP_MONTHS = 3;
const HISTORY_YEARS = 5.2;

export interface OilHistory {
  moves: DemoMove[];
  samples: DemoSample[];
  /** The fluid as it truly was at a moment. */
  fluidAt(at: number): DemoFluid;
}

export function oilHistory(
  plan: MachinePlan,
  fluids: readonly DemoFluid[],
  now: number,
  hoursAt: (at: number) => number,
  rng: Random,
): OilHistory {
  const oil = plan.oil ?? {};
  const volume = oil.volume ?? 250;
  const stated = fluids.find((f) => f.name === plan.fluid)!;
  const small = plan.components.length < 5;
  const begin = now - HISTORY_YEARS * YEAR;
  const moves: DemoMove[] = [{ kind: "fill", at: begin, litres: volume, fluid: stated.name, note: "" }];
  // the phase differs from machine to machine, so that not every oil is changed on one day
  for (
    let years = HISTORY_YEARS - rng.between(0.9, CHANGE_YEARS);
    years > 0.3;
    years -= CHANGE_YEARS + rng.between(-0.15, 0.15)
  )
    moves.push({ kind: "change", at: now - years * YEAR, litres: volume, fluid: stated.name, note: "By age" });
  for (
    let at = begin + TOP_UP_MONTHS * MONTH;
    at < now - 12 * DAY;
    at += (TOP_UP_MONTHS + rng.between(-0.4, 0.4)) * MONTH
  )
    moves.push({
      kind: "topUp",
      at,
      litres: Math.round(volume * rng.between(0.02, 0.04)),
      fluid: stated.name,
      note: "",
    });
  const wrong = oil.wrongFill && { ...oil.wrongFill, at: now - oil.wrongFill.daysAgo * DAY };
  if (wrong) {
    // after the wrong drum nobody changed the oil
    for (let i = moves.length - 1; i > 0; i--) if (moves[i]!.at > wrong.at - 30 * DAY) moves.splice(i, 1);
    moves.push({
      kind: "topUp",
      at: wrong.at,
      litres: wrong.litres,
      fluid: wrong.fluid,
      note: "Hose burst; drum from the ramp store",
    });
  }
  const contaminatedAt = oil.contamination ? now - oil.contamination.daysAgo * DAY : Infinity;
  const flushedAt = oil.flushed ? now - oil.flushed.daysAgo * DAY : Infinity;
  if (oil.contamination)
    for (let i = moves.length - 1; i > 0; i--)
      if (moves[i]!.kind === "change" && moves[i]!.at > contaminatedAt - 200 * DAY) moves.splice(i, 1);
  moves.sort((a, b) => a.at - b.at);

  const fluidAt = (at: number): DemoFluid => {
    if (!wrong || at < wrong.at) return stated;
    const other = fluids.find((f) => f.name === wrong.fluid)!;
    const share = wrong.litres / volume;
    const mixed = (key: "kv40" | "kv100") =>
      mixtureViscosity([
        { share: 1 - share, viscosity: stated[key] },
        { share, viscosity: other[key] },
      ]);
    return {
      ...stated,
      kv40: mixed("kv40"),
      kv100: mixed("kv100"),
      density15: (1 - share) * stated.density15 + share * other.density15,
    };
  };

  // strict circuits are kept cleaner
  const strict = plan.pressure > 210 ? 0.45 : 1;
  const times = sampleTimes(oil.everyDays ?? (small ? 130 : 75), now, begin, rng);
  const samples: DemoSample[] = [];
  const metals: Partial<Record<AnalyteId, number>> = {};
  const ids = Object.keys(usualRates) as AnalyteId[];
  for (const id of ids) metals[id] = 0;
  let day = begin;
  let next = 1;
  const live = (at: number): void => {
    for (; day < at; day += DAY) {
      const hours = hoursAt(day + DAY) - hoursAt(day);
      for (const id of ids)
        metals[id]! +=
          ((usualRates[id]! * (day >= contaminatedAt ? (oil.contamination!.metals[id] ?? 1) : 1)) / 1000) * hours;
      while (next < moves.length && moves[next]!.at <= day) {
        const move = moves[next++]!;
        const fresh = fluids.find((f) => f.name === move.fluid)!.fresh;
        for (const id of ids)
          metals[id] =
            move.kind === "change"
              ? (fresh[id] ?? 0) + 0.05 * metals[id]!
              : metals[id]! + (move.litres / volume) * ((fresh[id] ?? 0) - metals[id]!);
      }
    }
  };
  const ageYears = (at: number) => (at - moves.filter((m) => m.kind !== "topUp" && m.at <= at).at(-1)!.at) / YEAR;
  const sampleAt = (at: number, change: Partial<DemoSample> = {}, factor = 1): DemoSample => {
    live(at);
    const lab = (value: number, share = 0.05) => value * (1 + share * rng.normal());
    const common =
      Math.exp(0.2 * rng.normal()) * strict * factor * (at >= contaminatedAt ? oil.contamination!.counts : 1);
    const silt = oil.silting
      ? 2 ** Math.max(0, (at - (now - oil.silting.sinceDaysAgo * DAY)) / DAY / oil.silting.doublingDays)
      : 1;
    let before = Infinity;
    const counts = Object.fromEntries(
      Object.entries(cleanCounts).map(([id, usual]) => {
        const raw =
          usual * common * Math.exp(0.1 * rng.normal()) * (id === "over4" ? silt * (oil.silting ? 0.62 : 1) : 1);
        before = Math.min(before, raw);
        return [id, { value: Number(before.toPrecision(3)) }];
      }),
    );
    const fluid = fluidAt(at);
    const metalResults = Object.fromEntries(
      ids.map((id) => {
        const value = lab(metals[id]!);
        return [id, value < leastRead ? { value: leastRead, below: true } : { value: Number(value.toFixed(1)) }];
      }),
    );
    const additives = Object.fromEntries(
      (["zinc", "phosphorus", "calcium"] as const).flatMap((id) =>
        fluid.fresh[id] ? [[id, { value: Math.round(lab(fluid.fresh[id] * 0.96, 0.02)) }]] : [],
      ),
    );
    const wet = oil.water && at >= now - oil.water.sinceDaysAgo * DAY;
    const water = wet ? lab(oil.water!.ppm, 0.08) : lab(110, 0.25);
    return {
      at,
      hours: Math.round(hoursAt(at) * 10) / 10,
      place: "port",
      state: "working",
      note: "",
      ...change,
      results: {
        ...counts,
        ...metalResults,
        ...additives,
        water: water < 50 ? { value: 50, below: true } : { value: Math.round(water) },
        kv40: { value: Number(lab(fluid.kv40, 0.006).toFixed(1)) },
        kv100: { value: Number(lab(fluid.kv100, 0.006).toFixed(2)) },
        acidNumber: { value: Number(lab((fluid.fresh.acidNumber ?? 0.3) + 0.07 * ageYears(at), 0.03).toFixed(2)) },
      },
    };
  };
  for (const at of times) {
    if (Math.abs(at - flushedAt) < 25 * DAY) continue;
    if (at > flushedAt && samples.every((s) => s.at < flushedAt)) samples.push(...flush());
    samples.push(sampleAt(at));
  }
  function flush(): DemoSample[] {
    // an off-line filter on the tank: what it takes out is seen from one quarter of an hour to the next
    const minutes = [0, 20, 45, 90, 150, 240];
    const clean = 0.4;
    return minutes.map((m) =>
      sampleAt(
        flushedAt + m * 60_000,
        {
          hours: Math.round((hoursAt(flushedAt) + m / 60) * 100) / 100,
          note: m === 0 ? "Pump broken up; before the flush" : `Off-line filter for ${m} min`,
        },
        clean + (oil.flushed!.counts - clean) * Math.exp(-m / 38),
      ),
    );
  }
  if (oil.fromDrain !== undefined)
    samples.push(
      sampleAt(
        now - oil.fromDrain * DAY,
        { place: "drain", state: "cold", note: "Bottle filled at the drain cock" },
        30,
      ),
    );
  return { moves, samples: samples.sort((a, b) => a.at - b.at), fluidAt };
}

/** Sample days, oldest first, the newest between one and five weeks ago. */
function sampleTimes(everyDays: number, now: number, begin: number, rng: Random): number[] {
  const times: number[] = [];
  for (
    let at = now - Math.round(rng.between(6, 34)) * DAY;
    at > begin + 20 * DAY;
    at -= Math.round(everyDays * rng.between(0.85, 1.15)) * DAY
  )
    times.push(Math.floor(at / DAY) * DAY + Math.round(rng.between(8, 15) * 60) * 60_000);
  return times.reverse();
}
