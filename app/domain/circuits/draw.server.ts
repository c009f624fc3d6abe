/** Keeping a circuit as somebody drew it, or going back to the proposal. */
import { and, eq, isNull } from "drizzle-orm";
import { elementKindOf, readNetlist, type Drawing, type Netlist } from "@core";
import { db } from "~/db/client.server";
import { circuitDiagrams, circuits, components } from "~/db/schema";
import { markDiagnosisStale } from "~/domain/condition/index.server";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, type Answer } from "~/domain/answer";
import { diagramOf, previewInThread } from "./diagram.server";
import { registerDrawn } from "./register.server";
import { ThreadsBusy } from "~/platform/threads.server";
import { now } from "~/runtime/clock.server";

/** Longest drawing that a form may send, characters. */
const LONGEST = 400_000;

/** What a person drew, read and held against the components of the circuit. */
async function drawnNetlist(circuitId: string, text: string): Promise<Netlist | string> {
  if (text.length > LONGEST) return "The drawing is too large for one circuit. Split it.";
  const netlist = readNetlist(text);
  if (typeof netlist === "string") return netlist;
  const own = await db()
    .select({ id: components.id, kind: components.kind, name: components.name })
    .from(components)
    .where(and(eq(components.circuitId, circuitId), isNull(components.retiredAt)));
  for (const e of netlist.elements) {
    if (e.componentId === null) continue;
    const component = own.find((c) => c.id === e.componentId);
    if (!component || e.id !== e.componentId)
      return `${e.name} stands for a component that this circuit does not have.`;
    const kind = elementKindOf(component);
    if (kind && kind !== e.kind) return `${component.name} is drawn as another kind of component than it is.`;
  }
  return netlist;
}

/** How a circuit would be drawn, without keeping it. */
export async function previewOf(circuitId: string, text: string): Promise<Answer<{ drawing: Drawing }>> {
  const netlist = await drawnNetlist(circuitId, text);
  if (typeof netlist === "string") return { ok: false, problems: { form: netlist } };
  try {
    const { drawing } = await previewInThread({
      workingPressure: null,
      components: [],
      netlist,
      readings: [],
      oil: {},
    });
    return { ok: true, drawing };
  } catch (error) {
    if (!(error instanceof ThreadsBusy)) throw error;
    return {
      ok: false,
      because: "busy",
      problems: { form: "Too much is being drawn at once. It is drawn again at the next change." },
    };
  }
}

/** Keep a drawing. An unfinished one may be kept. */
export async function drawCircuit(circuitId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const propose = fields.intent === "propose";
  const drawn = propose ? null : await drawnNetlist(circuitId, fields.netlist ?? "");
  if (typeof drawn === "string") return { ok: false, problems: { form: drawn } };
  // there is a row to change from the first look on
  if (!(await diagramOf(circuitId))) return { ok: false, because: "gone", problems: { form: "This circuit is gone." } };
  const answer = await db().transaction(async (tx): Promise<Answer> => {
    const [before] = await tx
      .select({
        version: circuitDiagrams.version,
        drawnBy: circuitDiagrams.drawnBy,
        netlist: circuitDiagrams.netlist,
        name: circuits.name,
      })
      .from(circuitDiagrams)
      .innerJoin(circuits, eq(circuits.id, circuitDiagrams.circuitId))
      .where(eq(circuitDiagrams.circuitId, circuitId))
      .for("update", { of: circuitDiagrams });
    if (String(before!.version) !== fields.version) return changedMeanwhile("this circuit");
    const { netlist, added } =
      drawn && fields.register === "on"
        ? await registerDrawn(tx, circuitId, drawn)
        : { netlist: drawn, added: [] as string[] };
    await tx
      .update(circuitDiagrams)
      .set({
        ...(netlist && { netlist }),
        drawnBy: propose ? "" : actor.name,
        version: before!.version + 1,
        // drawing and fit are made again at the next look
        basis: "",
        updatedAt: new Date(now()),
      })
      .where(eq(circuitDiagrams.circuitId, circuitId));
    await audit(tx, actor, {
      what: propose ? `went back to the proposed circuit of ${before!.name}` : `drew the circuit of ${before!.name}`,
      recordId: circuitId,
      before: { netlist: before!.netlist, drawnBy: before!.drawnBy },
      after: { netlist, ...(added.length > 0 && { added }) },
    });
    await markDiagnosisStale(tx, circuitId);
    return { ok: true, id: circuitId };
  });
  if (answer.ok) await diagramOf(circuitId);
  return answer;
}
