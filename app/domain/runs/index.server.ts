/** Procedures being done: steps, holds, findings, what stands altered. */
export { acceptAltered, acceptByName, acceptedFor, alteredAt } from "./altered.server";
export { allProcedures, keepCopy, procedureBy, proceduresFor, retireCopy } from "./procedures.server";
export { receiveWork } from "./receive.server";
export {
  type RunPage,
  type WorkRun,
  findingsOf,
  openRuns,
  photosOf,
  runPage,
  runState,
  runsOf,
  startRun,
} from "./run.server";
