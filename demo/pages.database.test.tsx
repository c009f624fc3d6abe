/**
 * Every page of the harbour as the server writes it, for a reader of other units: what a loader gives is rendered, holds no value that
 * is none, and no figure in a unit that this reader does not read.
 */
import { readFileSync } from "node:fs";
import { asc, desc, eq, isNotNull, isNull } from "drizzle-orm";
import { renderToStaticMarkup } from "react-dom/server";
import { createRoutesStub, type LoaderFunctionArgs } from "react-router";
import type { ComponentType } from "react";
import type { UnitPreference } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { debrisEvents, samples } from "~/db/oilTables";
import { users } from "~/db/peopleTables";
import {
  campaigns,
  circuits,
  components,
  fluids,
  instruments,
  interventions,
  isolations,
  jobs,
  machines,
  plans,
  points,
  practiceRuns,
  readings,
  rounds,
  sites,
  stops,
  testRecords,
  workRuns,
} from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { closeQueue } from "~/platform/jobs.server";
import type { SignedInUser } from "~/platform/session.server";
import { now } from "~/runtime/clock.server";
import { SiteProvider } from "~/ui/site";
import { wordsOf } from "~/ui/testing";
import { loadDemo } from "./load.server";
import { people } from "./world";

/** Nobody reads like this, and so every figure that is shown in its usual unit shows. */
const units: UnitPreference = {
  pressure: "psi",
  flow: "gal/min",
  temperature: "°F",
  temperatureDifference: "°F",
  length: "in",
  displacement: "in³",
  volume: "gal",
  torque: "lbf·ft",
  force: "lbf",
  power: "hp",
  vacuum: "inHg",
};

let drop: () => Promise<void>;
let user: SignedInUser;
const ids: Record<string, string> = {};

beforeAll(async () => {
  drop = await ownDatabase("pages");
  await migrateDatabase();
  await loadDemo(Object.fromEntries(people.map((p) => [p.signIn, "a long enough one"])), {
    only: ["Outer gate north", "Quay crane 2"],
  });
  const [engineer] = await db().select().from(users).where(eq(users.role, "engineer"));
  user = { id: engineer!.id, name: engineer!.name, role: "engineer", units };
  const first = async (name: string, rows: Promise<{ id: string }[]>) => {
    const [row] = await rows;
    if (row) ids[name] = row.id;
  };
  const idOf = <T extends typeof machines | typeof sites | typeof fluids | typeof stops | typeof campaigns>(table: T) =>
    db()
      .select({ id: table.id })
      .from(table as typeof machines)
      .limit(1);
  await first("machine", idOf(machines));
  await first("site", idOf(sites));
  await first("fluid", idOf(fluids));
  await first("stop", idOf(stops));
  await first("campaign", idOf(campaigns));
  await first("circuit", db().select({ id: circuits.id }).from(circuits).limit(1));
  await first("component", db().select({ id: components.id }).from(components).orderBy(asc(components.position)));
  await first("point", db().select({ id: points.id }).from(points).where(eq(points.quantity, "caseDrainFlow")));
  await first("pressure", db().select({ id: points.id }).from(points).where(eq(points.quantity, "pressure")));
  await first("warm", db().select({ id: points.id }).from(points).where(eq(points.quantity, "temperature")));
  await first(
    "reading",
    db()
      .select({ id: readings.id })
      .from(readings)
      .where(eq(readings.pointId, ids.point!))
      .orderBy(desc(readings.takenAt))
      .limit(1),
  );
  await first("round", db().select({ id: rounds.id }).from(rounds).limit(1));
  await first("instrument", db().select({ id: instruments.id }).from(instruments).orderBy(asc(instruments.tag)));
  await first("sample", db().select({ id: samples.id }).from(samples).orderBy(desc(samples.takenAt)).limit(1));
  await first("debris", db().select({ id: debrisEvents.id }).from(debrisEvents).limit(1));
  await first("job", db().select({ id: jobs.id }).from(jobs).limit(1));
  await first("isolation", db().select({ id: isolations.id }).from(isolations).limit(1));
  await first(
    "practice",
    db().select({ id: practiceRuns.id }).from(practiceRuns).where(eq(practiceRuns.personId, user.id)).limit(1),
  );
  await first("plan", db().select({ id: plans.id }).from(plans).limit(1));
  await first("test", db().select({ id: testRecords.id }).from(testRecords).limit(1));
  await first("run", db().select({ id: workRuns.id }).from(workRuns).limit(1));
  await first("work", db().select({ id: interventions.id }).from(interventions).where(isNull(interventions.doneAt)));
  await first("done", db().select({ id: interventions.id }).from(interventions).where(isNotNull(interventions.doneAt)));
}, 180_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

interface Module {
  loader?: (args: LoaderFunctionArgs) => Promise<unknown>;
  default: ComponentType<Record<string, unknown>>;
}

/** A page's HTML, for this reader; null where its record is none of this part of the harbour. */
async function page(
  file: string,
  record: string | null,
  search: string,
  params: Record<string, string>,
): Promise<string | null> {
  const id = record === null ? undefined : ids[record];
  if (record !== null && id === undefined) return null;
  const module = (await import(`~/${file}`)) as Module;
  const filled = Object.entries(params).map(([name, value]) => [
    name,
    value.replace(/^:(\w+)/, (_, of: string) => ids[of]!),
  ]);
  const all = { ...(id && { id }), ...Object.fromEntries(filled) };
  const request = new Request(`http://localhost/${search.replace(/:(\w+)/g, (_, name: string) => ids[name]!)}`);
  const args = { request, params: all, context: { user: Promise.resolve(user) } } as unknown as LoaderFunctionArgs;
  const given = await module.loader?.(args);
  const loaderData = given && typeof given === "object" && "data" in given && "init" in given ? given.data : given;
  const Page = module.default;
  const Stub = createRoutesStub([{ path: "/*", Component: () => <Page loaderData={loaderData} params={all} /> }]);
  return renderToStaticMarkup(
    <SiteProvider value={{ timeZone: "Europe/London", now: now(), units }}>
      <Stub initialEntries={[`/${search}`]} />
    </SiteProvider>,
  );
}

/** File, the record of its address, what follows it, and further parts of the address. */
const pages: [file: string, record: string | null, search?: string, params?: Record<string, string>][] = [
  ["today/today", null],
  ["fleet/fleet", null],
  ["fleet/matrix", null],
  ["fleet/machine", "machine"],
  ["fleet/circuit", "circuit"],
  ["fleet/draw", "circuit"],
  ["fleet/begin", null],
  ...["site", "machine", "circuit", "component", "point", "fluid", "stop"].map((kind): (typeof pages)[number] => [
    "fleet/newRecord",
    null,
    "",
    { kind },
  ]),
  ...["site", "machine", "circuit", "component", "point", "fluid", "stop"].map((kind): (typeof pages)[number] => [
    "fleet/editRecord",
    kind,
    "",
    { kind },
  ]),
  ["points/point", "point"],
  ["points/point", "point", "?view=table"],
  ["points/point", "pressure"],
  ["points/point", "warm"],
  ["points/limit", "point"],
  ["points/correct", "point", "", { readingId: ":reading" }],
  ["rounds/rounds", null],
  ["rounds/edit", null],
  ["rounds/round", "round"],
  ["rounds/edit", "round"],
  ["rounds/sheet", "round"],
  ["rounds/walk", "round"],
  ["checks/tests", null],
  ["checks/plantTest", null],
  ["checks/record", "test"],
  ["checks/test", null, "?component=:component", { test: "load-test" }],
  ["instruments/instruments", null],
  ["instruments/edit", null],
  ["instruments/instrument", "instrument"],
  ["instruments/edit", "instrument"],
  ["instruments/fit", "point"],
  ["oil/oil", null],
  ["oil/overview", null],
  ["oil/upload", null],
  ["oil/sample", "sample"],
  ["oil/debris", "debris"],
  ["oil/circuit", "circuit"],
  ["oil/newSample", "circuit"],
  ["oil/fluid", "circuit"],
  ["oil/clean", "circuit"],
  ["oil/settings", "circuit"],
  ["oil/newDebris", "circuit"],
  ["isolate/isolate", null],
  ["isolate/newCase", null, "?circuit=:circuit"],
  ["isolate/fault", "circuit"],
  ["isolate/points", "circuit"],
  ["isolate/knowledge", null],
  ["isolate/practice", null],
  ["isolate/practiceCase", "practice"],
  ["isolate/case", "isolation"],
  ["plan/plan", null],
  ["plan/parts", null],
  ["plan/costs", null],
  ["plan/scorecard", null],
  ["plan/lives", null],
  ["plan/calendar", null],
  ["report/report", null],
  ["report/report", null, "?machine=:machine"],
  ["jobs/jobs", null],
  ["jobs/newJob", null],
  ["jobs/newJob", null, "?circuit=:circuit"],
  ["jobs/job", "job"],
  ["work/work", null],
  ["work/book", null, "?point=:point"],
  ["work/procedures", null],
  ["work/procedure", null, "", { id: "free-spool" }],
  ["work/records", null, "?find=scored"],
  ["work/due", null],
  ["work/newCampaign", null],
  ["work/campaign", "campaign"],
  ["work/intervention", "work"],
  ["work/record", "done"],
  ["work/run", "run"],
  ["calculators/calculators", null],
  ["calculators/calculator", null, "", { calculator: "load-test" }],
  ["records/records", null],
  ["records/upload", null],
  ["records/fleetFile", null],
  ["account/account", null],
  ["account/people", null],
];

/** Figures in a unit that this reader does not read. */
const foreign = /.{0,50}\d[\s\u00a0](?:bar|L\/min|°C|mm|cm³|kW|N·m|kN|hPa)(?![\p{L}/²³])/gu;
/** What is a name, or stands as somebody typed it: of an instrument, of a condition, of a method, of what was entered at a step. */
const named = [
  /(?:Turbine meter|Gauge) \d+ (?:L\/min|bar)/g,
  /[Oo]il above \d+ °C/g,
  /(?:Viscosity|Density) at \d+ °C/g,
  /code water 40 °C/g,
  / at 40 °C| at 100 °C/g,
  /Middle of the glass \(Oil 46 °C/g,
  // how a debris event is flushed is kept as it was written when the event was opened
  /largest line \(25 mm.{0,40}asks for \d+ L\/min/g,
  /It read [\d.]+ L\/min/g,
  /Flow at 1 bar/g,
  /K 14 000 bar/g,
  /seen to read pressure before\. 0 bar/g,
  /(?:torque\.|stated) 42 N·m/g,
  /clean value of the new element\. 0\.6 bar/g,
];
const nothing = /.{0,40}(?:\bNaN\b|\bundefined\b|\[object |\bnull\b(?! leakage|, drifts)|\bInfinity\b|&\w+;).{0,20}/g;

test.each(pages)("%s, %s%s", async (file, record, search = "", params = {}) => {
  const html = await page(file, record, search, params);
  if (html === null) return;
  const words = named.reduce((text, name) => text.replace(name, ""), wordsOf(html).replace(/\s+/g, " "));
  expect(words.length).toBeGreaterThan(20);
  expect(words.match(nothing) ?? []).toEqual([]);
  expect(words.match(foreign) ?? []).toEqual([]);
});

test("every page of the application is among them", () => {
  const known = new Set(pages.map(([file]) => file));
  // the frame, what is there before signing in, and imports, which need a file: the browser tests open them
  const elsewhere = ["shell/shell", "shell/missing", "account/signIn", "account/first", "oil/import", "records/import"];
  const routed = [...readFileSync("app/routes.ts", "utf8").matchAll(/"(\w+\/\w+)\.tsx"/g)].map(([, file]) => file!);
  expect(routed.length).toBeGreaterThan(60);
  expect(routed.filter((file) => !known.has(file) && !elsewhere.includes(file))).toEqual([]);
});

test("this part of the harbour has nearly every kind of record", () => {
  const missing = new Set(
    pages.flatMap(([, record]) => (record !== null && ids[record] === undefined ? [record] : [])),
  );
  expect([...missing]).toEqual(["isolation", "work"]);
});
