/**
 * Everything that a circuit's oil says, read together: codes against target, steps and trends of counts, wear metals,
 * filters, fluid, and whether the machine agrees. Pure; made when a sample or a reading lands, never while a page loads.
 */
import { urgencyOf } from "../state/state";
import { overTarget } from "../contamination/target";
import { agreementOf, leakRising, leakSince, type LeakChange } from "./agreement";
import { analytes, wearMetalIds, type AnalyteId, type WearMetalId } from "./analytes";
import { dirtCauses } from "./causes";
import { sampleCodes } from "./codes";
import { filterOf } from "./filterNow";
import { worstMargin } from "./margin";
import { countStep, countTrend, particleMargin } from "./particles";
import { acidRise, waterOf } from "./waterAndAcid";
import { fluidAt } from "../fluid/measured";
import { currentFill, fillAge, measuredViscosities, viscosityOff } from "./fill";
import { metalList, partSuspects } from "./parts";
import { incomparable, type OilSample } from "./sample";
import { remarkSays } from "./remark";
import { suitsParts } from "./suits";
import { circuitTarget } from "./target";
import type { OilAssessment, OilInput } from "./types";
import { findingsOf, lower, rising, stateOf, verdictOf } from "./verdict";
import { metalAlarm, metalSeries } from "./wear";

const KEPT_RATES = 12;

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
  const trends = { over4: countTrend(all, "over4"), over14: countTrend(all, "over14") };
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
    particleMargin(
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
