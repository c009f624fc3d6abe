/** People who may sign in: added, given another role, a new password, and shown the door. */
import { expect, test } from "@playwright/test";
import { accessible, refusal, signIn } from "./support";

test("an engineer adds a person, who signs in, changes the password and is ended", async ({ page, browser }) => {
  await signIn(page, "technician");
  expect((await page.goto("/account/people"))!.status()).toBe(403);
  await page.context().clearCookies();
  await signIn(page);
  await page.goto("/account");
  await page.getByRole("link", { name: "People who may sign in" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /people may sign in/ })).toBeVisible();
  await accessible(page);

  // what was typed stays beside its message
  const add = page.locator("form").filter({ has: page.getByRole("button", { name: "Add", exact: true }) });
  await add.getByLabel("Name", { exact: true }).fill("F. Quill");
  await add.getByLabel("Sign-in name").fill("f quill");
  await add.getByLabel("First password").fill("short");
  await add.getByRole("button", { name: "Add", exact: true }).click();
  await expect(refusal(add, "password")).toBeVisible();
  await expect(refusal(add, "signIn")).toBeVisible();
  await expect(add.getByLabel("Name", { exact: true })).toHaveValue("F. Quill");
  await add.getByLabel("Sign-in name").fill("quill");
  await add.getByLabel("First password").fill("a-first-password");
  await add.getByRole("button", { name: "Add", exact: true }).click();
  await expect(
    page.getByText("Added. Hand over the password in person; it can be changed under Account."),
  ).toBeVisible();

  const other = await browser.newContext({ baseURL: process.env.E2E_URL! });
  const theirs = await other.newPage();
  await theirs.goto("/sign-in");
  await theirs.getByLabel("Sign-in name").fill("quill");
  await theirs.getByLabel("Password").fill("a-first-password");
  await theirs.getByRole("button", { name: "Sign in" }).click();
  await expect(theirs.getByRole("navigation", { name: "Places" })).toBeVisible();
  await theirs.goto("/account");
  await theirs.getByLabel("The one you have").fill("not-mine-at-all");
  await theirs.getByLabel("The new one").fill("my-own-password");
  await theirs.getByRole("button", { name: "Change it" }).click();
  await expect(refusal(theirs, "old")).toBeVisible();
  await theirs.getByLabel("The one you have").fill("a-first-password");
  await theirs.getByLabel("The new one").fill("my-own-password");
  await theirs.getByRole("button", { name: "Change it" }).click();
  await expect(theirs.getByText("Your password is changed; you are signed out everywhere else.")).toBeVisible();

  const row = page.getByRole("listitem").filter({ hasText: "F. Quill" });
  await row.getByText("F. Quill").click();
  await accessible(page);
  await row.getByRole("combobox", { name: "May do" }).selectOption("viewer");
  await row.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved.")).toBeVisible();
  expect((await theirs.goto("/records/import"))!.status()).toBe(403);

  await row.getByText("F. Quill").click();
  await row.getByRole("button", { name: "End access" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "End access" }).click();
  await expect(page.getByText("Access ended; the person is signed out everywhere.")).toBeVisible();
  await theirs.goto("/");
  await expect(theirs.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await other.close();

  // the last engineer stays
  const own = page.getByRole("listitem").filter({ hasText: ": you" });
  await own.getByText(": you").click();
  await own.getByRole("combobox", { name: "May do" }).selectOption("viewer");
  await own.getByRole("button", { name: "Save" }).click();
  await expect(refusal(own, "role")).toBeVisible();
});

test("one-letter keys can be switched off, for speech input", async ({ page }) => {
  await signIn(page);
  const find = page.getByRole("combobox", { name: "Find a machine, point or action" });
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
