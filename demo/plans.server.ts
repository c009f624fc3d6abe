/** Two kept plans of the harbour: the cheapest, and one with a wish that costs something. */
import { eq } from "drizzle-orm";
import loadHighs from "highs";
import { DAY, linesOf, solvePlan, type Wishes } from "@core";
import { db } from "~/db/client.server";
import { plans } from "~/db/schema";
import { keepPlan, planSites, sitePlan } from "~/domain/plan/index.server";
import type { Actor } from "~/domain/access/index.server";

/** Solved in so many seconds at most. */
const SECONDS = 20;

export async function loadPlans(by: Actor): Promise<void> {
  const { site } = await planSites(null);
  if (!site) return;
  const plan = await sitePlan(site);
  if (plan.problem.pieces.length === 0) return;
  const highs = await loadHighs();
  const keep = async (name: string, change: Partial<Wishes>) => {
    const wishes = { ...plan.problem.wishes, ...change };
    const { prepared, step } = solvePlan({ ...plan.problem, wishes }, highs, { seconds: SECONDS });
    const lines = linesOf(prepared, step.choice);
    const kept = await keepPlan(
      {
        siteId: site.id,
        name,
        submission: crypto.randomUUID(),
        wishes: JSON.stringify(wishes),
        choice: JSON.stringify(Object.fromEntries(lines.map((l) => [l.piece, l.option.id]))),
        gap: String(step.gap),
      },
      by,
    );
    if (!kept.ok) throw new Error(Object.values(kept.problems).join(" "));
    return kept.id;
  };
  const without = plan.stops.filter((s) => s.name === "Spring stop").map((s) => s.id);
  const wished = await keep("No stop in May", { without });
  await db()
    .update(plans)
    .set({ madeAt: new Date(plan.problem.now - DAY) })
    .where(eq(plans.id, wished));
  await keep("Cheapest", {});
}
