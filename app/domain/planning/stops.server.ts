/** Planned stops: when one is over, in the days of its own site. */
import { sql } from "drizzle-orm";
import { sites, stops } from "~/db/schema";
import { now } from "~/runtime/clock.server";

const present = () => sql`${new Date(now()).toISOString()}::timestamptz`;

/** SQL: a stop is to come, or under way, at its site. Needs the tables stops and sites, joined. */
export const notOver = () =>
  sql`${stops.startsOn} + ${stops.days} > (${present()} at time zone ${sites.timeZone})::date`;

/** The same for aliases: stop s, site t. */
export const notOverOf = () => sql`s.starts_on + s.days > (${present()} at time zone t.time_zone)::date`;
