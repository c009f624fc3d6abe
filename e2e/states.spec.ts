/** What a house looks like before it is moved into, and with names as long as they may be: an application of its own. */
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { expect, test, type Page } from "@playwright/test";
import pg from "pg";
import { accessible } from "./support";

test.describe.configure({ mode: "serial" });

const admin = process.env.E2E_DATABASE_URL!;
const name = `states_${process.pid}`;
const own = new URL(admin);
own.pathname = `/${name}`;
const port = 4600 + (process.pid % 90);
const at = (path: string) => `http://127.0.0.1:${port}${path}`;
const ENGINEER = { name: "Oduya", password: "a long enough one" };
const app = (what: string) => ({
  args: ["scripts/lib/app.mjs", what],
  env: {
    ...process.env,
    NODE_ENV: "production",
    DATABASE_URL: own.href,
    PORT: String(port),
    JUNCTERAL_FIRST_ENGINEER: ENGINEER.name,
    JUNCTERAL_FIRST_PASSWORD: ENGINEER.password,
  },
});
const running: ChildProcess[] = [];

async function administer(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query(sql).finally(() => client.end());
}

test.beforeAll(async () => {
  await administer(`create database "${name}"`);
  const migrate = app("migrate");
  expect(spawnSync(process.execPath, migrate.args, { env: migrate.env }).status).toBe(0);
  for (const what of ["serve", "work"]) {
    const { args, env } = app(what);
    running.push(spawn(process.execPath, args, { env, stdio: "ignore" }));
  }
  const healthy = () =>
    fetch(at("/healthz")).then(
      (a) => a.ok,
      () => false,
    );
  await expect.poll(healthy).toBe(true);
});
test.afterAll(async () => {
  for (const child of running) child.kill("SIGKILL");
  await administer(`drop database if exists "${name}" with (force)`);
});

async function enter(page: Page): Promise<void> {
  await page.goto(at("/sign-in"));
  await page.getByLabel("Sign-in name").fill(ENGINEER.name);
  await page.getByLabel("Password").fill(ENGINEER.password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
}

/** Nothing is wider than the page: what is longer breaks, or scrolls in a box of its own. */
async function fits(page: Page): Promise<string | null> {
  const over = await page.evaluate(() => {
    const { scrollWidth, clientWidth } = document.documentElement;
    if (scrollWidth <= clientWidth + 1) return null;
    const wide = [...document.querySelectorAll("body *")].filter(
      (e) => e.getBoundingClientRect().right > clientWidth + 1,
    );
    return `${scrollWidth} of ${clientWidth}: ${wide.at(-1)?.outerHTML.slice(0, 160)}`;
  });
  return over && `${new URL(page.url()).pathname} is too wide, ${over}`;
}

const places = [
  ["/", "/fleet", "/fleet/begin", "/rounds", "/rounds/new", "/tests", "/tests/new", "/instruments", "/instruments/new"],
  ["/oil", "/oil/import", "/isolate", "/isolate/new", "/isolate/knowledge", "/isolate/practice", "/report"],
  ["/plan", "/plan/parts", "/plan/costs", "/plan/scorecard", "/plan/lives", "/plan/calendar", "/calculators"],
  ["/jobs", "/jobs/new", "/work", "/work/due", "/work/records", "/work/procedures", "/work/campaigns/new"],
  ["/records", "/records/import", "/records/fleet", "/account", "/account/people"],
].flat();
/** Without a site there is nothing to report on, and no record of one. */
const NOT_YET = new Set(["/report", "/plan/costs", "/plan/parts", "/plan/lives"]);

test("an empty house: every place opens, says what is missing, and has no fault that axe can see", async ({ page }) => {
  await enter(page);
  const broken: string[] = [];
  for (const path of places) {
    const answer = (await page.goto(at(path)))!;
    const wanted = NOT_YET.has(path) ? [200, 404] : [200];
    if (!wanted.includes(answer.status())) broken.push(`${path}: ${answer.status()}`);
    await expect(page.getByRole("heading", { level: 1 })).not.toBeEmpty();
    await accessible(page);
    const wide = await fits(page);
    if (wide) broken.push(wide);
  }
  expect(broken).toEqual([]);
});

/** As long as a name may be, and without a place to break. */
const long = (what: string) => `${what}${"hydraulikaggregatsteuerblockvorspannventil".repeat(3)}`.slice(0, 100);

const fleet = {
  format: "juncteral-fleet",
  version: 1,
  fluids: [{ name: long("Fluid"), kv40: 46, kv100: 6.8, density15: 875 }],
  sites: [
    {
      name: long("Site"),
      timeZone: "Europe/London",
      stops: [{ name: long("Stop"), startsOn: "2027-01-18", days: 3 }],
      machines: [
        {
          name: long("Machine"),
          tag: long("TAG").slice(0, 40),
          area: long("Area"),
          circuits: [
            {
              name: long("Circuit"),
              fluid: long("Fluid"),
              components: [
                {
                  name: long("Pump"),
                  kind: "axialPistonPump",
                  model: long("Model"),
                  displacement: 45,
                  speed: 1450,
                  fittedAt: "2026-01-01T00:00:00Z",
                  serial: long("S").slice(0, 60),
                  points: [
                    {
                      name: long("Point"),
                      quantity: "caseDrainFlow",
                      state: "fullStroke",
                      limit: { basis: "shareOfFullFlow", upper: 10 },
                      conditions: long("Conditions"),
                    },
                  ],
                },
              ],
            },
          ],
        },
      ],
      rounds: [{ name: long("Round"), points: [{ code: "", state: "fullStroke" }] }],
    },
  ],
};
const point = fleet.sites[0]!.machines[0]!;
fleet.sites[0]!.rounds[0]!.points[0]!.code = [
  point.tag,
  point.circuits[0]!.components[0]!.name,
  point.circuits[0]!.components[0]!.points[0]!.name,
].join("/");

const OF_A_KIND = 2;
const MOST = 110;

test("the longest names: what they lead to opens at a tablet's width, and nothing runs out of the page", async ({
  page,
}) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  await enter(page);
  await page.goto(at("/records/fleet"));
  await page.getByLabel("Fleet file, JSON").setInputFiles({
    name: "fleet.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(fleet)),
  });
  await page.getByRole("button", { name: /^Import|^Add/ }).click();
  await expect(page.getByText(/Added/)).toBeVisible();
  const seen = new Map<string, number>();
  const queue = [...places];
  const broken: string[] = [];
  let looked = 0;
  for (const path of queue) {
    const kind = path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ":id").replace(/=[^&]*/g, "=");
    if ((seen.get(kind) ?? 0) >= (kind.includes(":id") ? OF_A_KIND : 1) || looked >= MOST) continue;
    seen.set(kind, (seen.get(kind) ?? 0) + 1);
    if (/\.(csv|json|ics)|sign-out|^\/calculators\/|^\/work\/procedures\//.test(path)) continue;
    looked++;
    const answer = (await page.goto(at(path)))!;
    if (answer.status() !== 200) broken.push(`${path}: ${answer.status()}`);
    const wide = await fits(page);
    if (wide) broken.push(wide);
    const links = await page.locator("a[href^='/']").evaluateAll((all) => all.map((a) => a.getAttribute("href")!));
    queue.push(...links.map((href) => href.split("#")[0]!));
  }
  expect(broken).toEqual([]);
  expect(looked).toBeGreaterThan(50);
});
