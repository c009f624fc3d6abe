/**
 * The tables. Values are stored in core units; what was typed is kept beside them. Readings are never
 * changed or deleted: a correction supersedes. Assessments are derived and can be rebuilt.
 */
export * from "./assetTables";
export * from "./instrumentTables";
export * from "./readingTables";
export * from "./conditionTables";
export * from "./circuitTables";
export * from "./jobTables";
export * from "./isolationTables";
export * from "./workTables";
export * from "./workRunTables";
export * from "./planTables";
export * from "./roundTables";
export * from "./checkTables";
export * from "./recordTables";
export * from "./views";
