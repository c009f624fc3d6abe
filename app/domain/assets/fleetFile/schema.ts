/** JSON Schema of the fleet file. Published in docs/formats.md and docs/fleet.schema.json; a test keeps them the same. */
import {
  analyteIds,
  componentKindIds,
  elementKindIds,
  fluidTypeIds,
  limitBasisIds,
  pointQuantityIds,
  readingStateIds,
  wearMetals,
} from "@core";

/** What an integer column and a tidy figure hold. */
const whole = (minimum: number, maximum: number) => ({ type: "integer", minimum, maximum }) as const;
const upTo = (maximum: number) => ({ type: ["number", "null"], exclusiveMinimum: 0, maximum }) as const;
const moment = { type: "string", format: "date-time" } as const;
/** Since when it is out of use; left out: it is in use. */
const retiredAt = moment;

const name = { type: "string", minLength: 1, maxLength: 100 } as const;
const text = { type: "string", maxLength: 2000 } as const;
const positive = upTo(1e9);
const short = { type: "string", maxLength: 40 } as const;
/** ISO 4406, "18/16/13"; empty: none. */
const code = { type: "string", pattern: "^(\\d{1,2}/\\d{1,2}/\\d{1,2})?$" } as const;
const above = { type: "number", exclusiveMinimum: 0, maximum: 1e9 } as const;
const value = { type: ["number", "null"], minimum: -1e9, maximum: 1e9 } as const;
/** °C of a hydraulic oil, as the forms take it. */
const oilTemperature = { type: ["number", "null"], minimum: -40, maximum: 130 } as const;
const cost = { type: ["number", "null"], minimum: 0, maximum: 1e9 } as const;
const hoursCount = { type: "number", minimum: 0, maximum: 1e6 } as const;

/** Figures of an oil by name, core units. */
const figures = {
  type: "object",
  additionalProperties: false,
  properties: Object.fromEntries(analyteIds.map((id) => [id, { type: "number", minimum: 0 }])),
} as const;

const port = {
  type: "object",
  additionalProperties: false,
  required: ["element", "port"],
  properties: { element: short, port: short },
} as const;
/** A circuit as somebody drew it; one that is only proposed is not in the file. */
const diagram = {
  type: "object",
  additionalProperties: false,
  required: ["drawnBy", "elements", "lines"],
  properties: {
    drawnBy: { type: "string", minLength: 1, maxLength: 100 },
    elements: {
      type: "array",
      maxItems: 300,
      items: {
        type: "object",
        additionalProperties: false,
        required: ["id", "kind", "name"],
        properties: {
          id: { type: "string", pattern: "^[\\w-]{1,40}$" },
          kind: { enum: elementKindIds },
          name: { type: "string", minLength: 1, maxLength: 60 },
          component: name,
          data: { type: "object", additionalProperties: { type: "number" } },
        },
      },
    },
    lines: {
      type: "array",
      maxItems: 1200,
      items: {
        type: "object",
        additionalProperties: false,
        required: ["from", "to"],
        properties: {
          from: port,
          to: port,
          data: {
            oneOf: [
              { type: "null" },
              {
                type: "object",
                additionalProperties: false,
                required: ["made", "rating", "bore", "length", "fittedOn", "tag"],
                properties: {
                  made: { enum: ["hose", "pipe"] },
                  rating: positive,
                  bore: positive,
                  length: positive,
                  fittedOn: { type: "string", pattern: "^(\\d{4}-\\d{2}-\\d{2})?$" },
                  tag: short,
                },
              },
            ],
          },
        },
      },
    },
  },
} as const;

function record(required: readonly string[], properties: Record<string, unknown>) {
  return { type: "object", additionalProperties: false, required, properties };
}

export const fleetSchema = {
  $schema: "http://json-schema.org/draft-07/schema#",
  title: "Juncteral fleet file",
  ...record(["format", "version", "sites"], {
    format: { const: "juncteral-fleet" },
    version: { const: 1 },
    fluids: {
      type: "array",
      items: record(["name", "kv40", "kv100", "density15"], {
        name,
        kv40: { type: "number", exclusiveMinimum: 0.21 },
        kv100: { type: "number", exclusiveMinimum: 0.21 },
        density15: { type: "number", minimum: 600, maximum: 1600 },
        type: { enum: fluidTypeIds },
        waterA: { type: ["number", "null"] },
        waterB: positive,
        fresh: figures,
        retiredAt,
      }),
    },
    instruments: {
      type: "array",
      items: record(["tag", "name", "quantity", "fullScale", "accuracyClass"], {
        tag: { type: "string", minLength: 1, maxLength: 40 },
        name,
        quantity: { enum: pointQuantityIds },
        fullScale: above,
        accuracyClass: { type: "number", exclusiveMinimum: 0, maximum: 25 },
        principle: { enum: ["any", "gauge", "turbine", "gear", "ultrasonic"] },
        leastReading: value,
        viscosityLow: positive,
        viscosityHigh: positive,
        note: text,
        calibratedAt: moment,
        calibrationDueAt: moment,
        retiredAt,
        checks: {
          type: "array",
          items: record(["at", "kind", "points", "passed"], {
            at: moment,
            kind: { enum: ["calibration", "check"] },
            points: {
              type: "array",
              maxItems: 12,
              items: record(["stated", "read"], { stated: { type: "number" }, read: { type: "number" } }),
            },
            passed: { type: "boolean" },
            certificate: text,
            note: text,
            by: name,
          }),
        },
        recalls: {
          type: "array",
          items: record(["fromAt", "untilAt", "reason"], { fromAt: moment, untilAt: moment, reason: text, by: name }),
        },
      }),
    },
    sites: {
      type: "array",
      items: record(["name", "timeZone"], {
        name,
        timeZone: name,
        holdsReleased: { type: "boolean" },
        twoSignatures: { type: "boolean" },
        nextChanceDays: whole(1, 365),
        acceptedPercent: whole(1, 50),
        retiredAt,
        rounds: {
          type: "array",
          items: record(["name", "points"], {
            name,
            intervalDays: whole(1, 3650),
            intervalHours: upTo(1e6),
            closer: { type: "boolean" },
            walkedBy: { type: "string", maxLength: 100 },
            points: {
              type: "array",
              items: record(["code", "state"], { code: text, site: name, state: { enum: readingStateIds } }),
            },
          }),
        },
        stops: {
          type: "array",
          items: record(["name", "startsOn"], {
            name,
            startsOn: { type: "string", pattern: "^\\d{4}-\\d{2}-\\d{2}$" },
            days: whole(1, 365),
            crewHours: hoursCount,
            electricianHours: hoursCount,
            machineTags: { type: "string", maxLength: 1000 },
            retiredAt,
          }),
        },
        machines: {
          type: "array",
          items: record(["name", "tag"], {
            name,
            tag: { type: "string", minLength: 1, maxLength: 40 },
            area: text,
            hoursPerDay: { type: "number", minimum: 0.01, maximum: 24 },
            dutyDeviation: { type: "number", minimum: 0.01, maximum: 2 },
            note: text,
            retiredAt,
            hourMeter: {
              type: "array",
              items: record(["at", "kind", "before", "after"], {
                at: moment,
                kind: { enum: ["replaced", "reset", "corrected"] },
                before: hoursCount,
                after: hoursCount,
                note: text,
                by: name,
              }),
            },
            circuits: {
              type: "array",
              items: record(["name"], {
                name,
                fluid: { type: ["string", "null"] },
                workingPressure: positive,
                volume: positive,
                startTemperature: oilTemperature,
                longestHours: positive,
                longestMonths: positive,
                targetCode: code,
                targetReason: text,
                targetSetBy: { type: "string", maxLength: 100 },
                retiredAt,
                metalLimits: figures,
                diagram,
                components: {
                  type: "array",
                  items: record(["name", "kind"], {
                    name,
                    kind: { enum: componentKindIds },
                    model: text,
                    tag: short,
                    note: text,
                    position: whole(0, 999),
                    displacement: positive,
                    speed: positive,
                    maxPressure: positive,
                    leadTimeDays: { type: ["integer", "null"], minimum: 0, maximum: 2000 },
                    partCost: cost,
                    failureCost: cost,
                    sparesOnHand: whole(0, 999),
                    exerciseDays: { type: ["integer", "null"], minimum: 1, maximum: 3650 },
                    runInHours: { type: "number", minimum: 0, maximum: 5000 },
                    retiredAt,
                    fittedAt: moment,
                    fittedHours: hoursCount,
                    serial: { type: "string", maxLength: 60 },
                    knownWhenNew: { type: "boolean" },
                    earlierLives: {
                      type: "array",
                      items: record(["fittedAt", "endedAt"], {
                        fittedAt: moment,
                        fittedHours: hoursCount,
                        endedAt: moment,
                        endHours: { type: ["number", "null"], minimum: 0, maximum: 1e6 },
                        endReason: { type: ["string", "null"], maxLength: 100 },
                        serial: { type: "string", maxLength: 60 },
                        knownWhenNew: { type: "boolean" },
                      }),
                    },
                    makersCode: code,
                    materials: {
                      type: "array",
                      items: record(["metal", "part"], { metal: { enum: wearMetals }, part: text }),
                    },
                    symptomIfStuck: text,
                    fluidNeed: {
                      oneOf: [
                        { type: "null" },
                        record(["least", "bestLow", "bestHigh", "greatestAtStart", "types"], {
                          least: above,
                          bestLow: above,
                          bestHigh: above,
                          greatestAtStart: above,
                          types: { type: "array", items: { enum: fluidTypeIds } },
                        }),
                      ],
                    },
                    filter: {
                      oneOf: [
                        { type: "null" },
                        record(["beta", "size", "flow", "bypass"], {
                          beta: { type: "number", exclusiveMinimum: 1 },
                          size: above,
                          flow: above,
                          bypass: above,
                          element: text,
                        }),
                      ],
                    },
                    points: {
                      type: "array",
                      items: record(["name", "quantity", "state"], {
                        name,
                        quantity: { enum: pointQuantityIds },
                        state: { enum: readingStateIds },
                        unit: { type: "string", maxLength: 20 },
                        intervalDays: whole(1, 3650),
                        referencePressure: positive,
                        referenceTemperature: oilTemperature,
                        tag: short,
                        makersNew: value,
                        instrument: { type: ["string", "null"], maxLength: 40 },
                        retiredAt,
                        limit: {
                          oneOf: [
                            { type: "null" },
                            record(["basis"], {
                              basis: { enum: limitBasisIds },
                              upper: value,
                              lower: value,
                              reason: text,
                              setBy: { type: "string", maxLength: 100 },
                              setAt: moment,
                            }),
                          ],
                        },
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
