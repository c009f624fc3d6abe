/** What the pages of this place say, page by page; a page holds no text of its own. */
export const findBox = {
  findAMachinePoint: "Find a machine, point or action",
  findAMachinePointAction: "Find a machine, point, action",
  nothingByThatName: "Nothing by that name.",
};

export const outbox = {
  ofThisDeviceCould: (troubles: number) =>
    `${troubles} ${troubles === 1 ? "entry" : "entries"} of this device could not be saved `,
  andYou: (troubles: number) => `and ${troubles === 1 ? "needs" : "need"} you.`,
  keptOnThisDevice: (waiting: number) =>
    `${waiting} ${waiting === 1 ? "entry is" : "entries are"} kept on this device and will be sent when ` +
    "the server answers.",
  openWhereItWas: "Open where it was made",
};

export const shell = {
  since: (lastSeen: string) => ` since ${lastSeen}`,
  assessmentsHaveStopped: (lastSeen: string) => `Assessments have stopped${lastSeen}: `,
  veryMany: "very many",
  areWaitingAndNo: (waiting: number | string) => `${waiting} are waiting and no worker is running. Readings are safe; `,
  theirAssessmentsAreOut: "their assessments are out of date.",
  couldNotBeAssessed: (failed: number) =>
    `${failed} ${failed === 1 ? "record" : "records"} could not be assessed. See Records.`,
  today: "Today",
  fleet: "Fleet",
  rounds: "Rounds",
  oil: "Oil",
  isolate: "Isolate",
  plan: "Plan",
  work: "Work",
  calculators: "Calculators",
  records: "Records",
  skipToTheScreen: "Skip to the screen",
  places: "Places",
};
