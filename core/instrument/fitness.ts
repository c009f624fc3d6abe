/**
 * Is an instrument fit for a reading: can it survive the worst value, is its error small against the change
 * to be seen, does its principle suit the fluid, and is its calibration valid? Rules: practice of the trade.
 */
export type Principle = "gauge" | "turbine" | "gear" | "ultrasonic" | "any";

export interface Instrument {
  /** Greatest value of its scale, any unit as long as the need uses the same. */
  fullScale: number;
  /** Permissible error, percent of full scale. */
  accuracyClass: number;
  principle?: Principle;
  /** Least value that it reads at all, same unit. */
  leastReading?: number;
  /** Viscosity that it works with, mm²/s. */
  viscosity?: { low: number; high: number };
  /** Epoch ms until which its calibration is valid; null: never calibrated; left out: not asked. */
  calibrationDue?: number | null;
}

export interface InstrumentNeed {
  /** Value usually read. */
  expected: number;
  /** Greatest value that can come, as when an outlet is closed. */
  greatest: number;
  /** Change that has to be seen. */
  change: number;
  /** Viscosity of the oil at reading, mm²/s. */
  viscosity?: number;
  /** Is the oil kept so clean that a meter which needs particles reads nothing? */
  cleanOil?: boolean;
  /** Epoch ms. */
  now?: number;
}

export interface InstrumentFitness {
  fit: boolean;
  /** Fit, and the usual value lies between 25 and 75 % of full scale. */
  preferred: boolean;
  /** Permissible error, ±, unit of the scale. */
  permissible: number;
  /** Expanded uncertainty U (k = 2), the class taken as a rectangle: 2·(class·FS)/√3. */
  expanded: number;
  /** U over the usual value; Infinity at zero. */
  share: number;
  /** Greatest U that would still show the change. */
  allowed: number;
  /** Place of the usual value on the scale, percent. */
  place: number;
  /** Why it is not fit, or not preferred. */
  reasons: { must: boolean; message: string }[];
}

/**
 * Does an instrument fit a point: range, permissible error against the change to be seen, viscosity, calibration? Its expanded
 * uncertainty must not exceed a third of the change, its full scale must lie above the greatest value (common practice).
 * @param instrument full scale and class above 0, in the unit of the need
 * @param need what is read there, in one unit; the change to be seen above 0
 * @returns whether it fits, with its uncertainty and the reasons against it
 * @throws {RangeError} when full scale, class or change is not above zero.
 * @example instrumentFitness({ fullScale: 400, accuracyClass: 1 }, { expected: 210, greatest: 280, change: 15 })
 * // { fit: true, preferred: true, permissible: 4, expanded: 4.619, allowed: 5, place: 52.5 }
 */
export function instrumentFitness(instrument: Instrument, need: InstrumentNeed): InstrumentFitness {
  const { fullScale, accuracyClass } = instrument;
  if (!(fullScale > 0) || !(accuracyClass > 0) || !(need.change > 0))
    throw new RangeError("Full scale, class and the change to be seen must be above zero.");
  const permissible = (accuracyClass / 100) * fullScale;
  const expanded = (2 * permissible) / Math.sqrt(3);
  const allowed = need.change / 3;
  const place = (100 * need.expected) / fullScale;
  const reasons: InstrumentFitness["reasons"] = [];
  const must = (broken: boolean, message: string) => broken && reasons.push({ must: true, message });
  must(fullScale <= need.greatest, "It would be over-ranged: the greatest value that can come reaches its full scale.");
  must(expanded > allowed, "It is too coarse for the change that has to be seen.");
  must(
    instrument.leastReading !== undefined && need.expected < instrument.leastReading,
    "The usual value lies below what it reads at all.",
  );
  must(
    instrument.viscosity !== undefined &&
      need.viscosity !== undefined &&
      (need.viscosity < instrument.viscosity.low || need.viscosity > instrument.viscosity.high),
    "The oil is thinner or thicker than it is made for.",
  );
  must(
    instrument.principle === "ultrasonic" && need.cleanOil === true,
    "It needs particles in the oil, and this oil is kept clean.",
  );
  must(instrument.calibrationDue === null, "It was never calibrated.");
  must(
    typeof instrument.calibrationDue === "number" && need.now !== undefined && instrument.calibrationDue < need.now,
    "Its calibration has run out.",
  );
  const fit = reasons.length === 0;
  if (place < 25 || place > 75)
    reasons.push({
      must: false,
      message:
        place < 25
          ? "The usual value lies in the lowest quarter of its scale."
          : "The usual value lies in the uppermost quarter of its scale.",
    });
  return {
    fit,
    preferred: fit && place >= 25 && place <= 75,
    permissible,
    expanded,
    share: need.expected === 0 ? Infinity : expanded / Math.abs(need.expected),
    allowed,
    place,
    reasons,
  };
}
