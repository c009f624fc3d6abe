/** The form of a limit. */
import { number, object, string } from "yup";
import { limitBasisIds, type LimitBasis } from "@core";
import { textField } from "~/platform/validate";

export const limitSchema = object({
  basis: string<LimitBasis>()
    .oneOf(limitBasisIds, "Choose what the limit rests on.")
    .required("Choose what the limit rests on."),
  upper: string().trim().max(40, "At most 40 characters.").default(""),
  lower: string().trim().max(40, "At most 40 characters.").default(""),
  reason: textField(300),
  /** Set although today's level stands beyond it. */
  beyond: string().default(""),
  version: number().integer().required(),
});
