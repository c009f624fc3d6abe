/** From what is due to a plan that is kept, compared and booked; wishes and what they cost; parts, calendar, scorecard. */
import { expect, test, type Page } from "@playwright/test";
import { accessible, refusal, signIn } from "./support";

test.describe.configure({ mode: "serial" });

const solvedText = /Proven: no plan of these pieces is cheaper/;

async function open(page: Page, who: "engineer" | "viewer" | "technician" = "engineer") {
  await signIn(page, who);
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByText(solvedText)).toBeVisible({ timeout: 60_000 });
}

const row = (page: Page, name: string) =>
  page.getByRole("listitem").filter({ has: page.getByRole("link", { name, exact: true }) });
const way = (page: Page, name: string) => row(page, name).getByRole("combobox");

test("the plan is solved beside the page; every line says why, at what risk, and what the next best costs", async ({
  page,
}) => {
  await open(page);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("pieces of work");
  const gate = row(page, "Outer gate north, pump A");
  await expect(gate).toContainText(/chance of the limit before it/);
  await expect(gate).toContainText(/if ordered today/);
  await expect(gate).toContainText(/Next best: .* more\./);
  await accessible(page);
});

test("a mark is dragged to another stop: it is pinned there, and the wish's cost is told", async ({ page }) => {
  await open(page);
  const name = "Ro-ro ramp, lift cylinder, starboard";
  // taken where it is, under the pointer and in view, and let go over another stop's column
  const mark = row(page, name).locator("[data-mark]");
  await mark.scrollIntoViewIfNeeded();
  await mark.hover();
  const from = (await mark.boundingBox())!;
  const columns = await page.locator("[data-stop]").evaluateAll((texts) =>
    texts.map((t) => {
      const box = t.getBoundingClientRect();
      return box.x + box.width / 2;
    }),
  );
  const x = from.x + from.width / 2;
  const other = columns.find((c) => Math.abs(c - x) > 60)!;
  await page.mouse.down();
  await page.mouse.move((x + other) / 2, from.y + from.height / 2, { steps: 4 });
  await page.mouse.move(other, from.y + from.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(way(page, name)).not.toHaveValue("");
  await expect(page.getByText(/What is pinned and wished costs/)).toBeVisible({ timeout: 60_000 });
  // the same with the keyboard alone, and back
  await way(page, name).selectOption({ index: 0 });
  await expect(way(page, name)).toHaveValue("");
  await expect(way(page, name).locator("option").first()).toHaveText(/Spring stop/, { timeout: 60_000 });
  // kept away from the stop that it was given, it goes elsewhere
  const given = (await way(page, name).locator("option").first().textContent())!;
  await way(page, name).selectOption({ label: `Not at: ${given}` });
  await expect(way(page, name).locator("option").first()).not.toHaveText(given, { timeout: 60_000 });
  await row(page, name)
    .getByRole("button", { name: `Let it go to: ${given}` })
    .click();
  await expect(way(page, name).locator("option").first()).toHaveText(given, { timeout: 60_000 });
});

test("two pieces go together, and a stop whose crew is partly wanted elsewhere: solved again to both", async ({
  page,
}) => {
  await open(page);
  const [one, other] = ["Ro-ro ramp, lift cylinder, starboard", "Outer gate north, pump A"] as const;
  await way(page, one).selectOption({ label: `With: ${other}` });
  await expect(row(page, one)).toContainText(`Goes together with ${other}`);
  const given = (name: string) => way(page, name).locator("option").first().textContent();
  await expect(async () => expect(await given(one)).toBe(await given(other))).toPass({ timeout: 60_000 });
  await row(page, other).getByRole("button", { name: "Plan it for itself" }).click();
  await expect(row(page, one)).not.toContainText("Goes together");
  const crew = page.getByLabel(/^fitter hours of Spring stop/);
  const had = await crew.inputValue();
  await crew.fill("0");
  await expect(page.getByText(/What is pinned and wished costs/)).toBeVisible({ timeout: 60_000 });
  await accessible(page);
  await page.getByRole("button", { name: "Take wishes back" }).click();
  await expect(crew).toHaveValue(had);
});

test("a stop that cannot be used is told, with what can be done; nothing is lost by it", async ({ page }) => {
  await open(page);
  const gate = way(page, "Outer gate north, pump A");
  await gate.selectOption({
    label: (await gate.locator("option").allTextContents()).find((t) => /Winter stop/.test(t))!,
  });
  await expect(page.getByText(/its part is not there by Winter stop/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/expedite the part/).first()).toBeVisible();
  await page.getByRole("button", { name: "Take wishes back" }).click();
  await expect(page.getByText(/its part is not there by Winter stop/)).toHaveCount(0, { timeout: 60_000 });
});

test("two plans side by side; the order list follows the newest", async ({ page, baseURL }) => {
  await open(page);
  await page.getByRole("checkbox", { name: "plan without it" }).first().check();
  // the button waits for the plan that answers these wishes
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(refusal(page, "name")).toBeVisible();
  await page.getByLabel("Keep this plan as").fill("Without the winter stop");
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByRole("columnheader", { name: /Without the winter stop/ })).toBeVisible();
  await expect(page.getByRole("rowheader", { name: "Expected cost" })).toBeVisible();
  await expect(page.getByText(/pieces differ/)).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "Parts" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(/part/);
  await expect(page.getByRole("row", { name: /Outer gate north, pump A/ })).toContainText("70");
  await accessible(page);
  const csv = await page.request.get(
    new URL((await page.getByRole("link", { name: "Order list as CSV" }).getAttribute("href"))!, baseURL).href,
  );
  expect(await csv.text()).toContain("Outer gate north");
  expect(csv.headers()["content-type"]).toContain("text/csv");
});

test("costs: a wrong figure is told at its field and nothing typed is lost", async ({ page }) => {
  await open(page);
  await page.getByRole("link", { name: "What work costs" }).click();
  await page.getByLabel("Opening a machine").fill("much");
  await page.getByLabel("A stop of its own").fill("1900");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Write a number.")).toBeVisible();
  await expect(page.getByLabel("Opening a machine")).toHaveValue("much");
  await expect(page.getByLabel("A stop of its own")).toHaveValue("1900");
  await accessible(page);
});

test("a calendar at a private address, read without signing in, until it is revoked", async ({ page, request }) => {
  await signIn(page, "technician");
  await page.goto("/plan/calendar");
  await page.getByRole("button", { name: "Make a private address" }).click();
  const address = await page.getByLabel(/Your address/).inputValue();
  await accessible(page);
  const first = await request.get(address);
  expect(first.status()).toBe(200);
  expect(first.headers()["content-type"]).toContain("text/calendar");
  expect(await first.text()).toContain("BEGIN:VEVENT");
  expect((await request.get(address.replace(/.{6}\.ics$/, "aaaaaa.ics"))).status()).toBe(404);
  await page.reload();
  // pressed again while it is still listed, as a person would: on a busy machine a page that was just loaded has been
  // seen, once, to close the question without sending the form
  await expect(async () => {
    const revoke = page.getByRole("button", { name: "Revoke" });
    if ((await revoke.count()) > 0) {
      await revoke.first().click();
      await page.getByRole("alertdialog").getByRole("button", { name: "Revoke" }).click();
    }
    await expect(revoke).toHaveCount(0, { timeout: 10_000 });
  }).toPass({ timeout: 120_000 });
  expect((await request.get(address)).status()).toBe(404);
});

test("the scorecard and lives by kind; a viewer plans nothing that lasts", async ({ page }) => {
  await open(page, "viewer");
  await expect(page.getByRole("button", { name: "Keep it" })).toHaveCount(0);
  await page.getByRole("link", { name: "Scorecard" }).click();
  await expect(page.getByText(/forecasts of \d+ lives, as they were issued/)).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "Lives by kind" }).click();
  await expect(page.getByRole("heading", { level: 2, name: "Axial piston pump" })).toBeVisible();
  await accessible(page);
});

test("a report of the site and of a machine: its figures as files, printed on pages of their own", async ({ page }) => {
  await open(page, "viewer");
  await page.getByRole("link", { name: "Report" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Condition of");
  await expect(page.getByRole("heading", { level: 2, name: "Points that need attention" })).toBeVisible();
  await accessible(page);
  const json = await page.request.get((await page.getByRole("link", { name: "as JSON" }).getAttribute("href"))!);
  const figures = (await json.json()) as { points: unknown[]; faults: unknown[] };
  expect(figures.points.length).toBeGreaterThan(100);
  expect(figures.faults.length).toBeGreaterThan(3);
  const csv = await page.request.get((await page.getByRole("link", { name: "Figures as CSV" }).getAttribute("href"))!);
  expect((await csv.text()).split("\r\n").length).toBe(figures.points.length + 2);
  // a period the wrong way round is the last quarter, and an address of nowhere is told
  await page.goto("/report?from=2026-11-01&to=2026-10-01");
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Condition of");
  expect((await page.request.get("/report?machine=6b0ff4a5-0d0e-4d5e-8c56-000000000000")).status()).toBe(404);
  await page.goto("/fleet");
  await page
    .getByRole("link", { name: /Outer gate north/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Report" }).click();
  await expect(page.getByRole("heading", { level: 2, name: "All points" })).toBeVisible();
  await accessible(page);
  const printed = await page.pdf({ format: "A4", preferCSSPageSize: true });
  expect(printed.length).toBeGreaterThan(10_000);
});

test("a solver that does not load is said, and is not “Solving…” for ever", async ({ page }) => {
  await signIn(page);
  await page.route(/planner\.worker/, (route) => route.abort());
  await page.goto("/plan");
  await expect(page.getByText("did not load")).toBeVisible();
  await expect(page.getByText("Solving…")).toHaveCount(0);
});
