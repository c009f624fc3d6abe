/** The plan of one machine of the harbour: its pieces, kept and booked plans, parts, costs, calendar and scorecard. */
import ICAL from "ical.js";
import loadHighs, { type Highs } from "highs";
import { and, count, desc, eq, isNull } from "drizzle-orm";
import { linesOf, solvePlan } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { calendarFeeds, components, forecastsIssued, interventions, machines, plans, points, stops } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { actorNamed } from "~/domain/access/testActor";
import { openDecisions } from "~/domain/overview/decisions.server";
import { find } from "~/domain/overview/shell.server";
import { horizon, needs, stateCounts, type Decision } from "~/domain/overview/today.server";
import { alternativesOf } from "~/domain/plan/alternatives.server";
import { calendarText, feedsOf, makeFeed, opensFeed, revokeFeed } from "~/domain/plan/calendar.server";
import { bookPlan } from "~/domain/plan/bookPlan.server";
import { dropPlan, keepPlan, keptPlans, setCosts } from "~/domain/plan/kept.server";
import { livesPage } from "~/domain/plan/lives.server";
import { ordersCsv, ordersOf } from "~/domain/plan/orders.server";
import { costsOf, planSites, sitePlan } from "~/domain/plan/pieces.server";
import { scorecardPage } from "~/domain/plan/scorecard.server";
import { report, type ReportAsked } from "~/domain/report/report.server";
import { bookingContext } from "~/domain/bookings/context.server";
import { closeQueue } from "~/platform/jobs.server";
import { Missing } from "~/platform/missing";
import { now } from "~/runtime/clock.server";
import { loadDemo } from "./load.server";
import { people } from "./world";

const by = actorNamed("R. Oduya");
let drop: () => Promise<void>;
let highs: Highs;
let site: NonNullable<Awaited<ReturnType<typeof planSites>>["site"]>;

beforeAll(async () => {
  drop = await ownDatabase("plan");
  await migrateDatabase();
  await loadDemo(Object.fromEntries(people.map((p) => [p.signIn, "a long enough one"])), {
    only: ["Outer gate north"],
  });
  highs = await loadHighs();
  site = (await planSites(null)).site!;
}, 180_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

async function solved(change: Partial<Parameters<typeof solvePlan>[0]["wishes"]> = {}) {
  const plan = await sitePlan(site);
  const wishes = { ...plan.problem.wishes, ...change };
  const { prepared, step } = solvePlan({ ...plan.problem, wishes }, highs);
  const lines = linesOf(prepared, step.choice);
  const choice = Object.fromEntries(lines.map((l) => [l.piece, l.option.id]));
  const form = (name: string, submission: string = crypto.randomUUID()) => ({
    siteId: site.id,
    name,
    submission,
    wishes: JSON.stringify(wishes),
    choice: JSON.stringify(choice),
    gap: String(step.gap),
  });
  return { plan, lines, choice, form };
}

const pumpA = async () => {
  const plan = await sitePlan(site);
  return Object.values(plan.pieces).find((p) => p.component === "Pump A")!;
};

test("the worn pump is a piece of the plan: its part comes after the next stop, so it is done after that", async () => {
  const { plan, lines } = await solved();
  const facts = await pumpA();
  const piece = plan.problem.pieces.find((p) => p.id === facts.id)!;
  expect(facts.act).toContain("Replace");
  expect(facts.faultOf).not.toBeNull();
  expect(piece.partAt).toBeGreaterThan(plan.stops[0]!.at);
  expect(piece.crossings.filter((c) => c !== null).length).toBeGreaterThan(40);
  const line = lines.find((l) => l.piece === facts.id)!;
  expect(line.option.kind).not.toBe("wait");
  expect(line.option.id).not.toBe(plan.stops[0]!.id);
  expect(line.option.at).toBeGreaterThanOrEqual(piece.partAt!);
});

test("a plan is kept once however often it is sent, told what it costs, and booked once", async () => {
  const { form, lines } = await solved();
  const fields = form("Kept twice");
  const [a, b] = await Promise.all([keepPlan(fields, by), keepPlan(fields, by)]);
  expect(a).toEqual(b);
  const kept = (await keptPlans(site.id)).filter((p) => p.name === "Kept twice");
  expect(kept).toHaveLength(1);
  expect(kept[0]!.totals.expected).toBeGreaterThan(0);
  const facts = await pumpA();
  expect(kept[0]!.lines.find((l) => l.piece === facts.id)!.reason).toMatch(/chance of the limit before it/);
  const booked = await Promise.all([bookPlan(kept[0]!.id, by), bookPlan(kept[0]!.id, by)]);
  const counts = booked.map((r) => (r.ok ? r.booked : -1)).sort();
  expect(counts[0]).toBe(0);
  expect(counts[1]).toBeGreaterThan(0);
  const open = await db()
    .select()
    .from(interventions)
    .where(and(eq(interventions.componentId, facts.componentId), isNull(interventions.doneAt)));
  expect(open).toHaveLength(1);
  const { option } = lines.find((l) => l.piece === facts.id)!;
  const stopId = option.kind === "stop" ? option.id : null;
  expect(open[0]).toMatchObject({ kind: "replacement", stopId, bookedBy: "R. Oduya" });
  // what is booked is a wish of the next plan
  expect((await sitePlan(site)).problem.wishes.pinned[facts.id]).toBe(stopId ?? "own");
});

test("what changed since it was solved is told, and nothing is kept", async () => {
  const { form, choice } = await solved();
  const before = (await keptPlans(site.id)).length;
  const gone = {
    ...form("Old"),
    choice: JSON.stringify({ ...choice, [Object.keys(choice)[0]!]: crypto.randomUUID() }),
  };
  expect(await keepPlan(gone, by)).toMatchObject({ ok: false, because: "conflict" });
  expect(await keepPlan({ ...form("Odd"), choice: "not JSON" }, by)).toMatchObject({ ok: false, because: "conflict" });
  expect(await keepPlan(form(""), by)).toMatchObject({ ok: false, problems: { name: expect.any(String) } });
  expect(await keepPlan({ ...form("Nowhere"), siteId: crypto.randomUUID() }, by)).toMatchObject({ ok: false });
  expect(await keptPlans(site.id)).toHaveLength(before);
});

test("a plan that is put aside is listed no more and stays on record", async () => {
  const { form } = await solved();
  const kept = await keepPlan(form("For a while"), by);
  if (!kept.ok) throw new Error("not kept");
  await dropPlan(kept.id, by);
  expect((await keptPlans(site.id)).some((p) => p.id === kept.id)).toBe(false);
  expect(await db().select().from(plans).where(eq(plans.id, kept.id))).toHaveLength(1);
  await expect(bookPlan(kept.id, by)).rejects.toThrow(Missing);
});

test("a plan whose stop was taken out of use since is not booked at all, and says which piece", async () => {
  const { plan, form, lines } = await solved({ pinned: {} });
  const line = lines.find((l) => l.option.kind === "stop");
  const facts = plan.pieces[line!.piece]!;
  const kept = await keepPlan(form("Stop gone"), by);
  if (!kept.ok) throw new Error("not kept");
  const booked = () => db().select({ id: interventions.id, stopId: interventions.stopId }).from(interventions);
  const before = await booked();
  await db().update(stops).set({ retiredAt: new Date() }).where(eq(stops.id, line!.option.id));
  try {
    expect(await bookPlan(kept.id, by)).toMatchObject({
      ok: false,
      because: "conflict",
      problems: { form: expect.stringContaining(facts.machine) },
    });
    expect(await booked()).toEqual(before);
    expect((await keptPlans(site.id)).find((p) => p.id === kept.id)!.bookedAt).toBeNull();
  } finally {
    await db().update(stops).set({ retiredAt: null }).where(eq(stops.id, line!.option.id));
  }
  expect(await bookPlan(kept.id, by)).toMatchObject({ ok: true });
});

test("a kept plan never books what is done: a piece that was finished or cancelled since is told and left alone", async () => {
  const { form } = await solved();
  const kept = await keepPlan(form("Booked late"), by);
  if (!kept.ok) throw new Error("not kept");
  const facts = await pumpA();
  const [work] = await db()
    .select()
    .from(interventions)
    .where(and(eq(interventions.componentId, facts.componentId), isNull(interventions.doneAt)));
  await db()
    .update(interventions)
    .set({ doneAt: new Date(now()), doneBy: "T. Wren" })
    .where(eq(interventions.id, work!.id));
  try {
    const booked = await bookPlan(kept.id, by);
    expect(booked).toMatchObject({ ok: true, settled: [expect.stringContaining(facts.machine)] });
    const open = await db()
      .select()
      .from(interventions)
      .where(and(eq(interventions.componentId, facts.componentId), isNull(interventions.doneAt)));
    expect(open).toEqual([]);
  } finally {
    await db().update(interventions).set({ doneAt: null, doneBy: null }).where(eq(interventions.id, work!.id));
  }
});

test("costs: two who set them, the second is told; what is no number is refused at its field", async () => {
  const { costs, version } = await costsOf(site.id);
  const fields = {
    ...Object.fromEntries(Object.entries(costs).map(([k, v]) => [k, String(v)])),
    failsAMonth: "12",
    version: String(version),
  };
  expect(await setCosts(site.id, { ...fields, crewHour: "seventy" }, by)).toMatchObject({
    ok: false,
    problems: { crewHour: "Write a number." },
  });
  const both = await Promise.all([setCosts(site.id, fields, by), setCosts(site.id, { ...fields, opening: "1" }, by)]);
  expect(both.filter((r) => r.ok)).toHaveLength(1);
  expect((await costsOf(site.id)).costs.failsAMonth).toBeCloseTo(0.12, 12);
});

test("parts: order by the day that its lead time asks for; a spare on the shelf changes it everywhere", async () => {
  const facts = await pumpA();
  const line = (await ordersOf(site)).find((o) => o.id === facts.id)!;
  expect(line).toMatchObject({ leadTimeDays: 70, spares: 0, orderedOn: null });
  expect(line.orderBy).not.toBeNull();
  const csv = ordersCsv([line, { ...line, component: '=1+1 "x", y' }]);
  expect(csv.split("\r\n")[2]).toContain(`"'=1+1 ""x"", y"`);
  await db().update(components).set({ sparesOnHand: 1 }).where(eq(components.id, facts.componentId));
  expect((await ordersOf(site)).find((o) => o.id === facts.id)).toMatchObject({ orderBy: null, text: "part on hand" });
  const booking = await bookingContext(facts.componentId, null);
  expect(booking.stops[0]!.part.text).toBe("part on hand");
  await db().update(components).set({ sparesOnHand: 0 }).where(eq(components.id, facts.componentId));
});

const eventsOf = (text: string) =>
  new ICAL.Component(ICAL.parse(text)).getAllSubcomponents("vevent").map((c) => new ICAL.Event(c));

test("the calendar is read by another library: whole days, stable UIDs, changes and cancellations", async () => {
  const [first] = await db().select().from(stops).where(isNull(stops.retiredAt)).orderBy(stops.startsOn);
  const find = (text: string) => eventsOf(text).find((e) => e.uid === `stop-${first!.id}@juncteral`)!;
  const before = find(await calendarText("http://here"));
  expect(before.startDate.isDate).toBe(true);
  expect(before.startDate.toString()).toBe(first!.startsOn);
  expect(before.duration.days + 7 * before.duration.weeks).toBe(first!.days);
  await db()
    .update(stops)
    .set({ startsOn: "2027-02-01", version: first!.version + 1 })
    .where(eq(stops.id, first!.id));
  const after = find(await calendarText("http://here"));
  expect(after.startDate.toString()).toBe("2027-02-01");
  expect(after.sequence).toBeGreaterThan(before.sequence);
  await db()
    .update(stops)
    .set({ retiredAt: new Date(), version: first!.version + 2 })
    .where(eq(stops.id, first!.id));
  const cancelled = find(await calendarText("http://here"));
  expect(cancelled.component.getFirstPropertyValue("status")).toBe("CANCELLED");
  expect(cancelled.sequence).toBeGreaterThan(after.sequence);
  await db()
    .update(stops)
    .set({ retiredAt: null, startsOn: first!.startsOn, version: first!.version + 3 })
    .where(eq(stops.id, first!.id));
});

test("a burst of addresses keeps to the limit of ten", async () => {
  const [person] = await db().select().from(users).orderBy(desc(users.id)).limit(1);
  const made = await Promise.all(Array.from({ length: 14 }, () => makeFeed({ ...by, id: person!.id })));
  expect(made.filter((m) => m.ok)).toHaveLength(10);
  await db().delete(calendarFeeds).where(eq(calendarFeeds.personId, person!.id));
});

test("a private address opens the calendar until it is revoked, or its person may no longer sign in", async () => {
  const [person] = await db().select().from(users).limit(1);
  const actor = { ...by, id: person!.id };
  const made = await makeFeed(actor);
  if (!made.ok) throw new Error("no address");
  expect(await opensFeed(made.token)).toBe(true);
  expect(await opensFeed(`${made.token}x`)).toBe(false);
  const [row] = await db().select().from(calendarFeeds);
  expect(row!.tokenHash).not.toContain(made.token);
  await db().update(users).set({ retiredAt: new Date() }).where(eq(users.id, person!.id));
  expect(await opensFeed(made.token)).toBe(false);
  await db().update(users).set({ retiredAt: null }).where(eq(users.id, person!.id));
  const [feed] = await feedsOf(person!.id);
  expect(feed!.lastReadAt).not.toBeNull();
  expect(await revokeFeed(feed!.id, { ...by, id: crypto.randomUUID() })).toMatchObject({ ok: false });
  expect(await revokeFeed(feed!.id, actor)).toMatchObject({ ok: true });
  expect(await opensFeed(made.token)).toBe(false);
  expect(await feedsOf(person!.id)).toHaveLength(0);
});

test("forecasts were issued through the years with what was known then, and are held to account", async () => {
  const issued = await db().select().from(forecastsIssued);
  expect(issued.length).toBeGreaterThan(10);
  expect(issued.every((f) => f.lastReadingAt <= f.issuedAt)).toBe(true);
  expect(issued.every((f) => !f.noTrend || (f.p10 === null && f.p50 === null))).toBe(true);
  const years = new Set(issued.map((f) => f.issuedAt.getFullYear()));
  expect(years.size).toBeGreaterThan(2);
  const page = await scorecardPage();
  expect(page.all.lives).toBeGreaterThan(0);
  expect(page.notBefore.lives).toBeGreaterThan(0);
  expect(page.ends.length).toBeGreaterThan(0);
});

test("lives by kind: no fit is claimed from lives that have not come to their limit", async () => {
  const kinds = await livesPage(site.id);
  const pumps = kinds.find((k) => k.kind === "Axial piston pump")!;
  expect(pumps.lives).toBeGreaterThan(1);
  expect(pumps.fit).toBeNull();
  expect(pumps.none).not.toBe("");
});

describe("the report", () => {
  const asked = (change: Partial<ReportAsked> = {}): ReportAsked => ({
    site: site.id,
    machine: null,
    from: null,
    to: null,
    ...change,
  });
  test("of the site: every point once by its state, faults with what to do, the plan that was kept last", async () => {
    const r = await report(asked());
    expect(r.to).toBe("2026-11-24");
    expect(r.from).toBe("2026-08-26");
    expect(Object.values(r.states).reduce((sum, n) => sum + n, 0)).toBe(r.points.length);
    const urgent = r.points.filter((p) => ["alarm", "alert", "drifting"].includes(p.state));
    // the worst first: none that needs attention comes after one that needs none
    expect(r.points.slice(0, urgent.length)).toEqual(urgent);
    expect(r.faults.map((f) => f.machine)).toContain("Outer gate north");
    for (const f of r.faults) expect(f.act.length).toBeGreaterThan(10);
    expect(r.score).not.toBeNull();
  });
  test("draws what needs attention: readings in order, the newest among them, what is forecast only where it is proved", async () => {
    const r = await report(asked());
    expect(Object.keys(r.charts).length).toBeGreaterThan(0);
    for (const [id, chart] of Object.entries(r.charts)) {
      const point = r.points.find((p) => p.pointId === id)!;
      expect(chart.readings.map((x) => x.at)).toEqual(chart.readings.map((x) => x.at).toSorted((a, b) => a - b));
      expect(chart.readings.at(-1)!.at).toBe(point.lastAt);
      expect(chart.readings.length).toBeLessThanOrEqual(90);
      if (chart.ahead.length > 0) expect(chart.ahead[0]!.at).toBeGreaterThanOrEqual(chart.readings.at(-1)!.at);
    }
    const gate = r.points.find((p) => p.quantity === "caseDrainFlow" && p.component === "Pump A")!;
    const drawn = r.charts[gate.pointId]!;
    expect(drawn.limits?.upper).toBeGreaterThan(drawn.asNew!);
    expect(drawn.ahead.length).toBeGreaterThan(3);
    // at the reference condition: nearer to a line than what was read
    const scatter = (values: number[]) => Math.max(...values.slice(1).map((v, i) => Math.abs(v - values[i]!)));
    expect(scatter(drawn.readings.filter((x) => !x.odd).map((x) => x.value))).toBeLessThan(drawn.limits!.upper!);
  });
  test("of one machine: its points alone, no plan and no scorecard of the site", async () => {
    const [machine] = await db()
      .select({ id: machines.id })
      .from(machines)
      .where(eq(machines.name, "Outer gate north"));
    const r = await report(asked({ site: null, machine: machine!.id }));
    expect(r.machine?.name).toBe("Outer gate north");
    expect(new Set(r.points.map((p) => p.machine))).toEqual(new Set(["Outer gate north"]));
    expect([r.plan, r.score]).toEqual([null, null]);
  });
  test.each([
    ["2026-11-01", "2026-10-01", "2026-07-03", "2026-10-01"],
    ["2026-02-31", null, "2026-08-26", "2026-11-24"],
    ["2026-11-01", "2026-11-01", "2026-11-01", "2026-11-01"],
  ])("a period from %s to %s is %s to %s", async (from, to, first, last) => {
    const r = await report(asked({ from, to }));
    expect([r.from, r.to]).toEqual([first, last]);
  });
  test("counts the readings of its period alone", async () => {
    const [year, day] = await Promise.all([
      report(asked({ from: "2025-11-25", to: "2026-11-24" })),
      report(asked({ from: "2026-11-24", to: "2026-11-24" })),
    ]);
    const read = (r: typeof year) => r.points.reduce((sum, p) => sum + p.readings, 0);
    expect(read(year)).toBeGreaterThan(100);
    expect(read(day)).toBeLessThan(read(year) / 20);
  });
  test("of a machine that is not there, or a site", async () => {
    await expect(report(asked({ machine: crypto.randomUUID() }))).rejects.toThrow(Missing);
    await expect(report(asked({ machine: "none" }))).rejects.toThrow(Missing);
  });
});

describe("alternatives of one component", () => {
  test("the cheapest first; each later one leaves more risk; waiting takes no hours", async () => {
    const { componentId } = await pumpA();
    const found = (await alternativesOf(componentId))!;
    const costs = found.ways.map((w) => w.cost);
    expect(costs).toEqual(costs.toSorted((a, b) => a - b));
    const byTime = found.ways.filter((w) => !w.interim).toSorted((a, b) => a.at - b.at);
    byTime.slice(1).forEach((w, i) => expect(w.crossed).toBeGreaterThanOrEqual(byTime[i]!.crossed - 1e-9));
    expect(found.ways.find((w) => w.id === "wait")?.hours ?? 0).toBe(0);
    for (const w of found.ways) expect(w.fails).toBeLessThanOrEqual(w.crossed + 1e-9);
  });
  test("of a component that nothing asks work for there is nothing to price; of none, 404", async () => {
    const plan = await sitePlan(site);
    const busy = new Set(Object.values(plan.pieces).map((p) => p.componentId));
    const idle = (await db().select({ id: components.id }).from(components)).find((c) => !busy.has(c.id))!;
    expect(await alternativesOf(idle.id)).toBeNull();
    await expect(alternativesOf(crypto.randomUUID())).rejects.toThrow(Missing);
  });
});

describe("Today", () => {
  test("the worn pump is one fault, its points fold under it, and no point is listed twice", async () => {
    const all = await needs();
    const faults = all.flatMap((n) => (n.kind === "fault" ? [n.fault] : []));
    const points = all.flatMap((n) => (n.kind === "point" ? [n.point.pointId] : []));
    expect(faults.some((f) => f.machine === "Outer gate north")).toBe(true);
    const folded = faults.flatMap((f) => f.points.map((p) => p.pointId));
    expect(new Set([...points, ...folded]).size).toBe(points.length + folded.length);
    // what only drifts can wait, and what is booked is decided
    const presses = (p: Decision) => (p.asksAgain || p.state === "alarm" || p.state === "alert") && !p.booking;
    const open = all.filter((n) => (n.kind === "fault" ? n.fault.points : [n.point]).some(presses));
    expect(await openDecisions()).toBe(open.length);
  });
  test("states add up to the points in use; the horizon has no line beyond its year", async () => {
    const states = await stateCounts();
    const [row] = await db().select({ n: count() }).from(points).where(isNull(points.retiredAt));
    expect(Object.values(states).reduce((sum, n) => sum + n, 0)).toBe(row!.n);
    const year = Date.UTC(2027, 10, 25);
    for (const line of await horizon()) expect(line.p10 ?? 0).toBeLessThan(year);
  });
  test("found by a few letters: the machine first, then what belongs to it; nonsense finds nothing", async () => {
    const found = await find("outer gate no");
    expect(found[0]).toMatchObject({ kind: "machine", label: "Outer gate north" });
    expect(await find("zzqqxx")).toEqual([]);
    expect((await find("pump a", "component")).every((f) => f.kind === "component")).toBe(true);
    expect(await find("%_\\")).toEqual([]);
  });
});
