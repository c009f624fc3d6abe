/** The fleet: what stands in it, its paths and settings, templates, the fleet file. */
export { addRecord, editRecord } from "./commands.server";
export { factsOf } from "./facts.server";
export { exportFleet } from "./fleetFile/export.server";
export { importFleet } from "./fleetFile/import.server";
export { recordMeterChange, withdrawMeterChange } from "./hourMeter.server";
export { afterEdit } from "./paths.server";
export { type PresentLife, presentLifeOf } from "./presentLife.server";
export {
  type MachineCircuit,
  type MachinePoint,
  areaList,
  choices,
  fleetList,
  machinePage,
  machinePlace,
  recordOf,
} from "./queries.server";
export { siteTimeZone, sitesInUse } from "./site.server";
export { machineFromTemplate, siteNames } from "./template.server";
