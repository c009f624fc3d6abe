/** JSON Schema of the fleet file. Published in docs/formats.md and docs/fleet.schema.json; a test keeps them the same. */
import { analyteIds, componentKindIds, fluidTypeIds, limitBasisIds, pointQuantityIds, readingStateIds, wearMetals, type AnalyteId, type ComponentFluidNeed, type FilterData, type FluidType, type Material } from "@core";

const name = { type: "string", minLength: 1, maxLength: 100 } as const;
const text = { type: "string", maxLength: 2000 } as const;
const positive = { type: ["number", "null"], exclusiveMinimum: 0 } as const;
/** ISO 4406, "18/16/13"; empty: none. */
const code = { type: "string", pattern: "^(\\d{1,2}/\\d{1,2}/\\d{1,2})?$" } as const;
const above = { type: "number", exclusiveMinimum: 0 } as const;
const value = { type: ["number", "null"] } as const;

/** Figures of an oil by name, core units. */
const figures = { type: "object", additionalProperties: false, properties: Object.fromEntries(analyteIds.map((id) => [id, { type: "number", minimum: 0 }])) } as const;

function record(required: readonly string[], properties: Record<string, unknown>) {
  return { type: "object", additionalProperties: false, required, properties };
}

export const fleetSchema = {
  $schema: "http://json-schema.org/draft-07/schema#",
  title: "Juncteral fleet file",
  ...record(["format", "version", "sites"], {
    format: { const: "juncteral-fleet" },
    version: { const: 1 },
    fluids: { type: "array", items: record(["name", "kv40", "kv100", "density15"], { name, kv40: { type: "number", exclusiveMinimum: 2 }, kv100: { type: "number", exclusiveMinimum: 2 }, density15: { type: "number", minimum: 600, maximum: 1600 } , type: { enum: fluidTypeIds }, waterA: { type: ["number", "null"] }, waterB: positive, fresh: figures }) },
    instruments: { type: "array", items: record(["tag", "name", "quantity", "fullScale", "accuracyClass"], { tag: name, name, quantity: { enum: pointQuantityIds }, fullScale: { type: "number", exclusiveMinimum: 0 }, accuracyClass: { type: "number", exclusiveMinimum: 0 } }) },
    sites: {
      type: "array",
      items: record(["name", "timeZone"], {
        name,
        timeZone: name,
        stops: { type: "array", items: record(["name", "startsOn"], { name, startsOn: { type: "string", pattern: "^\\d{4}-\\d{2}-\\d{2}$" }, days: { type: "integer", minimum: 1 }, crewHours: { type: "number", minimum: 0 } }) },
        machines: {
          type: "array",
          items: record(["name", "tag"], {
            name,
            tag: { type: "string", minLength: 1, maxLength: 40 },
            area: text,
            hoursPerDay: { type: "number", exclusiveMinimum: 0, maximum: 24 },
            note: text,
            circuits: {
              type: "array",
              items: record(["name"], {
                name,
                fluid: { type: ["string", "null"] },
                workingPressure: positive,
                volume: positive,
                startTemperature: value,
                longestHours: positive,
                longestMonths: positive,
                targetCode: code,
                targetReason: text,
                metalLimits: figures,
                components: {
                  type: "array",
                  items: record(["name", "kind"], {
                    name,
                    kind: { enum: componentKindIds },
                    model: text,
                    position: { type: "integer", minimum: 0 },
                    displacement: positive,
                    speed: positive,
                    leadTimeDays: { type: ["integer", "null"], minimum: 0 },
                    runInHours: { type: "number", minimum: 0 },
                    fittedAt: { type: "string", format: "date-time" },
                    fittedHours: { type: "number", minimum: 0 },
                    serial: { type: "string", maxLength: 60 },
                    knownWhenNew: { type: "boolean" },
                    makersCode: code,
                    materials: { type: "array", items: record(["metal", "part"], { metal: { enum: wearMetals }, part: text }) },
                    symptomIfStuck: text,
                    fluidNeed: { oneOf: [{ type: "null" }, record(["least", "bestLow", "bestHigh", "greatestAtStart", "types"], { least: above, bestLow: above, bestHigh: above, greatestAtStart: above, types: { type: "array", items: { enum: fluidTypeIds } } })] },
                    filter: { oneOf: [{ type: "null" }, record(["beta", "size", "flow", "bypass"], { beta: { type: "number", exclusiveMinimum: 1 }, size: above, flow: above, bypass: above, element: text })] },
                    points: {
                      type: "array",
                      items: record(["name", "quantity", "state"], {
                        name,
                        quantity: { enum: pointQuantityIds },
                        state: { enum: readingStateIds },
                        unit: { type: "string", maxLength: 20 },
                        intervalDays: { type: "integer", minimum: 1 },
                        referencePressure: positive,
                        referenceTemperature: value,
                        limit: { oneOf: [{ type: "null" }, record(["basis"], { basis: { enum: limitBasisIds }, upper: value, lower: value, reason: text })] },
                        conditions: text,
                      }),
                    },
                  }),
                },
              }),
            },
          }),
        },
      }),
    },
  }),
} as const;

export interface FleetFile {
  format: "juncteral-fleet";
  version: 1;
  fluids?: { name: string; kv40: number; kv100: number; density15: number; type?: FluidType; waterA?: number | null; waterB?: number | null; fresh?: Partial<Record<AnalyteId, number>> }[];
  instruments?: { tag: string; name: string; quantity: string; fullScale: number; accuracyClass: number }[];
  sites: FleetSite[];
}
export interface FleetSite {
  name: string;
  timeZone: string;
  stops?: { name: string; startsOn: string; days?: number; crewHours?: number }[];
  machines?: FleetMachine[];
}
export interface FleetMachine {
  name: string;
  tag: string;
  area?: string;
  hoursPerDay?: number;
  note?: string;
  circuits?: FleetCircuit[];
}
export interface FleetCircuit {
  name: string;
  fluid?: string | null;
  workingPressure?: number | null;
  volume?: number | null;
  startTemperature?: number | null;
  longestHours?: number | null;
  longestMonths?: number | null;
  targetCode?: string;
  targetReason?: string;
  metalLimits?: Partial<Record<AnalyteId, number>>;
  components?: FleetComponent[];
}
export interface FleetComponent {
  name: string;
  kind: string;
  model?: string;
  position?: number;
  displacement?: number | null;
  speed?: number | null;
  leadTimeDays?: number | null;
  runInHours?: number;
  fittedAt?: string;
  fittedHours?: number;
  serial?: string;
  knownWhenNew?: boolean;
  makersCode?: string;
  materials?: Material[];
  symptomIfStuck?: string;
  fluidNeed?: ComponentFluidNeed | null;
  filter?: (Omit<FilterData, "element"> & { element?: string }) | null;
  points?: FleetPoint[];
}
export interface FleetPoint {
  name: string;
  quantity: string;
  state: string;
  unit?: string;
  intervalDays?: number;
  referencePressure?: number | null;
  referenceTemperature?: number | null;
  limit?: { basis: string; upper?: number | null; lower?: number | null; reason?: string } | null;
  conditions?: string;
}
