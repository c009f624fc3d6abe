/** What stands on the first pages: what waits for a decision, what changed, the frame. */
export { type Changed, sinceLastLook } from "./changed.server";
export { openDecisions } from "./decisions.server";
export { type MatrixCell, fleetMatrix } from "./matrix.server";
export { find, shellCounts } from "./shell.server";
export {
  type Decision,
  type FaultNeed,
  HORIZON_MONTHS,
  type HorizonLine,
  type Need,
  type NextStop,
  type OilNeed,
  duePoints,
  dueRounds,
  horizon,
  needs,
  oilNeeds,
  stateCounts,
  stopsAhead,
} from "./today.server";
