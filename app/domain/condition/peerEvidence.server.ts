/** What lives tell their peers: kept for every life, the ended ones too, and read back as the prior of a forecast. */
import { HOUR } from "@core";
import { sql } from "drizzle-orm";
import type { LifeOutcome } from "@core";
import type { Queryable } from "~/db/client.server";
import { components, peerEvidence, lives, points } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { assessPointOf, contextOf, countOfLife, readingsOfLife, type PointSetup } from "./setups.server";
import { assessInThread } from "./threads.server";

/** Peers that are heard, those that reached their limit first: more tell nothing new. */
const MOST_PEERS = 80;
/** The newest ended lives of a part that are read. */
const MOST_ENDED = 12;
/** An ended life is read again after so long: an old reading may have been corrected or recalled since. */
const READ_AGAIN = 23 * HOUR;

/** Parts of one kind that are read for one quantity wear alike. */
const familyOf = (s: Pick<PointSetup, "componentKind" | "quantity">) => `${s.componentKind}/${s.quantity}`;

export interface LifeEvidence {
  /** As JSON; null: too few readings, or no limit. */
  life: string | null;
  reached: boolean;
  outcome: LifeOutcome | null;
}

export async function keepEvidence(
  tx: Queryable,
  setup: PointSetup,
  lifeId: string,
  { life, reached, outcome }: LifeEvidence,
): Promise<void> {
  const moment = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));
  const values = {
    family: familyOf(setup),
    reached,
    crossedAt: moment(outcome?.crossedAt),
    seenUntil: moment(outcome?.seenUntil),
    evidence: sql`${life}::jsonb`,
    madeAt: new Date(now()),
  };
  await tx
    .insert(peerEvidence)
    .values({ pointId: setup.pointId, lifeId, ...values })
    .onConflictDoUpdate({ target: [peerEvidence.pointId, peerEvidence.lifeId], set: values });
}

/** Read the ended lives of a point that have not been read lately. They are taken on their own, as if no peer were known. */
export async function readEndedLives(tx: Queryable, setup: PointSetup): Promise<void> {
  const { rows } = await tx.execute<{
    lifeId: string;
    startHours: number;
    startedAt: string;
    knownWhenNew: boolean;
  }>(sql`
    select e.id as "lifeId", e.start_hours as "startHours", e.started_at as "startedAt", e.known_when_new as "knownWhenNew" from (
      select l.* from ${points} p join ${lives} l on l.component_id = p.component_id where p.id = ${setup.pointId}
        and l.ended_at is not null order by l.ended_at desc limit ${MOST_ENDED}
    ) e left join ${peerEvidence} t on t.point_id = ${setup.pointId} and t.life_id = e.id
    where t.made_at is null or t.made_at < ${new Date(now() - READ_AGAIN).toISOString()}`);
  for (const { lifeId, startHours, startedAt, knownWhenNew } of rows) {
    const readings = await readingsOfLife(tx, setup.pointId, lifeId);
    const context = {
      ...contextOf(setup, [], { startHours, startedAt: new Date(startedAt) }),
      readingsInAll: await countOfLife(tx, setup.pointId, lifeId),
    };
    await keepEvidence(
      tx,
      setup,
      lifeId,
      await assessInThread({
        readings,
        point: assessPointOf(setup, knownWhenNew),
        context,
        kind: setup.componentKind,
        peers: [],
        ended: true,
      }),
    );
  }
}

/**
 * What the lives of points of the same kind of component and quantity tell, as JSON texts; earlier lives of the
 * same part among them, the life itself left out.
 */
export async function peersOf(tx: Queryable, setup: PointSetup): Promise<string[]> {
  const { rows } = await tx.execute<{ pointId: string; lifeId: string; evidence: string }>(sql`
    select t.point_id as "pointId", t.life_id as "lifeId", t.evidence::text as evidence
    from ${peerEvidence} t join ${points} p on p.id = t.point_id join ${components} c on c.id = p.component_id
    where t.family = ${familyOf(setup)} and t.evidence is not null and p.retired_at is null and c.retired_at is null
    order by t.reached desc, t.point_id, t.life_id limit ${MOST_PEERS + 1}`);
  return rows
    .filter((r) => r.pointId !== setup.pointId || r.lifeId !== setup.lifeId)
    .slice(0, MOST_PEERS)
    .map((r) => r.evidence);
}
