/** The record's page: empty, more than counted, what could not be assessed, by role. */
import { renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import RecordsScreen from "./records";

type Records = Parameters<typeof RecordsScreen>[0]["loaderData"];
const show = (change: object = {}, roles: object = {}) =>
  page(RecordsScreen, {
    page: { readings: 0, more: false, machines: [], failed: [], corrections: [], done: [], edits: [], ...change },
    mayImport: true,
    mayEdit: true,
    ...roles,
  } as unknown as Records);

test("empty, it says so everywhere", () => {
  const words = wordsOf(show());
  expect(words).toContain("The record is empty so far");
  expect(words.match(/None yet\./g)).toHaveLength(3);
  expect(words).not.toContain("Could not be assessed");
});
test("how many readings, and more than were counted", () => {
  expect(wordsOf(show({ readings: 12_345 }))).toMatch(/12.?345 readings on record/);
  expect(wordsOf(show({ readings: 100_000, more: true }))).toMatch(/More than 100.?000 readings/);
});
test("who only looks exports and imports nothing", () => {
  const html = show({}, { mayImport: false, mayEdit: false });
  expect(html).toContain("/records/fleet.json");
  expect(html).not.toContain("/records/import");
  expect(html).not.toContain('href="/records/fleet"');
  expect(wordsOf(html)).toContain("A technician can import.");
});
test("what could not be assessed stands first, with how often it was tried", () => {
  const failed = {
    what: "Ramp, pump: case drain",
    to: "/points/p1",
    failure: "no number",
    failures: 1,
    triedAt: TEST_NOW,
  };
  expect(wordsOf(show({ failed: [failed] }))).toMatch(
    /Ramp, pump: case drain : no number \( ?1 time, last 24\sNov, 09:00 ?\)/,
  );
  expect(wordsOf(show({ failed: [{ ...failed, failures: 3, triedAt: null }] }))).toMatch(/\( ?3 times ?\)/);
});
test("a correction shows what was struck out, why and by whom", () => {
  const correction = {
    id: "c",
    pointId: "p1",
    point: "Ramp, pump: case drain",
    entered: "19 L/min",
    why: "a nine for a one",
    by: "T. Wren",
    at: new Date(TEST_NOW),
  };
  const html = show({ corrections: [correction] });
  expect(html).toContain("<s>19 L/min</s>");
  expect(wordsOf(html)).toContain("a nine for a one");
});
