/** Fields that the records of the fleet share: counts, choices, boxes, and a value of the point's own quantity. */
import { boolean, mixed, number, string } from "yup";
import {
  analyteIds,
  analytes,
  findUnit,
  isPointQuantity,
  quantityOf,
  type ParsedQuantity,
  type PointQuantityId,
} from "@core";
import { isUuid, quantityField } from "~/platform/validate";

/** What a laboratory finds in new oil: all but particles and water. */
export const freshIds = analyteIds
  .filter((id) => analytes[id].group !== "count" && analytes[id].group !== "condition")
  .concat("acidNumber");

/** A number in a range; an empty field is none. */
export const count = (least: number, most: number) =>
  number()
    .transform((v: number, o: unknown) => (typeof o === "string" && o.trim() === "" ? undefined : v))
    .typeError("Write a number.")
    .min(least, `At least ${least}.`)
    .max(most, `At most ${most}.`);
/** An id that has to be chosen, and one that may be. */
export const chosen = (what: string) => string().trim().uuid(`Choose ${what}.`).required(`Choose ${what}.`);
export const perhaps = (what: string) =>
  string()
    .trim()
    .test("id", `Choose ${what} from the list.`, (v) => !v || isUuid(v))
    .default("");
/** A box of a form: "on", or not sent at all. */
export const ticked = () =>
  boolean()
    .transform((_v, original: unknown) => original === "on" || original === true)
    .default(false);
export const optionsOf = (table: Record<string, { label: string }>, ids: readonly string[]) =>
  ids.map((value) => ({ value, label: table[value]!.label }));

/** A value of the quantity that the point itself reads, in its unit where none is written. */
export const ofPoint = () =>
  mixed<ParsedQuantity>()
    .nullable()
    .default(null)
    .when(["quantity", "unit"], ([quantity, unit]: (string | undefined)[], schema) =>
      isPointQuantity(quantity ?? "")
        ? quantityField(
            quantity as PointQuantityId,
            unit && findUnit(unit, quantityOf(quantity as PointQuantityId).dimension) ? { assume: unit } : {},
          )
        : schema,
    );
