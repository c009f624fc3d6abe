/**
 * The ladder of pressure settings of a circuit: cut-in < cut-out or compensator < relief < lowest rating of
 * hose, pipe or component. Each gap gets a verdict; a relief valve at or below the working control carries the
 * pump's flow and makes heat. Usual gaps: common practice; the maker's figures first.
 */
import { hydraulicPower } from "../pump/flow";

export interface Rung {
  id: string;
  name: string;
  /** bar: as set, or as last measured where there is a measurement. */
  pressure: number;
  set: number | null;
  measured: number | null;
}

export interface Settings {
  /** Unloader, bar. */
  cutIn?: Setting;
  cutOut?: Setting;
  /** Compensator of a variable pump, bar. */
  compensator?: Setting;
  relief: Setting;
  /** Ratings of what sees the pressure, bar. */
  ratings: readonly { name: string; pressure: number }[];
  /** Flow that goes over the relief when it opens first, L/min. */
  pumpFlow?: number;
  /** Greatest peak seen, bar, with the sampling rate in Hz. */
  peak?: { pressure: number; samplesPerSecond: number };
  /** Gap wanted between working control and relief, bar; 15 when left out (common practice). */
  gap?: number;
}

/** A setting as set and as measured, bar; a plain number counts as measured. */
export type Setting = number | { set?: number; measured?: number };

export interface LadderStep {
  from: Rung;
  to: Rung;
  /** bar */
  gap: number;
  verdict: "good" | "small" | "wrong";
  message: string;
}

export interface Ladder {
  rungs: Rung[];
  steps: LadderStep[];
  /** Heat in kW when the relief carries the pump's flow; null when it does not or the flow is not known. */
  reliefHeat: number | null;
  /** Peak over the lowest rating, bar; null without a peak. */
  peakOverRating: number | null;
  /** Peaks of milliseconds are not seen by a logger slower than this. */
  peakSeen: boolean;
  good: boolean;
}

const FASTEST_PEAK = 1000;
const DRIFT = 0.03;

function rungOf(id: string, name: string, setting: Setting): Rung {
  const { set, measured } = typeof setting === "number" ? { set: undefined, measured: setting } : setting;
  const pressure = measured ?? set;
  if (pressure === undefined || !(pressure > 0)) throw new RangeError(`${name} needs a pressure above zero.`);
  return { id, name, pressure, set: set ?? null, measured: measured ?? null };
}

/**
 * Check the ladder from the lowest setting up.
 * @throws {RangeError} without a working control, without a
 * rating, or with a pressure that is not above zero.
 */
export function settingsLadder(settings: Settings): Ladder {
  const { cutIn, cutOut, compensator, relief, ratings, pumpFlow, peak, gap = 15 } = settings;
  if (cutOut === undefined && compensator === undefined)
    throw new RangeError("A ladder needs a cut-out or a compensator setting.");
  const lowest = ratings.reduce<{ name: string; pressure: number } | null>(
    (best, r) => (best === null || r.pressure < best.pressure ? r : best),
    null,
  );
  if (!lowest) throw new RangeError("A ladder needs the rating of at least one hose, pipe or component.");
  const rungs = [
    ...(cutIn === undefined ? [] : [rungOf("cutIn", "Cut-in", cutIn)]),
    ...(cutOut === undefined ? [] : [rungOf("cutOut", "Cut-out", cutOut)]),
    ...(compensator === undefined ? [] : [rungOf("compensator", "Compensator", compensator)]),
    rungOf("relief", "Relief valve", relief),
    rungOf("rating", `Lowest rating: ${lowest.name}`, lowest.pressure),
  ];
  const steps = rungs.slice(1).map((to, i) => stepOf(rungs[i]!, to, gap));
  const workingControl = rungs.find((r) => r.id === "compensator") ?? rungs.find((r) => r.id === "cutOut")!;
  const reliefRung = rungs.find((r) => r.id === "relief")!;
  const carries = reliefRung.pressure <= workingControl.pressure;
  return {
    rungs,
    steps,
    reliefHeat: carries && pumpFlow !== undefined ? hydraulicPower(reliefRung.pressure, pumpFlow) : null,
    peakOverRating: peak ? peak.pressure - lowest.pressure : null,
    peakSeen: !peak || peak.samplesPerSecond >= FASTEST_PEAK,
    good: steps.every((s) => s.verdict === "good") && (!peak || peak.pressure <= lowest.pressure),
  };
}

function stepOf(from: Rung, to: Rung, wanted: number): LadderStep {
  const gap = to.pressure - from.pressure;
  const least = to.id === "relief" ? wanted : Math.max(1, DRIFT * to.pressure);
  const verdict = gap <= 0 ? "wrong" : gap < least ? "small" : "good";
  const message =
    verdict === "good"
      ? `${from.name} lies below ${to.name.toLowerCase()}.`
      : to.id === "relief" && verdict === "wrong"
        ? `The relief valve opens before the ${from.name.toLowerCase()} acts: it carries the pump's flow, makes heat and takes power.`
        : to.id === "rating" && verdict === "wrong"
          ? `${from.name} lies above what ${to.name.replace("Lowest rating: ", "")} may see: lower it before the machine runs.`
          : verdict === "wrong"
            ? `${from.name} must lie below ${to.name.toLowerCase()}.`
            : `Little room between ${from.name.toLowerCase()} and ${to.name.toLowerCase()}: they may act together.`;
  return { from, to, gap, verdict, message };
}
