/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
import type { ReactNode } from "react";

export const fleetFile = {
  fleetFileJuncteral: "Fleet file · Juncteral",
  chooseAFile: "Choose a file.",
  records: "Records",
  importAFleetFile: "Import a fleet file",
  itAddsWhatIs: "It adds what is missing and changes nothing that is there: the same file twice adds nothing.",
  added: (added: string) => `Added ${added}`,
  nothingToAdd: "Nothing to add",
  wereThereAlready: (added: string, there: number) => `${added}; ${there} were there already.`,
  openTheFleet: "Open the fleet",
  nothingWasAdded: "Nothing was added.",
  fleetFileJson: "Fleet file, JSON",
  importIt: "Import it",
};

export const importPage = {
  beginTheseLives: "Begin these lives at their first reading, where it is older than “fitted on”",
  itsReadingsStay: "Its readings stay on record as superseded and count no more; the file may be brought in again.",
  takenBack: (by: string) => `Taken back by ${by}`,
  anEngineerTakesBack: "An engineer takes an import back.",
  importReadingsJuncteral: "Import readings · Juncteral",
  records: "Records",
  importText: "Import",
  theFileIsBeing: "The file is being imported",
  theFileIsBeingRead: "The file is being read",
  kb: (fileName: string, bytes: number) => `${fileName}, ${bytes} kB.`,
  nothingWasImported: "Nothing was imported",
  chooseTheFileAgain: "Choose the file again",
  wereThereAlready: (there: number) => `, ${there} were there already`,
  readingAdded: (added: null | number, there: string) => `${counted(added ?? 0, "reading")} added${there}`,
  thePointsTheyBelong: "The points they belong to are being assessed; Today shows it in a moment.",
  goToToday: "Go to Today",
  importAnotherFile: "Import another file",
  nothingIsSavedYet: (fileName: string) => `${fileName}. Nothing is saved yet.`,
  unitOfBareValues: "Unit of bare values",
  emptyEachPointOwn: "Empty: each point's own",
  unitOfBareLoads: "Unit of bare loads",
  emptyBar: "Empty: bar",
  unitOfBareOil: "Unit of bare oil temperatures",
  emptyC: "Empty: °C",
  orAllRowsAre: "Or all rows are of",
  thePointInIts: "the point in its column",
};

export const records = {
  recordsJuncteral: "Records · Juncteral",
  moreThan: "More than ",
  readingsOnRecord: (more: string, readings: string) => `${more}${readings} readings on record`,
  theRecordIsEmpty: "The record is empty so far",
  readingsAreNeverChanged: "Readings are never changed or deleted: a correction supersedes, and both stay.",
  bringReadingsIn: "Bring readings in",
  fromAnyCsvMap: "From any CSV: map the columns, see the fate of every row, then import.",
  importReadings: "Import readings",
  aTechnicianCanImport: "A technician can import.",
  takeReadingsOut: "Take readings out",
  machine: "Machine",
  theWholeFleet: "the whole fleet",
  from: "From",
  to: "To",
  withSupersededReadings: "With superseded readings",
  exportAsCsv: "Export as CSV",
  samplesOfOil: "Samples of oil",
  exportAllSamplesAs: "Export all samples as CSV",
  importALaboratoryFile: "Import a laboratory’s file",
  theFleetAsOne: "The fleet as one file",
  sitesMachinesHourMeters:
    "Sites, machines, hour meters, circuits, components with every life, points with their limits, " +
    "fluids, instruments with their calibrations, rounds and stops, as JSON with a published schema. " +
    "With the readings it brings the record back into an empty database.",
  exportTheFleetFile: "Export the fleet file",
  importAFleetFile: "Import a fleet file",
  couldNotBeAssessed: "Could not be assessed",
  triedAgainByItself: "tried again by itself",
  time: "time",
  times: "times",
  last: (triedAt: string) => `, last ${triedAt}`,
  correctedReadings: "Corrected readings",
  noneYet: "None yet.",
  imports: "Imports",
  added: (fileName: string, added: ReactNode) => (
    <>
      {fileName}: {added} added
    </>
  ),
  changesToTheFleet: "Changes to the fleet",
};

export const upload = {
  importReadingsJuncteral: "Import readings · Juncteral",
  records: "Records",
  importReadingsFromA: "Import readings from a CSV file",
  columnsInAnyOrder:
    "Columns in any order, comma, semicolon or tab, decimal points or commas. Nothing is saved before " +
    "you have seen what becomes of every row.",
  lookAtTheFile: "Look at the file",
};
