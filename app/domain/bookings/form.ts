/** The forms of work: booking it and recording it as done. */
import { number, object, string } from "yup";
import { interventionKinds, workOrigins, type InterventionKind, type WorkOrigin } from "~/db/kinds";
import { FORM_IS_OLD } from "~/domain/answer";
import { dayField, isUuid, nameField, quantityField, textField } from "~/platform/validate";
import { componentKindIds } from "@core";

export { interventionKinds, type InterventionKind };

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
