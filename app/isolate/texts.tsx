/** What the pages of this place say, page by page; a page holds no text of its own. */
import type { ReactNode } from "react";

export const bookLink = {
  bookWorkIntoA: "Book work into a stop",
  doItNowOn: "Do it now, on record",
};

export const casePage = {
  isolateJuncteral: (machine: string) => `Isolate, ${machine} · Juncteral`,
  takeOutWhatMay:
    "Take out what may be wrong, check the instrument, look at the machine with somebody who knows it, " +
    "and write down what it was: closing it with “none of these” keeps that for the next one.",
  noneOfTheKnown: "None of the known causes fits.",
  thisIsAStop: "This is a stop-gap: the cause stays open. ",
  thenProveItRepeat: (act: string, interim: string) =>
    `${act} ${interim}Then prove it: repeat the reading that showed it, at the same conditions.`,
  sureEnoughToAct: (share: string) => `Sure enough to act (${share}).`,
  whatItMayBe: "What it may be",
  aMarkBeforeThe: "a mark: before the last result",
  forIt: (speaksFor: string) => `For it: ${speaksFor}.`,
  againstIt: (speaksAgainst: string) => `Against it: ${speaksAgainst}.`,
  somethingElse: "Something else",
  whatClosedOfThis: (taught: number) =>
    `; what ${taught} closed ${taught === 1 ? "case" : "cases"} of this symptom found counts beside ` +
    "twenty imagined ones",
  eachIsTheChance: (basis: string, taught: string) =>
    "Each is the chance that it is there, alone or with another; they may add up to more than 100 %. " +
    `Shares of causes and tests are ${basis}${taught}.`,
  countItAgain: "Count it again",
  takeOut: "Take out",
  madeAgain: "; made again: both count as one result",
  whatIsKnown: "What is known",
  readingsOffTheHealthy: (off: string) => `Readings off the healthy circuit: ${off}.`,
  noPointWasRead: "No point of this circuit has readings to judge by: nothing is known from its gauges.",
  ofAllPoints: (well: number, unread: number) =>
    `${well > 0 ? ` ${well === 1 ? "One that was read is as it should be" : `${well} that were read are as they should be`}.` : ""}` +
    `${unread > 0 ? ` ${unread === 1 ? "One point was" : `${unread} points were`} not read, or too seldom to judge by: not known.` : ""}`,
  noReadingHasABaseline: "No point of this circuit has a baseline yet, so readings are not used.",
  noReadingIsOff: "No reading is off the healthy circuit.",
  theModelDoesNot: (missed: string) =>
    `The model does not fit this circuit, so its readings are not used${missed ? `: it does not show what was read at ${missed}` : ""}. ` +
    "Put right the figures of its drawing.",
  noCircuitIsDrawn: "No circuit is drawn, so readings are not used.",
  fromTheRegisterWhen: "From the register when this began",
  undo: "Undo",
  madeInTestsSince: "Made in Tests since then",
  takeIn: (text: string) => `Take in: ${text}`,
  takeItIn: "Take it in",
  ifYouWantTo: "If you want to be surer",
  theNextBestTest: "The next best test",
  noTestIsLeft: "No test is left that could change what to do. Act on the likeliest, or close it with “none of these”.",
  nearlyAsGood: "Nearly as good",
  notNow: "Not now",
  notInMostManufacturers: "not in most manufacturers' books",
  waitsWhileASafer: "Waits while a safer test still tells enough.",
  anotherTestWasMade: "Another test was made",
  whichOneAndWhat: "which one, and what did it show?",
  enterIt: "Enter it",
  whatWasFound: "What was found",
  itWas: "It was",
  notKnownYet: "not known yet",
  noneOfThese: "None of these",
  howItWasFound: "How it was found, what was done",
  closeTheIsolation: "Close the isolation",
  isolate: "Isolate",
  closed: (at: string, by: string) => `Closed ${at}, ${by}.`,
  circuitAndWhatIf: (closed: string) => `${closed}Circuit and what-if`,
  noneOfWhatWas: "None of what was suspected",
  givenWhenItWas: (odds: string) => `, given ${odds} when it was closed`,
};

export const fault = {
  whatTheReadingsSay: (machine: string) => `What the readings say, ${machine} · Juncteral`,
  thisCircuitHasNo: "This circuit has no diagram with baselines to hold its readings against.",
  theModelDoesNot:
    "The model does not fit this circuit's own baselines, so it is not used to judge. Put the diagram right first.",
  itTakesThreePoints: "It takes three points with a baseline to tell causes apart.",
  everyReadingIsWhere: "Every reading is where the healthy circuit has it.",
  awayFromItsBaseline: (since: string) => `away from its baseline since about ${since}`,
  odds: (share: string) => `odds ${share}`,
  itMayAsWell: (places: string) => `It may as well be ${places}: the readings cannot part them.`,
  itAccountsFor: "It accounts for",
  nothing: "Nothing.",
  isolate: "Isolate",
  noFaultIsNamed: (machine: string) => `${machine}: no fault is named`,
  fromTheReadingsOf: (circuit: string) =>
    `From the readings of the ${circuit} alone. It proves nothing: confirm with a test before anything ` +
    "is opened or altered.",
  theReadingsCouldNot: "The readings could not be held against the model. The log says more.",
  someReadingsAreOff:
    "Some readings are off, and no single fault, nor two or three at once, is likelier than all others together.",
  theReadingsHaveNot: "The readings have not been held against the model yet.",
  confirmItWithA: "Confirm it with a test",
  findItByTests: "Find it by tests",
  seeItInThe: "See it in the circuit",
  whereATestPoint: "Where a test point would help",
  leftUnexplained: "Left unexplained",
  offTheHealthyCircuit: "Off the healthy circuit",
  nothingIsLeftOver: (steady: number) =>
    `Nothing is left over: the other ${steady} points are as a healthy circuit has them.`,
  whatElseItMay: "What else it may be",
  whatItMayBe: "What it may be",
  somethingThatTheModel: "Something that the model does not have, or more faults at once",
};

export const isolate = {
  isolateJuncteral: "Isolate · Juncteral",
  oddsWhenClosed: (foundOdds: string) => `, odds ${foundOdds} when closed`,
  since: (openedAt: string, openedBy: string, results: number) =>
    `since ${openedAt}, ${openedBy}; ${results} ${results === 1 ? "result" : "results"}`,
  isolate: "Isolate",
  fromASymptomOr: "From a symptom, or a reading that has changed, to its cause by the fewest and safest tests.",
  somethingIsWrongWith: "Something is wrong with a machine",
  practiseOnAHidden: "Practise on a hidden fault",
  thePlantOwnCauses: "The plant’s own causes and tests",
  whatTheReadingsSay: "What the readings say by themselves",
  circuit: "circuit",
  circuits: "circuits",
  noCircuitReadingsAre: "No circuit's readings are off its model.",
  offNoFaultIs: (off: number) =>
    `${off} ${off === 1 ? "point is" : "points are"} off; no fault is likelier than all others`,
  beingIsolated: "Being isolated",
  nobodyIsLookingFor: "Nobody is looking for a fault.",
  closed: "Closed",
  noneYet: "None yet.",
};

export const knowledge = {
  thePlantOwnKnowledge: "The plant's own knowledge · Juncteral",
  asksForCare: "asks for care",
  closesAnOutletAgainst: "closes an outlet against the pump",
  opensTheCircuit: "opens the circuit",
  behind: (r: string, label: string) => `${r} behind “${label}”`,
  tellsOf: (how: string, sign: string | undefined, cause: string) => `${how}. “${sign}” tells of ${cause}.`,
  ranksAsBehind: (rank: string, label: string) => `ranks as ${rank} behind “${label}”.`,
  takeOutOfUse: (title: string) => `Take out of use: ${title}`,
  takeItOutOfUse: "Take out of use",
  whatItRestsOn: "What it rests on",
  countedToldByWhom: "Counted, told by whom, since when",
  cause: "Cause",
  whereItSits: "Where it sits",
  symptom: (i: number) => `Symptom ${i}`,
  behindIt: "Behind it",
  behavesInOtherTests: "Behaves in other tests like",
  nothingOnlyItsOwn: "nothing: only its own test shows it",
  whatToDo: "What to do",
  inWords: "In words",
  minutes: "Minutes",
  itNeedsAPart: "It needs a part",
  theMachineHasTo: "The machine has to stop, its circuit is opened",
  thisPlant: (label: string) => `${label} (this plant)`,
  test: "Test",
  madeAt: "Made at",
  theCircuitAsA: "the circuit as a whole",
  howItIsMade: "How it is made",
  madeReadyBefore: "Made ready before",
  whatItRisks: "What it risks",
  caution: "Caution",
  allIsWellWhen: "All is well when it shows",
  itTellsOfSomething: "It tells of something when it shows",
  tellsOfNumber: (i: number) => `Tells of ${i}`,
  none: "none",
  andShowsIt: "And shows it",
  whichSymptom: "Symptom",
  hereItIsBehind: "Here it is behind it",
  addACause: "Add a cause",
  addTheCause: "Add the cause",
  addATest: "Add a test",
  addTheTest: "Add the test",
  rankACauseOtherwise: "Rank a cause otherwise",
  rankItSoHere: "Rank it so here",
  plant: (id: string) => `plant:${id}`,
  causes: "Causes",
  tests: "Tests",
  rankedOtherwiseHere: "Ranked otherwise here",
  isolate: "Isolate",
  thisPlantOwnCauses: "This plant’s own causes and tests",
  causesAndTestsOf:
    "Causes and tests of your own, and causes that are more or less frequent here than common practice " +
    "has it. They count in every isolation that begins from now on; isolations that are open keep what " +
    "held when they began. Closed isolations count by themselves.",
  noneYet: "None yet.",
};

export const newCase = {
  beginAnIsolationJuncteral: "Begin an isolation · Juncteral",
  machineByNameOr: "Machine, by name or tag",
  find: "Find",
  noMachineIsCalled: "No machine is called so.",
  isolate: "Isolate",
  whatIsWrongWith: (machine: string) => `What is wrong with ${machine}?`,
  whichMachine: "Which machine?",
  whatItsReadingsSay: "What its readings say is taken in by itself, and can be taken out again.",
  chooseItThenWhat: "Choose it, then what was noticed.",
  whatElseWasNoticed: "What else was noticed",
  findTheNextBest: "Find the next best test",
};

export const points = {
  testPointsJuncteral: (machine: string) => `Test points, ${machine} · Juncteral`,
  aPointReadIn: "A point read in rounds",
  aCouplingForA: "A coupling for a meter in the line",
  aCouplingForAGauge: "A coupling for a gauge",
  whatItShowsIs: "What it shows is known before anything is wrong, and the first test can be another one. ",
  theInstrumentGoesOn: "The instrument goes on in two minutes, under pressure and without tools. ",
  andTheCircuitIs: (opened: string) => `, and the circuit is opened ${opened} times less often an isolation`,
  notProvenChanceAmong: " Not proven: chance among the drawn faults may account for it.",
  savesMinAnIsolation: (
    inRounds: string,
    saved: string,
    error: string,
    opened: string,
    savedAYear: string,
    sure: string,
  ) =>
    `${inRounds}Saves ${saved} min an isolation (standard error ${error})${opened}: about ${savedAYear} min ` +
    `a year here.${sure}`,
  isolate: "Isolate",
  whereATestPoint: (machine: string) => `${machine}: where a test point would help`,
  faultsOfThisCircuit:
    "Faults of this circuit are drawn at random, each is isolated as Juncteral proposes it, with the " +
    "points that are there and with one more. What shortens the isolations most, in minutes and risk " +
    "together, is listed.",
  thisCircuitHasNo: "This circuit has no diagram yet.",
  drawItFirst: "Draw it first",
  workingItOutAbout: "Working it out: about half a minute. You can leave this page; it goes on.",
  workItOutAgain: "Work it out again",
  workItOut: "Work it out",
  testPointsTheBest: "Test points, the best first",
  noneSavesTwoMinutes: "None saves two minutes an isolation: the points that are there will do.",
  faultsWereDrawnAn: (cases: number, minutes: string, rate: string, own: number) =>
    `${cases} faults were drawn; an isolation takes ${minutes} min on average. Per year: ${rate} ` +
    `isolations, from ${own} on record here in three years, leaning on one a year. Odds of faults and ` +
    "tests are common practice, graded and not counted. A test point must suit the line’s pressure and " +
    "the manufacturer’s documents.",
};

export const practice = {
  practiceBenchJuncteral: "Practice bench · Juncteral",
  isolate: "Isolate",
  practiceBench: "Practice bench",
  aFaultIsHidden: "A fault is hidden in a circuit. Take tests, name it, and see how it compares with the best path.",
  aNewCase: "A new case",
  level: "Level",
  numberOfTheCase: "Number of the case",
  aClassThatTypes: "A class that types the same number gets the same fault. Empty: any.",
  begin: "Begin",
  yourCases: "Your cases",
  newestFirst: "newest first",
  noneYetWhatYou: "None yet. What you did there is kept for you alone.",
  number: (level: string, seed: number, tests: number, startedAt: string) =>
    `${level}, number ${seed}; ${tests} ${tests === 1 ? "test" : "tests"}; ${startedAt}`,
  open: "open",
  of100: (score: number) => `${score} of 100`,
};

export const practiceCase = {
  aCaseToPractise: "A case to practise on · Juncteral",
  debrief: "Debrief",
  of100: (score: number) => `${score} of 100`,
  youNamedIt: "You named it.",
  youNamedAnotherCause: (named: string) => `You named ${named}: another cause, the same thing to do.`,
  youNamed: (named: string) => `You named ${named}.`,
  itWasWhatIt: (faults: ReactNode, verdict: string, act: string) => (
    <>
      It was {faults}. {verdict} What it asks for: {act}.
    </>
  ),
  yourWayTookMin: (minutes: number, bestMinutes: number, cost: string, bestCost: string) =>
    `Your way took ${minutes} min, the best path ${bestMinutes} min. With the cure it cost ${cost}, the ` +
    `best path ${bestCost} (usual figures).`,
  nothingUnsafeWasDone: "Nothing unsafe was done.",
  theBestPath: "The best path",
  theSymptomAloneWas: "The symptom alone was enough.",
  min: (text: string, result: ReactNode, minutes: number) => (
    <>
      {text} {result}, {minutes} min
    </>
  ),
  anotherCase: "Another case",
  closesAnOutlet: "closes an outlet",
  opensTheCircuit: "opens the circuit",
  theCircuit: "The circuit",
  pressAPartFor: "press a part for its tests",
  theCircuitOfThis: "The circuit of this case",
  testsAt: (name: string) => `Tests at ${name}`,
  tests: "Tests",
  minutesAndWhatHas: "minutes, and what has to be ready",
  allTests: "All tests",
  notInMostManufacturers: "; not in most manufacturers' books",
  minWhatItTakes: (minutes: number, prepare: string, risk: string, outsideBook: string) =>
    `${minutes} min${prepare}${risk}${outsideBook}`,
  make: (text: string) => `Make: ${text}`,
  makeIt: "Make it",
  renewAndSee: (name: string) => `Renew ${name} and see`,
  minWithThePart: (minutes: number, cost: string) => `${minutes} min, ${cost} with the part; opens the circuit`,
  renewIt: "Renew it",
  noTestIsLeft: "No test is left at this part.",
  isolate: "Isolate",
  practiceBench: "Practice bench",
  number: (seen: string, label: string, seed: number) => `${seen} ${label}, number ${seed}.`,
  whatYouKnow: "What you know",
  minInAll: (minutes: number) => `${minutes} min`,
  theSymptomAndNo: "The symptom, and no test yet.",
  theInstrumentTimesAs: (times: string) => `(the instrument: ${times} times as usual)`,
  whatIsIt: "What is it?",
  theCause: "The cause",
  notYet: "not yet",
  nameItAndSee: "Name it and see the debrief",
};

export const testCard = {
  withCare: "with care",
  closesAnOutletAgainst: "closes an outlet against the pump",
  opensTheCircuit: "opens the circuit",
  withText: (label: string) => ` with ${label}`,
  min: (minutes: number, ready: string, risk: string) => `${minutes} min${ready}${risk}`,
  whatDidItShow: "What did it show?",
  results: (results: string) => `Results: ${results}.`,
  howOftenEachResult: (basis: string) => `How often each result comes with each cause: ${basis}.`,
  guidedInTests: "Guided in Tests",
};
