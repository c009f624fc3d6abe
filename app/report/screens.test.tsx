/** The report: what it says of faults, and of a period in which nothing happened. */
import type { ReportFault, Report } from "~/domain/report/report.server";
import { renderedPage, TEST_NOW, wordsOf } from "~/ui/testing";
import ReportPage from "./report";

const site = { id: "s", name: "Trial quay", timeZone: "Europe/London" };
const nothing = {
  charts: new Map(),
  site,
  sites: [site],
  machine: null,
  from: "2026-08-26",
  to: "2026-11-24",
  madeAt: TEST_NOW,
  currency: "€",
  states: {},
  points: [],
  faults: [],
  done: [],
  open: [],
  plan: null,
  score: null,
} as unknown as Report;

const show = (change: Partial<Report> = {}) => wordsOf(renderedPage(ReportPage, { ...nothing, ...change }));
const fault = (share: number): ReportFault => ({
  circuitId: "k",
  machine: "Sluice unit 3",
  text: "Relief valve: set low",
  share,
  act: "Set it back",
  since: null,
});

test("a fault is never quite certain: its odds end below a hundred, as everywhere", () => {
  expect(show({ faults: [fault(0.9996)] })).toContain("· over 99 %");
  expect(show({ faults: [fault(0.9996)] })).not.toContain("100 %");
  expect(show({ faults: [fault(0.972)] })).toContain("· 97 %");
});

test("a quiet period says that it was quiet", () => {
  const words = show();
  expect(words).toContain("No fault is named by the readings.");
  expect(words).toContain("None in the period.");
});

test("who was first met broken crossed nothing in the period, and is not passed over", () => {
  const broken = { pointId: "p", machine: "Press", component: "Pump", point: "Flow", crossedAt: null, beyond: 0.9 };
  const rest = { state: "unread", readings: 0, margin: null, verdict: [], quantity: "flow", readState: "any" };
  const said = (beyond: number | null) =>
    show({ points: [{ ...rest, ...broken, beyond }] as unknown as Report["points"] });
  expect(said(0.9)).toMatch(/Press, pump.* stands beyond its limit/);
  expect(said(0.9)).not.toContain("No point crossed its limit.");
  for (const sound of [0.1, null]) expect(said(sound)).toContain("No point crossed its limit.");
});
