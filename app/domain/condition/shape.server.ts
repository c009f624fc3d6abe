/** What is stored of an assessment, and which shape of it holds. */
import { sql, type SQL } from "drizzle-orm";
import { assessments, type AssessmentDetail } from "~/db/schema";

/**
 * Shape of the JSON that an assessment stores. Count it on when it changes, or when
 * the words of verdicts do: what has another shape is not read, and made again.
 */
export const ASSESSMENT_SHAPE = 11;

/** What the pages of a machine and its circuits read of an assessment: a fraction of it. */
export type AssessmentParts = Pick<AssessmentDetail, "baseline" | "limits" | "expectation" | "lastAt" | "margin">;

export const partsOf = (alias: SQL) => sql<AssessmentParts | null>`case when ${alias}.shape = ${ASSESSMENT_SHAPE} then
  jsonb_build_object('baseline', ${alias}.detail -> 'baseline', 'limits', ${alias}.detail -> 'limits',
    'expectation', ${alias}.detail -> 'expectation', 'lastAt', ${alias}.detail -> 'lastAt', 'margin', ${alias}.detail -> 'margin') end`;

export const currentParts = partsOf(sql`${assessments}`);

/** The stored assessment where it has the shape that this version reads, else null. */
export const currentDetail = sql<AssessmentDetail | null>`case when ${assessments.shape} = ${ASSESSMENT_SHAPE} then ${assessments.detail} end`;

export const asDate = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));
