/** What others use of the isolation of faults. */
export { diagnoseStaleCircuits } from "./diagnose.server";
