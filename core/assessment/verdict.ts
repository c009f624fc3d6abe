/** The sentence that an experienced colleague would say. Numbers, their conditions and their doubt stay together. */
import { DAY, YEAR } from "../units/time";
import { formatNumber, lowerFirst } from "../units/format";
import { quantityOf, type PointQuantityId } from "../units/quantities";
import type { LimitRule, Limits } from "../baseline/limit";
import { BEYOND, MAYBE_BEYOND, PROVED_READINGS } from "../state/state";
import type { Assessment, AssessStop } from "./types";
import type { VerdictPart } from "../state/verdictPart";

export interface VerdictFacts {
  quantity: PointQuantityId;
  rule: LimitRule | null;
  limits: Limits | null;
  /** The limit on the side that matters. */
  limit: number | null;
  fullFlow: number | null;
  reference: { pressure: number; temperature: number } | null;
  /** Smoothed level now and as new, core units. */
  level: number | null;
  asNew: number | null;
  perMonth: number | null;
  /** The limit that the chance of being beyond is about. */
  beyondLimit: number | null;
  newestRaw: number | null;
  lastAt: number | null;
  /** Readings of instruments that were found out. */
  recalled: number;
  /** The part was repaired then; how many readings count since. */
  repairedAt: number | null;
  readSinceRepair: number;
  /** Less than a year of a quantity that follows the weather. */
  firstYear: boolean;
  /** It moves away from its limit. */
  away: boolean;
  /** Chance that its course has taken it beyond the limit since it was last read. */
  passed: number;
  knownWhenNew: boolean;
  leadTimeDays: number | null;
  /** When a part that is ordered will be there. */
  partReadyAt: number | null;
  nextStop: AssessStop | null;
  /** Dirt came into the oil in this life: how the forecast reckons with it. */
  contamination: { at: number; readingsSince: number; faster: boolean } | null;
  now: number;
}

/** So many readings after dirt that did not go faster say that wear has not. */
const SHOWN_OTHERWISE = 6;
const WEEK = 7 * DAY;
/** An earliest date farther off than this says nothing to anybody. */
const FAR = 10 * YEAR;
const numbers = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];

/** Parts of the verdict sentence for an assessment under way. */
export function verdictOf(
  a: Pick<
    Assessment,
    | "state"
    | "readings"
    | "forecast"
    | "noTrend"
    | "decide"
    | "held"
    | "trend"
    | "limitProblem"
    | "beyond"
    | "beyondSide"
    | "course"
    | "overdue"
    | "alreadyBeyond"
    | "unconfirmed"
  >,
  f: VerdictFacts,
): VerdictPart[] {
  const said: VerdictPart[] = [];
  const text = (t: string, strong = false) => said.push(strong ? { text: t, strong } : { text: t });
  const quantity = quantityOf(f.quantity);
  if (a.readings === 0)
    return [
      {
        text: "No reading yet in this life. Take one while the part is new: nobody can compare with what was not measured.",
      },
    ];
  if (f.recalled >= a.readings) {
    text(
      `${a.readings === 1 ? "Its only reading is" : `All ${a.readings} readings are`} recalled, ` +
        "since the instrument was found out of calibration. Nothing is known: ",
    );
    text("read it again", true);
    text(".");
    return said;
  }
  const share = f.rule?.basis === "shareOfFullFlow" && f.fullFlow;
  const value = (core: number, strong: boolean): VerdictPart =>
    share
      ? { text: `${formatNumber((core / f.fullFlow!) * 100, 1)} % of full flow`, ...(strong && { strong }) }
      : { value: core, quantity: f.quantity, ...(strong && { strong }) };

  if (f.level === null || a.state === "unproven") {
    const count = numbers[a.readings] ?? String(a.readings);
    text(`${count} reading${a.readings === 1 ? "" : "s"}`);
    if (f.level !== null) {
      text(": ");
      said.push(value(f.level, true));
      if (f.limits) said.push(...withinLimits(f, share));
    }
    if (a.limitProblem) text(`; it cannot be assessed: ${lowerFirst(a.limitProblem)}`);
    else text(`. ${WHEN_TREND}`);
    if (!f.knownWhenNew && quantity.correction === "leakage") {
      text(" Condition when the meter was fitted not known, so it could fail unforeseen: ");
      text("load test it once", true);
      text(".");
    }
    if (a.unconfirmed) said.push(...readAgain(a.unconfirmed.raw, f.quantity));
    said.push(...lastRead(a, f));
    return said;
  }

  text(`${upperFirst(quantity.short)} `);
  said.push(value(f.level, true));
  if (f.reference) {
    text(" at ");
    said.push({ value: f.reference.temperature, quantity: "oilTemperature" });
    if (quantity.correction === "leakage") {
      text(", ");
      said.push({ value: f.reference.pressure, quantity: "loadPressure" });
    }
  }
  const trendProved = a.trend.proved && f.perMonth !== null;
  if (trendProved) {
    text(f.perMonth! > 0 ? ", rising " : ", falling ");
    const size = Math.abs(f.perMonth!);
    if (share) text(`${formatNumber((size / f.fullFlow!) * 100, size / f.fullFlow! < 0.001 ? 2 : 1)} % a month`);
    else {
      said.push({ value: size, quantity: f.quantity === "temperature" ? "temperatureRise" : f.quantity, digits: 2 });
      text(" a month");
    }
  }
  const stepAt = a.forecast?.step.at ?? null;
  if (f.asNew !== null && ((!share && trendProved) || stepAt !== null)) {
    text(", was ");
    said.push(value(f.asNew, false));
    text(" as new");
  }
  text(".");
  if (stepAt !== null) {
    text(" It stepped there about ");
    said.push({ date: stepAt, strong: true, precision: "day" });
    text(": look for what was altered then.");
  }
  if (a.course > 1)
    text(
      ` ${numbers[a.course] ?? a.course} readings in a row, each beyond the last: this is a course, not scatter.` +
        (a.course === 2 ? " Read it again within days." : ""),
    );

  const crossed = a.beyond >= BEYOND;
  if (!crossed && a.beyond >= MAYBE_BEYOND) {
    if (f.passed > 0) text(` Not read since, it may have passed its limit: ${chance(a.beyond)}, limit `);
    else text(` ${upperFirst(chance(a.beyond))} that it is already ${beyondWords(a.beyondSide)} `);
    said.push(limitText({ ...f, limit: f.beyondLimit ?? f.limit }, share));
    text(".");
  }
  if (crossed) {
    const since = a.forecast?.crossedSince ?? null;
    if (f.passed > 0 && !a.alreadyBeyond)
      text(` By its course, and not read since, it is more likely than not beyond its limit of `);
    else
      text(
        a.alreadyBeyond
          ? ` Already ${a.beyondSide === "lower" ? "below its least of" : "beyond its limit of"} `
          : ` ${upperFirst(beyondWords(a.beyondSide))} `,
      );
    said.push(limitText({ ...f, limit: f.beyondLimit ?? f.limit }, share));
    if (a.alreadyBeyond)
      text(f.knownWhenNew ? " when first read" : " when first read; condition when fitted not known");
    else if (since !== null) {
      text(" since ");
      said.push({ date: since, strong: true, precision: "day" });
    }
    text(".");
    if (a.state !== "alarm")
      text(
        ` ${numbers[a.readings] ?? a.readings} reading${a.readings === 1 ? "" : "s"} only: take another before you act.`,
      );
  } else if (a.alreadyBeyond) {
    text(" It stood beyond its limit of ");
    said.push(limitText(f, share));
    text(" when first read, so there is no margin to forecast from.");
  } else if (a.noTrend && f.away) {
    text(" It moves away from its limit.");
  } else if (a.noTrend && f.firstYear) {
    text(" Less than a year of readings: the weather is not told from wear yet.");
  } else if (a.noTrend) {
    if (a.noTrend.slow)
      text(a.trend.slope!.perMonth > 0 ? " It rises, too slowly to date" : " It falls, too slowly to date");
    else text(stepAt === null ? " No trend proved" : " No trend since is proved");
    if (a.noTrend.earliest !== null && a.noTrend.earliest - f.now < FAR) {
      text("; not before ");
      said.push({ date: a.noTrend.earliest, strong: true, precision: "month" });
    }
    text(".");
  } else if (a.forecast) {
    const { p10, p50, p90 } = a.forecast.dates;
    if (p90 !== null && p90 <= f.now) {
      // dates gone by are no forecast: the sentence about today says what they come to
    } else if (p10 !== null && p90 !== null && p10 <= f.now) {
      text(" Reaches ");
      said.push(limitText(f, share));
      text(" any day now, by ");
      said.push({ date: p90, strong: true, precision: "day" });
      text(" at the latest, if it goes on.");
    } else if (p10 !== null && p90 !== null) {
      text(" Reaches ");
      said.push(limitText(f, share));
      text(" between ");
      said.push({ date: p10, strong: true, precision: "day" });
      text(" and ", true);
      said.push({ date: p90, strong: true, precision: "day" });
      text(".");
    } else if (p10 !== null) {
      text(" Reaches ");
      said.push(limitText(f, share));
      text(" after ");
      said.push({ date: p10, strong: true, precision: "month" });
      text(p50 === null ? ", if at all within the horizon." : "; how long after is not yet known.");
    } else if (p50 === null) text(" The limit lies beyond the horizon.");
  }

  if (a.unconfirmed) said.push(...readAgain(a.unconfirmed.raw, f.quantity));
  said.push(...lastRead(a, f));
  if (f.contamination && a.forecast) {
    text(" Contamination entered this oil about ");
    said.push({ date: f.contamination.at, precision: "day" });
    text(
      f.contamination.faster
        ? ": it has worn faster since, and that is in the dates."
        : f.contamination.readingsSince < SHOWN_OTHERWISE
          ? ": until its readings show otherwise the dates allow for faster wear."
          : ", but its readings since show no faster wear.",
    );
  }
  if ((a.state === "alarm" || a.state === "alert") && f.leadTimeDays !== null && f.leadTimeDays > 0) {
    text(
      f.partReadyAt === null
        ? ` The part takes ${weeks(f.leadTimeDays * DAY)}`
        : f.partReadyAt <= f.now
          ? " The part that was ordered should be there"
          : ` The part is ordered and should be there in ${weeks(f.partReadyAt - f.now)}`,
    );
    if (f.nextStop) {
      text("; the stop on ");
      said.push({ date: f.nextStop.at, precision: "day" });
      text(` is ${weeks(f.nextStop.at - f.now)} off`);
      if (!crossed && a.forecast && !a.noTrend)
        text(
          `, with ${chance(a.forecast.beforeStops.find((s) => s.stopId === f.nextStop!.id)?.probability ?? 0)} of reaching it before`,
        );
      text(".");
    } else text("; no stop is planned.");
  }
  if ((a.state === "alarm" || a.state === "alert") && a.decide) {
    if (a.decide.by <= f.now) text(" To be decided now", true);
    else {
      text(" Decide by ");
      said.push({ date: a.decide.by, strong: true, precision: "day" });
    }
    text(".");
  }
  if (a.held)
    text(` It stays ${a.state === "drifting" ? "drifting" : `an ${a.state}`} until a reading speaks against it.`);
  return said;
}

const WHEN_TREND = `A trend from the ${PROVED_READINGS === 5 ? "fifth" : `${PROVED_READINGS}th`} reading on.`;

const beyondWords = (side: Assessment["beyondSide"]) =>
  side === "lower" ? "below its least of" : "beyond its limit of";

/** Where a first reading stands, before there is any trend: ", above its least of 74.6 L/min". */
function withinLimits(f: VerdictFacts, share: number | false | null | undefined): VerdictPart[] {
  const { upper, lower } = f.limits!;
  const limit = (core: number) => limitText({ ...f, limit: core }, share);
  const basis = f.rule?.basis === "maker" ? " (manufacturer's figure)" : "";
  if (upper !== null && lower !== null)
    return [{ text: ", between its limits of " }, limit(lower), { text: " and " }, limit(upper), { text: basis }];
  if (upper !== null) return [{ text: ", below its limit of " }, limit(upper), { text: basis }];
  if (lower !== null) return [{ text: ", above its least of " }, limit(lower), { text: basis }];
  return [];
}

/** That nobody has read it for long, or not since it was repaired. */
function lastRead(a: Pick<Assessment, "overdue">, f: VerdictFacts): VerdictPart[] {
  if (f.lastAt === null) return [];
  if (f.repairedAt !== null && f.lastAt < f.repairedAt)
    return [
      { text: " Repaired about " },
      { date: f.repairedAt, precision: "day" },
      { text: " and not read since: " },
      { text: "read it to prove the work", strong: true },
      { text: "." },
    ];
  return a.overdue
    ? [{ text: " Not read since " }, { date: f.lastAt, strong: true, precision: "month" }, { text: "." }]
    : [];
}

/** The newest reading is not believed on its own. */
function readAgain(raw: number, quantity: PointQuantityId): VerdictPart[] {
  return [
    { text: " The last reading of " },
    { value: raw, quantity },
    { text: " fits nothing before it and is not judged by itself: " },
    { text: "read it again", strong: true },
    { text: "." },
  ];
}

function limitText(f: VerdictFacts, share: number | false | null | undefined): VerdictPart {
  if (f.limit === null) return { text: "the limit" };
  return share
    ? { text: `${formatNumber((f.limit / f.fullFlow!) * 100, 1).replace(/\.0$/, "")} %` }
    : { value: f.limit, quantity: f.quantity };
}

/**
 * A probability in words that do not pretend to more than the draws can say.
 * @param probability 0 to 1
 * @returns with its article: "a 23 % chance"
 * @example chance(0.08) // "an 8 % chance"
 * @example chance(0.001) // "less than a 1 % chance"
 */
export function chance(probability: number): string {
  if (probability < 0.01) return "less than a 1 % chance";
  if (probability > 0.99) return "more than a 99 % chance";
  const percent = formatNumber(probability * 100, 0);
  return `${/^(8|11$|18$)/.test(percent) ? "an" : "a"} ${percent} % chance`;
}

function weeks(ms: number): string {
  const n = Math.round(ms / WEEK);
  return n < 1 ? "less than a week" : `${n} week${n === 1 ? "" : "s"}`;
}

const upperFirst = (t: string) => t.charAt(0).toUpperCase() + t.slice(1);
