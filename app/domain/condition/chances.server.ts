/** SQL of the chances to act: stops that are not over, in the days of their own site, and how long a part takes as things stand. */
import { sql } from "drizzle-orm";
import { components, sites, stops } from "~/db/schema";
import { now } from "~/runtime/clock.server";

const present = () => sql`${new Date(now()).toISOString()}::timestamptz`;

/** A stop is to come, or under way, at its site. Needs the tables stops and sites, joined. */
export const notOver = () =>
  sql`${stops.startsOn} + ${stops.days} > (${present()} at time zone ${sites.timeZone})::date`;

/** The same for aliases: stop s, site t. */
export const notOverOf = () => sql`s.starts_on + s.days > (${present()} at time zone t.time_zone)::date`;

/** Lead time of a component's part, days; 0 with a spare on the shelf. Needs the table components, joined. The rule: `partReadyOn` of core. */
export const leadTimeNow = sql<
  number | null
>`case when ${components.sparesOnHand} > 0 then 0 else ${components.leadTimeDays} end`;

/** The same for alias c. */
export const leadTimeNowOf = sql`case when c.spares_on_hand > 0 then 0 else c.lead_time_days end`;
