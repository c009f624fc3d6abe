/** The stored assessment of an oil, where this version can read it. */
import { sql } from "drizzle-orm";
import type { OilAssessment } from "@core";
import { oilAssessments } from "~/db/oilTables";

/** Shape of the JSON that an oil's assessment stores. Count it on when it changes: what has another shape is not read, and made again. */
export const OIL_SHAPE = 6;

/** The stored assessment where it has the shape that this version reads, else null. */
export const currentOil = sql<OilAssessment | null>`case when ${oilAssessments.shape} = ${OIL_SHAPE} then ${oilAssessments.detail} end`;
