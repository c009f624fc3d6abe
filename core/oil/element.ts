/** A filter element: differential pressure at one viscosity and flow, when it will be blocked, and whether oil goes past it. */
import { correctedPressureDrop } from "../contamination/filter";
import { median } from "../trend/robust";
import { theilSen } from "../trend/theilSen";

export interface DropReading {
  at: number;
  hours: number;
  drop: number;
  /** Kinematic viscosity of the oil then, mm²/s; null: not known. */
  viscosity: number | null;
  /** Flow then, L/min; null: the usual. */
  flow: number | null;
}

export interface ElementLife {
  id: string;
  startedAt: number;
  endedAt: number | null;
  readings: readonly DropReading[];
}

export interface ElementFinding {
  /** Corrected drop now (median of the last three) and as fitted, bar. */
  now: number;
  asFitted: number;
  /** What elements of this filter had as fitted before; null: this is the first. */
  usualNew: number | null;
  /** Running hours until the bypass opens: early, middle, late; null: does not rise. */
  hoursLeft: { early: number; middle: number; late: number | null } | null;
  /** Oil seems to go past the element: why, in words. */
  past: string | null;
  /** The bypass is open, or nearly: the drop stands at its setting. */
  blocked: boolean;
  /** When this filter's elements stood at their bypass, this one and those before it. */
  blockedSpans: { since: number; until: number | null }[];
  /** Moment from which the drop is too small, where it is. */
  pastSince: number | null;
  corrected: { at: number; hours: number; read: number; drop: number }[];
}

/** An element that lets this share of the usual drop pass is not where the oil goes. */
const TOO_EASY = 0.62;
const AT_BYPASS = 0.92;
const FEWEST_FOR_TREND = 4;

/**
 * What the differential pressure of a filter says: clogging, when it blocks, whether oil bypasses it; null: no reading.
 * @param lives elements of one filter in time order, the last one now fitted
 * @param reference that drops are brought to
 * @param reference.flow L/min, above 0
 * @param reference.viscosity mm²/s, above 0
 * @param bypass differential pressure at which the bypass opens, bar
 */
export function elementFinding(
  lives: readonly ElementLife[],
  reference: { flow: number; viscosity: number },
  bypass: number,
): ElementFinding | null {
  const corrected = lives.map((l) =>
    l.readings.map((r) => ({
      at: r.at,
      hours: r.hours,
      read: r.drop,
      drop: correctedPressureDrop(
        { drop: r.drop, flow: r.flow ?? reference.flow, viscosity: r.viscosity ?? reference.viscosity },
        reference,
      ),
    })),
  );
  const current = corrected.at(-1);
  if (!current || current.length === 0) return null;
  const asFitted = median(current.slice(0, 3).map((r) => r.drop));
  const now = median(current.slice(-3).map((r) => r.drop));
  const earlier = corrected
    .slice(0, -1)
    .flatMap((rs) => (rs.length >= 2 ? [median(rs.slice(0, 3).map((r) => r.drop))] : []));
  const usualNew = earlier.length > 0 ? median(earlier) : null;
  let hoursLeft: ElementFinding["hoursLeft"] = null;
  if (current.length >= FEWEST_FOR_TREND && now < bypass) {
    // dirt fills the element: its drop grows faster the fuller it is, close to exponential (common practice)
    const line = theilSen(
      current.map((r) => r.hours),
      current.map((r) => Math.log(Math.max(r.drop, 0.01))),
      { confidence: 0.8 },
    );
    const todo = Math.log(bypass / now);
    if (line.slope > 0 && line.high > 0 && line.low > -line.slope)
      hoursLeft = { early: todo / line.high, middle: todo / line.slope, late: line.low > 0 ? todo / line.low : null };
  }
  const low = (reading: number, of: number) => reading < of * TOO_EASY;
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  let past: string | null = null;
  let pastSince: number | null = null;
  if (usualNew !== null && low(now, usualNew)) {
    past = low(asFitted, usualNew)
      ? `since this element was fitted its drop is ${percent(now / usualNew)} of what elements had here when ` +
        `new: it is not seated, is the wrong one, or the bypass hangs open`
      : `its drop has fallen to ${percent(now / usualNew)} of that of a new element: it has burst, or the bypass hangs open`;
    pastSince = low(asFitted, usualNew) ? lives.at(-1)!.startedAt : fellAt(current, usualNew * TOO_EASY);
  } else if (low(now, asFitted) && current.length >= FEWEST_FOR_TREND) {
    past = `its drop has fallen to ${percent(now / asFitted)} of what it was as fitted, and elements only block: it has burst, or the bypass hangs open`;
    pastSince = fellAt(current, asFitted * TOO_EASY);
  }
  return {
    now,
    asFitted,
    usualNew,
    hoursLeft,
    past,
    pastSince,
    blocked: now >= bypass * AT_BYPASS,
    blockedSpans: blockedSpans(corrected, lives, bypass * AT_BYPASS),
    corrected: corrected.flat(),
  };
}

/** Stretches of readings at the bypass; one ends with the first reading below it, or with its element. */
function blockedSpans(
  corrected: readonly (readonly { at: number; drop: number }[])[],
  lives: readonly ElementLife[],
  level: number,
): { since: number; until: number | null }[] {
  return corrected.flatMap((readings, i) => {
    const spans: { since: number; until: number | null }[] = [];
    for (const { at, drop } of readings) {
      const open = spans.at(-1);
      if (drop >= level && (!open || open.until !== null)) spans.push({ since: at, until: null });
      else if (drop < level && open && open.until === null) open.until = at;
    }
    const last = spans.at(-1);
    if (last && last.until === null) last.until = lives[i]!.endedAt;
    return spans;
  });
}

/** First of the readings after which the drop stays below a level. */
function fellAt(readings: readonly { at: number; drop: number }[], level: number): number | null {
  let since: number | null = null;
  for (let i = readings.length - 1; i >= 0 && readings[i]!.drop < level; i--) since = readings[i]!.at;
  return since;
}
