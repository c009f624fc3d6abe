/** Screens of people: who may sign in, whose access ended, and refusals in the row that they belong to. */
import { DAY } from "@core";
import { renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import PeopleScreen from "./people";

type People = Parameters<typeof PeopleScreen>[0]["loaderData"];
const person = (id: string, change: object = {}) => ({
  id,
  name: `Person ${id}`,
  signIn: id,
  role: "technician",
  version: 1,
  since: TEST_NOW - 100 * DAY,
  endedAt: null,
  ...change,
});
const show = (people: object[], change: object = {}, action?: unknown) =>
  page(PeopleScreen, { people, own: "a", said: null, ...change } as unknown as People, action);

test("how many may sign in: those whose access ended do not count", () => {
  expect(wordsOf(show([person("a"), person("b", { endedAt: TEST_NOW })]))).toContain("One person may sign in");
  expect(wordsOf(show([person("a"), person("b")]))).toContain("2 people may sign in");
});
test("one's own row says so; one that ended says until when, and can only be given access back", () => {
  const html = show([person("a", { role: "engineer" }), person("b", { endedAt: TEST_NOW - DAY })]);
  expect(wordsOf(html)).toContain(": you");
  expect(wordsOf(html)).toMatch(/was technician until 23\sNov/);
  expect(html.match(/name="password"/g)).toHaveLength(2); // the own row, and the new person
  expect(html).toContain("Give access back");
});
test("a refusal opens the row that it is about and stands in its own form", () => {
  const answer = { about: "password b", problems: { password: "At least 10 characters." } };
  const html = show([person("a"), person("b")], {}, answer);
  expect(html.match(/<details open=""/g)).toHaveLength(1);
  expect(html.match(/At least 10 characters\./g)).toHaveLength(1);
});
test("a refusal of a new person stands beside its fields", () =>
  expect(
    wordsOf(show([person("a")], {}, { about: "add ", problems: { signIn: "Somebody has this name." } })),
  ).toContain("Somebody has this name."));
test("a refusal for the last engineer stands in the row", () => {
  const answer = { about: "end a", problems: { form: "Somebody has to be engineer." } };
  expect(wordsOf(show([person("a", { role: "engineer" })], {}, answer))).toContain("Somebody has to be engineer.");
});
test.each([
  ["add", "Added. Hand over the password in person"],
  ["password", "signed out everywhere"],
  ["end", "Access ended"],
  ["give", "may sign in again"],
  ["change", "Saved."],
])("after %s it says so", (said, words) => expect(wordsOf(show([person("a")], { said }))).toContain(words));
test("what stands in the address is said only if it is one of ours", () => {
  expect(wordsOf(show([person("a")], { said: "constructor" }))).not.toContain("function");
  expect(wordsOf(show([person("a")], { said: "add" }, { about: "add ", problems: {} }))).not.toContain("Added.");
});
