/** Plans that are kept and compared. What a plan costs is computed here again, from the choice that was sent. */
import { and, desc, eq, isNull } from "drizzle-orm";
import { linesOf, optionName, planValue, preparePlan, reasonOf, type PlanProblem, type PlanWriter } from "@core";
import { db } from "~/db/client.server";
import { planCosts, plans, type KeptLine } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, FORM_IS_OLD, type Answer } from "~/domain/answer";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { notFound } from "~/platform/missing";
import { check } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import { choiceFrom, costsSchema, keepSchema, wishesFrom } from "./form";
import { planSites, sitePlan, type SitePlan } from "./pieces.server";

const SHOWN = 8;

const isoDay = (timeZone: string) => (ms: number) =>
  new Intl.DateTimeFormat("en-GB", { timeZone, day: "numeric", month: "short", year: "numeric" }).format(ms);

export const writerOf = (problem: PlanProblem, timeZone: string): PlanWriter => ({
  day: isoDay(timeZone),
  currency: problem.costs.currency,
  now: problem.now,
  stops: new Map(problem.stops.map((s) => [s.id, s])),
});

/** The lines of a choice by piece; null: a piece, or the way it was to be done, is no longer there. */
function linesFor(plan: SitePlan, problem: PlanProblem, chosen: Record<string, string>, timeZone: string) {
  const prepared = preparePlan(problem, true);
  const choice = prepared.blocks.map((b) => {
    const ids = new Set(b.pieces.map((i) => chosen[problem.pieces[i]!.id]));
    return ids.size === 1 ? b.options.findIndex((o) => ids.has(o.id)) : -1;
  });
  if (choice.includes(-1)) return null;
  const writer = writerOf(problem, timeZone);
  const lines = linesOf(prepared, choice).map((line, i): KeptLine => {
    const facts = plan.pieces[line.piece]!;
    const piece = problem.pieces[i]!;
    return {
      piece: line.piece,
      componentId: facts.componentId,
      pointId: facts.pointId,
      workId: facts.workId,
      label: piece.label,
      kind: line.option.kind,
      option: line.option.id,
      name: optionName(line.option, writer),
      at: line.option.at,
      hours: facts.hours,
      needsPart: facts.needsPart,
      crossed: line.option.crossed,
      reason: reasonOf(line, piece, writer),
    };
  });
  return { lines, totals: planValue(prepared, choice) };
}

/** Keep a plan under a name. Sent twice it is kept once. */
export async function keepPlan(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const checked = await check(keepSchema, fields);
  if (!checked.ok)
    return { ok: false, problems: checked.problems.submission ? { form: FORM_IS_OLD } : checked.problems };
  const { siteId, name, submission } = checked.values;
  const before = await sentBefore(db(), plans, submission, { siteId });
  if (before) return before;
  const { all } = await planSites(siteId);
  const site = all.find((s) => s.id === siteId);
  if (!site) return { ok: false, problems: { form: "This site is gone." } };
  const plan = await sitePlan(site);
  const wishes = wishesFrom(fields.wishes ?? "");
  const found = linesFor(plan, { ...plan.problem, wishes }, choiceFrom(fields.choice ?? ""), site.timeZone);
  if (!found)
    return {
      ok: false,
      because: "conflict",
      problems: { form: "Work, stops or readings changed since this plan was solved. Solve again, then keep it." },
    };
  const gap = Number(fields.gap);
  try {
    const [row] = await db()
      .insert(plans)
      .values({
        siteId,
        name,
        madeAt: new Date(now()),
        madeBy: actor.name,
        wishes,
        ...found,
        gap: gap >= 0 && gap <= 1 ? gap : 1,
        submission,
      })
      .returning({ id: plans.id });
    return { ok: true, id: row!.id };
  } catch (error) {
    const same = await sentMeanwhile(error, plans, submission, { siteId });
    if (same) return same;
    throw error;
  }
}

/** Plans of a site that are kept, the newest first. */
export async function keptPlans(siteId: string) {
  const rows = await db()
    .select()
    .from(plans)
    .where(and(eq(plans.siteId, siteId), isNull(plans.retiredAt)))
    .orderBy(desc(plans.madeAt))
    .limit(SHOWN);
  return rows.map(({ submission: _, ...plan }) => ({
    ...plan,
    madeAt: plan.madeAt.getTime(),
    bookedAt: plan.bookedAt?.getTime() ?? null,
  }));
}

export type KeptPlan = Awaited<ReturnType<typeof keptPlans>>[number];

/** Put a kept plan aside. It stays on record. */
export async function dropPlan(id: string, actor: Actor): Promise<Answer> {
  const [row] = await db()
    .update(plans)
    .set({ retiredAt: new Date(now()) })
    .where(and(eq(plans.id, id), isNull(plans.retiredAt)))
    .returning({ id: plans.id, name: plans.name });
  if (!row) throw notFound("plan");
  await audit(db(), actor, { what: `put the plan ${row.name} aside`, recordId: id });
  return { ok: true, id };
}

/** Set what work costs at a site. */
export async function setCosts(siteId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const checked = await check(costsSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const { version, failsAMonth, ...rest } = checked.values;
  const costs = { ...rest, failsAMonth: failsAMonth / 100 };
  return db().transaction(async (tx): Promise<Answer> => {
    const [before] = await tx.select().from(planCosts).where(eq(planCosts.siteId, siteId)).for("update");
    if ((before?.version ?? 0) !== version) return changedMeanwhile("these costs", before?.setBy);
    const values = { costs, setBy: actor.name, setAt: new Date(now()), version: version + 1 };
    const rows = await tx
      .insert(planCosts)
      .values({ siteId, ...values })
      .onConflictDoUpdate({ target: planCosts.siteId, set: values, setWhere: eq(planCosts.version, version) })
      .returning({ siteId: planCosts.siteId });
    if (rows.length === 0) return changedMeanwhile("these costs");
    await audit(tx, actor, { what: "set what work costs", recordId: siteId, before: before?.costs, after: costs });
    return { ok: true, id: siteId };
  });
}
