/** Work: procedures with hold points, findings on opening, proof. */
export { answerText, fieldsOfAsk, stepProblems } from "./answers";
export type { AskField } from "./answers";
export { findingFields, findingKindIds, findingKinds, findingProblems, findingSays } from "./findings";
export type { FindingKindId } from "./findings";
export { jobStages, jobStand } from "./job";
export type { JobFacts, JobStageId, JobStageState, JobStand } from "./job";
export { entryProblem, standOfRun, stepsOf } from "./progress";
export type { RunStand, StepStand } from "./progress";
export { proceduresForWork, workProcedures } from "./procedures/index";
export { expectedAfter, isProven, proofOf, proofSides } from "./proof";
export type { Proof } from "./proof";
export { withUnits } from "./settled";
export type { Ask, StepEntry, WorkPhase, WorkProcedure, WorkRules, WorkStep } from "./types";
