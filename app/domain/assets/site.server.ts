/** The time zone in which people of a plant write dates that belong to no machine. */
import { isNull } from "drizzle-orm";
import { db } from "~/db/client.server";
import { sites } from "~/db/schema";

export async function siteTimeZone(): Promise<string> {
  const [row] = await db()
    .select({ timeZone: sites.timeZone })
    .from(sites)
    .where(isNull(sites.retiredAt))
    .orderBy(sites.name)
    .limit(1);
  return row?.timeZone ?? "UTC";
}
