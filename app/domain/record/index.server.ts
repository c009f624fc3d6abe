/** The record of finished work: before and after, write-up, signatures. */
export { type BeforeAfter, beforeAndAfter } from "./proof.server";
export { findRecords, recordPage } from "./record.server";
export { addAddendum, againstSigning, checkWork, lookedAgain, signWork, writeUp } from "./sign.server";
