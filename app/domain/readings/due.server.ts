/** When a point of a round is due; one expression for every page. */
import { sql } from "drizzle-orm";
import { now } from "~/runtime/clock.server";

/** Days between readings as the round and the point set them. Needs active_points p, rounds r. */
export const usualDays = sql`least(p.interval_days, coalesce(r.interval_hours / nullif(p.hours_per_day, 0), r.interval_days))`;

/**
 * Days until a point is read again, as in core/rounds/interval.ts: the point's interval, the round's (days, or
 * hours through the duty), closer as P10 nears. Needs active_points p, round_points rp, rounds r, assessments a.
 */
export function intervalDays() {
  return sql`case when a.asks_again then 0 when r.closer and a.p10 is not null and a.state in ('drifting', 'alert', 'alarm')
    then least(${usualDays}, greatest(7, floor(extract(epoch from a.p10 - ${new Date(now()).toISOString()}::timestamptz) / 86400 / 6)))
    else ${usualDays} end`;
}

/**
 * The moment at which it is due. One that was never read is due today, and late once the round has asked for it for a whole
 * interval; none is late on the day a round is begun.
 */
export function dueAt() {
  return sql`greatest(r.begun_at, case when p.last_reading_at is null
    then least(${new Date(now()).toISOString()}::timestamptz, greatest(r.begun_at, rp.added_at) + ${usualDays} * interval '1 day')
    else p.last_reading_at + ${intervalDays()} * interval '1 day' end)`;
}

/** The joins that the two need: points in use of rounds in use. */
export const roundJoins = sql`active_points p join round_points rp on rp.point_id = p.id
  join rounds r on r.id = rp.round_id and r.retired_at is null left join assessments a on a.point_id = p.id`;
