/** From Today's one fault to its evidence; from a symptom to its cause in one walk; undo, contradiction, wrong orders. */
import { expect, test } from "@playwright/test";
import { accessible, query, refusal, signIn } from "./support";
import { counted } from "~/ui/counted";

test.describe.configure({ mode: "serial" });

test("three findings of one fault are one entry on Today, with what to do now", async ({ page }) => {
  await signIn(page);
  const entry = page.getByRole("listitem").filter({ has: page.getByRole("heading", { name: /Sluice unit 3/ }) });
  await expect(entry).toHaveCount(1);
  await expect(entry).toContainText("Relief valve set too low");
  await expect(entry).toContainText("no part, no stop");
  await expect(entry.getByRole("link", { name: "Book work into a stop" })).toHaveCount(0);
  await entry.getByText(`It accounts for ${counted(3, "finding")}`).click();
  await expect(entry.getByRole("link", { name: /oil temperature/ })).toBeVisible();
  await entry.getByRole("link", { name: "Put it right now" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Sluice unit 3: relief valve set too low/ })).toBeVisible();
  await expect(page.getByText(/since about June 2026/)).toHaveCount(3);
  await accessible(page);
  await page.getByRole("link", { name: "See it in the circuit" }).click();
  await expect(page.getByText(/2[34] bar too low/).first()).toBeVisible();
});

test("every story of the harbour that its readings show is named", async ({ page }) => {
  await signIn(page, "viewer");
  await page.goto("/isolate");
  const said = (machine: string) =>
    page.getByRole("listitem").filter({ has: page.getByRole("link", { name: machine, exact: true }) });
  await expect(said("Outer gate north")).toContainText("Pump A: worn: leaks to the case");
  await expect(said("Sluice unit 3")).toContainText("Relief valve: set low");
  await expect(said("Ro-ro ramp")).toContainText("piston seal leaks");
  await expect(said("Bascule bridge drive")).toContainText("Proportional valve 1: spool and bore worn");
  await expect(said("Quay crane 2")).toContainText("Hoist pump: worn");
  await expect(said("Quay crane 2")).toContainText("Hoist valve: spool and bore worn");
  // a viewer looks and begins nothing
  await expect(page.getByRole("link", { name: "Something is wrong with a machine" })).toHaveCount(0);
  await accessible(page);
});

test("from a symptom to its cause, with a result that was wrong, and a contradiction", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/isolate");
  await page.getByRole("link", { name: "Something is wrong with a machine" }).click();
  await page.getByLabel("Machine, by name or tag").fill("SL-2");
  await page.getByRole("button", { name: "Find" }).click();
  await page.getByRole("link", { name: /Sluice unit 2/ }).click();
  // nothing chosen: said, and what was typed is kept
  await page.getByLabel("What else was noticed").fill("Panel lamp lights, nothing moves");
  await page.getByRole("button", { name: "Find the next best test" }).click();
  await expect(page.getByRole("alert").first()).toBeVisible();
  await expect(page.getByLabel("What else was noticed")).toHaveValue("Panel lamp lights, nothing moves");
  await accessible(page);
  await page.getByRole("radio", { name: /Does not shift at all/ }).check();
  await page.getByRole("button", { name: "Find the next best test" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Sluice unit 2: does not shift at all/ })).toBeVisible();
  await accessible(page);

  const next = page
    .getByRole("region")
    .or(page.locator("section"))
    .filter({ has: page.getByRole("heading", { name: "The next best test" }) });
  await expect(next.first()).toBeVisible();
  // a wrong result, and undo: the odds go back
  const top = page
    .locator("section")
    .filter({ has: page.getByRole("heading", { name: "What it may be" }) })
    .getByRole("listitem")
    .first();
  const before = await top.textContent();
  await page.getByRole("button", { name: "It stood for months" }).click();
  await expect(page.getByText("Did it stand for months? it stood for months").first()).toBeVisible();
  await expect(top).not.toHaveText(before!);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(top).toHaveText(before!);
  // it is offered again, since its result counts no more
  await page.getByRole("button", { name: "It moves every week" }).click();
  // the tests are ordered anew by it: what is pressed before is gone
  await expect(page.getByText("Did it stand for months? it moves every week").first()).toBeVisible();
  await page
    .getByText(/Sluice valve: voltage at the coil/)
    .first()
    .click();
  await page.getByRole("button", { name: "No voltage", exact: true }).first().click();
  await expect(page.getByText(/Sure enough to act \(/)).toBeVisible();
  await expect(page.getByText(/Follow the signal: fuse, plug, switch, card/)).toBeVisible();
  // a contradiction: the case goes on
  const refuses = page.locator("option", { hasText: "Does not shift, or only part-way" }).first();
  await page.getByLabel("Another test was made").selectOption((await refuses.getAttribute("value"))!);
  await page.getByRole("button", { name: "Enter it" }).click();
  await expect(page.getByText(/does not shift, or only part-way/).first()).toBeVisible();
  await expect(page.getByRole("heading", { name: "What it may be" })).toBeVisible();

  // closed with what it was
  await page.getByRole("button", { name: "Close the isolation" }).click();
  await expect(refusal(page, "found")).toBeVisible();
  await page.getByLabel("It was", { exact: true }).selectOption({ label: "No voltage or signal at the coil" });
  await page.getByLabel("How it was found, what was done").fill("Fuse of the panel.");
  await page.getByRole("button", { name: "Close the isolation" }).click();
  await expect(page.getByText("Fuse of the panel.")).toBeVisible();
  await page.goto("/isolate");
  await expect(page.getByText(/No voltage or signal at the coil, odds/)).toBeVisible();
});

test("a result sent twice is there once; a closed case takes none; the gauges can be taken out", async ({
  page,
  baseURL,
}) => {
  await signIn(page, "technician");
  const [open] = await query<{ id: string }>("select id from isolations where closed_at is null limit 1");
  const send = (form: Record<string, string>, id = open!.id) =>
    page.request.post(`/isolate/${id}`, { form, maxRedirects: 0, headers: { Origin: baseURL! } });
  const submission = crypto.randomUUID();
  const form = { intent: "result", test: "look.level", result: "right", submission };
  const [one, two] = await Promise.all([send(form), send(form)]);
  expect([one.status(), two.status()].every((s) => s < 400)).toBe(true);
  const [count] = await query<{ n: number }>("select count(*)::int as n from isolation_results where submission = $1", [
    submission,
  ]);
  expect(count!.n).toBe(1);
  expect((await send({ ...form, submission: crypto.randomUUID(), result: "purple" })).status()).toBe(422);
  const [closed] = await query<{ id: string }>("select id from isolations where closed_at is not null limit 1");
  expect((await send({ ...form, submission: crypto.randomUUID() }, closed!.id)).status()).toBe(409);

  await page.goto(`/isolate/${open!.id}`);
  const first = page
    .locator("section")
    .filter({ has: page.getByRole("heading", { name: "What it may be" }) })
    .getByRole("listitem")
    .first();
  const before = await first.textContent();
  await page.getByRole("button", { name: "Take out" }).first().click();
  await expect(page.getByRole("button", { name: "Count it again" })).toBeVisible();
  await expect(first).not.toHaveText(before!);
});

test("the practice bench from a hidden fault to its debrief", async ({ page }) => {
  await signIn(page, "viewer");
  await page.goto("/isolate");
  await page.getByRole("link", { name: "Practise on a hidden fault" }).click();
  await page.getByLabel("Number of the case").fill("twelve");
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(refusal(page, "seed")).toBeVisible();
  await page.getByLabel("Number of the case").fill("12");
  await accessible(page);
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(page.getByText("Plain, number 12.")).toBeVisible();
  await accessible(page);
  const tests = page.getByRole("button", { name: /^Make: / });
  const before = await tests.count();
  await tests.first().click();
  await expect(tests).toHaveCount(before - 1);
  // the circuit: a part that is pressed shows its own tests, and can be renewed on a guess
  const circuit = page.getByRole("group", { name: "The circuit of this case" });
  await circuit.getByRole("link").first().click();
  await expect(page.getByRole("heading", { name: /^Tests at / })).toBeVisible();
  expect(await tests.count()).toBeLessThan(before - 1);
  await accessible(page);
  await page.getByRole("button", { name: "Renew it" }).click();
  await expect(page.getByText(/renewed: the symptom (stays|is gone)/)).toBeVisible();
  await page.getByRole("link", { name: "All tests" }).click();
  await expect(tests).toHaveCount(before - 1);
  await page.getByRole("button", { name: "Name it and see the debrief" }).click();
  await expect(refusal(page, "named")).toBeVisible();
  await page.getByLabel("The cause").selectOption({ index: 1 });
  await page.getByRole("button", { name: "Name it and see the debrief" }).click();
  await expect(page.getByRole("heading", { name: "Debrief" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "The best path" })).toBeVisible();
  await accessible(page);
  // it is over: no test can be made, and it is on one's own list
  await expect(tests).toHaveCount(0);
  await page.getByRole("link", { name: "Another case" }).click();
  await expect(page.getByText(/Plain, number 12; \d tests?;/)).toBeVisible();
  // somebody else's case is nobody's business
  const [other] = await query<{ id: string }>(
    "select r.id from practice_runs r join users u on u.id = r.person_id where u.sign_in = 'technician' limit 1",
  );
  expect((await page.request.get(`/isolate/practice/${other!.id}`)).status()).toBe(404);
});

test("an engineer adds a cause of the plant's own; the next isolation thinks of it; a technician may not add", async ({
  page,
}) => {
  await signIn(page);
  await page.goto("/isolate/knowledge");
  await page.getByText("Add a cause", { exact: true }).click();
  const form = page.getByRole("form", { name: "Add a cause" });
  await form.getByLabel("Cause", { exact: true }).fill("Sampling cock left open");
  await form.getByRole("button", { name: "Add the cause" }).click();
  // what is missing is said beside its field, and what was typed is kept
  await expect(refusal(form, "symptom0")).toBeVisible();
  await expect(form.getByLabel("Cause", { exact: true })).toHaveValue("Sampling cock left open");
  await accessible(page);
  await form.getByLabel("Where it sits").selectOption({ label: "Relief valve" });
  await form.getByLabel("Symptom 1").selectOption({ label: "Low or no pressure everywhere" });
  await form.getByLabel("Behind it").first().selectOption("often");
  await form.getByLabel("What to do").selectOption("restore");
  await form.getByLabel("In words").fill("Shut it and seal it");
  await form.getByLabel("Minutes").fill("5");
  await form.getByLabel("What it rests on").fill("found three times since 2024");
  await form.getByRole("button", { name: "Add the cause" }).click();
  const entry = page.getByRole("listitem").filter({ hasText: "Sampling cock left open" });
  await expect(entry).toContainText("found three times since 2024");

  await page.goto("/isolate/new?machine=SL-4");
  await page.getByRole("link", { name: /Sluice unit 4/ }).click();
  await page.getByRole("radio", { name: /Low or no pressure everywhere/ }).check();
  await page.getByRole("button", { name: "Find the next best test" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Sluice unit 4/ })).toBeVisible();
  const named = page.getByRole("combobox", { name: "It was" });
  await expect(named.getByRole("option", { name: /sampling cock left open/i })).toHaveCount(1);

  await page.goto("/isolate/knowledge");
  await page.getByRole("button", { name: "Take out of use: Sampling cock left open" }).click();
  await expect(page.getByText("Sampling cock left open")).toHaveCount(0);
  await page.context().clearCookies();
  await signIn(page, "technician");
  await page.goto("/isolate/knowledge");
  await expect(page.getByText("Add a cause", { exact: true })).toHaveCount(0);
});

test("where a test point would help is worked out while one waits", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/isolate");
  await page.getByRole("link", { name: "Sluice unit 3", exact: true }).click();
  await page.getByRole("link", { name: "Where a test point would help" }).click();
  await page.getByRole("button", { name: "Work it out" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Working it out" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Test points, the best first" })).toBeVisible({
    timeout: 150_000,
  });
  await expect(page.getByText(/faults were drawn; an isolation takes/)).toBeVisible();
  await accessible(page);
});
