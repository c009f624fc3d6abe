/** What a form of a record is made of. */
import type { AnyObject, ObjectSchema } from "yup";
import type { QuantityId } from "@core";

export interface FieldSpec {
  name: string;
  label: string;
  hint?: string;
  /** A typed quantity keeps its unit; figures are those of an oil, one a line; a select takes options, from the database where `from` says so. */
  type: "text" | "area" | "figures" | "number" | "date" | "check" | "select" | "quantity";
  quantity?: QuantityId;
  options?: { value: string; label: string }[];
  from?: "sites" | "machines" | "circuits" | "components" | "fluids" | "instruments";
  optional?: boolean;
}

export interface RecordSpec {
  label: string;
  fields: FieldSpec[];
  schema: ObjectSchema<AnyObject>;
}
