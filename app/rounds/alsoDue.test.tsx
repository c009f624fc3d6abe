/** What else falls due: on a round only a valve is moved, and rows say how late they are. */
import { renderToStaticMarkup } from "react-dom/server";
import { createRoutesStub } from "react-router";
import type { ReactElement } from "react";
import type { DueItem } from "~/domain/work/due.server";
import { DueRows } from "~/ui/dueRows";
import { SiteProvider } from "~/ui/site";
import { AlsoDue } from "./alsoDue";

const now = Date.UTC(2026, 10, 24, 9);
const DAY = 86_400_000;
const item = (kind: DueItem["kind"], id: string, days: number): DueItem => ({
  kind,
  id,
  machineId: "m",
  what: `Sluice unit 1, ${id}`,
  why: "seldom moves",
  dueAt: now + days * DAY,
  to: `/work/${id}`,
});

function render(element: ReactElement): string {
  const Stub = createRoutesStub([{ path: "/", Component: () => element }]);
  return renderToStaticMarkup(
    <SiteProvider value={{ timeZone: "Europe/London", now, units: {} }}>
      <Stub initialEntries={["/"]} />
    </SiteProvider>,
  );
}
const nothing = () => undefined;

test("nothing due: no heading over nothing", () =>
  expect(render(<AlsoDue items={[]} moved={[]} onMoved={nothing} />)).toBe(""));

test("a valve has its button and its caution, a hose has neither", () => {
  const valve = render(<AlsoDue items={[item("exercise", "valve", 3)]} moved={[]} onMoved={nothing} />);
  expect(valve).toContain("It was moved: Sluice unit 1, valve");
  expect(valve).toContain("the load held or down");
  const hose = render(<AlsoDue items={[item("hose", "hose", -3)]} moved={[]} onMoved={nothing} />);
  expect(hose).not.toContain("<button");
  expect(hose).not.toContain("the load held or down");
  expect(hose).toContain("3 days late");
});

test("moved once it is not asked again, and the other valve still is", () => {
  const both = [item("exercise", "one", 1), item("exercise", "two", 2)];
  const html = render(<AlsoDue items={both} moved={["one"]} onMoved={nothing} />);
  expect(html.match(/<button/g)).toHaveLength(1);
  expect(html).toContain("It was moved: Sluice unit 1, two");
});

test("rows lead to where each is dealt with; what is late stands out", () => {
  const html = render(<DueRows items={[item("interim", "late", -2), item("campaign", "soon", 5)]} />);
  expect(html).toContain('href="/work/late"');
  expect(html.match(/text-verm/g)).toHaveLength(1);
  expect(html).toMatch(/text-verm">2 days late/);
});
