/** A machine from a template: written as a fleet file and taken in as one, so that it obeys the same rules. */
import { and, eq } from "drizzle-orm";
import { object, string } from "yup";
import {
  dayOf,
  dayStart,
  machineTemplates,
  oilGrades,
  parseQuantity,
  templateIds,
  type OilGrade,
  type ParsedQuantity,
  type TemplateId,
  type UnitPreference,
} from "@core";
import { db } from "~/db/client.server";
import { circuits, components, machines, points, sites } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { now } from "~/runtime/clock.server";
import { check, dayField, typedQuantity, validTimeZone } from "~/platform/validate";
import { importFleet } from "./fleetFile/import.server";
import { pointCode } from "./fleetFile/check";
import type { FleetFile } from "./fleetFile/types";

const named = (what: string, most: number) =>
  string().trim().max(most, `At most ${most} characters.`).required(`Give ${what}.`);

const templateSchema = object({
  template: string<TemplateId>().oneOf(templateIds, "Choose a template.").required("Choose a template."),
  name: named("the machine a name", 100),
  tag: named("it a tag, as on its plate", 40),
  site: named("the site a name", 100),
  area: string().trim().max(100, "At most 100 characters.").default(""),
  timeZone: string()
    .trim()
    .test("zone", "That is no time zone; write it as Europe/London.", (zone) => validTimeZone(zone))
    .required("Say in which time zone the site lies."),
  displacement: typedQuantity("displacement", true),
  speed: typedQuantity("speed", true),
  pressure: typedQuantity("loadPressure", true),
  /** The pressure is right although no usual machine stands it. */
  pressureRight: string().default(""),
  /** When its parts were fitted, all of them; empty: today. */
  fittedOn: dayField(),
  fittedHours: typedQuantity("runningHours"),
  knownWhenNew: string().default(""),
  oil: string<OilGrade>()
    .oneOf(Object.keys(oilGrades) as OilGrade[], "Choose an oil.")
    .required("Choose an oil."),
});

export interface Begun {
  id: string;
  /** The point to read first. */
  pointId: string;
}

/** Above this, bar, hardly any mobile or stationary machine works (common practice): a unit was probably mixed up. */
const HIGHEST_USUAL = 450;

/** A pressure that is one in another unit, rather than the machine's; undefined: it may be right. */
function unlikelyPressure({ value, entered }: ParsedQuantity): string | undefined {
  if (value <= HIGHEST_USUAL) return undefined;
  const inPsi = parseQuantity(`${entered} psi`, "loadPressure");
  const meant =
    inPsi.ok && inPsi.parsed.value <= HIGHEST_USUAL
      ? ` Did you mean ${entered} psi (${Math.round(inPsi.parsed.value)} bar)? Write the unit beside it,`
      : " Check it,";
  return `${Math.round(value)} bar is more than hydraulic machines work at.${meant} or tick that it is right.`;
}

/** Add a machine with circuit, components, points, fluid and a round. The same form sent twice finds it there. */
export async function machineFromTemplate(
  fields: Record<string, string>,
  actor: Actor,
  units: UnitPreference = {},
): Promise<Answer<Begun>> {
  const checked = await check(templateSchema, fields, { units });
  if (!checked.ok) return checked;
  const v = checked.values;
  const unlikely = unlikelyPressure(v.pressure!);
  if (unlikely && v.pressureRight !== "on") return { ok: false, problems: { pressure: unlikely } };
  const fittedOn = v.fittedOn || dayOf(now(), v.timeZone);
  if (dayStart(fittedOn, v.timeZone) > now()) return { ok: false, problems: { fittedOn: "That is in the future." } };
  const figures = { displacement: v.displacement!.value, speed: v.speed!.value, pressure: v.pressure!.value };
  const fluid = `Mineral oil ${v.oil}`;
  const parts = machineTemplates[v.template].components(figures);
  const circuit = "Circuit";
  const place = { machine: v.tag, circuit };
  const file: FleetFile = {
    format: "juncteral-fleet",
    version: 1,
    fluids: [{ name: fluid, ...oilGrades[v.oil], density15: 870, type: "mineral" }],
    sites: [
      {
        name: v.site,
        timeZone: v.timeZone,
        machines: [
          {
            name: v.name,
            tag: v.tag,
            area: v.area,
            circuits: [
              {
                name: circuit,
                fluid,
                workingPressure: figures.pressure,
                components: parts.map((c, position) => ({
                  name: c.name,
                  kind: c.kind,
                  position,
                  displacement: c.displacement,
                  speed: c.speed,
                  // unless somebody says so, nobody knows yet how worn it is
                  knownWhenNew: v.knownWhenNew === "on",
                  fittedAt: new Date(dayStart(fittedOn, v.timeZone)).toISOString(),
                  ...(v.fittedHours && { fittedHours: v.fittedHours.value }),
                  points: c.points.map((p) => ({
                    name: p.name,
                    quantity: p.quantity,
                    state: p.state,
                    conditions: p.conditions,
                    referencePressure: p.reference?.pressure ?? null,
                    referenceTemperature: p.reference?.temperature ?? null,
                    limit: { ...p.limit, reason: p.reason, setBy: actor.name },
                  })),
                })),
              },
            ],
          },
        ],
        rounds: [
          {
            name: `Round of ${v.name}`.slice(0, 100),
            points: parts.flatMap((c) =>
              c.points.map((p) => ({ code: pointCode(place.machine, c.name, p.name), state: p.state })),
            ),
          },
        ],
      },
    ],
  };
  const [taken] = await db()
    .select({ name: machines.name })
    .from(machines)
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(and(eq(sites.name, v.site), eq(machines.tag, v.tag)));
  if (taken && taken.name !== v.name)
    return { ok: false, problems: { tag: `${taken.name} has this tag already. Tags are given once at a site.` } };
  const added = await importFleet(JSON.stringify(file), actor, `${v.name} from a template`);
  if (!added.ok) return { ok: false, problems: { form: added.messages.join(" ") } };
  // the pump that does the work is read first; the reservoir comes before it
  const readFirst = parts.find((c) => c.kind !== "other" && c.points.length > 0)!.name;
  const [first] = await db()
    .select({ id: machines.id, pointId: points.id })
    .from(machines)
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .innerJoin(circuits, eq(circuits.machineId, machines.id))
    .innerJoin(components, eq(components.circuitId, circuits.id))
    .innerJoin(points, eq(points.componentId, components.id))
    .where(and(eq(sites.name, v.site), eq(machines.tag, v.tag), eq(components.name, readFirst)))
    .orderBy(points.name)
    .limit(1);
  return { ok: true, id: first!.id, pointId: first!.pointId };
}

/** Sites that there are, for the form. */
export async function siteNames(): Promise<{ name: string; timeZone: string }[]> {
  return db().select({ name: sites.name, timeZone: sites.timeZone }).from(sites).orderBy(sites.name).limit(50);
}
