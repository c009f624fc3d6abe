/** What the page of one isolation shows: the odds as they went, and the next best test. */
import { and, asc, eq, inArray, isNull, sql } from "drizzle-orm";
import {
  lowerFirst,
  adviceOf,
  oddsOf,
  reasonsOf,
  type Doubts,
  type IsolationCase,
  type Odds,
  type Preparation,
  type TestResult,
} from "@core";
import { db } from "~/db/client.server";
import {
  assessments,
  circuitDiagrams,
  circuits,
  components,
  isolationResults,
  isolations,
  jobs,
  machines,
  points,
  sites,
} from "~/db/schema";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";
import { caseOf } from "./caseOf.server";
import { recordedSince } from "./testRecords.server";

/** Suspects that are listed; the rest are unlikely and counted. */
const MOST_SUSPECTS = 8;
/** Beside the best test. */
const ALTERNATIVES = 2;
/** Others, with why they wait. */
const WAITING = 4;

/** A question carries its own mark; all else is followed by a colon. */
const asked = (text: string) => (text.endsWith("?") ? text : `${text}:`);

/** "Oil level and foam: too low". */
export function resultText(own: IsolationCase, at: string, result: string): string {
  const test = own.tests.find((t) => t.id === at);
  const words = test && test.about.results[result];
  return test && words ? `${asked(test.text)} ${lowerFirst(words)}` : at;
}

/** `Missing` when there is none. */
export async function casePage(id: string) {
  const [[row], entered] = await Promise.all([
    db()
      .select({
        isolation: isolations,
        job: { id: jobs.id, number: jobs.number },
        machine: machines.name,
        machineId: machines.id,
        circuit: circuits.name,
        timeZone: sites.timeZone,
      })
      .from(isolations)
      .innerJoin(circuits, eq(circuits.id, isolations.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .innerJoin(sites, eq(sites.id, machines.siteId))
      .leftJoin(jobs, eq(jobs.id, isolations.jobId))
      .where(eq(isolations.id, id)),
    db()
      .select()
      .from(isolationResults)
      .where(eq(isolationResults.isolationId, id))
      .orderBy(asc(isolationResults.place)),
  ]);
  if (!row) throw notFound("isolation");
  const { isolation } = row;
  const own = caseOf(isolation);
  const results: TestResult[] = entered.filter((r) => !r.withdrawnAt).map((r) => ({ at: r.test, result: r.result }));
  const doubts = { gauges: isolation.gaugesOut };
  const odds = oddsOf(own, results, doubts);
  const before = results.length > 0 ? oddsOf(own, results.slice(0, -1), doubts) : null;
  const done = new Set(results.map((r) => r.at));
  const ready = new Set<Preparation>(["none"]);
  for (const r of results) {
    const at = own.tests.find((t) => t.id === r.at);
    // what was made ready for one test serves the next
    if (at) ready.add(at.about.prepare);
  }
  ready.delete("isolated");
  const advice = adviceOf(own, odds, done, ready);
  const usable = advice.proposals.filter((p) => !p.test.about.outsideBook);
  const [best, ...others] = usable;
  const off = own.gauges?.evidence.off ?? [];
  const offNames =
    off.length > 0
      ? await db().select({ id: points.id, name: points.name }).from(points).where(inArray(points.id, off))
      : [];
  const guided = isolation.closedAt ? [] : await recordedSince(isolation.circuitId, isolation.openedAt);
  const [element] = advice.acts[0]?.causes.map((c) => c.element) ?? [];
  // an element of the register bears the id of its component; one that was only drawn is no part that work is booked for
  const [bookable] =
    advice.decided && element && isUuid(element)
      ? await db()
          .select({ component: components.id, point: points.id })
          .from(components)
          .leftJoin(points, and(eq(points.componentId, components.id), isNull(points.retiredAt)))
          .leftJoin(assessments, eq(assessments.pointId, points.id))
          .where(eq(components.id, element))
          .orderBy(sql`${assessments.urgency} desc nulls last`)
          .limit(1)
      : [];
  return {
    id,
    /** The part that work is booked for, by its point that asks for it most, where it has one. */
    bookable: bookable ?? null,
    job: row.job,
    machine: row.machine,
    machineId: row.machineId,
    circuit: row.circuit,
    circuitId: isolation.circuitId,
    timeZone: row.timeZone,
    symptom: isolation.symptom,
    note: isolation.note,
    openedAt: isolation.openedAt.getTime(),
    openedBy: isolation.openedBy,
    version: isolation.version,
    gauges: !own.gauges
      ? null
      : {
          out: isolation.gaugesOut,
          off: offNames.map((p) => p.name),
          /** Points that were read; null: not kept with it. */
          read: own.gauges.evidence.read?.length ?? null,
          of: own.gauges.netlist.gauges.length,
        },
    leanings: (isolation.plant.leanings ?? []).map(({ text, out }) => ({ text, out: out ?? false })),
    taught: Object.values(isolation.taught).reduce<number>((sum, n) => sum + (n ?? 0), 0),
    hasDiagram: isolation.netlist !== null,
    missed: own.gauges ? null : await missedBy(isolation.circuitId),
    closed: isolation.closedAt
      ? {
          at: isolation.closedAt.getTime(),
          by: isolation.closedBy ?? "",
          found: (isolation.found ?? []).map((s) => own.suspects.find((x) => x.id === s)?.text ?? s),
          odds: isolation.foundOdds,
          findings: isolation.findings,
        }
      : null,
    suspects: listed(own, odds, before, results, doubts),
    every: own.suspects
      .map(({ id: suspect, text }) => ({ id: suspect, text }))
      .sort((a, b) => a.text.localeCompare(b.text)),
    other: { now: odds.other, before: before?.other ?? null },
    evidence: entered.map((r, place) => {
      const at = own.tests.find((t) => t.id === r.test);
      return {
        id: r.id,
        test: asked(at?.text ?? r.test),
        result: at ? (at.about.results[r.result] ?? r.result) : r.result,
        at: r.enteredAt.getTime(),
        by: r.enteredBy,
        withdrawn: r.withdrawnAt !== null,
        /** It was made before: both are one result. */
        again: !r.withdrawnAt && entered.slice(0, place).some((e) => e.test === r.test && !e.withdrawnAt),
      };
    }),
    /** Guided tests made since it began, and not yet taken in. */
    guided: guided.flatMap((g) => {
      const at = own.tests.find((t) => t.id === g.test);
      return at && !done.has(g.test) ? [{ ...g, text: resultText(own, g.test, g.result) }] : [];
    }),
    decided: advice.decided,
    noneFits: advice.noneFits,
    act: advice.acts[0] ?? null,
    best: best ? shown(best) : null,
    others: others
      .filter((p) => !p.heldBack)
      .slice(0, ALTERNATIVES)
      .map(shown),
    /** Every test with its results: what was made without being proposed is entered too. */
    any: own.tests.map((t) => ({
      id: t.id,
      text: t.text,
      results: Object.entries(t.about.results).map(([value, label]) => ({ value, label })),
    })),
    waiting: [
      ...others.filter((p) => p.heldBack).slice(0, WAITING),
      ...advice.proposals.filter((p) => p.test.about.outsideBook),
    ].map(shown),
  };
}

/** Points that the model of a circuit does not show as they read when they were well; null: none has a baseline. */
async function missedBy(circuitId: string): Promise<string[] | null> {
  const [row] = await db()
    .select({ fit: circuitDiagrams.fit })
    .from(circuitDiagrams)
    .where(eq(circuitDiagrams.circuitId, circuitId));
  const met = row?.fit?.met ?? [];
  if (met.length === 0) return null;
  const ids = met.filter((m) => m.deviations === null || Math.abs(m.deviations) > 2).map((m) => m.pointId);
  if (ids.length === 0) return [];
  return (await db().select({ name: points.name }).from(points).where(inArray(points.id, ids))).map((p) => p.name);
}

function shown({ test, tells, minutes, prepare, heldBack }: ReturnType<typeof adviceOf>["proposals"][number]) {
  const { how, caution, risk, procedure, outsideBook, results, basis } = test.about;
  return {
    id: test.id,
    text: test.text,
    tells,
    minutes,
    prepare,
    heldBack,
    how,
    caution: caution ?? null,
    risk,
    procedure: procedure ?? null,
    /** The component of the register that it is made on; null: none, or one that was only drawn. */
    component: test.element && isUuid(test.element) ? test.element : null,
    outsideBook: outsideBook ?? false,
    results: Object.entries(results).map(([value, label]) => ({ value, label })),
    basis,
  };
}

export type ShownTest = ReturnType<typeof shown>;

/** Suspects whose reasons are worked out. */
const WITH_REASONS = 3;
/** What moves the odds by less than this is no reason, decibans. */
const A_REASON = 1;

/** The likeliest suspects, with where they stood before the last result, and why. */
function listed(own: IsolationCase, odds: Odds, before: Odds | null, results: readonly TestResult[], doubts: Doubts) {
  const texts = new Map(results.map(({ at, result }) => [at, resultText(own, at, result)]));
  return own.suspects
    .map(({ id, cause, text }, i) => ({
      i,
      id,
      cause,
      text,
      now: odds.suspects[i]!,
      before: before?.suspects[i] ?? null,
    }))
    .sort((a, b) => b.now - a.now)
    .slice(0, MOST_SUSPECTS)
    .map(({ i, ...s }, place) => {
      const reasons = place < WITH_REASONS ? reasonsOf(own, i, results, doubts) : [];
      const say = (sign: number) =>
        reasons
          .filter((r) => sign * r.decibans > A_REASON)
          .sort((a, b) => sign * (b.decibans - a.decibans))
          .map((r) => (r.at === null ? "the gauges" : texts.get(r.at)!));
      return { ...s, speaksFor: say(1), speaksAgainst: say(-1) };
    });
}

export type CasePage = Awaited<ReturnType<typeof casePage>>;
