/** Isolation of faults: cases, evidence, tests, standing diagnoses. */
export { caseOf } from "./caseOf.server";
export { type CasePage, type ShownTest, casePage } from "./casePage.server";
export { closeIsolation, doubtGauges, doubtLeaning, enterResult, openIsolation, withdrawResult } from "./cases.server";
export { diagnoseStaleCircuits } from "./diagnose.server";
export { evidenceTexts, evidenceWords } from "./evidence.server";
export { circuitNamed, circuitsNamed, faultPage, isolationsListed, standingFaults } from "./place.server";
export { addKnowledge, plantEntries, retireKnowledge } from "./plant.server";
export { beginPractice, practiceName, practiceOf, practicePage, practiceTest } from "./practice.server";
export { adviseTestPoints, askTestPoints, testPointsPage } from "./testPoints.server";
