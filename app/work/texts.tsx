/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
import type { ReactNode } from "react";

export const alternativesTable = {
  compareTheAlternatives: "Compare the alternatives",
  pricingThem: "Pricing them …",
  alternativesTheCheapestFirst: "Alternatives, the cheapest first",
  expectedCostFailingBefore: "expected cost, failing before included",
  noForecastFaultOr: "No forecast, fault or booking asks for work here: there is nothing to price.",
  way: "way",
  when: "when",
  crewHours: "crew hours",
  cost: "cost",
  limitBefore: "limit before",
  failsBefore: "fails before",
  cure: "cure",
  stopGapTheCause: "stop-gap: the cause stays open",
  nothingIsDone: "nothing is done",
  hoursOrCostsAre: "; hours or costs are usual ones of the kind",
  estimatesForDecidingNot: (assumed: string) =>
    `Estimates for deciding, not a promise${assumed}. A stop-gap is priced as if it changed nothing of the wear.`,
};

export const book = {
  bookWorkJuncteral: "Book work · Juncteral",
  toBeDoneNow: (component: string) => `${component}: to be done now`,
  noStopIsPlanned: (component: string) => `${component}: no stop is planned yet`,
  theOnIsThe: (component: string, name: string, at: string) =>
    `${component}: the ${name} on ${at} is the first that the part can make`,
  thePartComesAfter: (component: string) => `${component}: the part comes after every planned stop`,
  likelyPastItsLimit: (component: string, name: string, at: string) =>
    `${component}: likely past its limit before the ${name} on ${at}`,
  work: "Work",
  bookedAlready: "Booked already:",
  atWhichStop: "At which stop?",
  stop: "Stop",
  ofTheLimitBefore: (probability: string) => `${probability} of the limit before · `,
  nowItNeedsNo: "Now: it needs no stop",
  aStopOfIts: "A stop of its own, not planned yet",
  whatIsToBe: "What is to be done",
  crewHours: "Crew hours",
  partOrderedOn: "Part ordered on",
  emptyNotOrderedYet: "Empty: not ordered yet",
  whyAndWhatTo: "Why, and what to mind",
  confirmByLoadTest: "Confirm by load test before money is spent, where the manufacturer's manual allows it.",
  aStopGapIts: "A stop-gap: its cause stays open, to be looked at again",
  bookAnotherPieceOf: "Book another piece of work for this component",
  bookIt: "Book it",
};

export const campaign = {
  campaign: "Campaign",
  juncteral: (title: string) => `${title} · Juncteral`,
  anEngineerClosesA: "An engineer closes a campaign.",
  notLookedAt: "not looked at",
  newVariantNothingTo: "new variant, nothing to do",
  oldVariantToBe: "old variant, to be changed",
  oldVariantChanged: "old variant, changed",
  work: "Work",
  dueByDate: "Due by date",
  toBeChanged: (old: number) => `, ${old} to be changed`,
  ofSettled: (title: string, settled: number, parts: number, old: string) =>
    `${title}: ${settled} of ${parts} settled${old}`,
  doneBy: (dueOn: string) => `Done by ${dueOn}. `,
  closedBy: (closedBy: null | string) => `Closed by ${closedBy}. `,
  marking: "Marking:",
  bulletin: (bulletin: string, why: string, dueOn: string, closedAt: string, done: ReactNode, marking: string) => (
    <>
      Bulletin {bulletin}. {why} {dueOn}
      {closedAt}
      {done} {marking}
    </>
  ),
  parts: "Parts",
  marked: (marking: string) => `; marked ${marking}`,
  found: "Found",
  choose: "choose",
  markingRead: "Marking read",
  keep: "Keep",
  bookTheChange: "Book the change",
  closeTheCampaign: "Close the campaign",
};

export const carryOut = {
  procedures: "Procedures",
  allProcedures: "All procedures",
  noneIsBegunA: "None is begun. A procedure leads step by step, and the record is made while it is done.",
  thePlantVersion: (version: number) => `, the plant’s version ${version}`,
  holdPointSkipped: (skippedHolds: number) => `${skippedHolds} hold point${skippedHolds > 1 ? "s" : ""} skipped`,
  standsAtTheHold: (text: string) => `; stands at the hold point “${text}”`,
  ofStepsBegunBy: (
    closed: number,
    steps: number,
    startedAt: string,
    startedBy: string,
    version: string,
    skippedHolds: ReactNode,
    next: string,
  ) => (
    <>
      {closed} of {steps} steps; begun {startedAt} by {startedBy}
      {version}
      {skippedHolds}
      {next}
    </>
  ),
  seeTheSteps: "See the steps",
  goOnWithIt: "Go on with it",
  findingWrittenDownOn: (findings: number) => `${counted(findings, "finding")} written down on opening.`,
  theDebrisEventOf: "The debris event of this circuit",
  debrisWasFoundOpen: "Debris was found: open a debris event",
  beginWith: "Begin with",
  thePlantOwn: "the plant’s own",
  version: (machine: string, version: number) => ` (${machine}, version ${version})`,
  beginIt: "Begin it",
  noProcedureIsWritten: "No procedure is written for this kind of part.",
};

export const compared = {
  notMeasured: "not measured",
  point: "point",
  before: "before",
  after: "after",
  difference: "difference",
  comparedAt: "compared at",
  expected: (value: string, basis: string) => `; expected ${value} (${basis})`,
  notKnownYet: "not known yet",
  medianOfAndReadings: (temperature: string, pressure: string, then: string, before: number, after: number) =>
    `${temperature}${pressure}${then}median of ${before} and ${after} readings`,
};

export const due = {
  dueByDateJuncteral: "Due by date · Juncteral",
  work: "Work",
  dueByDate: "Due by date",
  nothingFallsDueWithin: (ahead: number) => `Nothing falls due within ${ahead} days`,
  ofLate: (late: number, due: number) => `${late} of ${due} ${late === 1 ? "is" : "are"} late`,
  fallDueWithinDays: (due: number, ahead: number) => `${due} fall${due === 1 ? "s" : ""} due within ${ahead} days`,
  stopGapsToLook:
    "Stop-gaps to look at again, valves that seldom move, hoses at their longest usual life, fills to " +
    "change back, campaigns, work that no reading proves yet, work that waits for no stop or missed its own, calibrations.",
  campaigns: "Campaigns",
  beginACampaign: "Begin a campaign",
  noBulletinRunsAs: "No bulletin runs as a campaign.",
  closed: ", closed",
  ofSettled: (settled: number, parts: number, closedAt: string) => `${settled} of ${parts} settled${closedAt}`,
  valvesThatSeldomMove: "Valves that seldom move",
  noPartHasA:
    "No part has a longest time without a move. It is stated at the part; what stands still for months seizes.",
  noMoveIsOn: "no move is on record",
  movedBy: (last: string, by: null | string) => `moved ${last} by ${by}`,
  nextBy: (dueAt: string) => `, next by ${dueAt}`,
  atLeastEveryDays: (days: number, last: string, dueAt: string) =>
    `at least every ${counted(days, "day")}; ${last}${dueAt}`,
  itWasMovedToday: "It was moved today",
  movingAValveMoves: "Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.",
};

export const findingText = {
  withdrawnBy: (by: string, at: string, because: string) => `Withdrawn by ${by}, ${at}${because}`,
};

export const who = {
  sentByAnother: (by: string, sentBy: string) => `${by} (sent by ${sentBy})`,
};

export const intervention = {
  forTheRecord: "For the record, and for the next shift",
  readingsFromThisMoment: "Readings from this moment on are the new part’s",
  workJuncteral: "Work · Juncteral",
  isolateLockAndRelease:
    "Isolate, lock and release stored pressure (accumulators and pressurised reservoirs too); prove zero " +
    "at a gauge.",
  suspendedLoadsArePropped:
    "Suspended loads are propped before a line is opened. Hot oil; eye protection; card, never the hand, " +
    "to look for a leak.",
  torqueSettingsAndLimits:
    "Torque, settings and limits come from the manufacturer's current manual; isolation and lifting " +
    "follow local codes and are done by licensed people.",
  measureBeforeWashingKeep:
    "Measure before washing, keep debris as evidence, plug every open line. Fill the case before the " +
    "first start; the case drain stays open.",
  whereItCameFrom: "Where it came from",
  done: (machine: string, component: string, doneAt: string) => `${machine}, ${component}: done ${doneAt}`,
  cancelled: (machine: string, component: string) => `${machine}, ${component}: cancelled`,
  on: (stop: string, startsOn: string) => `${stop} on ${startsOn}`,
  noStopYet: "no stop yet",
  work: "Work",
  becauseOf: ", because of",
  thisPoint: "this point",
  crewHoursBookedBy: (kind: string, crewHours: number, bookedBy: string, pointId: ReactNode, note: string) => (
    <>
      {kind}, {crewHours} crew hours, booked by {bookedBy}
      {pointId}. {note}
    </>
  ),
  condemnedBy: "Condemned by:",
  theRecord: "The record",
  beforeBesideAfter: "Before beside after",
  theComponentHasNo: "The component has no point: nothing to compare.",
  notProvenYetRepeat: "Not proven yet: repeat the reading that condemned the part, at the same conditions.",
  logItNow: "Log it now",
  whatWasFoundAnd: "What was found and done",
  nothingWasNoted: "Nothing was noted.",
  unknownHours: "unknown hours",
  withPart: (lifeSerial: string) => ` with part ${lifeSerial}`,
  aNewLifeBegan: (lifeSerial: string) =>
    ` A new life began${lifeSerial}; its baseline is provisional until 20 readings.`,
  byAt: (doneBy: ReactNode, doneHours: string, startedLifeId: string) => (
    <>
      By {doneBy} at {doneHours}.{startedLifeId}
    </>
  ),
  partOrdered: (partOrderedOn: string) => `Part ordered ${partOrderedOn}: `,
  partNotOrdered: "Part not ordered: ",
  plan: "Plan",
  stop: "Stop",
  aStopOfIts: "a stop of its own",
  moveItThere: "Move it there",
  partIsOrdered: "Part is ordered",
  cancelTheWork: "Cancel the work",
  cancelThisWork: "Cancel this work?",
  itLeavesTheStop: "It leaves the stop. The record keeps that it was booked and cancelled.",
  recordItAsDone: "Record it as done",
  doneAt: "Done at",
  runningHours: "Running hours",
  lastNoted: (counter: string) => `Last noted: ${counter}`,
  serialOfTheNew: "Serial of the new part",
  whatWasFoundChanged: "What was found, changed, measured",
  changedForGoodA: "Changed for good (a modification): what, where it is one",
  trendsOfThePart: "Trends of the part begin anew from here.",
  trendsOfTheWhole: "Trends of the whole circuit begin anew",
  iAcceptByName: "I accept by name that it stays altered",
  theHoursAreRight: "The hours are right all the same",
  theLifeOfThe: "The life of the old part ends here and a new one begins, with a provisional baseline.",
  theLifeOfThePart: "The life of the part goes on.",
  everythingAlteredForThe: (kind: string) =>
    `${kind} Everything altered for the work must be put back before you sign.`,
};

export const newCampaign = {
  beginACampaignJuncteral: "Begin a campaign · Juncteral",
  work: "Work",
  dueByDate: "Due by date",
  beginACampaign: "Begin a campaign",
  aManufacturerBulletinPart: "A manufacturer’s bulletin, part by part",
  everyPartOfThe:
    "Every part of the kind is put on a list: its marking tells which variant it is, and the list tells " +
    "which are done.",
  whatIsChanged: "What is changed",
  counterbalanceInsteadOfPilot: "Counterbalance instead of pilot check",
  bulletinNumberAndRevision: "Bulletin, number and revision",
  site: "Site",
  doneBy: "Done by",
  emptyNoDayNamed: "Empty: no day named",
  kindOfPart: "Kind of part",
  modelWhereOnlyOne: "Model, where only one is concerned",
  howTheOldVariant: "How the old variant is told from the new one",
  why: "Why",
  beginTheCampaign: "Begin the campaign",
};

export const photo = {
  dataImageJpegBase64: (base64: string) => `data:image/jpeg;base64,${base64}`,
  n3pxSolidFff: "3px solid #fff",
  n0002px: "0 0 0 2px #000, inset 0 0 0 1.5px #000",
  photographWithoutACaption: "Photograph without a caption",
  noCaption: "no caption",
  thatFileIsNo: "That file is no picture that this tablet can read.",
  leaveIt: "Leave it",
  makingThePictureReady: "Making the picture ready …",
  tapWhereToLook: "Tap where to look; tap a ring to take it away.",
  thePhotographJustTaken: "The photograph just taken",
  ringArrowsMoveIt: (i: number) => `Ring ${i}: arrows move it, Delete takes it away`,
  whatItShows: "What it shows",
  keepThePhotograph: "Keep the photograph",
  ringInTheMiddle: "Ring in the middle",
};

export const procedure = {
  procedure: "Procedure",
  juncteral: (title: string) => `${title} · Juncteral`,
  work: "Work",
  procedures: "Procedures",
  thePlantOwn: "The plant’s own",
  versionBy: (machine: string, version: number, madeBy: string) => `${machine}, version ${version} by ${madeBy}.`,
  asItShipsCommon: "As it ships: common practice; the manufacturer’s document goes first.",
  stepsHoldPoints: (purpose: string, copyId: string, procedure: number, holds: number) =>
    `${purpose} ${copyId} ${counted(procedure, "step")}, ${counted(holds, "hold point")}.`,
  alwaysRenewed: "Always renewed:",
  hold: "HOLD",
  nobodyGoesOnWithout: (hold: string) => `Nobody goes on without it: ${hold}.`,
  notRecommended: (notRecommended: string) => `Not recommended: ${notRecommended}`,
  changeItANew: "Change it: a new version",
  makeItThePlant: "Make it the plant’s own",
  editTheStepsAs: "Edit the steps as text",
  title: "Title",
  forText: "For",
  allMachines: "all machines",
  steps: "Steps",
  itAsksForLeave: "it asks for: leave it on lines that you only reword, leave it out on new ones. A new line may ask ",
  forSomethingItselfAt: "for something itself, at its end: => pressure: At the test port, => text: Serial, => torque.",
  alwaysRenewedOneA: "Always renewed, one a line",
  theseHoldPointsAre: "These hold points are left out on purpose",
  workThatIsUnder: "Work that is under way goes on with the version it began with, and records keep it.",
  keepAsTheNext: "Keep as the next version",
  keepAsThePlant: "Keep as the plant’s own",
  takeItOutOf: "Take it out of use",
  takeThisCopyOut: "Take this copy out of use?",
  theProcedureAsIt: "The procedure as it ships is offered again. Records keep the version they were done with.",
};

export const procedures = {
  proceduresJuncteral: "Procedures · Juncteral",
  thePlantOwn: "the plant’s own",
  version: (machine: string, version: number) => `, ${machine}, version ${version}`,
  stepsHoldPoints: (steps: number, holds: number) => `${counted(steps, "step")}, ${counted(holds, "hold point")}`,
  work: "Work",
  procedures: "Procedures",
  ofThePlantOwn: (own: number) => `, ${own} of the plant’s own`,
  proceduresInAll: (procedures: number, own: string) => `${procedures} procedures${own}`,
  commonPracticeInGeneral:
    "Common practice, in general words. The manufacturer’s current document for the part goes first, and " +
    "is asked for by number and revision. A procedure is begun from a piece of work.",
  thePlantOwnProcedures: "The plant’s own",
  asTheyShip: "As they ship",
};

export const reason = {
  sayWhyInA: "Say why in a few words.",
  no: "No",
};

export const record = {
  recordOfWorkJuncteral: "Record of work · Juncteral",
  work: "Work",
  record: "Record",
  signedBy: (signedAt: string) => `Signed ${signedAt} by`,
  notSignedStillOpen: "Not signed: still open to changes",
  printOrKeepAs: "Print, or keep as PDF",
  theSameAsJson: "The same as JSON",
  holdPointsThatWere: "Hold points that were skipped",
  why: "Why",
  aStopOfIts: "a stop of its own",
  at: (doneHours: string) => `, at ${doneHours}`,
  by: (doneAt: string, doneBy: ReactNode, doneHours: string) => (
    <>
      {doneAt} by {doneBy}
      {doneHours}
    </>
  ),
  notYet: "not yet",
  noSerial: "no serial",
  outIn: (oldSerial: string, newSerial: string, model: string) => `${oldSerial} out, ${newSerial} in${model}`,
  whatWasFound: "What was found",
  nothingWasWrittenDown: "Nothing was written down.",
  thePlantVersion: (version: number) => `the plant’s version ${version}`,
  asItShips: "as it ships",
  begunBy: (version: string, startedAt: string, startedBy: string) => `${version}, begun ${startedAt} by ${startedBy}`,
  hold: "HOLD",
  skipped: (reason: string) => `Skipped: ${reason}`,
  open: "open",
  releasedBy: (by: string) => `; released by ${by}`,
  takenBackBy: (by: string, at: string, reason: string) => `Taken back by ${by}, ${at}: ${reason}`,
  proof: "Proof",
  noPointToCompare: "No point to compare.",
  signedWithoutProof: (because: string, by: string | null) => `Signed without proof: ${because} (${by ?? ""})`,
  asLeft: "As left",
  notWrittenDown: "not written down",
  none: "none",
  putBackBy: (putBackBy: null | string, putBackAt: string) => `; put back by ${putBackBy}, ${putBackAt}`,
  acceptedBy: (what: string, by: string, at: string, putBackAt: string) =>
    `${what}: accepted by ${by}, ${at}${putBackAt}`,
  closedBy: (lookedAgainBy: null | string, lookedAgainAt: string) => `closed by ${lookedAgainBy}, ${lookedAgainAt}`,
  noDayNamed: "no day named",
  itsCauseStaysOpen: (lookAgainOn: string) => `its cause stays open; look again on ${lookAgainOn}`,
  additionsAfterSigning: "Additions after signing",
  signatures: "Signatures",
  torquesSettingsAndLimits:
    "Torques, settings and limits come from the manufacturer’s current document, named above where it was noted.",
  toTheWork: "To the work",
};

export const records = {
  recordsOfWorkJuncteral: "Records of work · Juncteral",
  work: "Work",
  records: "Records",
  andMore: " and more",
  recordWith: (records: number, more: string, text: string) =>
    `${records}${more} record${records === 1 ? "" : "s"} with “${text}”`,
  workThatWasDone: "Work that was done",
  machinePartNumberOr: "Machine, part number or serial, finding, person",
  find: "Find",
  noRecordHasAll: "No record has all of these words.",
  noWorkHasBeen: "No work has been recorded yet.",
  stopGap: "stop-gap",
  signed: "signed",
  notSigned: "not signed",
  theNewestSixtyAdd: "The newest sixty. Add a word to find fewer.",
};

export const run = {
  procedure: "Procedure",
  juncteral: (title: string) => `${title} · Juncteral`,
  seeTheWork: "See the work",
  partsOfTheProcedure: "Parts of the procedure",
  findings: "Findings",
  alwaysRenewed: "Always renewed:",
  back: (title: string) => `Back: ${title}`,
  next: (title: string) => `Next: ${title}`,
  allStepsAreClosed: "All steps are closed: record the work",
  steps: "steps",
  of: (closed: number, count: number) => `${closed} of ${count}`,
  holdPointSkipped: (skippedHolds: number) => `${skippedHolds} hold point${skippedHolds > 1 ? "s" : ""} skipped`,
  leave: "Leave",
  stepsClosed: "Steps closed",
  signInAgain: "sign in again",
  youWereSignedOut: (a: ReactNode) => <>You were signed out. Nothing is lost: {a}, and what is kept here is sent.</>,
};

export const runFindings = {
  findingsBeforeAnythingIs: "Findings, before anything is washed",
  nothingIsWrittenDown: "Nothing is written down yet.",
  writeOneDown: "Write one down",
  writeDownAnother: "Write down another",
  kindOfFinding: "Kind of finding",
  whatWasWrongWith: "What was wrong with it? The finding stays on the record, struck out.",
  withdrawIt: "Withdraw it",
  keepTheFinding: "Keep the finding",
};

export const runSend = {
  thisCannotBeRead: "This cannot be read.",
};

export const runStep = {
  hold: "HOLD",
  skipped: (reason: string) => `skipped: ${reason}. `,
  releasedBy: (by: string) => `; released by ${by}`,
  waitsForAnEngineer: "; waits for an engineer's release",
  notBeforeTheHold: "Not before the hold point:",
  nobodyGoesOnWithout: "Nobody goes on without it:",
  itGoesOnThe: (alters: string) =>
    `It goes on the machine’s list of temporary changes until it is put back: ${alters}.`,
  whyIsItSkipped: "Why is it skipped? The record keeps it for ever.",
  whyIsItTaken: "Why is it taken back?",
  skipIt: "Skip it",
  takeItBack: "Take it back",
  done: "Done",
  seenAndReleased: "Seen and released.",
  releaseIt: "Release it",
  aHoldPointIs: "A hold point is not skipped; an engineer may, with a reason.",
  photographWantedHere: "Photograph (wanted here)",
  photograph: "Photograph",
};

export const runTroubles = {
  you: (troubles: number) => `${troubles} ${troubles === 1 ? "entry needs" : "entries need"} you`,
  takenBack: "taken back",
  finding: (values: string) => `Finding: ${values}`,
  aFindingWithdrawn: (reason: string) => `A finding withdrawn: ${reason}`,
  yours: (own: string) => `Yours: ${own}`,
  recordMineAsWell: "Record mine as well",
  sendAgain: "Send again",
  keepTheirs: "Keep theirs",
  discard: "Discard",
};

export const typedFields = {
  whereKnown: ", where known",
  choose: "Choose",
};

export const work = {
  workJuncteral: "Work · Juncteral",
  notSigned: "not signed",
  done: (doneAt: string) => `done ${doneAt}`,
  crewHours: (crewHours: number) => `${crewHours} crew hours`,
  noPartNeeded: "no part needed",
  pieceOfWorkFell: (missed: number) => `${counted(missed, "piece")} of work fell past a stop`,
  partAfterTheStop: (late: number) => `${late} part${late === 1 ? " comes" : "s come"} after the stop`,
  pieceOfWorkBooked: (open: number) => `${counted(open, "piece")} of work booked, parts in time`,
  noWorkIsBooked: "No work is booked",
  planAStop: "Plan a stop",
  seeThePlan: "See the plan",
  dueByDate: (due: string) => `Due by date${due}`,
  procedures: "Procedures",
  records: "Records",
  stopHasPassedWork: "Stop has passed, work still open",
  day: (name: string, startsOn: string, days: number) => `${name}, ${startsOn}, ${counted(days, "day")}`,
  ofCrewHours: (hours: number, crewHours: number) => `${hours} of ${crewHours} crew hours`,
  edit: (name: string) => `Edit ${name}`,
  editIt: "Edit",
  nothingBooked: "Nothing booked.",
  noStopIsPlanned: "No stop is planned.",
  anEngineerPlansStops: "An engineer plans stops.",
  atLaterStops: "At later stops",
  withoutAStop: "Without a stop",
  doneSoFar: "Done",
  allRecords: "All records",
  noWorkHasBeen: "No work has been recorded yet.",
};

export const writeUp = {
  forTheRecord: "For the record",
  partsAndSerialsUsed: "Parts and serials used",
  settingsAsLeft: "Settings as left",
  whatStaysOpen: "What stays open",
  howItStandsWhat: "How it stands, what stays open",
  people: "People",
  aStopGapIts: "A stop-gap: its cause stays open",
  lookAgainOn: "Look again on",
  keepIt: "Keep it",
  kept: "Kept.",
  stillAlteredOnThe: "Still altered on the machine",
  acceptedBy: (acceptedBy: ReactNode, acceptedAt: string) => (
    <>
      accepted by {acceptedBy}, {acceptedAt}
    </>
  ),
  acceptThatItStays: (what: string) => `Accept that it stays: ${what}`,
  acceptIt: "Accept that it stays",
  signed: "Signed",
  notProven: (unprovenBecause: string) => `, not proven: ${unprovenBecause}`,
  provenByAReading: ", proven by a reading",
  checkedBy: (checkedBy: null | string, checkedAt: string) => `Checked by ${checkedBy}, ${checkedAt}.`,
  aSecondPersonIs: "A second person is still to check it.",
  signedBy: (strong: ReactNode, signedAt: string, unprovenBecause: string, checkedAt: string) => (
    <>
      Signed by {strong}, {signedAt}
      {unprovenBecause}. {checkedAt}
    </>
  ),
  checkedSignAsThe: "Checked: sign as the second person",
  lookedAtItHolds: "Looked at: it holds, look again on",
  itsCauseIsDealt: "its cause is dealt with",
  anAdditionToThe: "An addition to the record",
  addIt: "Add it",
  signTheRecord: "Sign the record",
  noReadingSinceProves: "No reading since proves it. Why it is signed all the same",
  theReadingsSinceDo: "The readings since do not prove it. Why it is signed all the same",
  aSignedRecordIs: "A signed record is locked: what comes later is an addition to it. Signed as you, with the time.",
  signIt: "Sign it",
  anEngineerSignsIt: "An engineer signs it.",
};
