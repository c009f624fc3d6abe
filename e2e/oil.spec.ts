/** Oil: finding a cause, a sample with what cannot be, a laboratory's file with errors, a debris event from opening to closing. */
import { expect, test } from "@playwright/test";
import { accessible, query, refusal, signIn } from "./support";

test.describe.configure({ mode: "serial" });

async function circuitOf(machine: string): Promise<string> {
  const [row] = await query<{ id: string }>(
    "select k.id from circuits k join machines m on m.id = k.machine_id where m.name = $1",
    [machine],
  );
  return row!.id;
}

const sampleCount = async (circuit: string) =>
  (await query<{ n: number }>("select count(*)::int as n from samples where circuit_id = $1", [circuit]))[0]!.n;

test("from the Oil place to the cause of the dirt in two clicks", async ({ page }) => {
  await signIn(page, "viewer");
  await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: /^Oil/ }).click();
  await expect(page.getByRole("heading", { level: 1, name: /oils need attention/ })).toBeVisible();
  await accessible(page);
  const first = page.getByRole("main").getByRole("listitem").filter({ hasText: "Most likely" });
  await expect(first).toContainText("oil bypasses the return filter");
  await first.getByRole("link", { name: "Quay crane 2" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Quay crane 2: oil bypasses its filter/ })).toBeVisible();
  const order = page
    .getByRole("heading", { name: "What happened, in order" })
    .locator("xpath=ancestor::section")
    .getByRole("listitem");
  await expect(order.first()).toContainText("Return filter: since this element was fitted");
  await expect(
    page.getByText("Iron, copper, the hoist pump's case drain and the hoist valve's leakage all rose after"),
  ).toBeVisible();
  await page.getByRole("button", { name: "codes" }).click();
  await expect(page.getByText(" A number is a doubling: within it twice the particles do not show.")).toBeVisible();
  await page.getByRole("button", { name: "Copper" }).click();
  await accessible(page);
  // a viewer looks; nothing is offered to be changed
  await expect(page.getByRole("link", { name: "Enter a sample" })).toHaveCount(0);
  await page.goto(`/oil/${await circuitOf("Quay crane 2")}/sample`);
  await expect(page.getByText(/technician/)).toBeVisible();
});

test("a sample that cannot be keeps what was typed; put right it is saved and judged", async ({ page }) => {
  const circuit = await circuitOf("Sluice unit 2");
  const before = await sampleCount(circuit);
  await signIn(page, "technician");
  await page.goto(`/oil/${circuit}/sample`);
  await accessible(page);
  await page.getByLabel("Number on the bottle").fill("E2E-1");
  await page.getByLabel("Over 4 µm(c)").fill("900");
  await page.getByLabel("Over 6 µm(c)").fill("2400");
  await page.getByLabel("Water", { exact: true }).fill("45 %");
  await page.getByLabel("Iron").fill("< 1");
  await page.getByRole("button", { name: "Save the sample" }).click();
  await expect(refusal(page, "over6")).toBeVisible();
  await expect(refusal(page, "water")).toBeVisible();
  await expect(page.getByLabel("Iron")).toHaveValue("< 1");
  expect(await sampleCount(circuit)).toBe(before);
  await page.getByLabel("Over 6 µm(c)").fill("240");
  await page.getByLabel("Water", { exact: true }).fill("95");
  await page.getByRole("button", { name: "Save the sample" }).click();
  await expect(page.getByText("The sample is recorded.")).toBeVisible();
  await page.getByRole("link", { name: "E2E-1" }).first().click();
  await expect(page.getByText("less than 1")).toBeVisible();
  await accessible(page);
  await page.goto(`/oil/${circuit}/sample`);
  await page.getByLabel("Number on the bottle").fill("E2E-1");
  await page.getByLabel("ISO 4406 code").fill("18/16/13");
  await page.getByRole("button", { name: "Save the sample" }).click();
  await expect(refusal(page, "number")).toBeVisible();
  expect(await sampleCount(circuit)).toBe(before + 1);
});

test("a laboratory's file with errors: told line by line, mended in the mapping, the mapping kept", async ({
  page,
}) => {
  const rows = [
    "Flasche Nr;Unit;Sampled;N4 per 100 mL;N6;N14;Fe;Water",
    "E2E-10;SL-4;20.11.2026;90000;24000;3000;<1,0;80",
    "E2E-11;XX-1;20.11.2026;90000;24000;3000;1,2;80",
    "E2E-12;SL-4;21.11.2026;90000;240000;3000;1,2;80",
  ];
  const file = { name: "lab.csv", mimeType: "text/csv", buffer: Buffer.from(rows.join("\r\n")) };
  await signIn(page, "technician");
  await page.goto("/oil/import");
  await accessible(page);
  await page.getByLabel("Laboratory").fill("");
  await page.getByRole("button", { name: "Look at the file" }).click();
  await expect(page.getByText("Name the laboratory: how it writes its files is kept under that name.")).toBeVisible();
  await page.getByLabel("Laboratory").fill("Trial Laboratory");
  await page.locator("#f-file").setInputFiles(file);
  await page.getByRole("button", { name: "Look at the file" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "0 to add, 3 bad" })).toBeVisible();
  await page.getByRole("button", { name: "Look again" }).click();
  await expect(refusal(page, "column-number")).toBeVisible();
  for (const [label, column] of [
    ["Sample number", "0"],
    ["Over 4 µm(c)", "3"],
    ["Over 6 µm(c)", "4"],
    ["Over 14 µm(c)", "5"],
  ] as const)
    await page.getByLabel(label, { exact: true }).selectOption(column);
  await page.getByLabel("Particles are").selectOption("/100 mL");
  await page.getByRole("button", { name: "Look again" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "1 to add, 2 bad" })).toBeVisible();
  await expect(page.getByText("There is no machine or circuit “XX-1”.")).toBeVisible();
  await expect(page.getByText(/More particles over 6 µm than over 4 µm/)).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Import 1 sample" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  await page.getByLabel("Leave out the 2 bad rows and import the rest").check();
  await page.getByRole("button", { name: "Import 1 sample" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "1 sample added" })).toBeVisible();
  const [saved] = await query<{ results: { over4: { value: number }; iron: { below?: boolean } }; laboratory: string }>(
    "select results, laboratory from samples where number = 'E2E-10'",
  );
  expect(saved).toMatchObject({
    laboratory: "Trial Laboratory",
    results: { over4: { value: 900 }, iron: { below: true } },
  });
  // the next file of this laboratory needs no mapping
  await page.goto("/oil/import");
  await page.getByLabel("Laboratory").fill("Trial Laboratory");
  await page.locator("#f-file").setInputFiles({
    ...file,
    buffer: Buffer.from([rows[0], "E2E-13;SL-4;22.11.2026;90000;24000;3000;1,1;80"].join("\r\n")),
  });
  await page.getByRole("button", { name: "Look at the file" }).click();
  await expect(page.getByText(" Read as this laboratory’s last file.")).toBeVisible();
  await expect(page.getByRole("heading", { level: 1, name: "1 to add" })).toBeVisible();
});

test("another fluid in the tank warns before it is on record", async ({ page }) => {
  const circuit = await circuitOf("Sluice unit 4");
  await signIn(page, "technician");
  await page.goto(`/oil/${circuit}/fluid`);
  await accessible(page);
  await page.getByLabel("How much").fill("8");
  await page.getByLabel("Of what").selectOption({ label: "Quayside ester VG 46" });
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  await expect(page.getByLabel("How much")).toHaveValue("8");
  await page.getByLabel("It was filled all the same").check();
  await page.getByRole("button", { name: "Note it" }).click();
  await expect(page.getByText("Noted.")).toBeVisible();
  await expect(page.getByText("of Quayside ester VG 46")).toBeVisible();
  // it was another machine after all: the entry is taken back, with its reason
  const entry = page.getByRole("listitem").filter({ hasText: "of Quayside ester VG 46" });
  await entry.getByText("Is it wrong?").click();
  await entry.getByRole("button", { name: "Withdraw it" }).click();
  await expect(refusal(entry, "why")).toBeVisible();
  await entry.getByLabel("Why it is withdrawn").fill("It went into the crane beside it");
  await accessible(page);
  await entry.getByRole("button", { name: "Withdraw it" }).click();
  await expect(page.getByText("Withdrawn: it stays on record and counts no more.")).toBeVisible();
  await expect(entry.getByText("It went into the crane beside it")).toBeVisible();
});

test("a debris event: everything it threatens is listed, and it closes only when it is proved", async ({ page }) => {
  const circuit = await circuitOf("Straddle carrier 2");
  await signIn(page);
  await page.goto(`/oil/${circuit}`);
  await page.getByRole("link", { name: "Open a debris event" }).click();
  await accessible(page);
  await page.getByRole("button", { name: "Open the event" }).click();
  await expect(refusal(page, "what")).toBeVisible();
  await page.getByLabel("What was found").fill("Bronze flakes on the return filter");
  await page.getByLabel("Where it was found").selectOption({ label: "Pump" });
  await page.getByLabel("Found at").fill("2026-11-20T08:00");
  await page.getByRole("button", { name: "Open the event" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /6 parts to look at/ })).toBeVisible();
  await expect(page.getByText(/no relief, and hoses fail/)).toBeVisible();
  await expect(page.getByText(/Sample before anything is drained/)).toBeVisible();
  await accessible(page);
  const event = page.url();
  // nothing is taken for looked at by a hurried tap
  await page.getByRole("form", { name: "Relief valve" }).getByRole("button", { name: "Note" }).click();
  await expect(page.getByText("Choose what was found.")).toBeVisible();
  for (const name of ["Relief valve", "Lift valve", "Pump", "Return filter", "Lift cylinder", "Reservoir"]) {
    const form = page.getByRole("form", { name, exact: true });
    await form.getByRole("combobox").selectOption({ label: name === "Relief valve" ? "stuck, freed" : "clean" });
    await form.getByRole("button", { name: "Note" }).click();
    await expect(form).toHaveCount(0);
  }
  await page.getByLabel("In words").fill("Port plate of the pump");
  await page.getByRole("button", { name: "Close the event" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  await expect(page.getByLabel("In words")).toHaveValue("Port plate of the pump");
  for (const [number, at, code, clean] of [
    ["E2E-20", "2026-11-21T08:00", "21/19/16", false],
    ["E2E-21", "2026-11-22T08:00", "14/12/9", true],
  ] as const) {
    await page.goto(`/oil/${circuit}/sample`);
    await page.getByLabel("Number on the bottle").fill(number);
    await page.getByLabel("Taken at").fill(at);
    await page.getByLabel("ISO 4406 code").fill(code);
    await page.getByRole("button", { name: "Save the sample" }).click();
    await expect(page.getByText("The sample is recorded.")).toBeVisible();
    await page.goto(event);
    await page.getByLabel("In words").fill("Port plate of the pump");
    await page.getByLabel("The source", { exact: true }).selectOption({ label: "Pump" });
    await page.getByRole("button", { name: "Close the event" }).click();
    if (!clean) await expect(page.getByRole("alert")).toBeVisible();
  }
  await expect(page.getByRole("heading", { level: 1, name: /debris event, closed/ })).toBeVisible();
  await expect(page.getByText("Source: Pump, Port plate of the pump.")).toBeVisible();
  await accessible(page);
  // it was not over: open it again, and close it with another source
  await page.getByRole("button", { name: "Open it again" }).click();
  await expect(refusal(page, "why")).toBeVisible();
  await page.getByLabel("Why it is opened again").fill("Brass lay in the new element");
  await page.getByRole("button", { name: "Open it again" }).click();
  await expect(page.getByText(/opened again .* by R. Oduya: Brass lay in the new element/)).toBeVisible();
  await page.getByLabel("In words").fill("Slippers of the pump");
  await page.getByLabel("The source", { exact: true }).selectOption({ label: "Pump" });
  await page.getByRole("button", { name: "Close the event" }).click();
  await expect(page.getByText("Source: Pump, Slippers of the pump.")).toBeVisible();
});

test("target, materials and clean-up", async ({ page }) => {
  const circuit = await circuitOf("Quay crane 2");
  await signIn(page);
  await page.goto(`/oil/${circuit}/clean`);
  // what was measured stands in the heading; what the balance says stands below it
  await expect(page.getByRole("heading", { level: 1, name: /counts have stayed up since/ })).toBeVisible();
  await expect(
    page.getByText(/though the balance says .* of running: this circuit does not clean itself/),
  ).toBeVisible();
  await accessible(page);
  await page.getByLabel("Usual count").fill("500");
  await expect(page.getByRole("cell", { name: "never" }).first()).toBeVisible();
  await page.getByLabel("Count now").fill("1");
  await expect(page.getByRole("heading", { level: 1, name: /within its target/ })).toBeVisible();
  await page.goto(`/oil/${circuit}/settings`);
  await accessible(page);
  await page.getByLabel("Target set by hand").fill("16/14/12");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(refusal(page, "targetReason")).toBeVisible();
  await page.getByLabel("Why").fill("New servo valve ordered");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("16/14/12, set by hand: New servo valve ordered")).toBeVisible();
  await page.goto(`/oil/${circuit}/settings`);
  await page.getByLabel(/Limits of metals and dirt/).fill("iron: 12\ngold: 3");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText(/“gold” is not one of iron/)).toBeVisible();
  await page.getByLabel(/Limits of metals and dirt/).fill("iron: 12 ppm");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("row", { name: /Iron/ })).toContainText("12 stated");
  // analysis decides when oil is changed; the longest interval is the backstop
  await page.goto(`/oil/${circuit}/settings`);
  await page.getByLabel("or, if sooner").fill("0");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(refusal(page, "longestMonths")).toBeVisible();
  await page.getByLabel("or, if sooner").fill("1");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(
    page.getByText(/maximum drain interval of the oil passed on .*: change it, or take a sample/),
  ).toBeVisible();
  // what the laboratory found in the new oil is kept with the fluid
  await page.goto(`/oil/${circuit}/fluid`);
  await page.getByRole("link", { name: "Its figures" }).click();
  await page.getByLabel(/The new oil/).fill("zinc: lots");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText(/^Zinc: /)).toBeVisible();
  await expect(page.getByLabel(/The new oil/)).toHaveValue("zinc: lots");
  await page.getByLabel(/The new oil/).fill("zinc: 420 ppm\nacid number: 0.45");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page).toHaveURL(/\/fleet/);
});
