/**
 * Everything that a circuit's oil says, read together: codes against target, steps and trends of counts, wear metals,
 * filters, fluid, and whether the machine agrees. Pure; made when a sample or a reading lands, never while a page loads.
 */
import { YEAR } from "../units/time";
import { urgencyOf } from "../state/state";
import { overTarget } from "../contamination/target";
import { iso4406Bounds } from "../contamination/iso4406";
import { kinematicViscosity } from "../fluid/viscosity";
import { classSolubility, waterShare } from "../fluid/water";
import { mannKendall } from "../trend/mannKendall";
import { median } from "../trend/robust";
import { theilSen } from "../trend/theilSen";
import { agreementOf, leakRising, leakSince, type LeakChange } from "./agreement";
import { analytes, wearMetalIds, type AnalyteId, type WearMetalId } from "./analytes";
import { dirtCauses } from "./causes";
import { countFor, sampleCodes } from "./codes";
import { elementFinding } from "./element";
import { fluidAt, type MeasuredViscosity } from "../fluid/measured";
import { currentFill, fillAge, measuredViscosities, viscosityOff } from "./fill";
import { metalList, partSuspects } from "./parts";
import { incomparable, middle, type OilSample } from "./sample";
import { remarkSays } from "./remark";
import { stepUp } from "./step";
import { suitsParts } from "./suits";
import { circuitTarget, type CircuitTarget } from "./target";
import type { CountTrend, OilAssessment, OilComponentInput, OilInput } from "./types";
import { ACID, findingsOf, lower, rising, stateOf, verdictOf, VISCOSITY, WATER, type Parts } from "./verdict";
import { metalAlarm, metalSeries } from "./wear";

const SIZES = ["over4", "over6", "over14"] as const;
/** ln scatter of a count (common practice). */
const SCATTER = 0.3;
const KEPT_RATES = 12;

/** ISO 4406 number as a continuous figure: a doubling is one. */
function exactNumber(count: number): number {
  return Math.log2(Math.max(count, iso4406Bounds[0] / 2) / iso4406Bounds[0]);
}

const isComparable = (s: OilSample) => incomparable(s) === null;

/**
 * The condition of one circuit's oil: samples against target and own history, water, metals, filters, age, and what made it so.
 * @param input samples and moves of oil in time order, components, limits; epoch ms, L, bar, ppm
 * @returns state, margin used, findings and verdict
 * @throws {RangeError} for a code that is none
 * @example
 * const nothing = { now: 0, volume: null, workingPressure: null, hoursPerDay: 8, hoursAt: () => 0, targetSet: null, fluid: null };
 * const rest = { temperatures: { start: null, working: null, hottest: null }, metalLimits: {}, peerRates: {} };
 * const empty = { samples: [], moves: [], components: [], leaks: [], longest: { hours: null, months: null } };
 * assessOil({ ...nothing, ...rest, ...empty }).state // "unread"
 */
export function assessOil(input: OilInput): OilAssessment {
  const all = input.samples.filter(isComparable);
  const fill = currentFill(input.moves, input.now);
  // what was drained is history: judged is what is in the tank
  const comparable = fill ? all.filter((s) => s.at >= fill.at) : all;
  const unsampled = fill !== null && comparable.length === 0 && all.length > 0;
  const target = circuitTarget(input.components, input.workingPressure, input.targetSet);
  const coded = comparable.flatMap((s) => {
    const codes = sampleCodes(s);
    return codes ? [{ sample: s, codes }] : [];
  });
  const last = coded.at(-1) ?? null;
  const over = last && target ? overTarget(last.codes.iso, target) : [];
  const stepped = countStep(all, target);
  // a step that the change of oil took with it is over; one that the new oil shows again is not
  const step = stepped && fill && stepped.by < fill.at && (unsampled || !stepped.still) ? null : stepped;
  const trends = { over4: trendOf(all, "over4"), over14: trendOf(all, "over14") };
  // a counter only goes forward: one that was misread must not run the metals backwards
  let counter = -Infinity;
  const dated = all.map((s) => {
    counter = Math.max(counter, s.hours ?? input.hoursAt(s.at));
    return { ...s, hours: counter };
  });
  const series = Object.fromEntries(
    [...wearMetalIds, "silicon" as const, "sodium" as const].map((id) => [
      id,
      metalSeries(id, dated, input.moves, input.volume),
    ]),
  );
  const metals = (unsampled ? [] : Object.entries(series)).flatMap(
    ([id, s]) =>
      metalAlarm(id as AnalyteId, s, input.peerRates[id as AnalyteId] ?? [], input.metalLimits[id as AnalyteId]) ?? [],
  );
  const rose = metals.filter((m) => analytes[m.id].group === "wear" && m.passed.includes("own"));
  const since = rose.map((m) => m.since!).sort((a, b) => a.by - b.by)[0] ?? null;
  // what the oil says happened: the step of the counts where there is one, else the rise of the metals
  const silting = !step && rising(trends.over4);
  const moment = step?.after ?? since?.after ?? (silting ? all.slice(-24)[0]!.at : null);
  const leaks = moment === null ? [] : input.leaks.map((l) => (silting ? leakRising(l) : leakSince(l, moment)));
  const reported = metals.filter((m) => analytes[m.id].group === "wear").map((m) => m.id as WearMetalId);
  const roseIds = rose.map((m) => m.id as WearMetalId);
  const { suspects, none } = partSuspects(
    roseIds,
    reported.filter((id) => !roseIds.includes(id)),
    input.components.map((c) => ({
      componentId: c.id,
      name: c.name,
      kind: c.kind,
      materials: c.materials,
      worse: worseOf(leaks, c.id),
    })),
  );
  const age = fill ? fillAge(fill, input.longest, input.now, input.hoursAt(input.now), input.hoursPerDay) : null;
  const measured = input.fluid ? measuredViscosities(all, input.fluid, fill?.at ?? -Infinity) : [];
  const working = input.temperatures.working ?? 45;
  const real = input.fluid ? fluidAt(input.fluid, measured, input.now) : null;
  const filters = input.components.flatMap((c) => filterOf(c, input, measured));
  const metalWords = metalList(roseIds);
  const outside = metals
    .filter((m) => analytes[m.id].group === "contaminant" && m.passed.includes("own"))
    .map((m) => analytes[m.id].short)
    .join(" and ");
  const causes = step
    ? dirtCauses({
        step: { after: step.after, by: step.by },
        outside,
        metals: since ? { words: metalWords, by: since.by } : null,
        filters: filters.map((f) => ({
          componentId: f.componentId,
          name: lower(f.name),
          past: f.past,
          pastSince: f.pastSince,
          blocked: f.blockedSpans,
        })),
        fitted: input.components
          .filter((c) => !c.filter)
          .flatMap((c) => c.lives.slice(1).map((l) => ({ componentId: c.id, name: lower(c.name), at: l.startedAt }))),
        fills: input.moves
          .filter((m) => m.kind !== "drained")
          .map((m) => ({ at: m.at, litres: m.litres, fluid: m.fluidName, other: m.otherFluid })),
      })
    : [];
  const water = waterOf(comparable, input, working);
  const off = input.fluid && real && measured.length > 0 ? viscosityOff(input.fluid, real, working) : null;
  const acid = acidRise(comparable, input);
  const suitability =
    input.fluid && real ? suitsParts({ ...real, type: input.fluid.type }, input.components, input.temperatures) : [];
  const worst = over.length > 0 ? Math.max(...over.map((o) => o ?? -Infinity)) : null;
  const newest = comparable.at(-1);
  const parts = {
    unsampled: unsampled ? fill!.at : null,
    remark: newest?.remark ? { text: newest.remark, says: remarkSays(newest.remark), at: newest.at } : null,
    input,
    target,
    last,
    worst,
    step,
    trends,
    metals,
    rose,
    suspects,
    filters,
    off,
    acid,
    water,
    causes,
    leaks,
    suitability,
    age,
  };
  const findings = findingsOf(parts, since, outside);
  const state = stateOf(parts, all.length);
  const margin = worstMargin(
    marginOf(
      coded.map((c) => c.sample),
      target,
    ),
    { water, off, acid, age },
  );
  return {
    state,
    urgency: urgencyOf(state, 0, margin?.value ?? null) + (step?.still ? 2 : 0),
    samples: input.samples.length,
    lastAt: input.samples.at(-1)?.at ?? null,
    lastSampleId: last?.sample.id ?? null,
    code: last?.codes.iso.text ?? null,
    target,
    over,
    margin,
    step,
    trends,
    metals,
    suspects,
    suspectsNone: none,
    leaks,
    causes,
    filters,
    measured,
    water,
    suitability,
    age,
    findings,
    verdict: verdictOf(parts, all.length),
    agreement:
      moment === null
        ? null
        : agreementOf(
            silting && roseIds.length === 0 ? ["fine particles"] : roseIds.map((id) => analytes[id].short),
            moment,
            leaks,
          ),
    viscosityOff: off,
    remark: parts.remark,
    unsampled: parts.unsampled,
    metalPoints: series,
    rates: Object.fromEntries(
      Object.entries(series).map(([id, s]) => [
        id,
        s.flatMap((p) => (p.rate === null ? [] : [p.rate])).slice(-KEPT_RATES),
      ]),
    ),
    contamination: step
      ? { at: (step.after + step.by) / 2, factor: step.factor }
      : since
        ? { at: (since.after + since.by) / 2, factor: 2 }
        : null,
  };
}

const worseOf = (leaks: readonly LeakChange[], componentId: string): boolean | null => {
  const own = leaks.filter((l) => l.componentId === componentId && l.worse !== null);
  return own.length === 0 ? null : own.some((l) => l.worse);
};

/** The clearest step over the sizes; `still`: the newest sample stands on the new level. */
function countStep(samples: readonly OilSample[], target: CircuitTarget | null): OilAssessment["step"] {
  let best: (NonNullable<OilAssessment["step"]> & { size: (typeof SIZES)[number] }) | null = null;
  for (const size of SIZES) {
    const counted = samples.flatMap((s) => {
      const count = countFor(s, size);
      return count === null ? [] : [{ at: s.at, ln: Math.log(Math.max(count, 0.01)) }];
    });
    const step = stepUp(counted.map((c) => c.ln));
    if (!step) continue;
    const factor = Math.exp(step.size);
    if (best && factor <= best.factor) continue;
    const before = counted[step.index]!.ln - step.size;
    best = {
      after: counted[step.index - 1]!.at,
      by: counted[step.index]!.at,
      factor,
      size,
      still: counted.at(-1)!.ln > before + step.size / 2,
    };
  }
  // what was long ago, and is clean again, is history
  if (best && !best.still && target && samples.at(-1)!.at - best.by > 2 * YEAR) return null;
  return best;
}

function trendOf(samples: readonly OilSample[], size: "over4" | "over14"): CountTrend | null {
  const counted = samples
    .flatMap((s) => {
      const count = countFor(s, size);
      return count === null ? [] : [{ at: s.at, log2: Math.log2(Math.max(count, 0.01)) }];
    })
    .slice(-24);
  if (counted.length < 6) return null;
  const { slope } = theilSen(
    counted.map((c) => c.at / YEAR),
    counted.map((c) => c.log2),
  );
  return slope === 0 ? null : { doublingYears: 1 / slope, p: mannKendall(counted.map((c) => c.log2)).p };
}

function marginOf(samples: readonly OilSample[], target: CircuitTarget | null): OilAssessment["margin"] {
  if (!target || samples.length === 0) return null;
  const of = (s: OilSample) => {
    const shares = SIZES.flatMap((size, i) => {
      const count = countFor(s, size);
      return count === null ? [] : [1 + (exactNumber(count) - target.codes[i]!) / 2];
    });
    return shares.length ? Math.max(...shares) : null;
  };
  const value = of(samples.at(-1)!);
  if (value === null) return null;
  const doubt = (1.282 * SCATTER) / Math.LN2 / 2;
  return {
    value,
    low: value - doubt,
    high: value + doubt,
    before: samples.length > 1 ? of(samples.at(-2)!) : null,
    of: "particles",
  };
}

/** Two determinations of one laboratory differ by about this share: water, viscosity, acid (common practice). */
const DOUBT = { water: 0.1, viscosity: 0.015, acid: 0.06 };

/** Less of these is nothing to speak of: the margin is of the particles. */
const SHOWN_FROM = { water: WATER.doubt / WATER.bad, viscosity: 0.5, acid: 0.5, age: 0.9 };

/** The margin of what is nearest to its end, particles unless something else is worse. */
function worstMargin(
  particles: OilAssessment["margin"],
  { water, off, acid, age }: Pick<Parts, "water" | "off" | "acid" | "age">,
): OilAssessment["margin"] {
  const plain = (
    value: number,
    doubt: number,
    of: "water" | "viscosity" | "acid" | "age",
  ): NonNullable<OilAssessment["margin"]> => ({
    value,
    low: Math.max(0, value - doubt),
    high: value + doubt,
    before: null,
    of,
  });
  const wet = water && !water.below ? Math.max(water.ppm / WATER.bad, (water.share ?? 0) / 100) : null;
  const others = [
    ...(wet === null ? [] : [plain(wet, DOUBT.water * wet, "water")]),
    ...(off === null ? [] : [plain(Math.abs(off) / VISCOSITY.bad, DOUBT.viscosity / VISCOSITY.bad, "viscosity")]),
    ...(acid === null ? [] : [plain(Math.max(0, acid) / ACID.bad, DOUBT.acid / ACID.bad, "acid")]),
    ...(!age || age.share === null ? [] : [plain(age.share, 0, "age")]),
  ].filter((m) => m.value >= SHOWN_FROM[m.of as keyof typeof SHOWN_FROM]);
  return others.reduce<OilAssessment["margin"]>((worst, m) => (worst && worst.value >= m.value ? worst : m), particles);
}

function filterOf(
  c: OilComponentInput,
  input: OilInput,
  measured: readonly MeasuredViscosity[],
): OilAssessment["filters"] {
  if (!c.filter || c.drops.length === 0) return [];
  const reference = {
    flow: c.filter.flow,
    viscosity: input.fluid ? kinematic(input.fluid, input.temperatures.working ?? 45) : 30,
  };
  const lives = c.lives.map((l) => ({
    id: l.id,
    startedAt: l.startedAt,
    endedAt: l.endedAt,
    readings: c.drops
      .filter((d) => d.lifeId === l.id)
      .map((d) => ({
        at: d.at,
        hours: d.hours,
        drop: d.drop,
        flow: d.flow,
        viscosity:
          input.fluid && d.temperature !== null ? kinematic(fluidAt(input.fluid, measured, d.at), d.temperature) : null,
      })),
  }));
  const found = elementFinding(lives, reference, c.filter.bypass);
  if (!found) return [];
  const { corrected: _corrected, ...finding } = found;
  const days = (hours: number) => hours / input.hoursPerDay;
  return [
    {
      ...finding,
      componentId: c.id,
      name: c.name,
      daysLeft: finding.hoursLeft
        ? {
            early: days(finding.hoursLeft.early),
            middle: days(finding.hoursLeft.middle),
            late: finding.hoursLeft.late === null ? null : days(finding.hoursLeft.late),
          }
        : null,
    },
  ];
}

function waterOf(samples: readonly OilSample[], input: OilInput, working: number): OilAssessment["water"] {
  const last = [...samples].reverse().find((s) => s.results.water);
  if (!last) return null;
  const { value, below } = last.results.water!;
  const own = input.fluid?.solubility ?? null;
  const solubility = own ?? (input.fluid ? classSolubility(input.fluid.type) : null);
  const coldest = Math.min(working, Math.max(COLDEST, input.temperatures.start ?? COLD));
  const before = samples
    .slice(0, samples.indexOf(last))
    .flatMap((s) => (s.results.water ? [middle(s.results.water)] : []))
    .slice(-LEAP.before);
  const usual = before.length >= LEAP.fewest ? median(before) : null;
  return {
    ppm: value,
    below: below === true,
    share: own ? waterShare(value, working, own) : null,
    shareCold: solubility ? waterShare(value, coldest, solubility) : null,
    coldest,
    ofClass: own === null,
    leap: below !== true && usual !== null && value > LEAP.times * usual && value - usual > LEAP.by ? { usual } : null,
  };
}

/** Coldest usual temperature of a tank that nobody stated, and the coldest at which water is judged, °C (common practice). */
const COLD = 20;
const COLDEST = 5;
/** A leap: so many times the middle of the last samples, and so much more, ppm. */
const LEAP = { times: 3, by: 100, before: 6, fewest: 2 };

/** Rise of the acid number since the oil was new: over the new oil's figure where stated, else over the first sample of the fill. */
function acidRise(samples: readonly OilSample[], input: OilInput): number | null {
  const fill = currentFill(input.moves, input.now);
  const inFill = samples.filter((s) => s.results.acidNumber && s.at >= (fill?.at ?? -Infinity));
  const last = inFill.at(-1)?.results.acidNumber;
  const start = input.fluid?.acidNew ?? (inFill.length > 1 ? middle(inFill[0]!.results.acidNumber!) : null);
  return last && start !== null ? middle(last) - start : null;
}

function kinematic(fluid: { kv40: number; kv100: number }, temperature: number): number {
  return kinematicViscosity(fluid, Math.min(150, Math.max(-30, temperature)));
}
