/** What the browser tests share: signing in, finding records, looking for accessibility faults. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Locator, type Page } from "@playwright/test";
import pg from "pg";

export const passwords = JSON.parse(process.env.E2E_PASSWORDS ?? "{}") as Record<string, string>;

export async function signIn(page: Page, name: "viewer" | "technician" | "engineer" = "engineer") {
  await page.goto("/sign-in");
  await page.getByLabel("Sign-in name").fill(name);
  await page.getByLabel("Password").fill(passwords[name]!);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
}

/** A field of a form by its name, which its words may change around. */
export const field = (where: Page | Locator, name: string) => where.locator(`[name="${name}"]`);

/** The message beside a field, whatever it says. */
export const refusal = (where: Page | Locator, name: string) => where.locator(`[id$="p-${name}"]`);

/** Ask the database, for what a test must know but no page shows. */
export async function query<T extends pg.QueryResultRow>(sql: string, values: unknown[] = []): Promise<T[]> {
  const client = new pg.Client({ connectionString: process.env.E2E_DATABASE_URL });
  await client.connect();
  try {
    return (await client.query<T>(sql, values)).rows;
  } finally {
    await client.end();
  }
}

export async function pointId(machine: string, component: string, point: string): Promise<string> {
  const [row] = await query<{ id: string }>(
    "select p.id from points p join components c on c.id = p.component_id join circuits k on k.id = " +
      "c.circuit_id join machines m on m.id = k.machine_id where m.name = $1 and c.name = $2 and p.name = $3",
    [machine, component, point],
  );
  return row!.id;
}

export async function readingCount(id: string): Promise<number> {
  const [row] = await query<{ n: number }>(
    "select count(*)::int as n from readings where point_id = $1 and superseded_at is null",
    [id],
  );
  return row!.n;
}

/** No fault that axe can see. */
export async function accessible(page: Page) {
  const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join("; ")}`)).toEqual([]);
}

/** Hours that a reading now could show: a little over the last noted, which a new meter may have begun anew. */
export async function nextHours(id: string): Promise<number> {
  const [row] = await query<{ hours: number }>(
    "select hours from readings where point_id = $1 and hours is not null and superseded_at is null order by taken_at desc limit 1",
    [id],
  );
  return Math.round(row!.hours + 20);
}

const NONSENSE_MACHINE = "Mobile harbour crane";

/** One address of every place, with records that are there. */
/** What tablets send to: a round, a procedure that runs; and the entries that they send. */
export async function fuzzJson(ask: typeof query): Promise<{ address: string; entry: Record<string, unknown> }[]> {
  const one = async (sql: string) => (await ask<{ id: string }>(sql))[0]?.id ?? "none";
  const [round, run] = await Promise.all([
    one("select id from rounds where retired_at is null limit 1"),
    one("select id from work_runs limit 1"),
  ]);
  const [place] = await ask<{ pointId: string }>(
    `select point_id as "pointId" from round_points where round_id = '${round}' limit 1`,
  );
  const base = { submission: "11111111-1111-4111-8111-111111111111", at: Date.UTC(2026, 10, 24, 8), by: "" };
  const ofRound = { ...base, roundId: round, pointId: place!.pointId };
  const toRound = `/rounds/${round}/send`;
  const toRun = `/work/runs/${run}/send`;
  return [
    { address: toRound, entry: { ...ofRound, kind: "reading", fields: { value: "1.4", temperature: "50" } } },
    { address: toRound, entry: { ...ofRound, kind: "skip", reason: "not reached" } },
    { address: toRound, entry: { ...ofRound, kind: "move", componentId: place!.pointId } },
    {
      address: toRound,
      entry: { ...ofRound, kind: "photo", reading: base.submission, mediaType: "image/jpeg", base64: "AA==" },
    },
    {
      address: toRun,
      entry: {
        ...base,
        kind: "step",
        runId: run,
        step: "isolated",
        entry: "done",
        values: { text: "x" },
        reason: "",
        after: "",
      },
    },
    { address: toRun, entry: { ...base, kind: "finding", runId: run, finding: "wear", values: {} } },
    {
      address: toRun,
      entry: { ...base, kind: "workPhoto", runId: run, step: "", finding: "", caption: "", marks: [], base64: "AA==" },
    },
  ];
}

export async function fuzzPages(ask: typeof query): Promise<string[]> {
  const one = async (sql: string) => (await ask<{ id: string }>(sql))[0]?.id ?? "none";
  const [fleet] = await ask<{ machine: string; component: string; point: string }>(
    `select m.id as machine, c.id as component, p.id as point from points p join components c on c.id = p.component_id
     join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
     where m.name = '${NONSENSE_MACHINE}' and p.quantity = 'caseDrainFlow' order by p.id limit 1`,
  );
  const { machine, component, point } = fleet!;
  const [circuit, isolation, round, instrument, work, sample, event, stop, fluid, site, campaign, run, reading] =
    await Promise.all([
      one("select circuit_id as id from samples limit 1"),
      one("select id from isolations order by closed_at desc limit 1"),
      one("select id from rounds where retired_at is null limit 1"),
      one("select id from instruments limit 1"),
      one("select id from interventions where done_at is null and cancelled_at is null limit 1"),
      one("select id from samples limit 1"),
      one("select id from debris_events limit 1"),
      one("select id from stops limit 1"),
      one("select id from fluids limit 1"),
      one("select id from sites limit 1"),
      one("select id from campaigns limit 1"),
      one("select id from work_runs limit 1"),
      one(
        `select id from readings where point_id = '${point}' and superseded_at is null order by taken_at desc limit 1`,
      ),
    ]);
  return [
    "/",
    "/fleet",
    `/fleet/machines/${machine}`,
    `/fleet/circuits/${circuit}`,
    `/fleet/circuits/${circuit}/draw`,
    "/fleet/begin",
    ...["site", "machine", "circuit", "component", "point", "fluid", "stop"].map((kind) => `/fleet/new/${kind}`),
    `/fleet/edit/machine/${machine}`,
    `/fleet/edit/circuit/${circuit}`,
    `/fleet/edit/component/${component}`,
    `/fleet/edit/point/${point}`,
    `/fleet/edit/fluid/${fluid}`,
    `/fleet/edit/site/${site}`,
    `/fleet/edit/stop/${stop}`,
    `/points/${point}`,
    `/points/${point}?view=table`,
    `/points/${point}/limit`,
    `/points/${point}/readings/${reading}`,
    "/isolate",
    `/isolate/new?circuit=${circuit}`,
    `/isolate/faults/${circuit}`,
    `/isolate/${isolation}`,
    "/rounds",
    "/rounds/new",
    `/rounds/${round}`,
    `/rounds/${round}/edit`,
    `/rounds/${round}/sheet`,
    `/rounds/${round}/walk`,
    "/tests",
    "/tests/new",
    `/tests/load-test?component=${component}`,
    "/instruments",
    "/instruments/new",
    `/instruments/${instrument}`,
    `/instruments/${instrument}/edit`,
    `/instruments/fit/${point}`,
    "/oil",
    `/oil/${circuit}`,
    `/oil/${circuit}/sample`,
    `/oil/${circuit}/fluid`,
    `/oil/${circuit}/clean`,
    `/oil/${circuit}/settings`,
    `/oil/${circuit}/debris`,
    "/oil/import",
    `/oil/samples/${sample}`,
    `/oil/debris/${event}`,
    "/work",
    `/work/book?point=${point}`,
    `/work/${work}`,
    `/work/${work}/record`,
    "/work/procedures",
    "/work/procedures/free-spool",
    "/work/records?find=scored",
    "/work/due",
    "/work/campaigns/new",
    `/work/campaigns/${campaign}`,
    `/work/runs/${run}`,
    "/calculators",
    "/calculators/load-test",
    "/records",
    "/records/import",
    "/records/fleet",
    "/account",
    "/account/people",
    "/find?q=gate",
    `/records/readings.csv?point=${point}`,
  ];
}
