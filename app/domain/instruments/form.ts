/** The forms of an instrument. */
import { number, object, string } from "yup";
import {
  quantityOf,
  pointQuantityIds,
  type PointQuantityId,
  type Principle,
  type UnitPreference,
  preferredUnit,
} from "@core";
import { nameField, quantityField, textField } from "~/platform/validate";

export const principles: Record<Principle, string> = {
  any: "not stated",
  gauge: "gauge or transducer",
  turbine: "turbine meter",
  gear: "gear meter",
  ultrasonic: "clamp-on ultrasonic",
};
export const principleIds = Object.keys(principles) as Principle[];

export function instrumentSchema(quantity: PointQuantityId, units: UnitPreference) {
  const assume = preferredUnit(quantity, units, quantityOf(quantity).unit);
  return object({
    tag: string().trim().required("Give it a tag, for example P-07.").max(40, "At most 40 characters."),
    name: nameField("the instrument"),
    quantity: string<PointQuantityId>()
      .oneOf(pointQuantityIds, "Choose what it reads.")
      .required("Choose what it reads."),
    principle: string<Principle>().oneOf(principleIds).default("any"),
    fullScale: quantityField(quantity, { required: true, assume }),
    leastReading: quantityField(quantity, { assume }),
    accuracyClass: number()
      .typeError("Write a number, for example 1.0.")
      .moreThan(0, "Above zero.")
      .max(25, "At most 25 % of full scale.")
      .required("Write the class, percent of full scale."),
    viscosityLow: quantityField("viscosity"),
    viscosityHigh: quantityField("viscosity"),
    note: textField(500),
    version: number().integer().default(0),
  });
}

const MOST_POINTS = 12;

/** Lines "stated read" of a check, as typed. */
export function checkLines(text: string): { ok: true; lines: [string, string][] } | { ok: false; message: string } {
  const lines = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter(Boolean);
  if (lines.length < 2) return { ok: false, message: "At least two values: one a line, stated and read." };
  if (lines.length > MOST_POINTS) return { ok: false, message: `At most ${MOST_POINTS} values.` };
  const pairs: [string, string][] = [];
  for (const [i, line] of lines.entries()) {
    const cells = line.split(/[\t;]|\s+/).filter(Boolean);
    if (cells.length !== 2)
      return { ok: false, message: `Line ${i + 1}: write the stated value and what it read, without units.` };
    pairs.push([cells[0]!, cells[1]!]);
  }
  return { ok: true, lines: pairs };
}
