/** The forms of work: booking it and recording it as done. */
import { FORM_IS_OLD } from "~/domain/answer";
import { number, object, string, type InferType } from "yup";
import { interventionKinds, workOrigins, type InterventionKind, type WorkOrigin } from "~/db/kinds";

export { interventionKinds, type InterventionKind };
import { dayField, isUuid, nameField, quantityField, textField } from "~/platform/validate";
import { componentKindIds } from "@core";

export const bookingSchema = object({
  componentId: string().uuid("Choose a component.").required("Choose a component."),
  pointId: string().default(""),
  kind: string<InterventionKind>()
    .oneOf([...interventionKinds], "Choose what is to be done.")
    .required("Choose what is to be done."),
  /** Empty: a stop of its own. Left out: nobody has chosen. */
  stopId: string()
    .trim()
    .test("id", "Choose a stop from the list.", (v) => !v || isUuid(v))
    .default(""),
  /** Another piece of work beside one that is booked already. */
  again: string().default(""),
  crewHours: number()
    .transform((v: number, o: unknown) => (typeof o === "string" && o.trim() === "" ? undefined : v))
    .typeError("Write a number of hours.")
    .min(0, "Not below 0.")
    .max(10_000, "At most 10 000.")
    .required("Say how many crew hours it takes."),
  partOrderedOn: dayField(),
  note: textField(),
  /** A stop-gap; the day to look again is named when it is done. */
  interim: string().default(""),
  origin: string<WorkOrigin>()
    .oneOf([...workOrigins])
    .default(""),
  originId: string().trim().max(80).default(""),
  submission: string().uuid(FORM_IS_OLD).required(FORM_IS_OLD),
});

export const doneSchema = object({
  doneAt: string().trim().required("Say when it was done."),
  hours: quantityField("runningHours", { required: true }),
  /** The hours are right although they do not fit what was noted. */
  hoursRight: string().default(""),
  serial: string().trim().max(60, "At most 60 characters.").default(""),
  findings: textField(),
  /** What was changed for good: trends of the part, or of the whole circuit, begin anew. */
  modification: textField(500),
  wholeCircuit: string().default(""),
  /** Signed by an engineer although something on the machine is still altered. */
  acceptAltered: string().default(""),
  version: number().integer().required(),
});

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

export const campaignSchema = object({
  siteId: string().uuid("Choose a site.").required("Choose a site."),
  title: nameField("the campaign"),
  bulletin: string().trim().required("Give the bulletin's number and revision.").max(100, "At most 100 characters."),
  why: textField(1000),
  marking: string()
    .trim()
    .required("Say how the old variant is told from the new one.")
    .max(300, "At most 300 characters."),
  kind: string()
    .oneOf([...componentKindIds], "Choose a kind of part.")
    .required("Choose a kind of part."),
  model: string().trim().max(100, "At most 100 characters.").default(""),
  dueOn: dayField(),
  submission: string().uuid(FORM_IS_OLD).required(FORM_IS_OLD),
});

export const interventionLabels: Record<InterventionKind, string> = {
  replacement: "Replace the part",
  repair: "Repair or overhaul it",
  inspection: "Inspect or test it",
};
