/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "./counted";
import type { ReactNode } from "react";

export const calculation = {
  theResultAppearsAs: "The result appears as soon as every field is filled in correctly.",
  overTheWorkingHolds: (title: string, label: string, xLabel: string) =>
    `${title}: ${label} over ${xLabel}. The working holds the numbers.`,
  howThisWasWorked: "How this was worked out",
  choose: "choose",
  leftOut: "left out",
  suchAs: (example: string) => `such as ${example}`,
};

export const calculationChart = {
  at: (label: string | undefined, y: string, x: string) => `${label}: ${y} at ${x}`,
};

export const canvas = {
  theChartCouldNot: "The chart could not be loaded. The table has the same data.",
};

export const diagram = {
  notReadYet: "not read yet",
  hose: "Hose",
  pipe: "Pipe",
  rated: (rating: string) => `rated ${rating}`,
  bore: (bore: string) => `${bore} bore`,
  fitted: (fittedOn: string) => `fitted ${fittedOn}`,
};

export const circuitStrip = {
  thisPart: "this part",
  placeOfInThe: (label: string, name: string, at: number, parts: number) =>
    `${label}: ${name}, place ${at} of ${parts} in the circuit`,
  youAreHere: "you are here",
};

export const componentPicker = {
  noComponentByThat: "No component by that name.",
};

export const confirm = {
  no: "No",
};

export const errorPage = {
  theDatabaseDoesNot: "The database does not answer",
  nothingThatWasSaved: "Nothing that was saved is lost. This page looks again every few seconds and goes on by itself.",
  tooManyAtOnce: "Many people ask at this moment",
  itGoesOnByItself:
    "All is well, only busy: nothing is lost. This page tries again every few seconds and goes on by itself.",
  thisIsForAn: "This is for an",
  youAreSignedIn: (has: ReactNode) => (
    <>You are signed in as {has}. Ask an engineer of your site to do it, or sign in with another name.</>
  ),
  page: "page",
  thereIsNoSuch: (what: string) => `There is no such ${what}`,
  theAddressMayBe: "The address may be old, or the record was retired. The find box opens machines and points by name.",
  thisPageCouldNot: "This page could not be made",
  theFaultIsOurs: "The fault is ours and has been written to the log. What you saved before is safe.",
  goToToday: "Go to Today",
};

export const importFile = {
  rowsFromTo: (count: number, first: number, last: number) => `${count} rows, ${first} to ${last}`,
  notUsed: (columns: string) => `Columns that nothing is taken from: ${columns}.`,
  fileAtMostMb: (limitMb: number) => `File, at most ${limitMb} MB`,
  separatedBy: "Separated by",
  decimalMark: "Decimal mark",
  point34: "point, 3.4",
  comma34: "comma, 3,4",
  dates: "Dates",
  linesAboveTheHeadings: "Lines above the headings",
  aTitleForExample: "A title, for example",
  firstRowIsA: "First row is a heading",
  notInTheFile: "not in the file",
  column: (i: number, h: string) => `column ${i} (${h})`,
  theFileHasNo: "The file has no rows",
  toAdd: (add: number) => `${add} to add`,
  thereAlready: (there: number) => `${there} there already`,
  bad: (bad: number) => `${bad} bad`,
  willBeAdded: "will be added",
  isThereAlready: "there already",
  badRowsByLine: "Bad rows, by line",
  theFirstOf: (bad: number, countsBad: number) => `the first ${bad} of ${countsBad}`,
  badRows: "Bad rows",
  line: (line: number) => `line ${line}`,
  leaveOutTheBad: (bad: number) => `Leave out the ${counted(bad, "bad row")} and import the rest`,
  runningHoursToLook: "Values and running hours to look at",
  importedAsTheyAre: "imported as they are; hours that do not fit are not used",
  rowsWithOddHours: "Rows to look at",
  firstRowsAndWhat: "First rows and what becomes of them",
  firstRows: "First rows",
  lineOfTheFile: "line",
  fate: "fate",
  whatIsWhat: "What is what",
  lookAgain: "Look again",
  importText: (add: number, noun: string) => `Import ${add} ${noun}${add === 1 ? "" : "s"}`,
  everyGoodRowIs: ": every good row is recorded already",
  underThisMapping: " under this mapping",
  thereIsNothingTo: (there: string) => `There is nothing to add${there}.`,
  theRowsAreBeing: "The rows are being stored.",
  everyRowIsBeing: "Every row is being looked at.",
  youMayLeaveThis: (stage: string) => `${stage} You may leave this page: it goes on by itself.`,
  storing: "Storing",
  reading: "Reading",
};

export const marginRule = {
  notYetKnown: "not yet known",
  farBeyondTheLimit: "far beyond the limit",
  ofMarginUsed: (max: string) => `${max} % of margin used`,
};

export const mark = {
  juncteral: "Juncteral",
};

export const odds = {
  over99: "over 99 %",
  under1: "under 1 %",
  was: (before: string) => `, was ${before}`,
};

export const page = {
  whereYouAre: "Where you are",
};

export const site = {
  daysLate: (days: number) => `${counted(days, "day")} late`,
  today: "today",
  inDays: (days: number) => `in ${days} days`,
};

export const spark = {
  marginUsedOverMonths: (months: number, points: string, last: string) =>
    `Margin used over ${months} months: from ${points} % to ${last} %`,
};
