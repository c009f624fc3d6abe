/** The sites of a plant, and the time zone in which its people write dates that belong to no machine. */
import { isNull } from "drizzle-orm";
import { db } from "~/db/client.server";
import { sites } from "~/db/schema";

/** More stand in no list. */
const MOST_SITES = 50;

/** Sites in use, by name: where their settings are. */
export async function sitesInUse(): Promise<{ id: string; name: string }[]> {
  return db()
    .select({ id: sites.id, name: sites.name })
    .from(sites)
    .where(isNull(sites.retiredAt))
    .orderBy(sites.name)
    .limit(MOST_SITES);
}

/** The time zone of the first of them. */
export async function siteTimeZone(): Promise<string> {
  const [row] = await db()
    .select({ timeZone: sites.timeZone })
    .from(sites)
    .where(isNull(sites.retiredAt))
    .orderBy(sites.name)
    .limit(1);
  return row?.timeZone ?? "UTC";
}
