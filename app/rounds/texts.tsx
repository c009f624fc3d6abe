/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
import type { ReactNode } from "react";

export const alsoDue = {
  alsoDueAtThis: "Also due at this machine",
  moved: "moved",
  itWasMoved: (what: string) => `It was moved: ${what}`,
  moveNoted: "It was moved",
  movingAValveMoves: "Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.",
};

export const edit = {
  roundJuncteral: "Round · Juncteral",
  rounds: "Rounds",
  edit: (name: string) => `Edit ${name}`,
  addARound: "Add a round",
  name: "Name",
  walkedBy: "Walked by",
  howOften: "How often",
  weekly: "weekly",
  monthly: "monthly",
  byCalendarDays: "by calendar days",
  byRunningHours: "by running hours",
  days: "Days",
  runningHours: "Running hours",
  readMoreOftenAs: "Read more often as a point approaches its limit",
  onTheWayPoint: (order: number) => `On the way, ${counted(order, "point")}`,
  addPoints: "Add points",
  pointsByMachineAnd: "Points by machine and name",
  machineOrPoint: "Machine or point",
  addAll: (found: number) => `Add all ${found}`,
  saveTheRound: "Save the round",
  addTheRound: "Add the round",
  retireIt: "Retire it",
};

export const keypad = {
  deleteTheLastDigit: "delete the last digit",
  plusOrMinus: "plus or minus",
  unitTakeTheNext: (unit: string) => `unit: ${unit}, take the next`,
  inText: (unit: string) => `in ${unit}`,
};

export const round = {
  round: "Round",
  juncteral: (name: string) => `${name} · Juncteral`,
  rounds: "Rounds",
  hasNoPoints: (name: string) => `${name} has no points`,
  ofPointsAreLate: (name: string, late: number, points: number) =>
    `${name}: ${late} of ${points} points ${late === 1 ? "is" : "are"} late`,
  nothingIsLate: (name: string) => `${name}: nothing is late`,
  walkedBy: (walkedBy: string) => `Walked by ${walkedBy}. `,
  retired: "Retired. ",
  walkIt: "Walk it",
  printASheet: "Print a sheet",
  edit: "Edit",
  alsoDueAtThese: "Also due at these machines",
  chooseItsPoints: "Choose its points",
  anEngineerChoosesIts: "An engineer chooses its points.",
  onTheWay: "on the way",
  state: "state",
  lastReading: "last reading",
  withText: "with",
  every: "every",
  due: "due",
  none: "none",
  whichFits: "which fits?",
  days: (everyDays: number) => counted(everyDays, "day"),
};

export const rounds = {
  roundsJuncteral: "Rounds · Juncteral",
  noRoundIs: "No round is",
  oneRoundIs: "One round is",
  twoRoundsAre: "Two rounds are",
  threeRoundsAre: "Three rounds are",
  fourRoundsAre: "Four rounds are",
  fiveRoundsAre: "Five rounds are",
  noRoundYet: "No round yet",
  noRoundIsLate: "No round is late",
  roundsAre: (late: number) => `${late} rounds are`,
  late: (late: string) => `${late} late`,
  readingsInWalkingOrder: "Readings in walking order, with their conditions, on a tablet with or without a network.",
  instruments: "Instruments",
  tests: "Tests",
  addARound: "Add a round",
  aRoundIsA: "A round is a list of points in the order in which they are walked.",
  orAddAMachine: "Or add a machine from a template, with its round",
  anEngineerAddsThe: "An engineer adds the first one.",
  days: (intervalDays: number) => counted(intervalDays, "day"),
  runningHours: (intervalHours: string) => `${intervalHours} running hours`,
  readMoreOftenNear: (closer: number) => `, ${closer} read more often near their limit`,
  every: (points: number, intervalHours: string, closer: string, walkedBy: string) =>
    `${points} ${points === 1 ? "point" : "points"}, every ${intervalHours}${closer}${walkedBy}`,
  noPoints: "no points",
  nothingDue: "nothing due",
  due: (due: number) => `${due} due`,
  walkIt: "Walk it",
  paper: "Paper",
};

export const send = {
  thisCannotBeRead: "This cannot be read.",
};

export const sheet = {
  roundSheetJuncteral: "Round sheet · Juncteral",
  to: (least: string, high: string) => `${least} to ${high}`,
  back: "Back",
  print: "Print",
  readByOnOil:
    "Read by ____________________ on ____________ . Oil under pressure pierces skin: never search for a " +
    "leak with the hand. Expected ranges hold at the reference condition, or as it runs.",
  point: "point",
  read: "read",
  withText: "with",
  last: "last",
  expected: "expected",
  oil: "oil",
  load: "load",
  hours: "hours",
  reading: "reading",
};

export const walk = {
  round: "Round",
  juncteral: (name: string) => `${name} · Juncteral`,
  gettingTheRoundReady: "Getting the round ready …",
};

export const walkEnd = {
  you: (troubles: number) => `${troubles} ${troubles === 1 ? "entry needs" : "entries need"} you`,
  walkedStillKeptOn: (waiting: number) => `Walked; ${waiting} still kept on this tablet`,
  walkedAndAllOf: "Walked, and all of it is sent",
  passedOver: (skipped: number) => `, ${skipped} passed over`,
  readOf: (read: number, skipped: string, points: number) => `${read} read${skipped}, of ${points}.`,
  sendNow: "Send now",
  theyAreSentWhen: "They are sent when the network is back, from this page or any other of Juncteral that is open.",
  notDealtWith: "Not dealt with",
  leaveTheRound: "Leave the round",
  walkItAgain: "Walk it again",
  aPointThatIs: "A point that is gone",
  aPhotograph: ", a photograph",
  aValveWasMoved: ", a valve was moved",
  readAt: "Read at",
  runningHours: "Running hours",
  sendAgain: "Send again",
  keepTheirs: "Keep theirs",
  discard: "Discard",
};

export const walkPoint = {
  thatFileIsNo: "That file is no picture that this tablet can read.",
  alreadyOnThisRound: (how: ReactNode) => <>Already {how} on this round.</>,
  oil: "Oil",
  load: "Load",
  hours: "Hours",
  leastOverTheCycle: "Least over the cycle",
  greatestOverTheCycle: "Greatest over the cycle",
  aPhotographGoesWith: "A photograph goes with it.",
  photograph: "Photograph",
  readAgain: "Read again",
  skip: "Skip",
  photo: "Photo",
  photoAgain: "Photo again",
  keepNext: "Keep, next",
};

export const walkConditions = {
  lookAndTickWhat: "Look, and tick what holds",
  read: (readState: string) => `Read ${readState}`,
  withText: (tag: string) => `With ${tag}`,
};

export const walkExpected = {
  readTwiceTheSame: "Read twice, the same",
  loadWasDifferent: "Load was different",
  knownBeingWorkedOn: "Known, being worked on",
  to: (least: string, high: string) => `${least} to ${high}`,
  underTheseConditions: " under these conditions",
  atTheUsualConditions: " at the usual conditions",
  lessSureItWas: ", less sure: it was never read like this",
  expect: (range: ReactNode, conditions: string, beyondSeen: string) => (
    <>
      Expect {range}
      {conditions}
      {beyondSeen}.
    </>
  ),
  noExpectedRangeYet: "No expected range yet. ",
  at: (temperature: string) => ` at ${temperature}`,
  lastTime: (raw: string, temperature: string, at: string) => `Last time ${raw}${temperature}, ${at}.`,
  neverReadBefore: "Never read before.",
};

export const walkSkip = {
  whyIsItPassed: "Why is it passed over?",
  machineStands: "Machine stands",
  oilTooCold: "Oil too cold",
  cannotBeReached: "Cannot be reached",
  instrumentMissing: "Instrument missing",
  noReadIt: "No, read it",
};

export const keptReading = {
  notConfirmed: (open: string) => `Not confirmed: ${open}.`,
  readTimes: (times: number, values: string) => `Read ${times} times: ${values}.`,
};

export const walkTop = {
  of: (index: number, count: number) => `${index} of ${count}`,
  needYou: (troubles: number) => ` · ${troubles} need you`,
  back: "Back",
  leave: "Leave",
  pointsDealtWith: "Points dealt with",
  signInAgain: "sign in again",
  youWereSignedOut: (a: ReactNode) => <>You were signed out. Nothing is lost: {a}, and what is kept here is sent.</>,
};

export const wayList = {
  thePoint: "the point",
  pressSpaceToPick:
    "Press space to pick the point up, the arrow keys to move it along the way, space to put it down, " +
    "escape to leave it where it was.",
  pickedUpPlaceOf: (id: string, activeId: number, ids: number) => `Picked up ${id}, place ${activeId} of ${ids}.`,
  toPlaceOf: (id: string, overId: number, ids: number) => `${id} to place ${overId} of ${ids}.`,
  putDownAtPlace: (id: string, place: number) => `${id} put down at place ${place}.`,
  staysWhereItWas: (id: string) => `${id} stays where it was.`,
  move: (machine: string, label: string) => `Move ${machine}, ${label}`,
  leaveOut: (label: string) => `Leave out: ${label}`,
};
