/** Water and acid of an oil, by its own history and by what it can hold. */
import { classSolubility, waterShare } from "../fluid/water";
import { median } from "../trend/robust";
import { currentFill } from "./fill";
import { middle, type OilSample } from "./sample";
import type { OilAssessment, OilInput } from "./types";

/** Coldest usual temperature of a tank that nobody stated, and the coldest at which water is judged, °C (common practice). */
const COLD = 20;
const COLDEST = 5;
/** A leap: so many times the middle of the last samples, and so much more, ppm. */
const LEAP = { times: 3, by: 100, before: 6, fewest: 2 };

/** The newest water with what the oil holds at work and where it stands cold; null: never measured. `working`: °C. */
export function waterOf(samples: readonly OilSample[], input: OilInput, working: number): OilAssessment["water"] {
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

/** Rise of the acid number since the oil was new: over the new oil's figure where stated, else over the first sample of the fill. */
export function acidRise(samples: readonly OilSample[], input: OilInput): number | null {
  const fill = currentFill(input.moves, input.now);
  const inFill = samples.filter((s) => s.results.acidNumber && s.at >= (fill?.at ?? -Infinity));
  const last = inFill.at(-1)?.results.acidNumber;
  const start = input.fluid?.acidNew ?? (inFill.length > 1 ? middle(inFill[0]!.results.acidNumber!) : null);
  return last && start !== null ? middle(last) - start : null;
}
