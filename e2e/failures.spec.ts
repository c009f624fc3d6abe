/** What goes wrong: refusals by role, bad input, double submits, two people, a database that goes away. */
import { execFileSync } from "node:child_process";
import { expect, test } from "@playwright/test";
import { accessible, nextHours, passwords, pointId, query, readingCount, refusal, signIn } from "./support";

test("nobody gets in without signing in, and tries are limited", async ({ page, request }) => {
  for (const path of [
    "/",
    "/fleet",
    "/records",
    "/work",
    "/find?q=pump",
    "/records/readings.csv",
    "/records/fleet.json",
    "/account",
  ]) {
    const answer = await request.get(path, { maxRedirects: 0 });
    expect([path, answer.status()]).toEqual([path, 302]);
  }
  await page.goto("/fleet");
  await expect(page).toHaveURL(/sign-in\?to=%2Ffleet/);
  await accessible(page);
  await page.getByRole("button", { name: "Sign in" }).click();
  // the ninth is slowed down, not shut out
  for (let i = 0; i < 9; i++) {
    await page.getByLabel("Sign-in name").fill("nobody");
    await page.getByLabel("Password").fill(`wrong ${i}`);
    const [answer] = await Promise.all([
      page.waitForResponse((r) => r.request().method() === "POST"),
      page.getByRole("button", { name: "Sign in" }).click(),
    ]);
    expect(answer.status()).toBe(401);
  }
  // others are not locked out with them, and land where they wanted to go
  await page.getByLabel("Sign-in name").fill("viewer");
  await page.getByLabel("Password").fill(passwords.viewer!);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page).toHaveURL(/\/fleet$/);
});

test("a sign-in never leads to another site", async ({ page }) => {
  await page.goto("/sign-in?to=//elsewhere.example/");
  await page.getByLabel("Sign-in name").fill("viewer");
  await page.getByLabel("Password").fill(passwords.viewer!);
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
  expect(new URL(page.url()).host).toBe(new URL(process.env.E2E_URL!).host);
});

test("each role is refused what is not its own, in the page and on the server", async ({ page }) => {
  const id = await pointId("Inner gate north", "Pump", "Case drain flow");
  const origin = process.env.E2E_URL!;
  await signIn(page, "viewer");
  await page.goto(`/points/${id}`);
  await expect(page.getByText("Log a reading")).toHaveCount(0);
  for (const path of [
    "/records/import",
    `/points/${id}/limit`,
    `/work/book?point=${id}`,
    "/fleet/new/machine",
    "/records/fleet",
  ]) {
    const answer = await page.goto(path);
    expect([path, answer!.status()]).toEqual([path, 403]);
    await expect(page.getByRole("heading", { name: /This is for an/ })).toBeVisible();
  }
  const before = await readingCount(id);
  const post = await page.request.post(`/points/${id}`, { form: { value: "1.4" }, headers: { Origin: origin } });
  expect(post.status()).toBe(403);
  expect(await readingCount(id)).toBe(before);

  await page.context().clearCookies();
  await signIn(page, "technician");
  for (const path of [`/points/${id}/limit`, `/work/book?point=${id}`, "/fleet/new/machine"])
    expect([path, (await page.goto(path))!.status()]).toEqual([path, 403]);
  const [work] = await query<{ id: string; version: number }>(
    "select id, version from interventions where done_at is null and cancelled_at is null limit 1",
  );
  const cancel = await page.request.post(`/work/${work!.id}`, {
    form: { intent: "cancel", version: String(work!.version) },
    headers: { Origin: origin },
  });
  expect(cancel.status()).toBe(403);
});

test("headers, origin check and size limit", async ({ page }) => {
  await signIn(page);
  const answer = await page.request.get("/");
  const policy = answer.headers()["content-security-policy"]!;
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+'/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(answer.headers()["x-content-type-options"]).toBe("nosniff");
  expect(answer.headers()["x-powered-by"]).toBeUndefined();
  // scripts were compressed at the build, as small as it gets
  const script = /\/assets\/entry\.client-[^"]+\.js/.exec(await answer.text())![0];
  expect((await page.request.get(script)).headers()).toMatchObject({
    "content-encoding": "br",
    "cache-control": expect.stringContaining("immutable"),
  });
  // as built: a bundler had dropped the check whose result nobody used
  expect(await (await page.request.get("/points/%2/x")).text()).toBe("This request cannot be read.");
  const [cookie] = (await page.context().cookies()).filter((c) => c.name === "juncteral");
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: "Lax" });
  expect((await page.request.post("/sign-out", { headers: { Origin: "https://elsewhere.example" } })).status()).toBe(
    403,
  );
  expect((await page.request.post("/sign-out", { headers: { Origin: "" } })).status()).toBe(403);
  const large = await page.request.post("/records/import", {
    multipart: { file: { name: "big.csv", mimeType: "text/csv", buffer: Buffer.alloc(33 * 1024 * 1024, "a") } },
    headers: { Origin: process.env.E2E_URL! },
  });
  expect(large.status()).toBe(413);
  const problems: string[] = [];
  page.on("console", (message) => {
    if (message.type() === "error") problems.push(message.text());
  });
  page.on("pageerror", (error) => problems.push(String(error)));
  for (const path of [
    "/",
    "/fleet",
    "/work",
    "/records",
    "/account",
    `/points/${await pointId("Bascule bridge drive", "Pump 1", "Case drain flow")}`,
  ]) {
    await page.goto(path);
    await page.waitForLoadState("networkidle");
  }
  expect(problems).toEqual([]);
});

test("bad readings are refused beside their fields, and nothing typed is lost", async ({ page }) => {
  const id = await pointId("Inner gate north", "Pump", "Case drain flow");
  const before = await readingCount(id);
  await signIn(page, "technician");
  await page.goto(`/points/${id}`);
  await page.getByText("Time, state, speed, instrument, note").click();
  await page.getByLabel("Note").fill("kept through every refusal");
  const save = () => page.getByRole("button", { name: "Save and go to the next point" }).click();
  const cases: [label: string | RegExp, value: string, message: RegExp][] = [
    ["Case drain flow", "", /Enter a value for case drain flow/],
    ["Case drain flow", "lots", /“lots” is not a number/],
    ["Case drain flow", "3.4 °C", /“°C” is a temperature; L\/min is wanted here/],
    ["Oil", "900", /outside the possible range/],
    ["Hours", "12", /runs backwards\. Was the meter replaced or reset/],
    ["Read at", "2027-06-01T10:00", /That is in the future/],
    ["Read at", "2001-06-01T10:00", /The part was not fitted then/],
  ];
  for (const [label, value, message] of cases) {
    await page.getByLabel("Case drain flow", { exact: true }).fill("1.3");
    await page.getByLabel("Oil", { exact: true }).fill("50");
    await page.getByLabel("Hours").fill("");
    await page.getByLabel(label, { exact: true }).fill(value);
    await save();
    await expect(page.getByText(message)).toBeVisible();
    await expect(page.getByLabel("Note")).toHaveValue("kept through every refusal");
    await expect(page.getByLabel(label, { exact: true })).toHaveValue(value);
    if (label === "Read at") await page.getByLabel("Read at").fill("2026-11-24T08:30");
  }
  // the state is the point's own; a form that was open while the point was changed is refused
  const setState = (state: string) =>
    page.locator("input[name=state]").evaluate((input, to) => ((input as HTMLInputElement).value = to), state);
  await setState("idle");
  await save();
  await expect(page.getByText(/This series is read full stroke and never mixes states/)).toBeVisible();
  await setState("fullStroke");
  const [last] = await query<{ at: string }>(
    "select to_char(max(taken_at) at time zone 'Europe/London', 'YYYY-MM-DD\"T\"HH24:MI') as at from readings where point_id = $1",
    [id],
  );
  await page.getByLabel("Read at").fill(last!.at);
  await page.getByLabel("Load").fill("210");
  await save();
  await expect(page.getByText(/There is already a reading at that time|Read it once more/)).toBeVisible();
  expect(await readingCount(id)).toBe(before);
  await accessible(page);
});

test("the same form sent twice saves one reading", async ({ page }) => {
  const id = await pointId("Inner gate south", "Pump", "Inlet vacuum");
  const before = await readingCount(id);
  await signIn(page, "technician");
  await page.goto(`/points/${id}`);
  const submission = await page.locator("input[name=submission]").inputValue();
  const [{ typical }] = (await query<{ typical: number }>(
    "select percentile_cont(0.5) within group (order by value) as typical from readings where point_id = $1",
    [id],
  )) as [{ typical: number }];
  const form = {
    submission,
    value: `${typical.toFixed(0)}`,
    state: "fullStroke",
    takenAt: "2026-11-24T08:45",
    temperature: "",
    pressure: "",
    hours: "",
    speed: "",
    instrumentId: "",
    note: "",
    keptBecause: "it is so",
  };
  const send = () =>
    page.request.post(`/points/${id}`, { form, headers: { Origin: process.env.E2E_URL! }, maxRedirects: 0 });
  const answers = await Promise.all([send(), send(), send()]);
  expect(answers.map((a) => a.status())).toEqual([302, 302, 302]);
  expect(await readingCount(id)).toBe(before + 1);
});

test("two people edit one limit: the second is told and loses nothing", async ({ browser }) => {
  const id = await pointId("Inner gate south", "Pump", "Case pressure");
  const open = async () => {
    const page = await (await browser.newContext()).newPage();
    await signIn(page);
    await page.goto(`/points/${id}/limit`);
    return page;
  };
  const [first, second] = [await open(), await open()];
  await first.getByLabel("Upper limit").fill("5 bar");
  await first.getByRole("button", { name: "Save the limit" }).click();
  await expect(first.getByRole("heading", { name: "Case pressure" })).toBeVisible();
  await second.getByLabel("Upper limit").fill("60 psi");
  await second.getByRole("button", { name: "Save the limit" }).click();
  await expect(second.getByText(/changed this point in the meantime/)).toBeVisible();
  await expect(second.getByText(/upper 5 bar/)).toBeVisible();
  await expect(second.getByLabel("Upper limit")).toHaveValue("60 psi");
  await second.getByRole("button", { name: "Save the limit" }).click();
  await expect(second.getByRole("heading", { name: "Case pressure" })).toBeVisible();
  const [row] = await query<{ limit_upper: number }>("select limit_upper from points where id = $1", [id]);
  expect(row!.limit_upper).toBeCloseTo(4.137, 3);
});

test("files that are no CSV, empty, or large", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/records/import");
  const choose = async (name: string, buffer: Buffer) => {
    await page.getByLabel(/File, at most/).setInputFiles({ name, mimeType: "text/csv", buffer });
    await page.getByRole("button", { name: "Look at the file" }).click();
  };
  await page.getByRole("button", { name: "Look at the file" }).click();
  await expect(refusal(page, "file")).toBeVisible();
  await choose("book.xlsx", Buffer.from("PK\u0003\u0004rest", "latin1"));
  await expect(refusal(page, "file")).toBeVisible();
  await choose("odd.csv", Buffer.from("just one line without anything"));
  await expect(page.getByRole("heading", { name: /0 to add/ })).toBeVisible();
  await page.getByRole("button", { name: "Look again" }).click();
  await expect(refusal(page, "column-value")).toBeVisible();

  // ten megabytes: every hour of fifteen years at one point
  const lines = ["point,taken_at,value,note"];
  for (let i = 0; lines.length < 100_001; i++)
    lines.push(
      `LG-IS/Pump/Inlet vacuum,${new Date(Date.UTC(2022, 0, 1, 0, 0, 30) + i * 900_000).toISOString()},${70 + (i % 20)} hPa,${"x".repeat(36)}`,
    );
  const big = Buffer.from(lines.join("\n"));
  expect(big.length).toBeGreaterThan(9_000_000);
  await page.goto("/records/import");
  await choose("big.csv", big);
  await expect(page.getByRole("heading", { name: /^100000 to add$/ })).toBeVisible();
});

test("addresses that lead nowhere say so", async ({ page }) => {
  await signIn(page, "viewer");
  for (const [path, text] of [
    ["/nowhere", "no such page"],
    ["/points/123", "no such record"],
    [`/points/${crypto.randomUUID()}`, "no such point"],
    [`/fleet/machines/${crypto.randomUUID()}`, "no such machine"],
    [`/work/${crypto.randomUUID()}`, "no such piece of work"],
  ] as const) {
    const answer = await page.goto(path);
    expect([path, answer!.status()]).toEqual([path, 404]);
    await expect(page.getByText(text)).toBeVisible();
  }
  await accessible(page);
});

test("the database goes away under a form and comes back: nothing is lost or doubled", async ({ page }) => {
  const id = await pointId("Inner gate south", "Pump", "Case temperature over tank");
  const before = await readingCount(id);
  const hours = await nextHours(id);
  await signIn(page, "technician");
  await page.goto(`/points/${id}`);
  const [{ typical }] = (await query<{ typical: number }>(
    "select percentile_cont(0.5) within group (order by value) as typical from readings where point_id = $1",
    [id],
  )) as [{ typical: number }];
  await page.getByLabel("Temperature rise", { exact: true }).fill(typical.toFixed(1));
  await page.getByLabel("Hours").fill(String(hours));
  const interrupt = (what: string) =>
    execFileSync(process.execPath, ["scripts/lib/interrupt.mjs", what, process.env.E2E_CLUSTER!]);
  interrupt("stop");
  let away = true;
  try {
    await page.getByRole("button", { name: "Save and go to the next point" }).click();
    await expect(page.getByText("The database does not answer, so nothing was saved.")).toBeVisible();
    await expect(page.getByLabel("Temperature rise", { exact: true })).toHaveValue(typical.toFixed(1));
    const other = await page.context().newPage();
    await other.goto("/");
    await expect(other.getByRole("heading", { name: "The database does not answer" })).toBeVisible();
    interrupt("start");
    away = false;
    await expect(other.getByRole("heading", { name: /need/ })).toBeVisible();
  } finally {
    if (away) interrupt("start");
  }
  await page.getByRole("button", { name: "Save and go to the next point" }).click();
  await expect(page.getByText(/^Saved .+ for /)).toBeVisible();
  expect(await readingCount(id)).toBe(before + 1);
});
