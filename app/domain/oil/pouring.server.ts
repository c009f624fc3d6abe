/** What speaks against a fluid for a circuit: by what is in it, and by the parts that it meets. */
import { eq } from "drizzle-orm";
import { mixing, pouring, type NamedFluid } from "@core";
import { db } from "~/db/client.server";
import { circuits, fluids } from "~/db/schema";
import { oilInput } from "~/domain/condition/index.server";
import { isUuid } from "~/platform/validate";

const named = (f: typeof fluids.$inferSelect): NamedFluid => ({
  id: f.id,
  name: f.name,
  type: f.type,
  kv40: f.kv40,
  kv100: f.kv100,
  density15: f.density15,
});

/** The fluid that stands in a circuit, and one that is added; each may be unknown. */
async function bothFluids(circuitId: string, fluidId: string): Promise<[NamedFluid | null, NamedFluid | null]> {
  if (!isUuid(fluidId)) return [null, null];
  const [[there], [added]] = await Promise.all([
    db()
      .select({ fluid: fluids })
      .from(circuits)
      .innerJoin(fluids, eq(fluids.id, circuits.fluidId))
      .where(eq(circuits.id, circuitId)),
    db().select().from(fluids).where(eq(fluids.id, fluidId)),
  ]);
  return [there ? named(there.fluid) : null, added ? named(added) : null];
}

/** The fluid that stands in a circuit against one that is added; null where nothing is known or they agree. */
export async function mixingOf(circuitId: string, fluidId: string): Promise<ReturnType<typeof mixing>> {
  const [there, added] = await bothFluids(circuitId, fluidId);
  return there && added ? mixing(there, added) : null;
}

/** What speaks against a fluid before it is on record: that it mixes with another, and that parts are not made for it. */
export async function againstPouring(circuitId: string, fluidId: string, mixes: boolean): Promise<string | null> {
  const [there, added] = await bothFluids(circuitId, fluidId);
  if (!added) return null;
  const input = await oilInput(db(), circuitId);
  const mixed = mixes && there ? mixing(there, added) : null;
  const unfit = input ? pouring(added, there, input.components, input.temperatures) : null;
  return mixed || unfit ? [unfit, mixed?.message].filter(Boolean).join(" ") : null;
}
