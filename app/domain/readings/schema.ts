/** The fields of a reading. */
import { FORM_IS_OLD } from "~/domain/answer";
import { mixed, object, string } from "yup";
import { preferredUnit, readingStateIds, type PointQuantityId, type ReadingState, type UnitPreference } from "@core";
import { quantityField, textField } from "~/platform/validate";

/** Schema of a reading at a point that reads `quantity` in `unit`, by somebody who prefers `units`. */
export function readingSchema(quantity: PointQuantityId, unit: string, cycle: boolean, units: UnitPreference = {}) {
  return object({
    value: quantityField(quantity, { required: true, assume: unit }),
    least: cycle ? quantityField(quantity, { required: true, assume: unit }) : mixed<never>().nullable().default(null),
    temperature: quantityField("oilTemperature", { assume: preferredUnit("oilTemperature", units) }),
    pressure: quantityField("loadPressure", { assume: preferredUnit("loadPressure", units) }),
    speed: quantityField("speed"),
    hours: quantityField("runningHours"),
    takenAt: string().trim().required("Say when it was read."),
    state: string<ReadingState>()
      .oneOf(readingStateIds, "Choose the state it was read in.")
      .required("Choose the state it was read in."),
    instrumentId: string().trim().default(""),
    note: textField(1000),
    keptBecause: textField(300),
    submission: string().uuid(FORM_IS_OLD).required(FORM_IS_OLD),
  });
}
