/** Jobs: begun with a complaint or with what else begins one, and ended by hand. */
export { beginJob, beginJobs, closeJob, complain, jobOfCircuit, partsOfCircuit, reopenJob } from "./jobs.server";
