/** The forms of components and points. */
import { object, string } from "yup";
import {
  componentKindIds,
  componentKinds,
  findUnit,
  pointQuantityIds,
  quantities,
  quantityOf,
  readingStateIds,
  readingStates,
  type PointQuantityId,
} from "@core";
import { count, chosen, perhaps, optionsOf, ofPoint } from "./recordFields";
import { nameField, textField, typedQuantity } from "~/platform/validate";
import type { RecordSpec } from "./recordSpec";

/** A component: its plate, its part, what its oil must be. */
export const componentSpec: RecordSpec = {
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
};

/** A measuring point: what is read, how, how often. */
export const pointSpec: RecordSpec = {
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
};
