/** Calculators: answers at once, in the reader's units, from the fleet, with an address to keep. */
import { expect, test } from "@playwright/test";
import { accessible, field, query, refusal, signIn } from "./support";

test.describe.configure({ mode: "serial" });

test("a calculation answers as it is typed, shows its working, and its address holds the inputs", async ({ page }) => {
  await signIn(page, "viewer");
  await page.goto("/calculators");
  await page.getByLabel("Calculations by name").fill("gauge");
  await page.getByRole("link", { name: "Is this gauge fit?" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Can this gauge survive");
  await expect(page.getByText("Not fit.")).toBeVisible();
  await field(page, "scale").fill("40");
  await expect(page.getByText("Suitable, and in the best part of its scale.")).toBeVisible();
  await expect(page.getByText("GUM, type B")).toBeVisible();
  await expect(page).toHaveURL(/scale=40/);
  await page.reload();
  await expect(field(page, "scale")).toHaveValue("40");
  await expect(page.getByText("Suitable, and in the best part of its scale.")).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: /^Today/ }).click();
  await expect(page.getByRole("heading", { level: 1, name: /need/ })).toBeVisible();
});

test("what cannot be read is said beside its field, and the rest stays", async ({ page }) => {
  await signIn(page, "viewer");
  await page.goto("/calculators/orifice?diameter=abc");
  await expect(refusal(page, "diameter")).toBeVisible();
  await page.getByLabel("Diameter").fill("0.08 in");
  await expect(page.getByText(/It passes/)).toBeVisible();
  await page.getByLabel("Discharge coefficient").fill("3");
  await expect(refusal(page, "discharge")).toBeVisible();
  await accessible(page);
  await page.goto("/calculators/nothing");
  await expect(page.getByText("There is no such calculation")).toBeVisible();
});

test("every calculation opens with a worked example and no fault that axe can see", async ({ page }) => {
  await signIn(page, "viewer");
  await page.goto("/calculators");
  const links = await page
    .locator("section ul a")
    .evaluateAll((all) => all.map((a) => (a as HTMLAnchorElement).pathname));
  expect(links.length).toBeGreaterThan(35);
  for (const path of links) {
    await page.goto(path);
    await expect(page.getByRole("heading", { name: "How this was worked out" })).toBeVisible();
  }
  for (const path of ["/calculators/load-test", "/calculators/iso-4406", "/calculators/settings-ladder"]) {
    await page.goto(path);
    await accessible(page);
  }
});

test("values are taken from a component of the fleet", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/calculators/case-drain");
  await page.getByPlaceholder("Take from a component").fill("outer gate north pump a");
  await page
    .getByRole("option", { name: /Pump A/ })
    .first()
    .click();
  await expect(page.getByText(/Taken from .*Pump A/)).toBeVisible();
  const [row] = await query<{ displacement: number }>(
    "select displacement from components c join circuits k on k.id = c.circuit_id join machines m on " +
      "m.id = k.machine_id where m.name = 'Outer gate north' and c.name = 'Pump A'",
  );
  await expect(page.getByLabel("Displacement")).toHaveValue(String(row!.displacement));
});

test("a person's units are everywhere: shown, and taken when none is typed", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/account");
  await page.getByLabel("Pressure", { exact: true }).selectOption("psi");
  await page.getByLabel("Flow", { exact: true }).selectOption("gal/min");
  await page.getByRole("button", { name: "Use these units" }).click();
  await expect(page.getByLabel("Pressure", { exact: true })).toHaveValue("psi");
  await accessible(page);
  await page.goto("/calculators/pump-power?flow=10&pressure=3000&efficiency=100");
  await expect(page.getByText("13.0 kW").first()).toBeVisible();
  await page.goto("/calculators/orifice");
  await expect(page.getByText(/It passes/)).toContainText("gal/min");
  await page.goto("/");
  await expect(page.getByText(/at 50\s°C, 3046\spsi/).first()).toBeVisible();
  // and as the points are set again: the other tests read bar and litres
  await page.goto("/account");
  for (const name of ["Pressure", "Flow"]) await page.getByLabel(name, { exact: true }).selectOption("");
  // a page that is left before its form has been answered keeps what it had
  await Promise.all([
    page.waitForResponse((answer) => answer.request().method() === "POST"),
    page.getByRole("button", { name: "Use these units" }).click(),
  ]);
  await page.goto("/");
  await expect(page.getByText(/at 50\s°C, 210\sbar/).first()).toBeVisible();
});
