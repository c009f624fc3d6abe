/** SQL of parts: a spare on the shelf needs no lead time. The rule itself is `partReadyOn` of core. */
import { sql } from "drizzle-orm";
import { components } from "~/db/schema";

/** Lead time of a component's part as it stands, days; 0 with a spare on the shelf. Needs the table components, joined. */
export const leadTimeNow = sql<
  number | null
>`case when ${components.sparesOnHand} > 0 then 0 else ${components.leadTimeDays} end`;

/** The same for alias c. */
export const leadTimeNowOf = sql`case when c.spares_on_hand > 0 then 0 else c.lead_time_days end`;
