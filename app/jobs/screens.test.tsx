/** The page of a job at each of its stages: what is next, and for whom. */
import { jobStand } from "@core";
import type { JobPage } from "~/domain/bookings/index.server";
import { rendered } from "~/ui/testing";
import Job from "./job";

type Work = JobPage["works"][number];
const work = (change: Partial<Work> = {}): Work => ({
  id: "w1",
  component: "Pump",
  kind: "repair",
  stop: null,
  startsOn: null,
  cancelled: false,
  done: false,
  pointId: "p1",
  proven: null,
  unprovenBecause: "",
  signed: false,
  runs: [],
  ...change,
});

function show(change: Partial<JobPage>, may: { mayWork?: boolean; mayBook?: boolean } = {}) {
  const causes = change.causes ?? [];
  const works = change.works ?? [];
  const page: JobPage = {
    id: "j1",
    number: 318,
    noticed: "Jacks slow.",
    openedAt: Date.UTC(2026, 10, 20, 8),
    openedBy: "L. Aske",
    closedAt: null,
    closedBy: null,
    closedBecause: "",
    circuitId: "k1",
    circuit: "Jack circuit",
    componentId: null,
    component: null,
    machine: "Fender jack set",
    machineId: "m1",
    timeZone: "Europe/London",
    holdsReleased: false,
    foundAt: null,
    stand: jobStand({
      causes,
      works: works.map((w) => ({ ...w, proven: w.proven !== null })),
      closed: (change.closedAt ?? null) !== null,
    }),
    causes,
    works,
    events: [],
    ...change,
  };
  const loaderData = { page, mayWork: true, mayBook: true, ...may };
  return rendered(<Job {...({ loaderData, params: { id: "j1" } } as unknown as Parameters<typeof Job>[0])} />);
}
const found = { id: "i1", closed: true, found: "Pump: worn", results: 3 };
const steps = { id: "r1", title: "Replace the pump", to: "/work/runs/r1", closed: 2, of: 9 };

test("a complaint is isolated within its job; who only looks is offered nothing", () => {
  expect(show({})).toContain('href="/isolate/new?circuit=k1&amp;job=j1"');
  expect(show({}, { mayWork: false, mayBook: false })).not.toContain("/isolate/new");
});
test("at a plain part the work can be booked at once, by an engineer", () => {
  const at = { componentId: "c1", component: "Pump" };
  expect(show(at)).toContain("/work/book?component=c1&amp;from=job&amp;of=j1");
  expect(show(at, { mayBook: false })).not.toContain("/work/book");
});
test("a cause that is found leads to the work at its part, with or without a point", () => {
  const html = show({ causes: [found], foundAt: { id: "c2", name: "Pump", isolation: "i1" } });
  expect(html).toContain("/work/book?component=c2&amp;from=isolation&amp;of=i1");
  expect(html).toContain("Pump: worn");
});
test("booked work leads to its steps, or to its page where none was begun", () => {
  expect(show({ causes: [found], works: [work({ runs: [steps] })] })).toContain('class="act" href="/work/runs/r1"');
  expect(show({ causes: [found], works: [work()] })).toContain('class="act" href="/work/w1"');
});
test("done work asks for its reading; without a point, for a reason", () => {
  expect(show({ works: [work({ done: true })] })).toContain('class="act" href="/points/p1"');
  expect(show({ works: [work({ done: true, pointId: null })] })).toContain("Say why no reading proves it");
});
test("proven work is signed, signed work is over", () => {
  const proven = { pointId: "p1" } as unknown as NonNullable<Work["proven"]>;
  expect(show({ works: [work({ done: true, proven })] })).toContain("Sign the record");
  const over = show({ works: [work({ done: true, proven, signed: true })] });
  expect(over).toContain("Done, proven and signed.");
  expect(over).not.toContain("Nothing more is to be done?");
});
test("closed by hand it can be opened again", () => {
  expect(show({ closedAt: 1, closedBy: "T. Wren", closedBecause: "Gauge" })).toContain("Open it again");
});
test("a long complaint is cut in the heading and whole under its stage", () => {
  const noticed = "Slow ".repeat(60).trim();
  const html = show({ noticed });
  expect(html).toContain(noticed);
  expect(/<h1>(.*?)<\/h1>/.exec(html)![1]!.length).toBeLessThan(110);
});
