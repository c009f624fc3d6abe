/** The value that a reading should have under the conditions just entered. */
import { dynamicViscosity, type Fluid } from "../fluid/viscosity";
import type { Expectation } from "./types";

export interface ExpectedRange {
  low: number;
  centre: number;
  high: number;
  /** The conditions lie outside what the correction was learned on: the range is wider and less sure. */
  beyondSeen: boolean;
}

/** Two-sided 95 % range of a normal. */
const Z95 = 1.96;

/** The level at a date: between the moments at which it is known, and at its ends beyond them. */
function levelOn({ behind, ahead, centre }: Expectation, at: number): { centre: number; deviation: number } {
  const known = [...behind, ...ahead];
  const first = known[0];
  const last = known.at(-1);
  if (!first || !last) return { centre, deviation: 0 };
  const after = known.findIndex((step) => step.at >= at);
  if (after === 0) return first;
  if (after === -1) return last;
  const [from, to] = [known[after - 1]!, known[after]!];
  const share = (at - from.at) / (to.at - from.at);
  return {
    centre: from.centre + share * (to.centre - from.centre),
    deviation: from.deviation + share * (to.deviation - from.deviation),
  };
}

/**
 * Range in which a reading is expected under the conditions just typed, so that a slip is seen before it is saved.
 * @param expectation from the assessment of the point
 * @param fluid as stated; null: readings are not corrected for viscosity
 * @param conditions of the reading
 * @param conditions.pressure bar; null: taken as the reference, with a wider range
 * @param conditions.temperature of the oil, °C; null: taken as the reference, with a wider range
 * @param conditions.at epoch ms; readings may be entered late
 * @returns 95 % range in core units
 * @throws {RangeError} for a temperature outside ASTM D341
 * @example
 * const readings = [50, 51, 50, 52, 51, 53].map((value, month) => ({ at: month * 30 * DAY, value }));
 * const { expectation } = assess(readings, { quantity: "temperature", limit: { upper: 80 } });
 * expectedReading(expectation, null, { pressure: null, temperature: null, at: 180 * DAY }) // { low: 48.3, high: 56.7 }
 */
export function expectedReading(
  expectation: Expectation,
  fluid: Fluid | null,
  { pressure, temperature, at }: { pressure: number | null; temperature: number | null; at: number },
): ExpectedRange {
  const { reference } = expectation;
  const level = levelOn(expectation, at);
  const centre = level.centre;
  const deviation = Math.hypot(expectation.deviation, level.deviation);
  if (expectation.scale === "plain") {
    return { low: centre - Z95 * deviation, centre, high: centre + Z95 * deviation, beyondSeen: false };
  }
  let shift = 0;
  let variance = deviation ** 2;
  let beyondSeen = false;
  const now = expectation.fluidNow ?? fluid;
  if (reference && now) {
    const muRef = expectation.referenceViscosity ?? dynamicViscosity(now, reference.temperature);
    const lnP = pressure !== null && pressure > 0 ? Math.log(pressure / reference.pressure) : 0;
    const lnV = temperature !== null ? Math.log(dynamicViscosity(now, temperature) / muRef) : 0;
    shift = expectation.a * lnP - expectation.b * lnV;
    variance += (lnP * expectation.ua) ** 2 + (lnV * expectation.ub) ** 2;
    if ((pressure === null && expectation.a !== 0) || temperature === null) variance += 0.15 ** 2;
    const { seen } = expectation;
    if (seen) {
      const far = (value: number, [low, high]: [number, number]) => Math.max(0, low - value, value - high);
      const distance = far(lnP, seen.lnPressure) + far(lnV, seen.lnViscosity);
      beyondSeen = distance > 0.1;
      variance += (0.3 * distance) ** 2;
    }
  }
  const sd = Math.sqrt(variance);
  return {
    low: Math.exp(centre + shift - Z95 * sd),
    centre: Math.exp(centre + shift),
    high: Math.exp(centre + shift + Z95 * sd),
    beyondSeen,
  };
}
