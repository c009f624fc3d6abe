/** For tests against a database: a site with one hoist, its pump and the pump's case drain, as people would enter them. */
import { addRecord } from "./assets/commands.server";
import { actorNamed } from "./access/testActor";

export const ZONE = "Europe/London";
export const ENGINEER = actorNamed("R. Oduya");
export const TECHNICIAN = { ...actorNamed("T. Wren"), role: "technician" as const };

export interface Plant {
  site: string;
  fluid: string;
  machine: string;
  circuit: string;
  pump: string;
  drain: string;
}

/** Add a record as an engineer does; throws with the problems where it is refused. */
export async function add(kind: Parameters<typeof addRecord>[0], fields: Record<string, string>): Promise<string> {
  const added = await addRecord(kind, fields, ENGINEER);
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  return added.id;
}

/** Fields of a component's form. */
export const componentForm = (circuitId: string, change: Record<string, string> = {}): Record<string, string> => ({
  circuitId,
  kind: "axialPistonPump",
  name: "Pump",
  displacement: "45",
  speed: "1450",
  leadTimeDays: "40",
  position: "1",
  runInHours: "50",
  startedAt: "2021-08-01",
  startHours: "0",
  serial: "A1",
  knownWhenNew: "on",
  ...change,
});

/** Fields of a point's form: a case drain at full stroke, corrected to 210 bar and 50 °C. */
export const pointForm = (componentId: string, change: Record<string, string> = {}): Record<string, string> => ({
  componentId,
  name: "Case drain",
  quantity: "caseDrainFlow",
  state: "fullStroke",
  unit: "L/min",
  intervalDays: "30",
  referencePressure: "210",
  referenceTemperature: "50",
  instrumentId: "",
  conditionsText: "",
  ...change,
});

/** Fields of the reading form at that point. */
export const readingForm = (change: Record<string, string> = {}): Record<string, string> => ({
  value: "1.40",
  temperature: "50",
  pressure: "210",
  hours: "",
  speed: "",
  takenAt: "2026-11-20T10:40",
  state: "fullStroke",
  instrumentId: "",
  note: "",
  keptBecause: "",
  submission: crypto.randomUUID(),
  ...change,
});

/** The plant. `tag` keeps names apart where a file makes two; left out, the names are bare and the hoist is TH-1. */
export async function addPlant(tag?: string): Promise<Plant> {
  const named = (what: string) => (tag ? `${what} ${tag}` : what);
  const site = await add("site", { name: named("Trial quay"), timeZone: ZONE });
  const fluid = await add("fluid", { name: named("Trial oil"), kv40: "46", kv100: "6.8", density15: "875" });
  const machine = await add("machine", {
    siteId: site,
    name: named("Trial hoist"),
    tag: `${tag ?? "TH"}-1`,
    area: "Quay",
    hoursPerDay: "9",
    note: "",
  });
  const circuit = await add("circuit", {
    machineId: machine,
    name: "Hoist circuit",
    fluidId: fluid,
    workingPressure: "210 bar",
  });
  const pump = await add("component", componentForm(circuit));
  const drain = await add("point", pointForm(pump));
  return { site, fluid, machine, circuit, pump, drain };
}
