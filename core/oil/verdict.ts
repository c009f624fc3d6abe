/** What a judged oil is called, the sentence that is said of it, and what happened in order. */
import { DAY } from "../units/time";
import type { ConditionState } from "../state/state";
import type { VerdictPart } from "../state/verdictPart";
import { leakName } from "./agreement";
import { analytes, type WearMetalId } from "./analytes";
import { metalList } from "./parts";
import type { OilSample } from "./sample";
import type { CircuitTarget } from "./target";
import type { CountTrend, OilAssessment, OilFinding, OilInput } from "./types";

/** ppm; mineral oil (common practice). The fluid's maker goes first. */
export const WATER = { doubt: 500, bad: 1000 };
/** Off the grade: a tenth is looked into, a fifth is changed (common practice). */
export const VISCOSITY = { doubt: 0.1, bad: 0.2 };
/** Rise of the acid number over the new oil, mg KOH/g (common practice). */
export const ACID = { doubt: 0.5, bad: 1 };
const SOON_DAYS = 45;

/** A name inside a sentence: its first letter small. */
export const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
const percent = (share: number) => `${Math.round(share * 100)} %`;
const times = (factor: number) => (factor >= 10 ? String(Math.round(factor)) : factor.toFixed(1).replace(/\.0$/, ""));

/** Of saturation when cold, percent: so much of the dissolved turns to drops in a tank that stands (grade). */
const WET_COLD = 200;
const HALF_YEAR = 182 * DAY;

/** What the parts of a judgement have found. */
export interface Parts {
  unsampled: OilAssessment["unsampled"];
  remark: OilAssessment["remark"];
  input: OilInput;
  target: CircuitTarget | null;
  last: { sample: OilSample; codes: { iso: { text: string } } } | null;
  worst: number | null;
  step: OilAssessment["step"];
  trends: OilAssessment["trends"];
  metals: OilAssessment["metals"];
  rose: OilAssessment["metals"];
  suspects: OilAssessment["suspects"];
  filters: OilAssessment["filters"];
  off: number | null;
  acid: number | null;
  water: OilAssessment["water"];
  causes: OilAssessment["causes"];
  leaks: OilAssessment["leaks"];
  suitability: OilAssessment["suitability"];
  age: OilAssessment["age"];
}

/** Counts that double within four years, beyond chance. */
export const rising = (t: CountTrend | null) => t !== null && t.p < 0.01 && t.doublingYears > 0 && t.doublingYears < 4;

/** The oil stands in longer than it may, by what the interval says. */
const tooOld = (p: Pick<Parts, "age">) => p.age !== null && p.age.share !== null && p.age.share >= 1;

/** The word for it. */
export function stateOf(p: Parts, samples: number): ConditionState {
  if (samples === 0) return tooOld(p) ? "alert" : p.input.samples.length === 0 ? "unread" : "unproven";
  const says = (meaning: "freeWater" | "dirt" | "burnt" | "metal") => p.remark?.says.includes(meaning) ?? false;
  const wet = p.water && !p.water.below ? p.water : null;
  const fixed = p.metals.some((m) => m.passed.includes("fixed"));
  if (
    (p.worst !== null && p.worst >= 2) ||
    p.filters.some((f) => f.past) ||
    (wet && (wet.ppm >= WATER.bad || (wet.share ?? 0) > 100)) ||
    says("freeWater") ||
    (p.off !== null && Math.abs(p.off) >= VISCOSITY.bad) ||
    (p.acid !== null && p.acid >= ACID.bad) ||
    (fixed && p.rose.length > 0)
  )
    return "alarm";
  if (
    (p.worst !== null && p.worst >= 1) ||
    p.rose.length > 0 ||
    fixed ||
    (wet && (wet.ppm >= WATER.doubt || wet.leap !== null || (wet.shareCold ?? 0) > WET_COLD)) ||
    says("dirt") ||
    says("burnt") ||
    says("metal") ||
    p.metals.some((m) => m.climb && m.climb.reachesAt < p.input.now + HALF_YEAR) ||
    (p.off !== null && Math.abs(p.off) >= VISCOSITY.doubt) ||
    (p.acid !== null && p.acid >= ACID.doubt) ||
    p.filters.some((f) => f.blocked) ||
    tooOld(p)
  )
    return "alert";
  if (
    rising(p.trends.over4) ||
    rising(p.trends.over14) ||
    p.filters.some((f) => f.daysLeft && f.daysLeft.early < SOON_DAYS) ||
    p.metals.some((m) => m.climb !== null) ||
    dueSoon(p)
  )
    return "drifting";
  return p.target === null || p.unsampled !== null ? "unproven" : "steady";
}

const dueSoon = (p: Parts) => p.age !== null && p.age.dueAt !== null && p.age.dueAt - p.input.now < SOON_DAYS * DAY;

/** What is said of the longest interval, where it has passed or soon will. */
function ageSaid(p: Parts): VerdictPart[] {
  if (!dueSoon(p)) return [];
  return [
    {
      text: tooOld(p)
        ? " The maximum drain interval of the oil passed on "
        : " The maximum drain interval of the oil ends about ",
    },
    { date: p.age!.dueAt!, precision: "day" },
    { text: tooOld(p) ? ": change it, or take a sample to justify extending it." : "." },
  ];
}

/** The sentence for it. */
export function verdictOf(p: Parts, samples: number): VerdictPart[] {
  return [...sampleSaid(p, samples), ...ageSaid(p)];
}

function sampleSaid(p: Parts, samples: number): VerdictPart[] {
  const slow = p.leaks.filter((l) => l.worse);
  if (p.input.samples.length === 0)
    return [
      {
        text: "No sample yet. Take one now, from a live line at work, so that later samples have something to be compared with.",
      },
    ];
  if (samples === 0) return [{ text: "No sample that can be compared: take one from a live line, warm and at work." }];
  const said: VerdictPart[] = [];
  const text = (t: string, strong = false) => said.push(strong ? { text: t, strong } : { text: t });
  if (p.unsampled !== null) {
    text("Not sampled since the oil was changed on ");
    said.push({ date: p.unsampled, strong: true, precision: "day" });
    text(": what the samples before say was drained with it. Take one at work.");
  } else if (p.last) {
    text(p.last.codes.iso.text, true);
    if (p.target)
      text(
        p.worst! > 0
          ? `, ${p.worst === Infinity ? "too dirty to count" : `${p.worst} number${p.worst === 1 ? "" : "s"}`} over its target ${p.target.text}`
          : `, within its target ${p.target.text}`,
      );
    else text(", no target set");
    text(" on ");
    said.push({ date: p.last.sample.at, precision: "day" });
    text(".");
  } else text("No particle count yet.");
  if (p.step?.still) {
    text(` ${times(p.step.factor)} times the particles since between `);
    said.push({ date: p.step.after, precision: "day" });
    text(" and ");
    said.push({ date: p.step.by, precision: "day" });
    text(".");
    const cause = p.causes[0];
    if (cause && cause.id !== "unknown") {
      text(" Most likely ");
      text(cause.text.split(":")[0]!, true);
      text(` (${percent(cause.share)}).`);
    }
  } else if (rising(p.trends.over4)) {
    text(
      ` Fine particles double every ${p.trends.over4!.doublingYears.toFixed(1)} years, within one number ` +
        `of the code${slow.length > 0 ? `; ${slow.map(leakName).join(" and ")} ${slow.length > 1 ? "rise" : "rises"} with them` : ""}.`,
    );
  }
  const suspect = p.suspects[0];
  if (p.rose.length > 0)
    text(
      ` ${upperFirst(metalList(p.rose.map((m) => m.id as WearMetalId)))} made faster than ` +
        `before${suspect && suspect.share >= 0.4 ? `: the ${lower(suspect.name)} (${percent(suspect.share)})` : ""}.`,
    );
  for (const f of p.filters) {
    if (f.past && p.causes[0]?.id !== "filterPast") text(` Oil bypasses the ${lower(f.name)}.`);
    else if (f.blocked) text(` The ${lower(f.name)} is blocked.`);
    else if (f.daysLeft && f.daysLeft.early < SOON_DAYS)
      text(
        ` The ${lower(f.name)} blocks in ${Math.round(f.daysLeft.early)} to ` +
          `${f.daysLeft.late === null || f.daysLeft.late > 999 ? "many" : Math.round(f.daysLeft.late)} days.`,
      );
  }
  if (p.off !== null && Math.abs(p.off) >= VISCOSITY.doubt)
    text(` The oil is ${percent(Math.abs(p.off))} ${p.off < 0 ? "thinner" : "thicker"} than stated.`, true);
  if (p.water && !p.water.below) waterSaid(p.water, text);
  for (const m of p.metals) if (m.climb) said.push(...climbSaid(m, p.input.now));
  if (p.remark && p.remark.text.trim()) {
    text(" The laboratory remarks: ");
    text(`“${p.remark.text.trim().slice(0, 160)}”`, p.remark.says.length > 0);
    text(".");
  }
  if (p.acid !== null && p.acid >= ACID.doubt)
    text(` The acid number has risen by ${p.acid.toFixed(2)} mg KOH/g: the oil is ageing.`);
  return said;
}

/** Water by what this oil can hold, by its own history, by the usual ceiling. */
function waterSaid(
  { ppm, share, shareCold, coldest, ofClass, leap }: NonNullable<OilAssessment["water"]>,
  text: (t: string, strong?: boolean) => void,
): void {
  const cold = shareCold !== null && shareCold > WET_COLD;
  if (ppm < WATER.doubt && !leap && !cold) return;
  const usual = leap ? `, ${times(ppm / Math.max(leap.usual, 1))} times the usual ${Math.round(leap.usual)}` : "";
  const held =
    share !== null && share > 100
      ? ", more than it can dissolve"
      : cold
        ? `, about ${times(shareCold / 100)} times what ${ofClass ? "an oil of its class" : "it"} holds ` +
          `at ${Math.round(coldest)} °C: free water where it stands cold`
        : "";
  text(` ${Math.round(ppm)} ppm of water${usual}${held}.`, true);
  if (leap) text(" Take a second sample at once, and look for where it comes in.");
}

/** A metal that climbs sample by sample, and when it meets its limit. */
function climbSaid(m: OilAssessment["metals"][number], now: number): VerdictPart[] {
  const { from, to, samples, reachesAt } = m.climb!;
  const figure = (ppm: number) => (ppm < 10 ? ppm.toFixed(1).replace(/\.0$/, "") : String(Math.round(ppm)));
  const said: VerdictPart[] = [
    { text: ` ${analytes[m.id].label} climbs: ${figure(from)} to ${figure(to)} ppm in ${samples} samples` },
  ];
  if (m.fixed !== null)
    said.push(
      {
        text:
          reachesAt <= now
            ? `, at its limit of ${figure(m.fixed)} about `
            : `, reaches its limit of ${figure(m.fixed)} about `,
      },
      { date: reachesAt, strong: true, precision: "month" },
    );
  said.push({ text: "." });
  return said;
}

const upperFirst = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The chain, in the order in which it happened. */
export function findingsOf(p: Parts, since: { after: number; by: number } | null, outside: string): OilFinding[] {
  const found: OilFinding[] = [];
  for (const f of p.filters) {
    if (f.past)
      found.push({
        at: f.pastSince,
        until: null,
        text: `${f.name}: ${f.past}.`,
        tone: "bad",
        componentId: f.componentId,
      });
    else if (f.blocked)
      found.push({
        at: null,
        until: null,
        text: `${f.name}: its differential pressure stands at the bypass; oil goes round the element.`,
        tone: "bad",
        componentId: f.componentId,
      });
  }
  if (p.step)
    found.push({
      at: p.step.after,
      until: p.step.by,
      text: `${times(p.step.factor)} times the ${analytes[p.step.size].short}${p.step.still ? ", and they stay" : "; clean again since"}.`,
      tone: p.step.still ? "bad" : "plain",
    });
  if (outside)
    found.push({
      at: p.step?.after ?? null,
      until: p.step?.by ?? null,
      text: `${upperFirst(outside)} entered faster: contamination from outside.`,
      tone: "doubt",
    });
  for (const m of p.rose) {
    found.push({
      at: m.since!.after,
      until: m.since!.by,
      text:
        `${analytes[m.id].label} made at ${m.rate!.toFixed(1)} ppm per 1000 h, usually ` +
        `${m.usual!.toFixed(1)} (own history allows ` +
        `${m.own!.toFixed(1)}${m.peers !== null ? `, peers ${m.peers.toFixed(1)}` : ""}).`,
      tone: "bad",
    });
  }
  const moment = p.step?.after ?? since?.after ?? null;
  for (const l of p.leaks)
    if (l.worse && l.factor !== null)
      found.push({
        at: p.step?.by ?? since?.by ?? null,
        until: null,
        text:
          `${upperFirst(l.component)}: ${l.what} is ${Math.round((l.factor - 1) * 100)} % above ` +
          `${moment === null ? "where it was two years ago" : "its earlier trend"}.`,
        tone: "bad",
        pointId: l.pointId,
        componentId: l.componentId,
      });
  for (const m of p.input.moves)
    if (m.otherFluid && m.kind !== "drained")
      found.push({
        at: m.at,
        until: null,
        text: `${Math.round(m.litres)} L of ${m.fluidName} filled in, not the circuit's fluid.`,
        tone: "doubt",
      });
  for (const m of p.input.moves)
    if (m.changeBackBy !== null && m.changeBackBy < p.input.now)
      found.push({
        at: m.changeBackBy,
        until: null,
        text: `${m.fluidName} was to be changed back by then.`,
        tone: "doubt",
      });
  // the chain is told in the order in which it happened: what has no date comes last
  const when = (f: OilFinding) => (f.at === null ? Infinity : ((f.until ?? f.at) + f.at) / 2);
  return found.sort((a, b) => when(a) - when(b));
}
