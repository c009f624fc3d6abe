/** What a circuit's oil is judged by: its target and limits, and what each component is to the oil. */
import { eq } from "drizzle-orm";
import { fluidTypeIds, type ComponentFluidNeed, type FilterData } from "@core";
import { db } from "~/db/client.server";
import { circuits, components } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, type Answer } from "~/domain/answer";
import { markOilStale } from "~/domain/condition/index.server";
import { check } from "~/platform/validate";
import { componentSchema, targetSchema } from "./form";
import { parseMaterials } from "./materials";
import { reassess } from "./shared.server";

/** Target, volume, coldest start, longest interval and limits of metals of a circuit. */
export async function setCircuitOil(circuitId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const checked = await check(targetSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const v = checked.values;
  const values = {
    targetCode: v.targetCode,
    targetReason: v.targetCode ? v.targetReason : "",
    targetSetBy: v.targetCode ? actor.name : "",
    startTemperature: v.startTemperature?.value ?? null,
    volume: v.volume?.value ?? null,
    longestHours: v.longestHours?.value ?? null,
    longestMonths: v.longestMonths,
    metalLimits: v.metalLimits,
  };
  const done = await db().transaction(async (tx): Promise<Answer> => {
    const [before] = await tx.select().from(circuits).where(eq(circuits.id, circuitId)).for("no key update");
    if (before!.version !== v.version) return changedMeanwhile("this");
    await tx
      .update(circuits)
      .set({ ...values, version: before!.version + 1 })
      .where(eq(circuits.id, circuitId));
    await audit(tx, actor, {
      what: `set the oil's target of ${before!.name}`,
      recordId: circuitId,
      before,
      after: values,
    });
    await markOilStale(tx, [circuitId]);
    return { ok: true, id: circuitId };
  });
  if (done.ok) await reassess(circuitId);
  return done;
}

/** What a component is to the oil. */
export async function setComponentOil(
  componentId: string,
  fields: Record<string, string>,
  actor: Actor,
): Promise<Answer> {
  const checked = await check(componentSchema, fields);
  const problems: Record<string, string> = checked.ok ? {} : { ...checked.problems };
  const materials = parseMaterials(fields.materials ?? "");
  if (typeof materials === "string") problems.materials = materials;
  if (!checked.ok || typeof materials === "string") return { ok: false, problems };
  const v = checked.values;
  const range = [v.least, v.bestLow, v.bestHigh, v.greatestAtStart].map((q) => q?.value ?? null);
  if (range.some((r) => r !== null) && range.some((r) => r === null))
    problems.least = "Give all four viscosities, or none.";
  else if (range[0] !== null && !range.every((r, i) => i === 0 || r! >= range[i - 1]!))
    problems.least = "They run from the least to the greatest.";
  const filterParts = [v.beta, v.size, v.flow?.value ?? null, v.bypass?.value ?? null];
  if (filterParts.some((p) => p !== null) && filterParts.some((p) => p === null))
    problems.beta = "A filter needs its ratio, size, flow and bypass setting.";
  const types = fluidTypeIds.filter((t) => fields[`type-${t}`] === "on");
  if (range[0] !== null && types.length === 0) problems["type-mineral"] = "Tick the fluids that it is made for.";
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const fluidNeed: ComponentFluidNeed | null =
    range[0] === null
      ? null
      : { least: range[0]!, bestLow: range[1]!, bestHigh: range[2]!, greatestAtStart: range[3]!, types };
  const filter: FilterData | null =
    v.beta === null
      ? null
      : { beta: v.beta, size: v.size!, flow: v.flow!.value, bypass: v.bypass!.value, element: v.element };
  const values = { makersCode: v.makersCode, materials, symptomIfStuck: v.symptomIfStuck, fluidNeed, filter };
  const done = await db().transaction(async (tx): Promise<Answer & { circuitId?: string }> => {
    const [before] = await tx.select().from(components).where(eq(components.id, componentId)).for("no key update");
    if (before!.version !== v.version) return changedMeanwhile("this");
    await tx
      .update(components)
      .set({ ...values, version: before!.version + 1 })
      .where(eq(components.id, componentId));
    await audit(tx, actor, {
      what: `set what ${before!.name} is to the oil`,
      recordId: componentId,
      before,
      after: values,
    });
    await markOilStale(tx, [before!.circuitId]);
    return { ok: true, id: componentId, circuitId: before!.circuitId };
  });
  if (done.ok && done.circuitId) await reassess(done.circuitId);
  return done;
}
