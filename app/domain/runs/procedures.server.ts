/** The procedures of a plant: those that ship, and copies that it made its own, each version kept. */
import { and, asc, eq, isNull, sql } from "drizzle-orm";
import { proceduresForWork, stepsOf, workProcedures, type WorkProcedure } from "@core";
import { db } from "~/db/client.server";
import { plantProcedures } from "~/db/schema";
import { machines } from "~/db/assetTables";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, type Answer } from "~/domain/answer";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";
import { procedureFrom } from "./procedureForm";

export interface PlantProcedure extends WorkProcedure {
  /** Of a plant's copy: its id; null: as it ships. */
  copyId: string | null;
  version: number;
  machineId: string | null;
  machine: string | null;
  madeBy: string;
}

const shipped = (procedure: WorkProcedure): PlantProcedure => ({
  ...procedure,
  copyId: null,
  version: 0,
  machineId: null,
  machine: null,
  madeBy: "",
});

/** Copies in use, in their newest version. */
async function copies(): Promise<PlantProcedure[]> {
  const rows = await db()
    .selectDistinctOn([plantProcedures.copyId], {
      copyId: plantProcedures.copyId,
      version: plantProcedures.version,
      machineId: plantProcedures.machineId,
      machine: machines.name,
      procedure: plantProcedures.procedure,
      madeBy: plantProcedures.madeBy,
    })
    .from(plantProcedures)
    .leftJoin(machines, eq(machines.id, plantProcedures.machineId))
    .where(isNull(plantProcedures.retiredAt))
    .orderBy(asc(plantProcedures.copyId), sql`${plantProcedures.version} desc`)
    .limit(300);
  return rows.map(({ procedure, ...rest }) => ({ ...procedure, ...rest }));
}

export const allProcedures = async (): Promise<PlantProcedure[]> => [
  ...(await copies()),
  ...workProcedures.map(shipped),
];

/** Those for a piece of work: a machine's own first, then the plant's, then as they ship. */
export async function proceduresFor(kind: string, work: WorkProcedure["fits"][number], machineId: string) {
  const all = (await allProcedures()).filter((p) => p.machineId === null || p.machineId === machineId);
  const own = (p: PlantProcedure) => (p.machineId ? 0 : p.copyId ? 1 : 2);
  return proceduresForWork(
    kind,
    work,
    [...all].sort((a, b) => own(a) - own(b)),
  );
}

/** A procedure by the id in an address: that of a copy, or of one that ships. */
export async function procedureBy(id: string): Promise<PlantProcedure> {
  const ships = workProcedures.find((p) => p.id === id);
  if (ships) return shipped(ships);
  const copy = isUuid(id) ? (await copies()).find((c) => c.copyId === id) : undefined;
  if (!copy) throw notFound("procedure");
  return copy;
}

/** Make a copy of a procedure, or a new version of a copy. What runs already goes on with the version it began with. */
export async function keepCopy(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const base = await procedureBy(id);
  const read = procedureFrom(base, fields);
  if (!read.ok) return read;
  const machineId = isUuid(fields.machineId) ? fields.machineId : null;
  if (base.copyId && Number(fields.version) !== base.version) return changedMeanwhile("this procedure", base.madeBy);
  const copyId = base.copyId ?? (isUuid(fields.submission) ? fields.submission : crypto.randomUUID());
  return db().transaction(async (tx): Promise<Answer> => {
    const [row] = await tx
      .insert(plantProcedures)
      .values({
        copyId,
        version: base.version + 1,
        machineId,
        procedure: read.procedure,
        madeAt: new Date(now()),
        madeBy: actor.name,
      })
      .onConflictDoNothing({ target: [plantProcedures.copyId, plantProcedures.version] })
      .returning({ id: plantProcedures.id });
    if (!row) return base.copyId ? changedMeanwhile("this procedure") : { ok: true, id: copyId };
    await audit(tx, actor, {
      what: `procedure ${read.procedure.title}, version ${base.version + 1}`,
      recordId: copyId,
      before: { steps: stepsOf(base).length },
      after: { steps: stepsOf(read.procedure).length },
    });
    return { ok: true, id: copyId };
  });
}

/** Take a copy out of use: the one that ships is offered again. */
export async function retireCopy(copyId: string, actor: Actor): Promise<Answer> {
  const rows = await db()
    .update(plantProcedures)
    .set({ retiredAt: new Date(now()) })
    .where(and(eq(plantProcedures.copyId, copyId), isNull(plantProcedures.retiredAt)))
    .returning({ id: plantProcedures.id });
  if (rows.length === 0) throw notFound("procedure");
  await audit(db(), actor, { what: "took a procedure out of use", recordId: copyId });
  return { ok: true, id: copyId };
}
