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

/** JSON as it came, its texts cleaned; undefined when it is none. */
export async function jsonOf(request: Request): Promise<unknown> {
  const text = await request.text().catch(() => "");
  try {
    return JSON.parse(text, (_key, value: unknown) => (typeof value === "string" ? cleanText(value) : value));
  } catch {
    return undefined;
  }
}
