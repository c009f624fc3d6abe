/** How a point is usually read. */
import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import { usualCondition, type UsualCondition } from "@core";
import { statement } from "~/db/client.server";
import { readings } from "~/db/schema";

const NEWEST = 24;

const newestConditions = statement((tx) =>
  tx
    .select({ pressure: readings.pressure, temperature: readings.temperature })
    .from(readings)
    .where(
      and(
        eq(readings.pointId, sql.placeholder("point")),
        isNull(readings.supersededAt),
        isNotNull(readings.pressure),
        isNotNull(readings.temperature),
      ),
    )
    .orderBy(desc(readings.takenAt))
    .limit(NEWEST),
);

/** Load and oil temperature that a point is usually read at; null where too few readings noted them. */
export async function usualAt(pointId: string): Promise<UsualCondition | null> {
  const rows = await newestConditions({ point: pointId });
  return usualCondition(rows.reverse());
}
