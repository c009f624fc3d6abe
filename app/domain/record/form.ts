/** The form of the record: what is written up of a piece of work. */
import { number, object, string, type InferType } from "yup";
import { dayField, textField } from "~/platform/validate";

/** What is written up of a piece of work until its record is signed. */
export const writeUpSchema = object({
  parts: textField(1000),
  people: textField(300),
  settingsLeft: textField(1000),
  openPoints: textField(1000),
  /** A stop-gap is looked at again. */
  interim: string().default(""),
  lookAgainOn: dayField().when("interim", {
    is: "on",
    then: (s) => s.required("A stop-gap has a day on which it is looked at again."),
  }),
  version: number().integer().required(),
});

/** What is written up, as the record keeps it. */
export function recordWords({ version: _version, interim, lookAgainOn, ...words }: InferType<typeof writeUpSchema>) {
  return { ...words, interim: interim === "on", lookAgainOn: interim === "on" ? lookAgainOn : null };
}

/** The same, typed beside "done": of one form, so that neither button loses what belongs to the other. */
export const writtenUp = (fields: Readonly<Record<string, string>>) => "settingsLeft" in fields || "parts" in fields;
