/** From Today's one fault to its evidence; from a symptom to its cause in one walk; undo, contradiction, wrong orders. */
import { expect, test } from "@playwright/test";
import { accessible, like, query, refusal, signIn } from "./support";
import * as isolateTexts from "~/isolate/texts";
import * as todayTexts from "~/today/texts";

test.describe.configure({ mode: "serial" });

test("three findings of one fault are one entry on Today, with what to do now", async ({ page }) => {
  await signIn(page);
  const entry = page.getByRole("listitem").filter({ has: page.getByRole("heading", { name: /Sluice unit 3/ }) });
  await expect(entry).toHaveCount(1);
  await expect(entry).toContainText("Relief valve set too low");
  await expect(entry).toContainText("no part, no stop");
  await expect(entry.getByRole("link", { name: todayTexts.needs.bookWorkIntoA })).toHaveCount(0);
  await entry.getByText(todayTexts.needs.itAccountsForFindings(3)).click();
  await expect(entry.getByRole("link", { name: /oil temperature/ })).toBeVisible();
  await entry.getByRole("link", { name: todayTexts.needs.putItRightNow }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Sluice unit 3: relief valve set too low/ })).toBeVisible();
  await expect(page.getByText(/since about June 2026/)).toHaveCount(3);
  await accessible(page);
  await page.getByRole("link", { name: isolateTexts.fault.seeItInThe }).click();
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
  await expect(page.getByRole("link", { name: isolateTexts.isolate.somethingIsWrongWith })).toHaveCount(0);
  await accessible(page);
});

test("from a symptom to its cause, with a result that was wrong, and a contradiction", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/isolate");
  await page.getByRole("link", { name: isolateTexts.isolate.somethingIsWrongWith }).click();
  await page.getByLabel(isolateTexts.newCase.machineByNameOr).fill("SL-2");
  await page.getByRole("button", { name: isolateTexts.newCase.find }).click();
  await page.getByRole("link", { name: /Sluice unit 2/ }).click();
  // nothing chosen: said, and what was typed is kept
  await page.getByLabel(isolateTexts.newCase.whatElseWasNoticed).fill("Panel lamp lights, nothing moves");
  await page.getByRole("button", { name: isolateTexts.newCase.findTheNextBest }).click();
  await expect(page.getByRole("alert").first()).toBeVisible();
  await expect(page.getByLabel(isolateTexts.newCase.whatElseWasNoticed)).toHaveValue(
    "Panel lamp lights, nothing moves",
  );
  await accessible(page);
  await page.getByRole("radio", { name: /Does not shift at all/ }).check();
  await page.getByRole("button", { name: isolateTexts.newCase.findTheNextBest }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Sluice unit 2: does not shift at all/ })).toBeVisible();
  await accessible(page);

  const next = page
    .getByRole("region")
    .or(page.locator("section"))
    .filter({ has: page.getByRole("heading", { name: isolateTexts.casePage.theNextBestTest }) });
  await expect(next.first()).toBeVisible();
  // a wrong result, and undo: the odds go back
  const top = page
    .locator("section")
    .filter({ has: page.getByRole("heading", { name: isolateTexts.casePage.whatItMayBe }) })
    .getByRole("listitem")
    .first();
  const before = await top.textContent();
  await page.getByRole("button", { name: "It stood for months" }).click();
  await expect(page.getByText("Did it stand for months? it stood for months").first()).toBeVisible();
  await expect(top).not.toHaveText(before!);
  await page.getByRole("button", { name: isolateTexts.casePage.undo }).click();
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
  await expect(page.getByText(like(isolateTexts.casePage.sureEnoughToAct))).toBeVisible();
  await expect(page.getByText(/Follow the signal: fuse, plug, switch, card/)).toBeVisible();
  // a contradiction: the case goes on
  const refuses = page.locator("option", { hasText: "Does not shift, or only part-way" }).first();
  await page.getByLabel(isolateTexts.casePage.anotherTestWasMade).selectOption((await refuses.getAttribute("value"))!);
  await page.getByRole("button", { name: isolateTexts.casePage.enterIt }).click();
  await expect(page.getByText(/does not shift, or only part-way/).first()).toBeVisible();
  await expect(page.getByRole("heading", { name: isolateTexts.casePage.whatItMayBe })).toBeVisible();

  // closed with what it was
  await page.getByRole("button", { name: isolateTexts.casePage.closeTheIsolation }).click();
  await expect(refusal(page, "found")).toBeVisible();
  await page
    .getByLabel(isolateTexts.casePage.itWas, { exact: true })
    .selectOption({ label: "No voltage or signal at the coil" });
  await page.getByLabel(isolateTexts.casePage.howItWasFound).fill("Fuse of the panel.");
  await page.getByRole("button", { name: isolateTexts.casePage.closeTheIsolation }).click();
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
    .filter({ has: page.getByRole("heading", { name: isolateTexts.casePage.whatItMayBe }) })
    .getByRole("listitem")
    .first();
  const before = await first.textContent();
  await page.getByRole("button", { name: isolateTexts.casePage.takeOut }).first().click();
  await expect(page.getByRole("button", { name: isolateTexts.casePage.countItAgain })).toBeVisible();
  await expect(first).not.toHaveText(before!);
});

test("the practice bench from a hidden fault to its debrief", async ({ page }) => {
  await signIn(page, "viewer");
  await page.goto("/isolate");
  await page.getByRole("link", { name: isolateTexts.isolate.practiseOnAHidden }).click();
  await page.getByLabel(isolateTexts.practice.numberOfTheCase).fill("twelve");
  await page.getByRole("button", { name: isolateTexts.practice.begin }).click();
  await expect(refusal(page, "seed")).toBeVisible();
  await page.getByLabel(isolateTexts.practice.numberOfTheCase).fill("12");
  await accessible(page);
  await page.getByRole("button", { name: isolateTexts.practice.begin }).click();
  await expect(page.getByText("Plain, number 12.")).toBeVisible();
  await accessible(page);
  const tests = page.getByRole("button", { name: /^Make: / });
  const before = await tests.count();
  await tests.first().click();
  await expect(tests).toHaveCount(before - 1);
  // the circuit: a part that is pressed shows its own tests, and can be renewed on a guess
  const circuit = page.getByRole("group", { name: isolateTexts.practiceCase.theCircuitOfThis });
  await circuit.getByRole("link").first().click();
  await expect(page.getByRole("heading", { name: /^Tests at / })).toBeVisible();
  expect(await tests.count()).toBeLessThan(before - 1);
  await accessible(page);
  await page.getByRole("button", { name: isolateTexts.practiceCase.renewIt }).click();
  await expect(page.getByText(/renewed: the symptom (stays|is gone)/)).toBeVisible();
  await page.getByRole("link", { name: isolateTexts.practiceCase.allTests }).click();
  await expect(tests).toHaveCount(before - 1);
  await page.getByRole("button", { name: isolateTexts.practiceCase.nameItAndSee }).click();
  await expect(refusal(page, "named")).toBeVisible();
  await page.getByLabel(isolateTexts.practiceCase.theCause).selectOption({ index: 1 });
  await page.getByRole("button", { name: isolateTexts.practiceCase.nameItAndSee }).click();
  await expect(page.getByRole("heading", { name: isolateTexts.practiceCase.debrief })).toBeVisible();
  await expect(page.getByRole("heading", { name: isolateTexts.practiceCase.theBestPath })).toBeVisible();
  await accessible(page);
  // it is over: no test can be made, and it is on one's own list
  await expect(tests).toHaveCount(0);
  await page.getByRole("link", { name: isolateTexts.practiceCase.anotherCase }).click();
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
  await page.getByText(isolateTexts.knowledge.addACause, { exact: true }).click();
  const form = page.getByRole("form", { name: isolateTexts.knowledge.addACause });
  await form.getByLabel(isolateTexts.knowledge.cause, { exact: true }).fill("Sampling cock left open");
  await form.getByRole("button", { name: isolateTexts.knowledge.addTheCause }).click();
  // what is missing is said beside its field, and what was typed is kept
  await expect(refusal(form, "symptom0")).toBeVisible();
  await expect(form.getByLabel(isolateTexts.knowledge.cause, { exact: true })).toHaveValue("Sampling cock left open");
  await accessible(page);
  await form.getByLabel(isolateTexts.knowledge.whereItSits).selectOption({ label: "Relief valve" });
  await form.getByLabel("Symptom 1").selectOption({ label: "Low or no pressure everywhere" });
  await form.getByLabel(isolateTexts.knowledge.behindIt).first().selectOption("often");
  await form.getByLabel(isolateTexts.knowledge.whatToDo).selectOption("restore");
  await form.getByLabel(isolateTexts.knowledge.inWords).fill("Shut it and seal it");
  await form.getByLabel(isolateTexts.knowledge.minutes).fill("5");
  await form.getByLabel(isolateTexts.knowledge.whatItRestsOn).fill("found three times since 2024");
  await form.getByRole("button", { name: isolateTexts.knowledge.addTheCause }).click();
  const entry = page.getByRole("listitem").filter({ hasText: "Sampling cock left open" });
  await expect(entry).toContainText("found three times since 2024");

  await page.goto("/isolate/new?machine=SL-4");
  await page.getByRole("link", { name: /Sluice unit 4/ }).click();
  await page.getByRole("radio", { name: /Low or no pressure everywhere/ }).check();
  await page.getByRole("button", { name: isolateTexts.newCase.findTheNextBest }).click();
  await expect(page.getByRole("heading", { level: 1, name: /Sluice unit 4/ })).toBeVisible();
  const named = page.getByRole("combobox", { name: isolateTexts.casePage.itWas });
  await expect(named.getByRole("option", { name: /sampling cock left open/i })).toHaveCount(1);

  await page.goto("/isolate/knowledge");
  await page.getByRole("button", { name: "Take out of use: Sampling cock left open" }).click();
  await expect(page.getByText("Sampling cock left open")).toHaveCount(0);
  await page.context().clearCookies();
  await signIn(page, "technician");
  await page.goto("/isolate/knowledge");
  await expect(page.getByText(isolateTexts.knowledge.addACause, { exact: true })).toHaveCount(0);
});

test("where a test point would help is worked out while one waits", async ({ page }) => {
  await signIn(page, "technician");
  await page.goto("/isolate");
  await page.getByRole("link", { name: "Sluice unit 3", exact: true }).click();
  await page.getByRole("link", { name: isolateTexts.fault.whereATestPoint }).click();
  await page.getByRole("button", { name: isolateTexts.points.workItOut }).click();
  await expect(page.getByRole("status").filter({ hasText: "Working it out" })).toBeVisible();
  await expect(page.getByRole("heading", { name: isolateTexts.points.testPointsTheBest })).toBeVisible({
    timeout: 150_000,
  });
  await expect(page.getByText(/faults were drawn; an isolation takes/)).toBeVisible();
  await accessible(page);
});
