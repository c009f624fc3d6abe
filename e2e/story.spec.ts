/** The whole main job, from opening Today to a record that leaves and comes back. */
import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { accessible, field, nextHours, pointId, query, readingCount, refusal, signIn } from "./support";

test.describe.configure({ mode: "serial" });

test("Today says what needs a decision, worst first, with horizon and readings due", async ({ page }) => {
  await signIn(page);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(/things? needs? a decision/);
  // the frame and the heading count the same things
  const words = ["Nothing", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"];
  const open = (await page.getByRole("heading", { level: 1 }).textContent())!.split(" ")[0]!;
  await expect(page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: /^Today/ })).toContainText(
    String(words.includes(open) ? words.indexOf(open) : Number(open)),
  );
  const rows = page.getByRole("listitem").filter({ has: page.getByRole("heading", { level: 3 }) });
  await expect(rows.first()).toContainText("alarm");
  await expect(page.getByText("Outer gate north, pump A").first()).toBeVisible();
  await expect(page.getByText(/Case drain .*\s% of full flow .* Reaches 10\s% between/).first()).toBeVisible();
  await expect(page.getByText(/days late/).first()).toBeVisible();
  await expect(page.getByRole("heading", { name: "Horizon" })).toBeVisible();
  // the summer story is not among them: warm oil is no wear
  await expect(page.getByText("Bascule bridge drive, pump 1")).toHaveCount(0);
  await accessible(page);
});

test("a machine is found by a few letters, opens with its state and says what is missing", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("/");
  await page.keyboard.type("sluice 3");
  await page
    .getByRole("option", { name: /Sluice unit 3/ })
    .first()
    .click();
  await expect(page.getByRole("heading", { name: /Sluice unit 3: .*alarm/ })).toBeVisible();
  await page.goto("/fleet");
  await page.getByLabel("Machines by name").fill("gate north");
  await expect(page.getByRole("listitem").getByRole("link", { name: /Outer gate north/ })).toBeVisible();
  await expect(page.getByRole("listitem").getByRole("link", { name: /Quay crane/ })).toHaveCount(0);
  await accessible(page);
  await page
    .getByRole("listitem")
    .getByRole("link", { name: /Outer gate north/ })
    .click();
  await expect(page.getByText("Axial piston pump").first()).toBeVisible();
  await accessible(page);
});

test("fluid, machine, circuit, component and point are added by hand, edited and retired", async ({ page }) => {
  await signIn(page);
  await page.goto("/fleet/new/fluid");
  await field(page, "name").fill("Trial oil");
  await field(page, "kv40").fill("5");
  await field(page, "kv100").fill("6");
  await page.getByRole("button", { name: "Add the fluid" }).click();
  await expect(refusal(page, "kv40")).toBeVisible();
  await expect(field(page, "name")).toHaveValue("Trial oil");
  await field(page, "kv40").fill("46 cSt");
  await field(page, "kv100").fill("6.8");
  await page.getByRole("button", { name: "Add the fluid" }).click();
  await expect(page).toHaveURL(/\/fleet$/);

  const long = "A machine with a name as long as names are allowed to be, which is one hundred characters, no more now";
  await page.goto("/fleet/new/machine");
  await field(page, "name").fill(long.padEnd(101, "x"));
  await field(page, "tag").fill("TR-1");
  await page.getByRole("button", { name: "Add the machine" }).click();
  await expect(refusal(page, "name")).toBeVisible();
  await field(page, "name").fill(long.slice(0, 100));
  await page.getByRole("button", { name: "Add the machine" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /nothing is measured yet/ })).toBeVisible();

  await page.getByRole("link", { name: "Add a circuit" }).first().click();
  await field(page, "name").fill("Trial circuit");
  await field(page, "fluidId").selectOption({ label: "Trial oil" });
  await page.getByRole("button", { name: "Add the circuit" }).click();
  await page.getByRole("link", { name: "Add a component" }).click();
  await field(page, "name").fill("Trial pump");
  await field(page, "displacement").fill("2.746 in3/rev");
  await field(page, "speed").fill("1450");
  await page.getByRole("button", { name: "Add the component" }).click();
  await expect(page.getByText("Not monitored here")).toBeVisible();
  await expect(page.getByText(/without a point for its case drain, internal wear/)).toBeVisible();

  await page.getByRole("link", { name: "Add it" }).first().click();
  await field(page, "name").fill("Case drain");
  await field(page, "unit").fill("bar");
  await page.getByRole("button", { name: "Add the point" }).click();
  await expect(refusal(page, "unit")).toBeVisible();
  await field(page, "unit").fill("gal/min");
  await page.getByLabel(/Reference pressure/).fill("210");
  await page.getByRole("button", { name: "Add the point" }).click();
  await expect(page.getByText("A reference needs both pressure and temperature.")).toBeVisible();
  await page.getByLabel(/Reference oil temperature/).fill("122 °F");
  await page.getByRole("button", { name: "Add the point" }).click();
  await expect(page.getByText("No reading yet.").first()).toBeVisible();
  await accessible(page);

  // the limit, and its basis
  await page.getByRole("link", { name: "Change the limit" }).click();
  await page.getByLabel("Basis").selectOption({ label: "share of full flow" });
  await page.getByLabel("Upper limit").fill("");
  await page.getByRole("button", { name: "Save the limit" }).click();
  await expect(page.getByText("give an upper limit")).toBeVisible();
  await page.getByLabel("Upper limit").fill("10 %");
  await page.getByRole("button", { name: "Save the limit" }).click();
  await expect(page.getByRole("heading", { name: "Case drain" })).toBeVisible();
  const [stored] = await query<{ limit_upper: number; displacement: number }>(
    "select p.limit_upper, c.displacement from points p join components c on c.id = p.component_id where c.name = 'Trial pump'",
  );
  expect(stored!.limit_upper).toBe(10);
  expect(stored!.displacement).toBeCloseTo(45, 1);

  // a first reading on the new point, then the machine is retired and the record stays
  await page.getByLabel("Case drain flow", { exact: true }).fill("0.36 gal/min");
  await page.getByRole("button", { name: "Save and go to the next point" }).click();
  await expect(page.getByText(/^Saved 0\.36 gal.min for /)).toBeVisible();
  await page.goto("/fleet");
  await page
    .getByRole("listitem")
    .getByRole("link", { name: /A machine with a name/ })
    .click();
  await page.getByRole("link", { name: "Edit", exact: true }).first().click();
  await page.getByRole("button", { name: "Retire the machine" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "Retire the machine" }).click();
  await expect(page).toHaveURL(/machines/);
  await page.goto("/fleet");
  await expect(page.getByRole("listitem").getByRole("link", { name: /A machine with a name/ })).toHaveCount(0);
  await page.goto("/fleet?retired");
  await expect(page.getByRole("listitem").getByRole("link", { name: /A machine with a name/ })).toHaveCount(1);
});

test("a reading is questioned, kept with a reason, and the verdict is new at once", async ({ page }) => {
  const id = await pointId("Outer gate north", "Pump B", "Case drain flow");
  const before = await readingCount(id);
  await signIn(page, "technician");
  await page.goto(`/points/${id}`);
  await page.getByLabel("Oil", { exact: true }).fill("51");
  await page.getByLabel("Load").fill("3000 psi");
  await page.getByLabel("Hours").fill(String(await nextHours(id)));
  const expected = page.locator("#expected");
  await expect(expected).toContainText(/At 51\s°C and 207\sbar expect \d+\.\d+\sL\/min to \d+\.\d+\sL\/min/);
  const [, low, high] = /expect (\d+\.\d+).* to (\d+\.\d+)/.exec((await expected.innerText()).replace(/\s/g, " "))!;
  const middle = ((Number(low) + Number(high)) / 2).toFixed(2);

  await page.getByLabel("Case drain flow", { exact: true }).fill(`${middle} gal/min`);
  await expect(page.getByText("Did you mean L/min?")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Did you mean L/min?")).toBeVisible();
  expect(await readingCount(id)).toBe(before);

  await page.getByLabel("Case drain flow", { exact: true }).fill("3.9");
  await expect(page.getByText("Higher than expected")).toBeVisible();
  await accessible(page);
  await page.getByLabel("Keep it, because").fill("read twice, meter F-07 checked");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^Saved 3\.9 L.min for /)).toBeVisible();
  expect(await readingCount(id)).toBe(before + 1);
  await page.goto(`/points/${id}`);
  await expect(page.getByRole("cell", { name: /kept: read twice/ })).toBeVisible();
  const [assessed] = await query<{ readings: number; stale: boolean }>(
    "select readings, stale from assessments where point_id = $1",
    [id],
  );
  expect(assessed).toEqual({ readings: before + 1, stale: false });
});

test("a wrong reading is corrected and the old one stays in the record", async ({ page }) => {
  const id = await pointId("Outer gate north", "Pump B", "Case drain flow");
  const before = await readingCount(id);
  await signIn(page, "technician");
  await page.goto(`/points/${id}`);
  await page.getByRole("table").filter({ hasText: "as read" }).getByRole("row").nth(1).getByRole("link").click();
  await expect(page.getByRole("heading", { name: /Correct the reading/ })).toBeVisible();
  await page.getByLabel("Case drain flow", { exact: true }).fill("1.39");
  await page.getByRole("button", { name: "Save the corrected reading" }).click();
  await expect(refusal(page, "why")).toBeVisible();
  await expect(page.getByLabel("Case drain flow", { exact: true })).toHaveValue("1.39");
  await page.getByLabel("Why", { exact: true }).fill("one digit off");
  await page.getByRole("button", { name: "Save the corrected reading" }).click();
  await expect(page.getByText("Corrected readings, kept in the record")).toBeVisible();
  await expect(page.getByText(/of .+: one digit off \(T\. Wren\)/)).toBeVisible();
  expect(await readingCount(id)).toBe(before);
});

test("chart, same month, table and the working stand on the point", async ({ page }) => {
  await signIn(page, "viewer");
  const id = await pointId("Bascule bridge drive", "Pump 1", "Case drain flow");
  await page.goto(`/points/${id}`);
  await expect(page.getByRole("img", { name: /Trend of Case drain flow/ })).toBeVisible();
  await expect(page.getByText(/steady\./)).toBeVisible();
  await expect(page.getByText(/ν at [\d.]+\s°C/).first()).toBeVisible();
  await page.getByText("The forecast", { exact: true }).click();
  await expect(page.getByText("Competing wear paths")).toBeVisible();
  await page.getByText("The baseline", { exact: true }).click();
  await expect(page.getByText("centre (median)")).toBeVisible();
  await page.getByRole("link", { name: "same month" }).click();
  await expect(page.getByText(/In the same month of earlier years/)).toBeVisible();
  await accessible(page);
  await page.keyboard.press("t");
  await expect(page).toHaveURL(/view=table/);
  await page.getByRole("link", { name: "older" }).click();
  await expect(page.getByText("page 2 of 3")).toBeVisible();
});

test("a forecast gives dates, chances before stops and the paths, or says that no trend is proved", async ({
  page,
}) => {
  await signIn(page, "viewer");
  await page.goto(`/points/${await pointId("Outer gate north", "Pump A", "Case drain flow")}`);
  for (const p of ["P10", "P50", "P90"])
    await expect(page.getByRole("row", { name: new RegExp(`^${p} .* h `) })).toBeVisible();
  await expect(page.getByText("chance of reaching it before the stop")).toBeVisible();
  await expect(page.getByText(/Wear models: /)).toBeVisible();
  await page.goto(`/points/${await pointId("Inner gate north", "Pump", "Case drain flow")}`);
  await expect(page.getByText("No trend is proved, so no date is given")).toBeVisible();
});

test("work is booked into a stop, carried out, and a new life begins", async ({ page }) => {
  const id = await pointId("Outer gate north", "Pump A", "Case drain flow");
  await signIn(page);
  await page.goto("/work");
  const winterHours = async () =>
    Number(
      /(\d+) of 24/.exec(
        await page
          .getByText(/ of 24 crew hours/)
          .first()
          .innerText(),
      )![1],
    );
  const before = await winterHours();
  await page.goto("/");
  const row = page.getByRole("listitem").filter({ hasText: "Outer gate north, pump A" });
  await row.getByRole("link", { name: "Book work into a stop" }).click();
  await expect(page.getByText("part 15 days after the stop")).toBeVisible();
  await accessible(page);
  await page.getByLabel(/Winter stop/).check();
  await page.getByLabel("Crew hours").fill("a lot");
  await page.getByRole("button", { name: "Book it" }).click();
  await expect(refusal(page, "crewHours")).toBeVisible();
  await page.getByLabel("Crew hours").fill("8");
  await page.getByRole("button", { name: "Book it" }).click();
  await expect(page.getByRole("heading", { name: /Winter stop on 18\sJan/ })).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Part is ordered" }).click();
  await expect(page.getByText(/Part ordered 24\sNov/)).toBeVisible();
  await page.goto("/work");
  await expect.poll(winterHours).toBe(before + 8);
  await accessible(page);
  await page.getByRole("link", { name: "Outer gate north, Pump A" }).click();

  await page.getByLabel("Running hours").fill("12");
  await page.getByLabel("Serial of the new part").fill("E77001");
  await page.getByRole("button", { name: "Record it as done" }).click();
  await expect(refusal(page, "hours")).toBeVisible();
  await expect(page.getByLabel("Serial of the new part")).toHaveValue("E77001");
  await page.getByLabel("Running hours").fill(String(await nextHours(id)));
  await field(page, "findings").fill("Port plate worn through.");
  await page.getByRole("button", { name: "Record it as done" }).click();
  await expect(page.getByRole("heading", { name: /done 24\sNov/ })).toBeVisible();
  await expect(
    page.getByText("Not proven yet: repeat the reading that condemned the part, at the same conditions."),
  ).toBeVisible();
  const lives = await query<{ ended: boolean; serial: string }>(
    "select l.ended_at is not null as ended, l.serial from lives l join points p on p.component_id = l.component_id where p.id = $1 order by l.started_at",
    [id],
  );
  expect(lives.map((l) => l.ended)).toEqual([true, false]);
  expect(lives[1]!.serial).toBe("E77001");
  await page.getByRole("link", { name: "Log it now" }).click();
  await expect(page.getByText("No reading yet in this life")).toBeVisible();
});

test("readings come in from a CSV with semicolons and commas, once, with the fate of every row", async ({ page }) => {
  const id = await pointId("Inner gate south", "Pump", "Case drain flow");
  const before = await readingCount(id);
  await signIn(page, "technician");
  const csv =
    "\ufeffMachine;Component;Point;Date;Time;Value [gal/min];Oil [°F];Load " +
    "[bar];Remark\r\nLG-IS;Pump;Case drain flow;22.11.2026;10:40;0,36;122;209;after the " +
    "storm\r\nLG-IS;Pump;Case drain flow;23.11.2026;10:40;0,37;122;209;\r\nLG-IS;Pump Z;Case drain " +
    "flow;23.11.2026;10:40;0,37;122;209;\r\nLG-IS;Pump;Case drain flow;31.02.2026;10:40;abc;122;209;\r\n";
  const upload = async () => {
    await page.goto("/records/import");
    await page
      .getByLabel(/File, at most/)
      .setInputFiles({ name: "round.csv", mimeType: "text/csv", buffer: Buffer.from(csv) });
    await page.getByRole("button", { name: "Look at the file" }).click();
  };
  await upload();
  await expect(page.getByRole("heading", { name: "2 to add, 2 bad" })).toBeVisible();
  await expect(page.getByText("There is no point “LG-IS/Pump Z/Case drain flow”.")).toBeVisible();
  await expect(page.getByLabel("Bad rows").getByText("line 5")).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Import 2 readings" }).click();
  await expect(page.getByText("2 rows are bad. Correct the file, or choose to leave them out.")).toBeVisible();
  expect(await readingCount(id)).toBe(before);
  await page.getByLabel(/Leave out the 2 bad rows/).check();
  await page.getByRole("button", { name: "Import 2 readings" }).click();
  await expect(page.getByRole("heading", { name: "2 readings added" })).toBeVisible();
  expect(await readingCount(id)).toBe(before + 2);
  const [row] = await query<{ value: number; temperature: number; entered: string }>(
    "select value, temperature, entered from readings where point_id = $1 order by taken_at desc limit 1",
    [id],
  );
  expect(row).toMatchObject({
    value: expect.closeTo(0.37 * 3.785411784, 6),
    temperature: expect.closeTo(50, 6),
    entered: "0.37 gal/min",
  });
  // the worker assesses what came in
  await expect
    .poll(
      async () =>
        (
          await query<{ readings: number }>("select readings from assessments where point_id = $1 and not stale", [id])
        )[0]?.readings,
    )
    .toBe(before + 2);

  await upload();
  await expect(page.getByRole("heading", { name: "0 to add, 2 there already, 2 bad" })).toBeVisible();
  await expect(page.getByText(": every good row is recorded already")).toBeVisible();
});

test("readings go out as CSV and come back without a change; the fleet goes out and in as JSON", async ({ page }) => {
  await signIn(page);
  await page.goto("/records");
  await accessible(page);
  await page.getByLabel("Machine", { exact: true }).selectOption({ label: "Fender jack set" });
  const [csv] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export as CSV" }).click(),
  ]);
  const text = readFileSync(await csv.path(), "utf8");
  expect(text.split("\n")[0]).toBe(
    "\ufeffpoint,taken_at,value,unit,least,oil_c,load_bar,speed_rpm,hours_h,state,instrument,note,by,as_entered," +
      "kept_because,doubtful,superseded,superseded_why",
  );
  const rows = text.trim().split("\n").length - 1;
  expect(rows).toBeGreaterThan(400);
  await page.goto("/records/import");
  await page
    .getByLabel(/File, at most/)
    .setInputFiles({ name: "back.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await page.getByRole("button", { name: "Look at the file" }).click();
  await expect(page.getByRole("heading", { name: `0 to add, ${rows} there already` })).toBeVisible();

  await page.goto("/records");
  const [json] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Export the fleet file" }).click(),
  ]);
  const fleet = JSON.parse(readFileSync(await json.path(), "utf8")) as {
    sites: { machines: { tag: string; name: string }[] }[];
  };
  const harbour = fleet.sites.find((s) => s.machines.some((m) => m.name === "Fender jack set"))!;
  expect(harbour.machines.length).toBeGreaterThanOrEqual(24);
  await page.goto("/records/fleet");
  await accessible(page);
  const send = async (content: string) => {
    await page
      .getByLabel("Fleet file, JSON")
      .setInputFiles({ name: "fleet.json", mimeType: "application/json", buffer: Buffer.from(content) });
    await page.getByRole("button", { name: "Import it" }).click();
  };
  await send("{ not json");
  await expect(page.getByRole("alert")).toBeVisible();
  await send(JSON.stringify({ ...fleet, version: 9 }));
  await expect(page.getByText("/version: must be equal to constant")).toBeVisible();
  await send(JSON.stringify(fleet));
  await expect(page.getByText(/Nothing to add; \d+ were there already/)).toBeVisible();
  const copied = harbour.machines.find((m) => m.name === "Fender jack set")!;
  harbour.machines.push({ ...copied, tag: "COPY-1", name: "A copied machine" });
  await send(JSON.stringify(fleet));
  await expect(page.getByText(/Added 1 machines, \d+ circuits/)).toBeVisible();
});
