/** The main job at the machine: a tablet, in gloves, without a mouse. */
import { expect, test, type Page } from "@playwright/test";
import { accessible, nextHours, pointId, query, readingCount, signIn } from "./support";

test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

/** Nothing runs out of the screen to the side, and what is pressed or typed into is at least 44 px high. */
async function fitsAndIsLargeEnough(page: Page) {
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
  ).toBeLessThanOrEqual(0);
  const small = await page
    .locator(
      "main button:visible, main input:not([type=hidden]):not([type=checkbox]):not([type=radio]):visible, " +
        "main select:visible, nav[aria-label=Places] a:visible",
    )
    .evaluateAll((elements) =>
      elements
        .map((e) => ({
          what: e.textContent?.trim() || e.getAttribute("name"),
          height: e.getBoundingClientRect().height,
        }))
        .filter((e) => e.height < 43.5),
    );
  expect(small).toEqual([]);
}

test("from Today to a saved reading by touch, the form before the chart", async ({ page }) => {
  const id = await pointId("Straddle carrier 1", "Pump", "Case drain flow");
  const before = await readingCount(id);
  await signIn(page, "technician");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(/decision/);
  await fitsAndIsLargeEnough(page);
  await page.getByLabel("Find a machine, point or action").tap();
  await page.keyboard.type("straddle 1 case drain");
  await page.getByRole("option", { name: /Case drain flow/ }).tap();
  await expect(page.getByRole("heading", { name: "Case drain flow" })).toBeVisible();
  await fitsAndIsLargeEnough(page);
  const form = await page.getByRole("button", { name: "Save and go to the next point" }).boundingBox();
  const chart = await page.getByRole("img", { name: /Trend of/ }).boundingBox();
  expect(form!.y).toBeLessThan(chart!.y);
  expect(form!.y + form!.height).toBeLessThan(1180);

  await page.getByLabel("Oil", { exact: true }).fill("50");
  await page.getByLabel("Load", { exact: true }).fill("228");
  await page.getByLabel("Hours", { exact: true }).fill(String(await nextHours(id)));
  await expect(page.locator("#expected")).toContainText(/expect \d/);
  const [, low, high] = /expect (\d+\.\d+).* to (\d+\.\d+)/.exec(
    (await page.locator("#expected").innerText()).replace(/\s/g, " "),
  )!;
  await page.getByLabel("Case drain flow", { exact: true }).fill(((Number(low) + Number(high)) / 2).toFixed(2));
  await page.getByRole("button", { name: "Save and go to the next point" }).tap();
  await expect(page.getByText(/^Saved .+ for /)).toBeVisible();
  expect(await readingCount(id)).toBe(before + 1);
  await accessible(page);
});

test("a machine, its limit, a booking and the record of work fit the tablet", async ({ page }) => {
  await signIn(page);
  await page.goto("/fleet");
  await fitsAndIsLargeEnough(page);
  await page.getByRole("rowheader", { name: "Straddle carrier 2" }).getByRole("link").tap();
  await expect(page.getByRole("heading", { name: /Straddle carrier 2: / })).toBeVisible();
  await expect(page.getByLabel("Machines by name")).toBeHidden();
  await fitsAndIsLargeEnough(page);
  const id = await pointId("Straddle carrier 2", "Pump", "Case pressure");
  await page.goto(`/points/${id}/limit`);
  await page.getByLabel("Upper limit").fill("4.5 bar");
  await fitsAndIsLargeEnough(page);
  await page.getByRole("button", { name: "Save the limit" }).tap();
  await expect(page.getByRole("heading", { name: "Case pressure" })).toBeVisible();

  await page.getByRole("link", { name: "Book work into a stop" }).tap();
  await expect(page.getByLabel("What is to be done")).toBeVisible();
  await fitsAndIsLargeEnough(page);
  await page.getByLabel("What is to be done").selectOption({ label: "Inspect or test it" });
  await page.getByRole("button", { name: "Book it" }).tap();
  await expect(page.getByRole("heading", { name: /Straddle carrier 2, Pump/ })).toBeVisible();
  await fitsAndIsLargeEnough(page);
  await page.getByLabel("Running hours").fill(String(await nextHours(id)));
  await page.getByLabel("What was found").fill("Case line free, filter clean.");
  await page.getByRole("button", { name: "Record it as done" }).tap();
  await expect(page.getByText("Case line free, filter clean.")).toBeVisible();
  // an inspection leaves the part where it is: the life goes on
  const [lives] = await query<{ n: number }>(
    "select count(*)::int as n from lives l join points p on p.component_id = l.component_id where p.id = $1",
    [id],
  );
  expect(lives!.n).toBe(1);
});

test("an import shows its fate before its mapping", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/records");
  await fitsAndIsLargeEnough(page);
  await page.getByRole("link", { name: "Import readings" }).tap();
  await page.getByLabel(/File, at most/).setInputFiles({
    name: "tablet.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(
      "point,taken_at,value\nSC-2/Pump/Case pressure,2026-11-23T08:00:00Z,0.8\nSC-2/Pump/Nowhere,2026-11-23T08:00:00Z,0.8\n",
    ),
  });
  await page.getByRole("button", { name: "Look at the file" }).tap();
  await expect(page.getByRole("heading", { name: "1 to add, 1 bad" })).toBeVisible();
  await fitsAndIsLargeEnough(page);
  const button = await page.getByRole("button", { name: "Import 1 reading" }).boundingBox();
  const mapping = await page.getByRole("heading", { name: "What is what" }).boundingBox();
  expect(button!.y).toBeLessThan(mapping!.y);
  await page.getByLabel(/Leave out the 1 bad row/).check();
  await page.getByRole("button", { name: "Import 1 reading" }).tap();
  await expect(page.getByRole("heading", { name: "1 reading added" })).toBeVisible();
});
