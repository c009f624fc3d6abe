/** What made the oil dirty? What happened about the time of the step, weighed by how often it is the reason (common practice). */
import { DAY } from "../units/time";
import { posterior } from "../numeric/bayes";

export type CauseId = "filterPast" | "filterBlocked" | "opened" | "filled" | "fromOutside" | "fromWithin" | "unknown";

/** An element stood at its bypass from then until then; null: still. */
export interface BlockedSpan {
  since: number;
  until: number | null;
}

export interface CauseEvidence {
  /** Last sample before the step and first after it. */
  step: { after: number; by: number };
  filters: readonly {
    componentId: string;
    name: string;
    past: string | null;
    pastSince: number | null;
    blocked: readonly BlockedSpan[];
  }[];
  /** Parts fitted, the filters' elements left out. */
  fitted: readonly { componentId: string; name: string; at: number }[];
  fills: readonly { at: number; litres: number; fluid: string; other: boolean }[];
  /** Contaminants from outside that rose with the counts, in words. */
  outside: string;
  /** Wear metals rose: when the first higher sample was, and which. */
  metals: { words: string; by: number } | null;
}

export interface Cause {
  id: CauseId;
  share: number;
  /** The finding, without its date. */
  text: string;
  at: number | null;
  componentId: string | null;
  /** What would tell. */
  tells: string;
}

/** What happened this long before the last clean sample can still be the reason. */
const LEAD = 75 * DAY;
/** One day is given for clocks and dates. */
const SLACK = DAY;
/** Odds of an event that nobody noted. */
const UNKNOWN = 1;
/** So many fills without dirt make another one ordinary. */
const ROUTINE = 3;

/** Causes with their shares, likeliest first; "unknown" stands for what nobody noted. */
export function dirtCauses({ step, filters, fitted, fills, outside, metals }: CauseEvidence): Cause[] {
  const near = (at: number | null): at is number => at !== null && at >= step.after - LEAD && at <= step.by + SLACK;
  /** Blocked at some time between the lead and the first dirty sample. */
  const during = ({ since, until }: BlockedSpan) =>
    since <= step.by + SLACK && (until === null || until >= step.after - LEAD);
  const found: (Omit<Cause, "share"> & { odds: number })[] = [];
  for (const f of filters) {
    if (f.past && near(f.pastSince))
      found.push({
        id: "filterPast",
        odds: 9,
        text: `oil bypasses the ${f.name}: ${f.past}`,
        at: f.pastSince,
        componentId: f.componentId,
        tells:
          "Open the housing: element, seat and bypass valve. The drop must come back to that of a new element, and the counts must fall.",
      });
    else if (f.blocked.some(during))
      found.push({
        id: "filterBlocked",
        odds: 6,
        text: `the ${f.name} was blocked, so its bypass opened`,
        at: f.blocked.find(during)!.since,
        componentId: f.componentId,
        tells: "Renew the element and look at what it holds.",
      });
  }
  for (const c of fitted)
    if (near(c.at))
      found.push({
        id: "opened",
        odds: 3,
        text: `the circuit was opened to fit the ${c.name}`,
        at: c.at,
        componentId: c.componentId,
        tells: "The work record: was it flushed, was what broke found?",
      });
  // topping up as ever, often enough without dirt, is a poor reason
  const routine = fills.filter((f) => !f.other && f.at < step.after - LEAD).length >= ROUTINE;
  const filled = fills
    .filter((f) => near(f.at))
    .sort((a, b) => Number(b.other) - Number(a.other) || b.litres - a.litres)[0];
  if (filled)
    found.push({
      id: "filled",
      odds: filled.other ? 3.5 : routine ? 0.6 : 2,
      text:
        `${Math.round(filled.litres)} L of ${filled.fluid} were filled ` +
        `in${filled.other ? ", which is not the circuit's fluid" : ""}; oil from a drum is dirtier than most targets`,
      at: filled.at,
      componentId: null,
      tells: "A sample from the drum, and was it filled through a filter?",
    });
  if (outside)
    found.push({
      id: "fromOutside",
      odds: 2,
      text: `${outside} rose with the particles: contamination from outside, by the breather, a wiper seal or an open filler`,
      at: step.by,
      componentId: null,
      tells: "Breather, rod wipers, filler cap.",
    });
  if (metals && metals.by <= step.by + SLACK)
    found.push({
      id: "fromWithin",
      odds: metals.by <= step.after + SLACK ? 5 : 1.5,
      text: `${metals.words} rose ${metals.by <= step.after + SLACK ? "before" : "with"} the particles: a part is breaking up`,
      at: metals.by,
      componentId: null,
      tells: "Look at the debris, at the case drain and at the load test.",
    });
  // what happened is the evidence already: by how often each is the reason, among themselves and what nobody noted
  const shares = posterior([...found.map((f) => f.odds), UNKNOWN], []);
  const causes = found.map(({ odds: _, ...f }, i): Cause => ({ ...f, share: shares[i]! }));
  causes.push({
    id: "unknown",
    share: shares.at(-1)!,
    text: "an event that is not on record",
    at: null,
    componentId: null,
    tells: "Ask who was at the machine between the two samples.",
  });
  return causes.sort((a, b) => b.share - a.share);
}
