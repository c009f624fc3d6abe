/** The margin that an oil has used, of what is nearest to its end. */
import { ACID, VISCOSITY, WATER, type Parts } from "./verdict";
import type { OilAssessment } from "./types";

/** Two determinations of one laboratory differ by about this share: water, viscosity, acid (common practice). */
const DOUBT = { water: 0.1, viscosity: 0.015, acid: 0.06 };

/** Less of these is nothing to speak of: the margin is of the particles. */
const SHOWN_FROM = { water: WATER.doubt / WATER.bad, viscosity: 0.5, acid: 0.5, age: 0.9 };

/** The margin of what is nearest to its end, particles unless something else is worse. */
export function worstMargin(
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
