/** Who may ask for what, by real requests; and a walk along every link that a role is shown. */
import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { fuzzPages, query, signIn } from "./support";

const roles = ["viewer", "technician", "engineer"] as const;
type Role = (typeof roles)[number];

/** Least role to look at an address and to send a form there, by the addresses of app/routes.ts; null: nobody sends. */
const matrix: Record<string, { look: Role | null; send: Role | null; form?: Record<string, string> }> = {
  "/": { look: "viewer", send: null },
  "/fleet": { look: "viewer", send: null },
  "/fleet/machines/:id": { look: "viewer", send: "engineer" },
  "/fleet/circuits/:id": { look: "viewer", send: null },
  "/fleet/circuits/:id/draw": { look: "engineer", send: "engineer" },
  "/fleet/begin": { look: "engineer", send: "engineer" },
  "/fleet/new/:kind": { look: "engineer", send: "engineer" },
  "/fleet/edit/:kind/:id": { look: "engineer", send: "engineer" },
  "/points/:id": { look: "viewer", send: "technician" },
  "/points/:id/limit": { look: "engineer", send: "engineer" },
  "/points/:id/readings/:readingId": { look: "technician", send: "technician" },
  "/points/photo/:id": { look: "viewer", send: null },
  "/rounds": { look: "viewer", send: null },
  "/rounds/new": { look: "engineer", send: "engineer" },
  "/rounds/:id": { look: "viewer", send: null },
  "/rounds/:id/edit": { look: "engineer", send: "engineer" },
  "/rounds/:id/sheet": { look: "viewer", send: null },
  "/rounds/:id/walk": { look: "technician", send: null },
  "/rounds/:id/send": { look: null, send: "technician" },
  "/tests": { look: "viewer", send: "technician" },
  "/tests/new": { look: "engineer", send: "engineer" },
  "/tests/records/:id": { look: "viewer", send: null },
  "/tests/:test": { look: "viewer", send: "technician" },
  "/tests/tester": { look: null, send: "technician" },
  "/instruments": { look: "viewer", send: null },
  "/instruments/new": { look: "engineer", send: "engineer" },
  "/instruments/:id": { look: "viewer", send: "technician" },
  "/instruments/:id/edit": { look: "engineer", send: "engineer" },
  "/instruments/fit/:id": { look: "viewer", send: null },
  "/oil": { look: "viewer", send: null },
  "/oil/import": { look: "technician", send: "technician" },
  "/oil/import/:id": { look: "technician", send: "technician" },
  "/oil/samples/:id": { look: "viewer", send: "technician" },
  "/oil/debris/:id": { look: "viewer", send: "technician" },
  "/oil/:id": { look: "viewer", send: "technician" },
  "/oil/:id/sample": { look: "technician", send: "technician" },
  "/oil/:id/fluid": { look: "viewer", send: "technician" },
  "/oil/:id/clean": { look: "viewer", send: null },
  "/oil/:id/settings": { look: "engineer", send: "engineer" },
  "/oil/:id/debris": { look: "technician", send: "technician" },
  "/oil/:id/metal/:metal": { look: "viewer", send: null },
  "/oil/photo/:id": { look: "viewer", send: null },
  "/oil/samples.csv": { look: "viewer", send: null },
  "/isolate": { look: "viewer", send: null },
  "/isolate/new": { look: "technician", send: "technician" },
  "/isolate/faults/:id": { look: "viewer", send: null },
  "/isolate/points/:id": { look: "viewer", send: "technician" },
  "/isolate/knowledge": { look: "viewer", send: "engineer" },
  "/isolate/practice": { look: "viewer", send: "viewer" },
  "/isolate/practice/:id": { look: "viewer", send: "viewer" },
  "/isolate/:id": { look: "viewer", send: "technician" },
  "/plan": { look: "viewer", send: "engineer" },
  "/plan/parts": { look: "viewer", send: null },
  "/plan/costs": { look: "viewer", send: "engineer" },
  "/plan/scorecard": { look: "viewer", send: null },
  "/plan/lives": { look: "viewer", send: null },
  "/plan/calendar": { look: "viewer", send: "viewer" },
  "/plan/parts.csv": { look: "viewer", send: null },
  "/plan/calendar.ics": { look: "viewer", send: null },
  "/report": { look: "viewer", send: null },
  "/report.json": { look: "viewer", send: null },
  "/report.csv": { look: "viewer", send: null },
  "/jobs": { look: "viewer", send: null },
  "/jobs/new": { look: "technician", send: "technician" },
  "/jobs/:id": { look: "viewer", send: "technician" },
  "/work": { look: "viewer", send: null },
  "/work/book": { look: "engineer", send: "engineer" },
  // moving, ordering and cancelling are an engineer's; a technician finishes
  "/work/:id": { look: "viewer", send: "technician", form: { intent: "finish" } },
  "/work/:id/record": { look: "viewer", send: null },
  "/work/:id/record.json": { look: "viewer", send: null },
  "/work/procedures": { look: "viewer", send: null },
  "/work/procedures/:id": { look: "viewer", send: "engineer" },
  "/work/records": { look: "viewer", send: null },
  "/work/due": { look: "viewer", send: "technician" },
  "/work/campaigns/new": { look: "engineer", send: "engineer" },
  "/work/campaigns/:id": { look: "viewer", send: "technician" },
  "/work/alternatives": { look: "viewer", send: null },
  "/work/runs/:id": { look: "technician", send: null },
  "/work/runs/:id/send": { look: null, send: "technician" },
  "/work/runs/:id/state": { look: "technician", send: null },
  "/work/photos/:id": { look: "viewer", send: null },
  "/calculators": { look: "viewer", send: null },
  "/calculators/:calculator": { look: "viewer", send: null },
  "/bench/*": { look: "viewer", send: null },
  "/records": { look: "viewer", send: null },
  "/records/import": { look: "technician", send: "technician" },
  "/records/import/:id": { look: "technician", send: "technician" },
  "/records/fleet": { look: "engineer", send: "engineer" },
  "/records/readings.csv": { look: "viewer", send: null },
  "/records/fleet.json": { look: "viewer", send: null },
  "/account": { look: "viewer", send: "viewer" },
  "/account/people": { look: "engineer", send: "engineer" },
  "/find": { look: "viewer", send: null },
};

const may = (role: Role, least: Role) => roles.indexOf(role) >= roles.indexOf(least);
const nobody = "00000000-0000-4000-8000-000000000000";

/** An address of the pattern: one of the harbour where there is one, else of a record that is not there. */
function addressOf(pattern: string, known: readonly string[]): string {
  const shape = new RegExp(`^${pattern.replace(/:\w+/g, "[^/?]+")}(\\?.*)?$`);
  const isWord = (address: string) => !/:/.test(pattern) || !(address.split("?")[0]! in matrix);
  return (
    known.find((address) => shape.test(address) && isWord(address)) ??
    pattern.replace(":kind", "machine").replace(":test", "load-test").replace(":metal", "iron").replace(/:\w+/g, nobody)
  );
}

test("the matrix names every address of the application", () => {
  const routes = [...readFileSync("app/routes.ts", "utf8").matchAll(/(?:index|route)\(\s*"([^"]+)"/g)].map(
    (m) => m[1]!,
  );
  const last = new Set(Object.keys(matrix).flatMap((pattern) => [pattern.slice(1), pattern.replace(/^\/\w+\//, "")]));
  const known = new Set([
    ...last,
    "today/today.tsx",
    "oil/overview.tsx",
    "fleet/matrix.tsx",
    "sign-in",
    "sign-out",
    // its key is what lets one in, once: e2e/states.spec.ts
    "first/:key",
    // its token is its key: e2e/plan.spec.ts
    "calendar/:token.ics",
    "*",
  ]);
  expect(routes.filter((route) => !known.has(route))).toEqual([]);
  expect(routes.length).toBeGreaterThan(50);
});

for (const role of roles)
  test(`what a ${role} may look at and send`, async ({ page, baseURL }) => {
    await signIn(page, role);
    const known = await fuzzPages(query);
    const wrong: string[] = [];
    for (const [pattern, { look, send, form = {} }] of Object.entries(matrix)) {
      const address = addressOf(pattern, known);
      if (look) {
        const status = (await page.request.get(address, { maxRedirects: 0 })).status();
        if (may(role, look) ? status === 403 || status >= 500 : status !== 403)
          wrong.push(`${role} looks at ${address}: ${status}`);
      }
      const answer = await page.request.post(address, { maxRedirects: 0, form, headers: { Origin: baseURL! } });
      const status = answer.status();
      if (send && may(role, send) ? status === 403 || status >= 500 : status < 400 || status >= 500)
        wrong.push(`${role} sends to ${address}: ${status}`);
      if (send && !may(role, send) && status !== 403)
        wrong.push(`${role} sends to ${address}: ${status}, not refused by role`);
    }
    expect(wrong).toEqual([]);
  });

test("who is not signed in is led to the sign-in page, and sends nothing", async ({ request, baseURL }) => {
  const known = await fuzzPages(query);
  const wrong: string[] = [];
  for (const [pattern, { look, send }] of Object.entries(matrix)) {
    const address = addressOf(pattern, known);
    if (look) {
      const answer = await request.get(address, { maxRedirects: 0 });
      if (!(answer.headers().location ?? "").startsWith("/sign-in"))
        wrong.push(`looks at ${address}: ${answer.status()}`);
    }
    if (send) {
      const answer = await request.post(address, { maxRedirects: 0, form: {}, headers: { Origin: baseURL! } });
      const refused = answer.status() >= 400 || (answer.headers().location ?? "").startsWith("/sign-in");
      if (!refused) wrong.push(`sends to ${address}: ${answer.status()}`);
    }
  }
  expect(wrong).toEqual([]);
});

/** Addresses of one kind that are followed: records of a kind have one page. */
const OF_A_KIND = 3;

/** Every link that a page shows, followed page by page. Returns those that do not answer 200. */
async function crawl(page: Page): Promise<{ followed: number; broken: string[] }> {
  const seen = new Map<string, number>();
  const queue = [{ address: "/", from: "" }];
  const known = new Set(["/"]);
  const broken: string[] = [];
  let followed = 0;
  for (const { address, from } of queue) {
    const kind = address.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ":id").replace(/=[^&]*/g, "=");
    const before = seen.get(kind) ?? 0;
    if (before >= OF_A_KIND) continue;
    seen.set(kind, before + 1);
    const answer = await page.request.get(address);
    followed++;
    if (answer.status() !== 200) broken.push(`${address} from ${from}: ${answer.status()}`);
    if (!(answer.headers()["content-type"] ?? "").includes("text/html")) continue;
    for (const [, href] of (await answer.text()).matchAll(/<a[^>]* href="(\/[^"#]*)/g)) {
      const next = href!.replaceAll("&amp;", "&");
      if (known.has(next)) continue;
      known.add(next);
      queue.push({ address: next, from: address });
    }
  }
  return { followed, broken };
}

for (const role of roles)
  test(`every link that a ${role} is shown leads somewhere`, async ({ page }) => {
    await signIn(page, role);
    const { followed, broken } = await crawl(page);
    expect(broken).toEqual([]);
    expect(followed).toBeGreaterThan(80);
  });
