/** The forms of sites, machines, circuits, fluids and stops. */
import { object, string } from "yup";
import { calendarDay, fluidTypeIds, fluidTypes } from "@core";
import { analyteField } from "./analyteLines";
import { freshIds, count, chosen, perhaps, ticked } from "./recordFields";
import { nameField, textField, typedQuantity, validTimeZone } from "~/platform/validate";
import type { RecordSpec } from "./recordSpec";

/** A site, its zone and how its work is released. */
export const siteSpec: RecordSpec = {
  label: "site",
  fields: [
    { name: "name", label: "Name", type: "text" },
    { name: "timeZone", label: "Time zone", type: "text", hint: "For example Europe/London" },
    { name: "holdsReleased", label: "An engineer releases each hold point of a procedure", type: "check" },
    { name: "twoSignatures", label: "A second person checks and signs each record of work", type: "check" },
    {
      name: "nextChanceDays",
      label: "Days to an unplanned stop",
      type: "number",
      hint: "Where no stop is planned: within how many days a machine could be stopped for what cannot wait",
    },
    {
      name: "acceptedPercent",
      label: "Accepted chance of the limit, %",
      type: "number",
      hint: "An alarm is told when the limit before it can be helped is likelier than this. Lower: earlier and more often",
    },
  ],
  schema: object({
    name: nameField("the site"),
    timeZone: string()
      .trim()
      .test("zone", "Not a time zone. Write for example Europe/London.", validTimeZone)
      .required(),
    holdsReleased: ticked(),
    twoSignatures: ticked(),
    nextChanceDays: count(1, 365).integer("A whole number of days.").default(28),
    acceptedPercent: count(1, 50).integer("A whole percentage, 1 to 50.").default(30),
  }),
};

/** A machine and its duty. */
export const machineSpec: RecordSpec = {
  label: "machine",
  fields: [
    { name: "siteId", label: "Site", type: "select", from: "sites" },
    { name: "name", label: "Name", type: "text" },
    { name: "tag", label: "Tag", type: "text", hint: "Short and unique on the site; it stands in export files" },
    { name: "area", label: "Area", type: "text", optional: true },
    {
      name: "hoursPerDay",
      label: "Running hours a day",
      type: "number",
      hint: "Used until readings carry their own hours",
    },
    { name: "dutyDeviation", label: "How far that may be off", type: "number", hint: "As a share: 0.15 is 15 %" },
    { name: "note", label: "Note", type: "area", optional: true },
  ],
  schema: object({
    siteId: chosen("a site"),
    name: nameField("the machine"),
    tag: string().trim().required("Give it a tag.").max(40, "At most 40 characters."),
    area: string().trim().max(100, "At most 100 characters.").default(""),
    hoursPerDay: count(0.01, 24).default(8),
    dutyDeviation: count(0.01, 2).default(0.15),
    note: textField(),
  }),
};

/** A circuit, its oil and its target. */
export const circuitSpec: RecordSpec = {
  label: "circuit",
  fields: [
    { name: "machineId", label: "Machine", type: "select", from: "machines" },
    { name: "name", label: "Name", type: "text" },
    {
      name: "fluidId",
      label: "Fluid",
      type: "select",
      from: "fluids",
      optional: true,
      hint: "Without it, leakage cannot be corrected for temperature",
    },
    {
      name: "workingPressure",
      label: "Working pressure",
      type: "quantity",
      quantity: "loadPressure",
      optional: true,
    },
    {
      name: "volume",
      label: "Oil in it",
      type: "quantity",
      quantity: "volume",
      optional: true,
      hint: "Wear metals and clean-up are reckoned with it",
    },
  ],
  schema: object({
    machineId: chosen("a machine"),
    name: nameField("the circuit"),
    fluidId: perhaps("a fluid"),
    workingPressure: typedQuantity("loadPressure"),
    volume: typedQuantity("volume"),
  }),
};

/** A fluid by its data sheet. */
export const fluidSpec: RecordSpec = {
  label: "fluid",
  fields: [
    { name: "name", label: "Name", type: "text" },
    { name: "kv40", label: "Viscosity at 40 °C", type: "quantity", quantity: "viscosity" },
    {
      name: "kv100",
      label: "Viscosity at 100 °C",
      type: "quantity",
      quantity: "viscosity",
      hint: "A water emulsion is near 0.7 at 40 °C and 0.3 at 100 °C",
    },
    { name: "density15", label: "Density at 15 °C", type: "quantity", quantity: "density" },
    {
      name: "type",
      label: "Type",
      type: "select",
      options: fluidTypeIds.map((value) => ({ value, label: fluidTypes[value] })),
      hint: "Two types are never mixed",
    },
    {
      name: "waterA",
      label: "Water it dissolves, A",
      type: "number",
      optional: true,
      hint: "log10 of ppm = A − B / kelvin; its manufacturer’s constants",
    },
    { name: "waterB", label: "and B, K", type: "number", optional: true },
    {
      name: "fresh",
      label: "The new oil, one figure a line",
      type: "figures",
      optional: true,
      hint: "For example acid number: 0.45, zinc: 420 ppm. Top-ups are corrected with it",
    },
  ],
  schema: object({
    name: nameField("the fluid"),
    kv40: typedQuantity("viscosity", true),
    kv100: typedQuantity("viscosity", true),
    density15: typedQuantity("density", true),
    type: string().oneOf(fluidTypeIds, "Choose a type.").default("mineral"),
    waterA: count(0, 50),
    waterB: count(1, 20_000),
    fresh: analyteField(freshIds),
  }).test("order", (v, context) => {
    const low = (v.kv100 as { value?: number } | null)?.value;
    const high = (v.kv40 as { value?: number } | null)?.value;
    if (low === undefined || high === undefined) return true;
    if (low <= 0.21)
      return context.createError({ path: "kv100", message: "Above 0.21 mm²/s: ASTM D341 is not valid below." });
    return (
      high > low ||
      context.createError({ path: "kv40", message: "The viscosity at 40 °C must be above that at 100 °C." })
    );
  }),
};

/** A planned stop. */
export const stopSpec: RecordSpec = {
  label: "planned stop",
  fields: [
    { name: "siteId", label: "Site", type: "select", from: "sites" },
    { name: "name", label: "Name", type: "text" },
    { name: "startsOn", label: "Starts on", type: "date" },
    { name: "days", label: "Days", type: "number" },
    { name: "crewHours", label: "Crew hours, fitters", type: "number" },
    { name: "electricianHours", label: "Crew hours, electricians", type: "number" },
    {
      name: "machineTags",
      label: "Machines that stand",
      type: "text",
      optional: true,
      hint: "Tags, separated by commas; empty: all of them",
    },
  ],
  schema: object({
    siteId: chosen("a site"),
    name: nameField("the stop"),
    startsOn: string()
      .trim()
      .test("date", "Write the date as 2027-01-18.", (text) => calendarDay(text ?? "") !== undefined)
      .required("Say when it starts."),
    days: count(1, 365).integer("Whole days.").default(1),
    crewHours: count(0, 100_000).default(24),
    electricianHours: count(0, 100_000).default(0),
    machineTags: string().trim().max(1000, "At most 1000 characters.").default(""),
  }),
};
