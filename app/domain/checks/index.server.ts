/** Guided tests at the machine: their records. */
export { addPlantTest, noteChange, putBack, recordTest } from "./commands.server";
export { allTests, componentPlace, lastRecord, openChanges, recentRecords, recordPage, testOf } from "./queries.server";
