/** People who may sign in: added, given another role, a new password, and shown the door. */
import { expect, test } from "@playwright/test";
import { accessible, refusal, signIn } from "./support";
import * as accountTexts from "~/account/texts";
import * as shellTexts from "~/shell/texts";

test("an engineer adds a person, who signs in, changes the password and is ended", async ({ page, browser }) => {
  await signIn(page, "technician");
  expect((await page.goto("/account/people"))!.status()).toBe(403);
  await page.context().clearCookies();
  await signIn(page);
  await page.goto("/account");
  await page.getByRole("link", { name: accountTexts.account.peopleWhoMaySign }).click();
  await expect(page.getByRole("heading", { level: 1, name: /people may sign in/ })).toBeVisible();
  await accessible(page);

  // what was typed stays beside its message
  const add = page
    .locator("form")
    .filter({ has: page.getByRole("button", { name: accountTexts.people.add, exact: true }) });
  await add.getByLabel(accountTexts.people.name, { exact: true }).fill("F. Quill");
  await add.getByLabel(accountTexts.people.signInName).fill("f quill");
  await add.getByLabel(accountTexts.people.firstPassword).fill("short");
  await add.getByRole("button", { name: accountTexts.people.add, exact: true }).click();
  await expect(refusal(add, "password")).toBeVisible();
  await expect(refusal(add, "signIn")).toBeVisible();
  await expect(add.getByLabel(accountTexts.people.name, { exact: true })).toHaveValue("F. Quill");
  await add.getByLabel(accountTexts.people.signInName).fill("quill");
  await add.getByLabel(accountTexts.people.firstPassword).fill("a-first-password");
  await add.getByRole("button", { name: accountTexts.people.add, exact: true }).click();
  await expect(page.getByText(accountTexts.people.addedHandOverThe)).toBeVisible();

  const other = await browser.newContext({ baseURL: process.env.E2E_URL! });
  const theirs = await other.newPage();
  await theirs.goto("/sign-in");
  await theirs.getByLabel(accountTexts.people.signInName).fill("quill");
  await theirs.getByLabel(accountTexts.account.password).fill("a-first-password");
  await theirs.getByRole("button", { name: accountTexts.signIn.signIn }).click();
  await expect(theirs.getByRole("navigation", { name: shellTexts.shell.places })).toBeVisible();
  await theirs.goto("/account");
  await theirs.getByLabel(accountTexts.account.theOneYouHave).fill("not-mine-at-all");
  await theirs.getByLabel(accountTexts.account.theNewOne).fill("my-own-password");
  await theirs.getByRole("button", { name: accountTexts.account.changeIt }).click();
  await expect(refusal(theirs, "old")).toBeVisible();
  await theirs.getByLabel(accountTexts.account.theOneYouHave).fill("a-first-password");
  await theirs.getByLabel(accountTexts.account.theNewOne).fill("my-own-password");
  await theirs.getByRole("button", { name: accountTexts.account.changeIt }).click();
  await expect(theirs.getByText(accountTexts.account.yourPasswordIsChanged)).toBeVisible();

  const row = page.getByRole("listitem").filter({ hasText: "F. Quill" });
  await row.getByText("F. Quill").click();
  await accessible(page);
  await row.getByRole("combobox", { name: accountTexts.people.mayDo }).selectOption("viewer");
  await row.getByRole("button", { name: accountTexts.people.save }).click();
  await expect(page.getByText(accountTexts.people.saved)).toBeVisible();
  expect((await theirs.goto("/records/import"))!.status()).toBe(403);

  await row.getByText("F. Quill").click();
  await row.getByRole("button", { name: accountTexts.people.endAccess }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: accountTexts.people.endAccess }).click();
  await expect(page.getByText(accountTexts.people.accessEndedThePerson)).toBeVisible();
  await theirs.goto("/");
  await expect(theirs.getByRole("heading", { name: accountTexts.signIn.signIn })).toBeVisible();
  await other.close();

  // the last engineer stays
  const own = page.getByRole("listitem").filter({ hasText: accountTexts.people.you });
  await own.getByText(accountTexts.people.you).click();
  await own.getByRole("combobox", { name: accountTexts.people.mayDo }).selectOption("viewer");
  await own.getByRole("button", { name: accountTexts.people.save }).click();
  await expect(refusal(own, "role")).toBeVisible();
});

test("one-letter keys can be switched off, for speech input", async ({ page }) => {
  await signIn(page);
  const find = page.getByRole("combobox", { name: shellTexts.findBox.findAMachinePoint });
  const press = async () => {
    await page.goto("/fleet");
    await page.locator("h1").first().waitFor();
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("/");
  };
  await press();
  await expect(find).toBeFocused();
  await page.goto("/account");
  await page.locator("select[name=keys]").selectOption("off");
  await page
    .locator("form", { has: page.locator("select[name=keys]") })
    .getByRole("button")
    .click();
  await expect(page.locator("html")).toHaveAttribute("data-no-letter-keys", "on");
  await press();
  await expect(find).not.toBeFocused();
});
