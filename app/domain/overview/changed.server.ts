/** What changed since a person last looked at Today: states that became others, and work that was done. */
import { and, eq, isNull, lt, or, sql } from "drizzle-orm";
import type { ConditionState } from "@core";
import { ask, db } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { now } from "~/runtime/clock.server";

const MINUTE = 60_000;
/** Looks that follow one another within so long are one visit. */
const VISIT = 4 * 60 * MINUTE;
/** A look is noted so often at most. */
const NOTED = 5 * MINUTE;
const SHOWN = 6;

export interface ChangedPoint {
  pointId: string;
  machine: string;
  component: string;
  point: string;
  state: ConditionState;
  before: ConditionState;
}

export interface Changed {
  /** When the person looked before this visit, epoch ms. */
  since: number;
  points: ChangedPoint[];
  /** How many states changed, and pieces of work that were done. */
  states: number;
  done: number;
}

/** Of assessment a. A point that has become known to be steady is no news. */
const changedSince = (from: string) =>
  sql`a.state_since > ${from} and a.state_before is not null and not (a.state = 'steady' and a.state_before in ('unproven', 'unread'))`;

/** Note that a person looks. @returns when they did before this visit; null: never */
async function look(personId: string): Promise<number | null> {
  const at = now();
  await db()
    .update(users)
    .set({
      lookedBefore: sql`case when ${users.lookedAt} < ${new Date(at - VISIT).toISOString()} then ${users.lookedAt} else ${users.lookedBefore} end`,
      lookedAt: new Date(at),
    })
    .where(and(eq(users.id, personId), or(isNull(users.lookedAt), lt(users.lookedAt, new Date(at - NOTED)))));
  const [row] = await db().select({ before: users.lookedBefore }).from(users).where(eq(users.id, personId));
  return row?.before?.getTime() ?? null;
}

/** What changed since a person looked before this visit; null: they never did, or nothing has. */
export async function sinceLastLook(personId: string): Promise<Changed | null> {
  const since = await look(personId);
  if (since === null) return null;
  const from = new Date(since).toISOString();
  const [points, [counts]] = await Promise.all([
    ask<ChangedPoint>(sql`
      select p.id as "pointId", p.machine, p.component, p.name as point, a.state, a.state_before as before
      from assessments a join active_points p on p.id = a.point_id
      where ${changedSince(from)} order by a.urgency desc, p.id limit ${SHOWN}`),
    ask<{ states: number; done: number }>(sql`
      select (select count(*)::int from assessments a join active_points p on p.id = a.point_id
               where ${changedSince(from)}) as states,
             (select count(*)::int from interventions where done_at > ${from}) as done`),
  ]);
  const { states, done } = counts!;
  return states + done > 0 ? { since, points, states, done } : null;
}
