/** The forms of work: booking it and recording it as done. */
import { FORM_IS_OLD } from "~/domain/answer";
import { number, object, string } from "yup";
import { interventionKinds, type InterventionKind } from "~/db/kinds";

export { interventionKinds };
import { dayField, isUuid, quantityField, textField } from "~/platform/validate";

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
  submission: string().uuid(FORM_IS_OLD).required(FORM_IS_OLD),
});

export const doneSchema = object({
  doneAt: string().trim().required("Say when it was done."),
  hours: quantityField("runningHours", { required: true }),
  /** The hours are right although they do not fit what was noted. */
  hoursRight: string().default(""),
  serial: string().trim().max(60, "At most 60 characters.").default(""),
  findings: textField(),
  version: number().integer().required(),
});

export const interventionLabels: Record<InterventionKind, string> = {
  replacement: "Replace the part",
  repair: "Repair or overhaul it",
  inspection: "Inspect or test it",
};
