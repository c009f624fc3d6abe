/** What other subjects use of the condition: assessing, what an assessment is made of, marking stale. */
export {
  addEmptyAssessments,
  ASSESSMENT_SHAPE,
  assessPoint,
  assessPoints,
  currentDetail,
  currentParts,
  issuedOf,
  issuedRow,
  markDiagnosisStale,
  markStale,
  partsOf,
  stopsBySite,
  type AssessmentParts,
} from "./assessment.server";
export { assessOilNow, markOilStale } from "./oilAssessment.server";
export { oilInput, oilSampleOf, samplesOf } from "./oilInput.server";
export { currentOil } from "./oilStored.server";
export {
  assessedColumns,
  assessPointOf,
  assessReadingOf,
  contextOf,
  fluidOf,
  pointSetups,
  readingsOfLife,
} from "./setups.server";
export { assessInThread } from "./threads.server";
export { leadTimeNow, leadTimeNowOf, notOver, notOverOf } from "./chances.server";
export { claimStale, sweep } from "./claims.server";
export { marginTrendOf, type MarginTrend } from "./trend";
export { usualAt } from "./usualConditions.server";
