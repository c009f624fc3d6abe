/** Forms are checked by Yup schemas; messages go beside their fields. */
import { TZDate } from "@date-fns/tz";
import { mixed, setLocale, string, ValidationError, type InferType, type ObjectSchema, type AnyObject } from "yup";
import {
  calendarDay,
  isDay,
  parseQuantity,
  preferredUnit,
  type ParsedQuantity,
  type QuantityId,
  type UnitPreference,
} from "@core";

/** What is said of a form that no page of ours sends as it is. */
export const FORM_IS_OLD = "The form is out of date: load the page again.";

// what no form of ours sends is answered in words of ours
setLocale({
  mixed: {
    default: FORM_IS_OLD,
    required: "Fill this in.",
    oneOf: "Choose one of those offered.",
    notOneOf: "Choose one of those offered.",
    notType: FORM_IS_OLD,
    defined: FORM_IS_OLD,
  },
  string: {
    max: ({ max }: { max: number }) => `At most ${max} characters.`,
    min: ({ min }: { min: number }) => `At least ${min} characters.`,
    matches: "This is not written as it should be.",
  },
  number: {
    min: ({ min }: { min: number }) => `At least ${min}.`,
    max: ({ max }: { max: number }) => `At most ${max}.`,
    integer: "Write a whole number.",
  },
});

export type Checked<T> = { ok: true; values: T } | { ok: false; problems: Record<string, string> };

/** A text without characters that the database cannot hold. */
export const cleanText = (text: string) => text.replaceAll("\0", "");

const fieldName = /^[A-Za-z][\w.:-]{0,63}$/;

/** Text fields of a form as an object; a field that is missing is an empty text. Names that are none of a form's are left out. */
export function fieldsOf(form: FormData): Record<string, string> {
  const fields: Record<string, string> = {};
  for (const [name, value] of form)
    if (typeof value === "string" && fieldName.test(name) && !(name in Object.prototype))
      fields[name] = cleanText(value);
  return fields;
}

/** Check all fields at once. */
export async function check<T extends AnyObject>(
  schema: ObjectSchema<T>,
  fields: Record<string, unknown>,
  by?: TypedBy,
): Promise<Checked<InferType<ObjectSchema<T>>>> {
  try {
    return {
      ok: true,
      values: await schema.validate(fields, { abortEarly: false, stripUnknown: true, context: by }),
    };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const problems: Record<string, string> = {};
    for (const inner of error.inner.length ? error.inner : [error]) problems[inner.path ?? "form"] ??= inner.message;
    return { ok: false, problems };
  }
}

/** A name that a person gives: 1 to 100 characters. */
export const nameField = (what: string) =>
  string().trim().required(`Give ${what} a name.`).max(100, "At most 100 characters.");

/** Free text of at most `most` characters; empty when left out. */
export const textField = (most = 2000) => string().trim().max(most, `At most ${most} characters.`).default("");

/** What a schema is told of the person who typed: units that bare numbers are in. */
export interface TypedBy {
  units: UnitPreference;
}

/** A quantity as typed, with or without a unit; null when left empty and not required. `assume`: unit of a bare number. */
export function quantityField(
  id: QuantityId,
  { required = false, assume }: { required?: boolean; assume?: string } = {},
) {
  return mixed<ParsedQuantity>()
    .nullable()
    .transform((_value, original: unknown) => {
      const text = typeof original === "string" ? original.trim() : "";
      if (text === "" && !required) return null;
      const result = parseQuantity(text, id, assume === undefined ? {} : { assume });
      return result.ok ? result.parsed : result;
    })
    .test("quantity", (value, context) => {
      if (required && (value === null || value === undefined))
        return context.createError({ message: "Enter a value." });
      const failed = value as unknown as { ok?: false; message?: string } | null | undefined;
      return failed && failed.ok === false ? context.createError({ message: failed.message ?? "Not a value." }) : true;
    })
    .default(null);
}

/** A quantity as typed; a bare number is in the unit that the person prefers (see `check`). */
export function typedQuantity(id: QuantityId, required = false) {
  return mixed<ParsedQuantity>()
    .nullable()
    .default(null)
    .when("$units", ([units]: (UnitPreference | undefined)[]) =>
      quantityField(id, { required, assume: preferredUnit(id, units ?? {}) }),
    );
}

/** A calendar day, or empty. */
export const dayField = () =>
  string()
    .trim()
    .test("day", "Write the date as 2026-11-20.", (text) => !text || calendarDay(text) !== undefined)
    .default("");

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export function isUuid(text: string | null | undefined): text is string {
  return typeof text === "string" && uuid.test(text);
}

/** The moment of a datetime-local text in a time zone; NaN when it is none, or a day that does not exist. */
export function localMoment(text: string, timeZone: string): number {
  const match = /^(\d{4})-(\d{2})-(\d{2})[T ](\d{2}):(\d{2})(?::\d{2})?$/.exec(text.trim());
  if (!match) return Number.NaN;
  const [, y, m, d, h, min] = match.map(Number) as [number, number, number, number, number, number];
  if (!isDay(y, m, d) || h > 23 || min > 59) return Number.NaN;
  return new TZDate(y, m - 1, d, h, min, timeZone).getTime();
}

const HOUR_MS = 3_600_000;

/**
 * The same for a moment that has passed. In the hour that comes twice when the clocks go back a text names two moments: the later
 * one, unless that lies ahead, so that a reading of this very minute is none of the future.
 */
export function pastMoment(text: string, timeZone: string, now: number): number {
  const later = localMoment(text, timeZone);
  if (!(later > now)) return later;
  const earlier = later - HOUR_MS;
  const shows = new TZDate(earlier, timeZone);
  const again = new TZDate(later, timeZone);
  return shows.getHours() === again.getHours() && shows.getMinutes() === again.getMinutes() ? earlier : later;
}

/** Is it the name of a time zone, as "Europe/London"? */
export function validTimeZone(zone: string | undefined): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone ?? "" });
    return Boolean(zone);
  } catch {
    return false;
  }
}
