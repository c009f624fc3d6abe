/** What lives tell their sisters: kept for every life, the ended ones too, and read back as the prior of a forecast. */
import { sql } from "drizzle-orm";
import { assess, defaultPrior, learnPrior, type SisterLife, type WearPrior } from "@core";
import type { Queryable } from "~/db/client.server";
import { components, lifeLessons, lives, points } from "~/db/schema";
import { now } from "./clock.server";
import { assessPointOf, contextOf, readingsOfLives, type PointSetup } from "./setups.server";

const MAX_SISTERS = 200;
/** The newest ended lives of a part that are read. */
const MOST_ENDED = 12;
/** An ended life is read again after so long: an old reading may have been corrected or recalled since. */
const READ_AGAIN = 23 * 3_600_000;

const familyOf = (s: { componentKind: string; quantity: string }) => `${s.componentKind}/${s.quantity}`;

export async function keepLessons(tx: Queryable, lessons: readonly { pointId: string; lifeId: string; told: SisterLife | null }[]): Promise<void> {
  if (lessons.length === 0) return;
  const madeAt = new Date(now());
  await tx.insert(lifeLessons).values(lessons.map((l) => ({ ...l, madeAt })))
    .onConflictDoUpdate({ target: [lifeLessons.pointId, lifeLessons.lifeId], set: { told: sql`excluded.told`, madeAt: sql`excluded.made_at` } });
}

/** Read the ended lives of these points, those that have not been read lately. They are taken on their own, as if no sister were known. */
export async function tellEndedLives(tx: Queryable, setups: readonly PointSetup[]): Promise<void> {
  const { rows } = await tx.execute<{ pointId: string; lifeId: string; startHours: number; knownWhenNew: boolean }>(sql`
    select e."pointId", e."lifeId", e."startHours", e."knownWhenNew" from (
      select p.id as "pointId", l.id as "lifeId", l.start_hours as "startHours", l.known_when_new as "knownWhenNew", row_number() over (partition by p.id order by l.ended_at desc) as place
      from ${points} p join ${lives} l on l.component_id = p.component_id where p.id in ${setups.map((s) => s.pointId)} and l.ended_at is not null
    ) e left join ${lifeLessons} t on t.point_id = e."pointId" and t.life_id = e."lifeId"
    where e.place <= ${MOST_ENDED} and (t.made_at is null or t.made_at < ${new Date(now() - READ_AGAIN).toISOString()})`);
  if (rows.length === 0) return;
  const readOf = await readingsOfLives(tx, rows.map((r) => r.pointId), rows.map((r) => r.lifeId));
  const setupOf = new Map(setups.map((s) => [s.pointId, s]));
  await keepLessons(tx, rows.map(({ pointId, lifeId, startHours, knownWhenNew }) => {
    const setup = setupOf.get(pointId)!;
    return { pointId, lifeId, told: assess(readOf(pointId, lifeId), assessPointOf(setup, knownWhenNew), contextOf(setup, [], defaultPrior, startHours)).life };
  }));
}

/** What the lives of points of the same kind of component and quantity say, earlier lives of the same part among them; the life itself left out. */
export async function priorsOf(tx: Queryable, setups: readonly PointSetup[]): Promise<(setup: PointSetup) => WearPrior> {
  const families = [...new Set(setups.map(familyOf))];
  const { rows } = await tx.execute<{ family: string; pointId: string; lifeId: string; told: SisterLife }>(sql`
    select family, "pointId", "lifeId", told from (
      select c.kind || '/' || p.quantity as family, t.point_id as "pointId", t.life_id as "lifeId", t.told,
             row_number() over (partition by c.kind, p.quantity order by (t.told ->> 'reached') desc nulls last, l.started_at desc, t.point_id) as place
      from ${lifeLessons} t join ${points} p on p.id = t.point_id join ${components} c on c.id = p.component_id join ${lives} l on l.id = t.life_id
      where t.told is not null and p.retired_at is null and c.kind || '/' || p.quantity in ${families}
    ) ranked where place <= ${MAX_SISTERS}`);
  const byFamily = new Map<string, typeof rows>();
  for (const row of rows) {
    const list = byFamily.get(row.family) ?? [];
    list.push(row);
    byFamily.set(row.family, list);
  }
  return (setup) => learnPrior((byFamily.get(familyOf(setup)) ?? []).filter((l) => l.pointId !== setup.pointId || l.lifeId !== setup.lifeId).map((l) => l.told), defaultPrior);
}
