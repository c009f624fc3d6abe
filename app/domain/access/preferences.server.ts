/** What people change about themselves. */
import { eq } from "drizzle-orm";
import type { UnitPreference } from "@core";
import { db } from "~/db/client.server";
import { users } from "~/db/peopleTables";

export async function saveUnits(userId: string, units: UnitPreference): Promise<void> {
  await db().update(users).set({ units }).where(eq(users.id, userId));
}
