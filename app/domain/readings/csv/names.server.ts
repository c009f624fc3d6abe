/** Names that a logger or a spreadsheet gives to points: tied to a point once, and known from then on. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { circuits, components, machines, pointNames, points } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { foldCode, type ImportPoint } from "./rows";

/** Names of one file that are offered to be tied; a file with more names many that are not points. */
const MOST_NAMES = 60;

/** A name as a file writes it, and the point that it is tied to. */
export interface NameInFile {
  /** As compared: folded, machine and component with it. */
  key: string;
  /** As written. */
  text: string;
  rows: number;
  /** Code of the point that it was tied to; null: it is not known. */
  code: string | null;
}

/** Names of a file that no code of the fleet explains, counted while it is read. */
export class NamesInFile {
  private readonly names = new Map<string, NameInFile>();

  take(key: string, text: string, code: string | null): void {
    const there = this.names.get(key);
    if (there) there.rows++;
    else if (this.names.size < MOST_NAMES) this.names.set(key, { key, text, rows: 1, code });
  }

  get list(): NameInFile[] {
    return [...this.names.values()];
  }
}

/** Names that were tied, by key: of points out of use too, whose old readings still come in. */
export async function tiedNames(byId: ReadonlyMap<string, ImportPoint | null>): Promise<Map<string, ImportPoint>> {
  const rows = await db().select({ key: pointNames.key, pointId: pointNames.pointId }).from(pointNames);
  const tied = new Map<string, ImportPoint>();
  for (const { key, pointId } of rows) {
    const point = byId.get(pointId);
    if (point) tied.set(key, point);
  }
  return tied;
}

/** The names as the form sends them: `name-0` is the code of the point that `key-0` means; empty: none. */
export function namesOf(fields: Record<string, string>): { field: string; key: string; code: string }[] {
  return Array.from({ length: MOST_NAMES }, (_, i) => `name-${i}`).flatMap((field, i) => {
    const key = fields[`key-${i}`];
    return key ? [{ field, key: key.slice(0, 400), code: (fields[field] ?? "").trim() }] : [];
  });
}

/** Codes as they are typed and chosen: machine, component, point. */
const codeOf = sql<string>`lower(${machines.tag} || '/' || ${components.name} || '/' || ${points.name})`;

/**
 * Tie names to the points that were chosen; an empty code lets a name go. Told in the record of changes.
 * @returns what is wrong, by field; null: nothing
 */
export async function tieNames(
  names: readonly { field: string; key: string; code: string }[],
  actor: Actor,
): Promise<Record<string, string> | null> {
  if (names.length === 0) return null;
  const codes = [...new Set(names.map((n) => foldCode(n.code)).filter(Boolean))];
  const [found, known] = await Promise.all([
    codes.length === 0
      ? []
      : db()
          .select({ id: points.id, code: codeOf })
          .from(points)
          .innerJoin(components, eq(components.id, points.componentId))
          .innerJoin(circuits, eq(circuits.id, components.circuitId))
          .innerJoin(machines, eq(machines.id, circuits.machineId))
          .where(and(inArray(codeOf, codes), isNull(points.retiredAt), isNull(machines.retiredAt))),
    db()
      .select({ key: pointNames.key, pointId: pointNames.pointId })
      .from(pointNames)
      .where(
        inArray(
          pointNames.key,
          names.map((n) => n.key),
        ),
      ),
  ]);
  const before = new Map(known.map((k) => [k.key, k.pointId]));
  const problems: Record<string, string> = {};
  const changed: { key: string; pointId: string | null }[] = [];
  for (const { field, key, code } of names) {
    const meant = found.filter((p) => p.code === foldCode(code));
    if (code && meant.length !== 1)
      problems[field] = meant.length === 0 ? "There is no such point." : "Several points are called so.";
    else if ((before.get(key) ?? null) !== (meant[0]?.id ?? null)) changed.push({ key, pointId: meant[0]?.id ?? null });
  }
  if (Object.keys(problems).length > 0) return problems;
  if (changed.length === 0) return null;
  await db().transaction(async (tx) => {
    for (const { key, pointId } of changed) {
      if (pointId === null) await tx.delete(pointNames).where(eq(pointNames.key, key));
      else
        await tx
          .insert(pointNames)
          .values({ key, pointId, by: actor.name })
          .onConflictDoUpdate({ target: pointNames.key, set: { pointId, by: actor.name, at: sql`now()` } });
      const recordId = pointId ?? before.get(key)!;
      await audit(tx, actor, {
        what: `${pointId === null ? "let go of" : "took"} the name “${key}” in files`,
        recordId,
      });
    }
  });
  return null;
}
