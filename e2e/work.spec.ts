/** Work from a finding to a signed record: on a tablet, without a network, by two people, refused, added to. */
import { expect, test, type Locator, type Page } from "@playwright/test";
import { accessible, field, nextHours, query, refusal, signIn } from "./support";

test.describe.configure({ mode: "serial" });

let workPath = "";
let runPath = "";

/** A machine with a pump whose case drain is read, that no other story touches. */
async function pump(): Promise<{ machine: string; component: string; point: string }> {
  const [row] = await query<{ machine: string; component: string; point: string }>(
    `select m.name as machine, c.name as component, p.id as point from points p join components c on c.id = p.component_id
     join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
     where c.kind = 'axialPistonPump' and p.quantity = 'caseDrainFlow' and m.name not in ('Outer gate north', 'Mobile harbour crane', 'Straddle carrier 1')
       and not exists (select 1 from interventions i where i.component_id = c.id)
     order by m.name desc limit 1`,
  );
  return row!;
}

const current = (page: Page) =>
  page.locator("li[data-step]").filter({ has: page.getByRole("button", { name: "Done", exact: true }) });

/** Fill what the open step asks for, with what a fitter would write. */
async function fill(step: Locator): Promise<void> {
  for (const select of await step.locator("select").all()) {
    const labels = await select.locator("option").allTextContents();
    await select.selectOption({
      label: labels.slice(1).find((l) => !/faulty|not flushed|did not|still in|scored or pitted|^no$/.test(l))!,
    });
  }
  for (const input of await step.locator("input[id^='s-']").all()) {
    const id = (await input.getAttribute("id"))!;
    if (await input.inputValue()) continue;
    await input.fill(
      /-(passes)$/.test(id)
        ? "3"
        : /-(stated|reached)$/.test(id)
          ? "42"
          : /-count$/.test(id)
            ? "4"
            : /relief-gap-value$/.test(id)
              ? "20"
              : /-value$/.test(id)
                ? "0"
                : "as the sheet says",
    );
  }
}

/** Steps, one after another, until one is met; its id is returned. */
async function work(page: Page, until: string | null): Promise<void> {
  for (let i = 0; i < 80; i++) {
    const step = current(page);
    if (until === null && (await page.getByRole("link", { name: "All steps are closed: record the work" }).count()) > 0)
      return;
    await expect(step).toHaveCount(1);
    const id = (await step.getAttribute("data-step"))!;
    if (id === until) return;
    await fill(step);
    await step.getByRole("button", { name: "Done", exact: true }).click();
    await expect(page.locator(`li[data-step="${id}"]`).getByRole("button", { name: "Done", exact: true })).toHaveCount(
      0,
    );
  }
  throw new Error("the procedure never ends");
}

/** Pass over what is still open, with a reason that stays on the record. */
async function passOver(page: Page, why: string): Promise<void> {
  const through = page.getByRole("link", { name: "All steps are closed: record the work" });
  for (let i = 0; i < 10; i++) {
    await expect(current(page).or(through).first()).toBeVisible();
    if ((await through.count()) > 0) return;
    const id = (await current(page).getAttribute("data-step"))!;
    const step = page.locator(`li[data-step="${id}"]`);
    await step.getByRole("button", { name: "Skip it" }).click();
    await step.getByLabel(/Why is it skipped/).fill(why);
    await step.getByRole("button", { name: "Skip it" }).click();
    await expect(step).toContainText(why);
  }
  throw new Error("steps stay open");
}

test("a finding becomes booked work that knows why; the likeliest procedure is offered first", async ({ page }) => {
  const { point } = await pump();
  await signIn(page);
  await page.goto(`/work/book?point=${point}`);
  await page.getByLabel("A stop of its own, not planned yet").check();
  await page.getByRole("button", { name: "Book it" }).click();
  await expect(page.getByText(/Condemned by:/)).toBeVisible();
  workPath = new URL(page.url()).pathname;
  await expect(page.getByLabel("Begin with").locator("option").first()).toHaveText("Replace a compensated pump");
  await page.getByRole("button", { name: "Begin it" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Replace a compensated pump" })).toBeVisible();
  runPath = new URL(page.url()).pathname;
  await accessible(page);
});

test("a technician's skip of a hold point is refused; what comes after it is barred", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto(runPath);
  await work(page, "isolated");
  const hold = page.locator("li[data-step=isolated]");
  await expect(hold.getByText("Nobody goes on without it:")).toBeVisible();
  await expect(hold.getByRole("button", { name: "Skip it" })).toHaveCount(0);
  await page.locator("li[data-step=zero]").getByRole("button").first().click();
  await expect(page.getByText("Not before the hold point:")).toBeVisible();
  // past the page, by the address that it sends to
  const [last] = await query<{ id: string }>("select id from users where role = 'engineer' limit 1");
  const answer = await page.request.post(`${runPath}/send`, {
    data: [
      {
        kind: "step",
        submission: crypto.randomUUID(),
        runId: runPath.split("/").at(-1),
        at: Date.parse("2026-11-24T08:59:00Z"),
        by: last!.id,
        step: "isolated",
        entry: "skipped",
        values: {},
        reason: "nobody has the key",
        after: "",
      },
    ],
    headers: { Origin: new URL(page.url()).origin },
  });
  expect(((await answer.json()) as { fates: { fate: string }[] }).fates[0]!.fate).toBe("refused");
});

test("from hold point to proof on a tablet without a network, the tab closed in between, then sent once", async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 820, height: 1180 } });
  const page = await context.newPage();
  await signIn(page, "technician");
  await page.goto(runPath);
  await expect.poll(() => page.evaluate(async () => (await caches.keys()).length)).toBe(2);
  await expect
    .poll(() =>
      page.evaluate(
        async (path) => (await (await caches.open("juncteral-walks")).keys()).some((r) => r.url.endsWith(path)),
        runPath,
      ),
    )
    .toBe(true);
  await page.waitForTimeout(1500);
  await context.setOffline(true);
  await work(page, "look");
  await expect(page.getByText(/no network/)).toBeVisible();
  // findings before washing, one with a photograph and a ring on it
  await page.getByRole("button", { name: /^Findings/ }).click();
  await page.getByRole("button", { name: "Clearance" }).click();
  await page.getByRole("button", { name: "Keep the finding" }).click();
  await expect(page.getByText("Write it down.").first()).toBeVisible();
  await page.getByLabel("Where", { exact: true }).fill("slipper");
  await page.getByLabel("Measured (µm)").fill("34");
  await page.getByLabel(/Band to/).fill("20");
  await page.getByRole("button", { name: "Keep the finding" }).click();
  await expect(page.getByText(/4\.9 times what the widest permitted gap does/)).toBeVisible();
  // one that was wrong is taken back, with why; it stays on the record, struck out
  await page.getByRole("button", { name: "Suction felt" }).click();
  await page.getByLabel("Where", { exact: true }).fill("bore 3");
  await page.getByLabel("When drawn apart").selectOption({ label: "weak" });
  await page.getByRole("button", { name: "Keep the finding" }).click();
  const felt = page.getByRole("listitem").filter({ hasText: "bore 3" });
  await felt.getByRole("button", { name: "Withdraw it" }).click();
  await felt.getByRole("button", { name: "Withdraw it" }).click();
  await expect(felt.getByText("Say why in a few words.")).toBeVisible();
  await felt.getByLabel(/What was wrong with it/).fill("felt at the wrong bore");
  await felt.getByRole("button", { name: "Withdraw it" }).click();
  await expect(felt.getByText(/Withdrawn by .*felt at the wrong bore/)).toBeVisible();
  await page.locator("input[type=file]").setInputFiles("docs/screenshots/plan.png");
  const picture = page.getByAltText("The photograph just taken");
  await picture.click({ position: { x: 60, y: 60 } });
  await expect(page.getByRole("button", { name: /^Ring 1/ })).toBeVisible();
  await page.getByLabel("What it shows").fill("Slipper, worn");
  await accessible(page);
  await page.getByRole("button", { name: "Keep the photograph" }).click();
  await expect(page.getByAltText("Slipper, worn")).toBeVisible();
  await page.close();
  // the tablet was off: everything is there, at the step where it was left
  const again = await context.newPage();
  await again.goto(runPath);
  await expect(again.getByText(/ · \d+ kept here/)).toBeVisible();
  await expect(current(again)).toHaveAttribute("data-step", "look");
  await work(again, null);
  const before = await query("select 1 from work_entries where step = 'again' and run_id = $1", [
    runPath.split("/").at(-1),
  ]);
  expect(before).toHaveLength(0);
  await context.setOffline(false);
  await expect(again.getByText("all sent")).toBeVisible({ timeout: 60_000 });
  const [sent] = await query<{ n: number; d: number }>(
    "select count(*)::int as n, count(distinct step)::int as d from work_entries where run_id = $1",
    [runPath.split("/").at(-1)],
  );
  expect(sent!.n).toBe(sent!.d);
  expect(sent!.n).toBeGreaterThan(35);
  const [photo] = await query<{ id: string }>("select id from work_photos where caption = 'Slipper, worn'");
  const shown = await again.request.get(`/work/photos/${photo!.id}`);
  expect(shown.headers()["content-type"]).toBe("image/jpeg");
  await context.close();
});

test("two people in one procedure: each sees the other's step, and who differs is asked", async ({ browser }) => {
  const [one, two] = await Promise.all([browser.newContext(), browser.newContext()]);
  const [first, second] = await Promise.all([one.newPage(), two.newPage()]);
  await signIn(first, "technician");
  await signIn(second, "engineer");
  await first.goto("/work");
  await first.getByRole("link", { name: "Ro-ro ramp, Lift cylinder, port" }).click();
  await first.getByLabel("Begin with").selectOption({ label: "Bleed cylinders" });
  await first.getByRole("button", { name: "Begin it" }).click();
  await expect(first.getByRole("heading", { level: 1, name: "Bleed cylinders" })).toBeVisible();
  await second.goto(first.url());
  await expect(current(second)).toHaveAttribute("data-step", "level-first");
  await current(first).getByRole("button", { name: "Done", exact: true }).click();
  await expect(second.locator("li[data-step=level-first]")).toContainText("T. Wren", { timeout: 20_000 });
  // without a network the second does otherwise at the same step
  await expect(current(second)).toHaveAttribute("data-step", "no-load");
  await two.setOffline(true);
  await current(second).getByRole("button", { name: "Skip it" }).click();
  await second.getByLabel(/Why is it skipped/).fill("no");
  await second.getByRole("button", { name: "Skip it" }).click();
  await expect(second.getByText("Say why in a few words.")).toBeVisible();
  await second.getByLabel(/Why is it skipped/).fill("the rod is off the load already");
  await second.getByRole("button", { name: "Skip it" }).click();
  await current(first).getByRole("button", { name: "Done", exact: true }).click();
  const runId = new URL(first.url()).pathname.split("/").at(-1);
  await expect
    .poll(() =>
      query("select 1 from work_entries where run_id = $1 and step = 'no-load'", [runId]).then((r) => r.length),
    )
    .toBe(1);
  await two.setOffline(false);
  await expect(second.getByText(/T\. Wren did this in the meantime/)).toBeVisible({ timeout: 60_000 });
  await second.getByRole("button", { name: "Keep theirs" }).click();
  await expect(second.getByText(/did this in the meantime/)).toHaveCount(0);
  await expect(second.locator("li[data-step=no-load]")).toContainText("T. Wren");
  await one.close();
  await two.close();
});

test("done, proven by the reading that condemned it, signed, locked, added to", async ({ page }) => {
  const { point } = await pumpOf(workPath);
  await signIn(page);
  await page.goto(workPath);
  await field(page, "doneAt").fill("2026-11-24T08:30");
  await page.getByLabel("Running hours").fill(String(await nextHours(point)));
  await page.getByLabel("Serial of the new part").fill("E90210");
  await page.getByRole("button", { name: "Record it as done" }).click();
  // the tablet closed the last hold without a network; nobody has read the point since, so it is open still
  await expect(page.getByText(/Replace a compensated pump: \d steps? (is|are) open/)).toBeVisible();
  await expect(page.getByLabel("Serial of the new part")).toHaveValue("E90210");
  await page.goto(runPath);
  await passOver(page, "read when the machine runs again");
  await page.goto(workPath);
  await field(page, "doneAt").fill("2026-11-24T08:30");
  await page.getByLabel("Running hours").fill(String(await nextHours(point)));
  await page.getByLabel("Serial of the new part").fill("E90210");
  await page.getByRole("button", { name: "Record it as done" }).click();
  await expect(
    page.getByText("Not proven yet: repeat the reading that condemned the part, at the same conditions."),
  ).toBeVisible();
  await page.getByLabel("Parts and serials used").fill("Pump E90210, shaft seal");
  await page.getByLabel("A stop-gap: its cause stays open").check();
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(refusal(page, "lookAgainOn")).toBeVisible();
  await expect(page.getByLabel("Parts and serials used")).toHaveValue("Pump E90210, shaft seal");
  await page.getByLabel("A stop-gap: its cause stays open").uncheck();
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText("Kept.")).toBeVisible();
  await page.getByRole("button", { name: "Sign it" }).click();
  await expect(page.getByText("No reading since proves it. Read the point again")).toBeVisible();
  // the reading that condemned it, repeated where every reading is logged
  const [worn] = await query<{ least: number }>("select min(value) as least from readings where point_id = $1", [
    point,
  ]);
  await page.getByRole("link", { name: "Log it now" }).click();
  await field(page, "value").fill(`${(worn!.least / 2).toFixed(2)} L/min`);
  await field(page, "temperature").fill("50");
  await field(page, "pressure").fill("200");
  await page.getByRole("button", { name: "Save and go to the next point" }).click();
  await expect(page.getByText(/^Saved .+ for /)).toBeVisible();
  await page.goto(workPath);
  await expect(page.getByRole("row", { name: /Case drain flow/ })).toContainText("proven");
  await accessible(page);
  await page.getByRole("button", { name: "Sign it" }).click();
  await expect(page.getByText(/Signed by/)).toContainText(", proven by a reading");
  await page.getByLabel("An addition to the record").fill("A drip at the case union on the first day; tightened.");
  await page.getByRole("button", { name: "Add it" }).click();
  await page.getByRole("link", { name: "The record" }).click();
  await expect(page.getByText("A drip at the case union on the first day")).toBeVisible();
  await expect(page.getByText(/slipper: 34 µm/)).toBeVisible();
  await expect(page.locator("s").filter({ hasText: "bore 3" })).toBeVisible();
  await expect(page.getByText(/Withdrawn by T. Wren.*felt at the wrong bore/)).toBeVisible();
  await expect(page.getByAltText("Slipper, worn")).toBeVisible();
  await accessible(page);
  const json = await page.request.get(`${workPath}/record.json`);
  expect(await json.json()).toMatchObject({ format: "juncteral-work-record", newSerial: "E90210" });
  const pdf = await page.pdf({ format: "A4", displayHeaderFooter: false });
  expect(pdf.length).toBeGreaterThan(20_000);
  await page.goto("/work/records");
  await page.getByLabel(/Machine, part number or serial/).fill("E90210");
  await page.getByRole("button", { name: "Find" }).click();
  await expect(page.locator(`a[href="${workPath}/record"]`)).toBeVisible();
  await accessible(page);
});

async function pumpOf(path: string): Promise<{ point: string }> {
  const [row] = await query<{ point: string }>("select point_id as point from interventions where id = $1", [
    path.split("/").at(-1),
  ]);
  return row!;
}

test("a plant's own procedure: a hold point is not lost by accident", async ({ page }) => {
  await signIn(page);
  await page.goto("/work/procedures");
  await accessible(page);
  await page.getByRole("link", { name: "Bleed cylinders" }).click();
  await page.getByText("Edit the steps as text").click();
  const steps = page.getByLabel("Steps");
  const text = await steps.inputValue();
  await page.getByLabel("Title").fill("Bleed cylinders, our way");
  await steps.fill(
    text
      .split("\n")
      .filter((l) => !l.includes("[no-load]"))
      .join("\n"),
  );
  await page.getByRole("button", { name: "Keep as the plant’s own" }).click();
  await expect(page.getByText(/Left out as hold points: “No load on the cylinder/)).toBeVisible();
  await expect(page.getByLabel("Title")).toHaveValue("Bleed cylinders, our way");
  await steps.fill(`${text}\nTell the bridge`);
  await page.getByRole("button", { name: "Keep as the plant’s own" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Bleed cylinders, our way" })).toBeVisible();
  await expect(page.getByText("Tell the bridge").first()).toBeVisible();
  await accessible(page);
});

test("what falls due by date: a valve is moved, a campaign settled part by part", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Due by date" })).toBeVisible();
  await page.goto("/work/due");
  await accessible(page);
  const valve = page
    .getByRole("listitem")
    .filter({ hasText: "at least every 30 days; moved" })
    .filter({ hasText: "Sluice unit 1" });
  await valve.getByRole("button", { name: "It was moved today" }).click();
  await expect(valve).toContainText("next by 24 Dec");
  await page.getByRole("link", { name: "Relief valve springs that set" }).first().click();
  const part = page.getByRole("listitem").filter({ hasText: "not looked at" }).first();
  const title = (await part.getByRole("link").first().textContent())!;
  await part.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("Choose what was found.")).toBeVisible();
  await part.getByLabel("Found").selectOption({ label: "new variant, nothing to do" });
  await part.getByLabel("Marking read").fill("M");
  await part.getByRole("button", { name: "Keep" }).click();
  await expect(
    page.getByRole("listitem").filter({ hasText: title }).filter({ hasText: "marked M" }).first(),
  ).toBeVisible();
  await accessible(page);
});
