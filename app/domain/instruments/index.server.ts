/** Instruments and their calibrations. */
export { recallInstrument, recordCheck, saveInstrument, withdrawRecall } from "./commands.server";
export { fitsOf, instrumentList, instrumentPage, instrumentRow } from "./queries.server";
