/** What else falls due: on a round only a valve is moved, and rows say how late they are. */
import { DAY } from "@core";
import type { DueItem } from "~/domain/bookings/due.server";
import { DueRows } from "~/ui/dueRows";
import { AlsoDue } from "./alsoDue";
import { rendered, TEST_NOW } from "~/ui/testing";

const now = TEST_NOW;
const item = (kind: DueItem["kind"], id: string, days: number): DueItem => ({
  kind,
  id,
  machineId: "m",
  what: `Sluice unit 1, ${id}`,
  why: "seldom moves",
  dueAt: now + days * DAY,
  to: `/work/${id}`,
});

const nothing = () => undefined;

test("nothing due: no heading over nothing", () =>
  expect(rendered(<AlsoDue items={[]} moved={[]} onMoved={nothing} />)).toBe(""));

test("a valve has its button and its caution, a hose has neither", () => {
  const valve = rendered(<AlsoDue items={[item("exercise", "valve", 3)]} moved={[]} onMoved={nothing} />);
  expect(valve).toContain("It was moved: Sluice unit 1, valve");
  expect(valve).toContain(
    "Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.",
  );
  const hose = rendered(<AlsoDue items={[item("hose", "hose", -3)]} moved={[]} onMoved={nothing} />);
  expect(hose).not.toContain("<button");
  expect(hose).not.toContain(
    "Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.",
  );
  expect(hose).toContain("3 days late");
});

test("moved once it is not asked again, and the other valve still is", () => {
  const both = [item("exercise", "one", 1), item("exercise", "two", 2)];
  const html = rendered(<AlsoDue items={both} moved={["one"]} onMoved={nothing} />);
  expect(html.match(/<button/g)).toHaveLength(1);
  expect(html).toContain("It was moved: Sluice unit 1, two");
});

test("rows lead to where each is dealt with; what is late stands out", () => {
  const html = rendered(<DueRows items={[item("interim", "late", -2), item("campaign", "soon", 5)]} />);
  expect(html).toContain('href="/work/late"');
  expect(html.match(/text-verm/g)).toHaveLength(1);
  expect(html).toMatch(/text-verm">2 days late/);
});
