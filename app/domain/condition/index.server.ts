/** The condition of a point: assessing, what an assessment is made of, marking stale. */
export { assessPoint, assessPoints, assessStalePoints, stopsBySite } from "./assessment.server";
export { addEmptyAssessments, markAllStale, markDiagnosisStale, markStale } from "./marking.server";
export { issuedOf, issuedRow } from "./issued.server";
export { ASSESSMENT_SHAPE, type AssessmentParts, currentDetail, currentParts, partsOf } from "./shape.server";
export { leadTimeNow, leadTimeNowOf, notOver, notOverOf } from "./chances.server";
export { claimStale, sweep } from "./claims.server";
export { assessCircuits, assessOilNow, assessStaleCircuits, markOilStale } from "./oilAssessment.server";
export { oilInput, oilSampleOf, samplesOf } from "./oilInput.server";
export { currentOil } from "./oilStored.server";
export {
  assessPointOf,
  assessReadingOf,
  assessedColumns,
  contextOf,
  fluidOf,
  pointSetups,
  readingsOfLife,
} from "./setups.server";
export { assessInThread } from "./threads.server";
export { type MarginTrend, marginTrendOf } from "./trend";
export { usualAt } from "./usualConditions.server";
