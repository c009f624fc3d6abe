/** The practice bench: a hidden fault by level and seed; what a person tried and named, and how it was done. */
import { and, desc, eq, isNull, notInArray, sql } from "drizzle-orm";
import {
  curedBy,
  debriefOf,
  drawPractice,
  minutesOf,
  MOST_SEED,
  practiceCase,
  practiceLevels,
  preparations,
  renewable,
  renewalOf,
  renewedIn,
  symptoms,
  unsafeActs,
  usualCosts,
  type PracticeLevel,
} from "@core";
import { db } from "~/db/client.server";
import { practiceRuns } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import { drawingOf } from "~/domain/circuits/index.server";
import { FORM_IS_OLD, type Answer, type Refused } from "~/domain/answer";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";

const SHOWN = 30;
const MOST_TESTS = 60;
/** So many runs of a person are kept, the newest: practice is not a record. */
const MOST_RUNS = 200;

type Run = typeof practiceRuns.$inferSelect;

const hiddenIn = ({ hidden, level, seed }: Run) => hidden ?? drawPractice(level, seed);
const caseIn = (run: Run) => practiceCase(hiddenIn(run), run.level, run.seed);

const GONE: Answer = {
  ok: false,
  because: "conflict",
  problems: { form: "What this case hides is no longer in the knowledge. Begin another one." },
};

/** Runs of one person, the newest first. */
export async function practiceOf(personId: string) {
  const rows = await db()
    .select()
    .from(practiceRuns)
    .where(eq(practiceRuns.personId, personId))
    .orderBy(desc(practiceRuns.startedAt))
    .limit(SHOWN);
  return rows.map((r) => ({
    id: r.id,
    level: practiceLevels[r.level].label,
    seed: r.seed,
    symptom: symptoms[hiddenIn(r).symptom]?.label ?? "A symptom that is no longer listed",
    startedAt: r.startedAt.getTime(),
    tests: r.made.filter((m) => !renewedIn(m)).length,
    score: r.score,
  }));
}

async function forgetOldRuns(personId: string) {
  const kept = db()
    .select({ id: practiceRuns.id })
    .from(practiceRuns)
    .where(eq(practiceRuns.personId, personId))
    .orderBy(desc(practiceRuns.startedAt))
    .limit(MOST_RUNS);
  await db()
    .delete(practiceRuns)
    .where(and(eq(practiceRuns.personId, personId), notInArray(practiceRuns.id, kept)));
}

/** Begin a case. Without a number one is drawn. */
export async function beginPractice(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const problems: Record<string, string> = {};
  const level = Number(fields.level);
  if (!Object.hasOwn(practiceLevels, String(level))) problems.level = "Choose a level.";
  const typed = (fields.seed ?? "").trim();
  const seed = typed === "" ? 1 + Math.floor(Math.random() * MOST_SEED) : Number(typed);
  if (!Number.isInteger(seed) || seed < 1 || seed > MOST_SEED)
    problems.seed = `Write a whole number from 1 to ${MOST_SEED}, or leave it empty.`;
  const { submission = "" } = fields;
  if (!isUuid(submission) || actor.id === null) problems.form = FORM_IS_OLD;
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const before = await sentBefore(db(), practiceRuns, submission, { personId: actor.id });
  if (before) return before;
  try {
    const [row] = await db()
      .insert(practiceRuns)
      .values({
        personId: actor.id!,
        level: level as PracticeLevel,
        seed,
        hidden: drawPractice(level as PracticeLevel, seed),
        startedAt: new Date(now()),
        submission,
      })
      .returning({ id: practiceRuns.id });
    await forgetOldRuns(actor.id!);
    return { ok: true, id: row!.id };
  } catch (error) {
    const same = await sentMeanwhile(error, practiceRuns, submission, { personId: actor.id });
    if (same) return same;
    throw error;
  }
}

const OVER: Refused = { ok: false, because: "conflict", problems: { form: "This case is over. Begin another one." } };

/** Make a test, or renew a part on a guess. Made twice it is made once: what it shows stays. */
export async function practiceTest(id: string, test: string, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const [row] = await tx
      .select()
      .from(practiceRuns)
      .where(and(eq(practiceRuns.id, id), sql`${practiceRuns.personId} = ${actor.id}`))
      .for("update");
    if (!row) throw notFound("practice case");
    if (row.named !== null) return OVER;
    if (row.made.includes(test)) return { ok: true, id };
    const hidden = caseIn(row);
    if (!hidden) return GONE;
    const { own } = hidden;
    const part = renewedIn(test);
    const known = part
      ? renewable(hidden.netlist).some((r) => r.element === part)
      : own.tests.some((t) => t.id === test);
    if (!known || row.made.length >= MOST_TESTS)
      return { ok: false, problems: { form: "Choose a test from the list." } };
    await tx
      .update(practiceRuns)
      .set({ made: [...row.made, test] })
      .where(eq(practiceRuns.id, id));
    return { ok: true, id };
  });
}

/** Name the cause: the case is over and scored. */
export async function practiceName(id: string, named: string, actor: Actor): Promise<Answer> {
  const [row] = await db()
    .select()
    .from(practiceRuns)
    .where(and(eq(practiceRuns.id, id), sql`${practiceRuns.personId} = ${actor.id}`));
  if (!row) throw notFound("practice case");
  if (row.named !== null) return OVER;
  const hidden = caseIn(row);
  if (!hidden) return GONE;
  if (!hidden.own.suspects.some((s) => s.id === named)) return { ok: false, problems: { named: "Choose what it is." } };
  const { score } = debriefOf(hidden, row.made, named);
  await db()
    .update(practiceRuns)
    .set({ named, endedAt: new Date(now()), score })
    .where(and(eq(practiceRuns.id, id), isNull(practiceRuns.named)));
  return { ok: true, id };
}

/** What the page of a case shows; its owner's alone. `Missing` for anybody else. */
export async function practicePage(id: string, personId: string) {
  const [row] = await db()
    .select()
    .from(practiceRuns)
    .where(and(eq(practiceRuns.id, id), eq(practiceRuns.personId, personId)));
  if (!row) throw notFound("practice case");
  const hidden = caseIn(row);
  if (!hidden) throw notFound("practice case");
  const { own, netlist } = hidden;
  const parts = renewable(netlist);
  const made = row.made.flatMap((test) => {
    const part = parts.find((r) => r.element === renewedIn(test));
    if (part) {
      const result = curedBy(hidden, part.element) ? "The symptom is gone" : "The symptom stays";
      return [{ id: test, text: `${part.name} renewed`, result, times: null }];
    }
    const at = own.tests.find((t) => t.id === test);
    if (!at) return [];
    const { result, times } = hidden.show(at);
    return [{ id: test, text: at.text, result: at.about.results[result] ?? result, times }];
  });
  const debrief = row.named === null ? null : debriefOf(hidden, row.made, row.named);
  const truth = own.suspects[hidden.truth]!;
  return {
    id,
    level: practiceLevels[row.level],
    seed: row.seed,
    symptom: symptoms[hidden.symptom],
    netlist,
    drawing: await drawingOf(hidden.template, netlist),
    made,
    minutes: minutesOf(hidden, row.made),
    currency: usualCosts.currency,
    renewals: parts
      .filter((r) => !row.made.includes(renewalOf(r.element)))
      .map((r) => ({ ...r, id: renewalOf(r.element) })),
    tests: own.tests
      .filter((t) => !row.made.includes(t.id))
      .map((t) => {
        const { minutes, prepare, risk, outsideBook, caution } = t.about;
        return {
          id: t.id,
          text: t.text,
          element: t.element,
          minutes,
          prepare: preparations[prepare].label,
          risk,
          outsideBook: outsideBook ?? false,
          caution: caution ?? null,
        };
      }),
    suspects: own.suspects
      .map(({ id: suspect, text }) => ({ id: suspect, text }))
      .sort((a, b) => a.text.localeCompare(b.text)),
    over: debrief && {
      ...debrief,
      score: row.score ?? debrief.score,
      unsafe: debrief.unsafe.map((u) => unsafeActs[u]),
      truth: truth.text,
      act: truth.about.act.text,
      named: own.suspects.find((s) => s.id === row.named)?.text ?? "",
    },
  };
}
