/** A machine is here with a complaint: from what was noticed to its isolation and back, by whoever stands there. */
import { expect, test } from "@playwright/test";
import { accessible, query, signIn } from "./support";

test.describe.configure({ mode: "serial" });

const NOTICED =
  "Luffing stops half way, trial of a long complaint that goes on and on about what was seen this morning";

test("a technician begins a job from the machine, loses nothing that was typed, and finds the cause within it", async ({
  page,
}) => {
  await signIn(page, "technician");
  await page.goto("/work");
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  await accessible(page);
  await page.getByRole("link", { name: "A machine is here with a complaint" }).click();
  await page.getByLabel("Machine, by name or tag").fill("no such machine");
  await page.getByRole("button", { name: "Find", exact: true }).click();
  await expect(page.getByText("No machine is called so.")).toBeVisible();
  await page.getByLabel("Machine, by name or tag").fill("QC-1");
  await page.getByRole("button", { name: "Find", exact: true }).click();
  await page.getByRole("link", { name: /Quay crane 1/ }).click();
  await accessible(page);
  await page.getByRole("button", { name: "Begin the job" }).click();
  await expect(page.getByText("Say what was noticed.")).toBeVisible();
  await page.getByLabel("What was noticed").fill(NOTICED);
  await page.getByRole("button", { name: "Begin the job" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Quay crane 1: Luffing stops half way/ })).toBeVisible();
  await expect(page.getByRole("listitem").filter({ hasText: "What it is" })).toHaveAttribute("aria-current", "step");
  await accessible(page);
  const job = new URL(page.url()).pathname;
  await page.getByRole("link", { name: "Find the cause" }).click();
  await page.getByRole("radio", { name: /Actuator slow/ }).check();
  await page.getByRole("button", { name: "Find the next best test" }).click();
  await page.getByRole("link", { name: /^Job \d+$/ }).click();
  await expect(page).toHaveURL(job);
  await expect(page.getByRole("link", { name: "Go on isolating" })).toBeVisible();
  const rows = await query<{ n: number }>(
    `select count(*)::int as n from isolations i join jobs j on j.id = i.job_id where j.noticed = '${NOTICED}'`,
  );
  expect(rows[0]!.n).toBe(1);
});

test("it is closed with a reason and opened again; a viewer looks and changes nothing", async ({ page }) => {
  await signIn(page);
  await page.goto("/jobs");
  await page.getByRole("link", { name: /Luffing stops half way/ }).click();
  await page.getByText("Nothing more is to be done?").click();
  await page.getByRole("button", { name: "Close the job" }).click();
  await expect(page.getByText("Say why: the job keeps it.")).toBeVisible();
  await page.getByLabel("Why it is closed").fill("The limit switch was out of place; set back on the spot");
  await page.getByRole("button", { name: "Close the job" }).click();
  // its isolation would be nobody's
  await expect(page.getByText(/Its isolation is still open/)).toBeVisible();
  await expect(page.getByLabel("Why it is closed")).toHaveValue(/limit switch/);
  await page.goto("/jobs");
  await page.getByRole("link", { name: /Jerks when it starts to lift/ }).click();
  await page.getByText("Nothing more is to be done?").click();
  await page.getByLabel("Why it is closed").fill("Cold oil; warmed through it lifts as it should");
  await page.getByRole("button", { name: "Close the job" }).click();
  await expect(page.getByText("Closed by hand.")).toBeVisible();
  await page.getByRole("button", { name: "Open it again" }).click();
  await expect(page.getByRole("link", { name: "Find the cause" })).toBeVisible();
  const job = new URL(page.url()).pathname;
  await page.context().clearCookies();
  await signIn(page, "viewer");
  await page.goto(job);
  await expect(page.getByText("What happened")).toBeVisible();
  await expect(page.getByText("Nothing more is to be done?")).toHaveCount(0);
});

test("work that is booked has its job, which leads back to it", async ({ page }) => {
  await signIn(page);
  await page.goto("/jobs");
  await page.getByRole("link", { name: /Bridge nose locks/ }).click();
  await expect(page.getByRole("listitem").filter({ hasText: /^Done/ })).toHaveAttribute("aria-current", "step");
  await page
    .getByRole("link", { name: /Lock valve: repair/ })
    .first()
    .click();
  await page.getByRole("link", { name: /^Job \d+$/ }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Bridge nose locks/ })).toBeVisible();
});
