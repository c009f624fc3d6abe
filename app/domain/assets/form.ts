/** The records of the fleet that are edited by hand: their fields and what is allowed in them. */
import { boolean, object, string, type AnyObject, type ObjectSchema } from "yup";
import {
  calendarDay,
  componentKindIds,
  componentKinds,
  findUnit,
  fluidTypeIds,
  fluidTypes,
  pointQuantityIds,
  quantities,
  quantityOf,
  readingStateIds,
  readingStates,
  type PointQuantityId,
  type QuantityId,
} from "@core";
import { analyteField } from "./analyteLines";
import { freshIds, count, chosen, perhaps, ticked, optionsOf, ofPoint } from "./recordFields";
import { nameField, quantityField, textField, typedQuantity, validTimeZone } from "~/platform/validate";

export const recordKinds = ["site", "machine", "circuit", "component", "point", "fluid", "stop"] as const;
export type RecordKind = (typeof recordKinds)[number];

export function isRecordKind(text: string | undefined): text is RecordKind {
  return recordKinds.includes(text as RecordKind);
}

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

export const recordSpecs: Record<RecordKind, RecordSpec> = {
  site: {
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
  },
  machine: {
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
  },
  circuit: {
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
  },
  component: {
    label: "component",
    fields: [
      { name: "circuitId", label: "Circuit", type: "select", from: "circuits" },
      { name: "kind", label: "Kind", type: "select", options: optionsOf(componentKinds, componentKindIds) },
      { name: "name", label: "Name", type: "text" },
      { name: "tag", label: "Tag", type: "text", optional: true },
      { name: "model", label: "Model or variant", type: "text", optional: true },
      { name: "position", label: "Place along the circuit", type: "number", hint: "0 at the reservoir" },
      { name: "displacement", label: "Displacement", type: "quantity", quantity: "displacement", optional: true },
      {
        name: "speed",
        label: "Speed",
        type: "quantity",
        quantity: "speed",
        optional: true,
        hint: "Displacement and speed give the full flow",
      },
      {
        name: "maxPressure",
        label: "Greatest pressure it is rated for",
        type: "quantity",
        quantity: "loadPressure",
        optional: true,
      },
      { name: "leadTimeDays", label: "Lead time of the part, days", type: "number", optional: true },
      { name: "sparesOnHand", label: "Spares on hand", type: "number" },
      {
        name: "exerciseDays",
        label: "Longest time without a move, days",
        type: "number",
        optional: true,
        hint: "Of a valve that seldom moves: it is to be moved before it seizes",
      },
      {
        name: "partCost",
        label: "Cost of a new part",
        type: "number",
        optional: true,
        hint: "In the currency of the plan; empty: usual of its kind",
      },
      {
        name: "failureCost",
        label: "Cost of failing in service",
        type: "number",
        optional: true,
        hint: "Repair, standing and damage downstream together",
      },
      { name: "runInHours", label: "Run-in, hours", type: "number" },
    ],
    schema: object({
      circuitId: chosen("a circuit"),
      kind: string().oneOf(componentKindIds, "Choose a kind.").required(),
      name: nameField("the component"),
      tag: string().trim().max(40, "At most 40 characters.").default(""),
      model: string().trim().max(100, "At most 100 characters.").default(""),
      position: count(0, 999).integer("A whole number.").default(0),
      displacement: typedQuantity("displacement"),
      speed: typedQuantity("speed"),
      maxPressure: typedQuantity("loadPressure"),
      leadTimeDays: count(0, 2000).integer("Whole days."),
      sparesOnHand: count(0, 999).integer("A whole number.").default(0),
      exerciseDays: count(1, 3650).integer("A whole number."),
      partCost: count(0, 1e9),
      failureCost: count(0, 1e9),
      runInHours: count(0, 5000).default(50),
    }),
  },
  point: {
    label: "point",
    fields: [
      { name: "componentId", label: "Component", type: "select", from: "components" },
      { name: "name", label: "Name", type: "text" },
      { name: "tag", label: "Tag", type: "text", optional: true },
      { name: "quantity", label: "What it reads", type: "select", options: optionsOf(quantities, pointQuantityIds) },
      {
        name: "state",
        label: "State it is read in",
        type: "select",
        options: readingStateIds.map((value) => ({ value, label: readingStates[value] })),
        hint: "A series never mixes states",
      },
      { name: "unit", label: "Unit", type: "text", hint: "As on the instrument: bar, psi, L/min, gal/min, °C, mm" },
      { name: "intervalDays", label: "Read every, days", type: "number" },
      {
        name: "referencePressure",
        label: "Reference pressure",
        type: "quantity",
        quantity: "loadPressure",
        optional: true,
        hint: "For leakage: readings are corrected to it",
      },
      {
        name: "referenceTemperature",
        label: "Reference oil temperature",
        type: "quantity",
        quantity: "oilTemperature",
        optional: true,
      },
      {
        name: "makersNew",
        label: "Manufacturer’s value for a new part",
        type: "quantity",
        optional: true,
        hint: "Serves as new where the part was not read when it was",
      },
      { name: "instrumentId", label: "Usual instrument", type: "select", from: "instruments", optional: true },
      { name: "conditionsText", label: "Conditions it must be read under", type: "text", optional: true },
    ],
    schema: object({
      componentId: chosen("a component"),
      name: nameField("the point"),
      quantity: string<PointQuantityId>().oneOf(pointQuantityIds, "Choose what it reads.").required(),
      state: string().oneOf(readingStateIds, "Choose a state.").required(),
      tag: string().trim().max(40, "At most 40 characters.").default(""),
      makersNew: ofPoint(),
      unit: string()
        .trim()
        .max(20, "At most 20 characters.")
        .when("quantity", ([quantity], schema) =>
          schema.test(
            "unit",
            ({ value }) =>
              `“${value}” is not a unit of this quantity. The usual one is ` +
              `${pointQuantityIds.includes(quantity as PointQuantityId) ? quantityOf(quantity as PointQuantityId).unit : "?"}.`,
            (unit) =>
              !pointQuantityIds.includes(quantity as PointQuantityId) ||
              !unit ||
              Boolean(findUnit(unit, quantityOf(quantity as PointQuantityId).dimension)),
          ),
        )
        .default(""),
      intervalDays: count(1, 3650).integer("Whole days.").default(30),
      referencePressure: typedQuantity("loadPressure"),
      referenceTemperature: typedQuantity("oilTemperature"),
      instrumentId: perhaps("an instrument"),
      conditionsText: textField(300),
    }),
  },
  fluid: {
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
  },
  stop: {
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
  },
};

export const newLifeSchema = object({
  startedAt: string().trim().default(""),
  startHours: quantityField("runningHours"),
  serial: string().trim().max(60, "At most 60 characters.").default(""),
  knownWhenNew: boolean().default(false),
});
