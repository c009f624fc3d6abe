/** One place that turns a request into clean fields: whatever reaches a form schema is text that the database can hold. */
import { data } from "react-router";
import { cleanText, fieldsOf } from "./validate";

const formTypes = /^(application\/x-www-form-urlencoded|multipart\/form-data)\b/i;
const MOST_FIELDS = 2000;

function refused(status: number, message: string) {
  return data({ problems: { form: message } }, { status });
}

/** The form that a request carries. @throws an answer, 415 where it is no form and 400 where it cannot be read */
export async function formOf(request: Request): Promise<FormData> {
  if (!formTypes.test(request.headers.get("Content-Type") ?? "")) throw refused(415, "This is not a form.");
  const form = await request.formData().catch(() => {
    throw refused(400, "The form broke off on its way. Send it again.");
  });
  if ([...form.keys()].length > MOST_FIELDS) throw refused(400, "This form has more fields than any of ours.");
  return form;
}

/** The text fields of the form that a request carries. */
export async function formFields(request: Request): Promise<Record<string, string>> {
  return fieldsOf(await formOf(request));
}

/** Of what a tablet sends at once: values in all, and how deep they lie in one another. */
const MOST_VALUES = 20_000;
const DEEPEST = 12;

/**
 * Is this text of a shape that any of ours has? Looked at before it is parsed, in one pass over what stands outside of its
 * texts: half a megabyte of "[[[[" holds a server for seconds, a photograph of five costs nothing.
 */
function isOfOurShape(text: string): boolean {
  let [values, depth] = [0, 0];
  for (let i = 0; i < text.length; i++) {
    const letter = text.charCodeAt(i);
    if (letter === 0x22) {
      do {
        i = text.indexOf('"', i + 1);
        if (i < 0) return false;
      } while (escaped(text, i));
    } else if (letter === 0x5b || letter === 0x7b) {
      if (++depth > DEEPEST) return false;
      values++;
    } else if (letter === 0x5d || letter === 0x7d) depth--;
    else if (letter === 0x2c) values++;
    if (values > MOST_VALUES) return false;
  }
  return true;
}

/** Is the quotation mark at `i` part of the text: an odd number of backslashes before it? */
function escaped(text: string, i: number): boolean {
  let before = i - 1;
  while (text.charCodeAt(before) === 0x5c) before--;
  return (i - before) % 2 === 0;
}

/** The same without names that every object has, which reach into programs, and with texts that the database can hold. */
function ownNames(value: unknown): unknown {
  if (typeof value === "string") return cleanText(value);
  if (Array.isArray(value)) return value.map(ownNames);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, own]) => (name in Object.prototype ? [] : [[name, ownNames(own)]])),
  );
}

/** JSON as it came, its texts cleaned, with own names only; undefined when it is none, or larger than any of ours. */
export async function jsonOf(request: Request): Promise<unknown> {
  const text = await request.text().catch(() => "");
  if (!isOfOurShape(text)) return undefined;
  try {
    return ownNames(JSON.parse(text));
  } catch {
    return undefined;
  }
}
