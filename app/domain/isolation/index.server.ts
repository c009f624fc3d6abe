/** What others use of the isolation of faults. */
export { diagnoseStaleCircuits } from "./diagnose.server";
export { adviseTestPoints } from "./testPoints.server";
export { caseOf } from "./caseOf.server";
export { closeIsolation, enterResult, openIsolation } from "./cases.server";
export { beginPractice, practiceName, practiceTest } from "./practice.server";
export { evidenceWords } from "./evidence.server";
