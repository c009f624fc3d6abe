/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
import type { ReactNode } from "react";

export const beside = {
  whatWouldHelpMost: "What would help most",
  itsPartOnThe: "Its part on the shelf: ",
  readItAgainOn: (at: string) => `Read it again on ${at}, then decide: `,
  lessHalfAnHour: (most: string) => `less half an hour for the reading; knowing the day would save ${most}`,
  comesWithTheFinished: "Comes with the finished plan.",
  neitherAPartOn: "Neither a part on the shelf nor a further reading would change much.",
  dueWithoutAStop: "Due without a stop",
  dueByDateTo: (until: string) => `Due by date, to ${until}`,
  theFirstByDate: (dueShown: number) => `The first ${dueShown} by date.`,
  whatIsDueWithin: "What is due within a month",
};

export const board = {
  usualFigures: " (usual figures)",
  when: (machine: string, component: string) => `When: ${machine}, ${component}`,
  pinItTo: "Pin it to",
  pin: (label: string) => `Pin: ${label}`,
  keepItAwayFrom: "Keep it away from",
  notAt: (label: string) => `Not at: ${label}`,
  doItTogetherWith: "Do it together with",
  withOther: (label: string) => `With: ${label}`,
  goesTogetherWith: (goesWith: string) => `Goes together with ${goesWith}.`,
  planItForItself: "Plan it for itself",
  aStop: "a stop",
  letItGoTo: (label: string) => `Let it go to: ${label}`,
};

export const calendar = {
  calendarJuncteral: "Calendar · Juncteral",
  plan: "Plan",
  calendar: "Calendar",
  stopsAndBookedWork: "Stops and booked work in your own calendar",
  onceAsAFile: "Once, as a file",
  downloadTheCalendar: "Download the calendar",
  icalendarItDoesNot: "(iCalendar). It does not change when the plan does.",
  keptUpToDate: "Kept up to date, at a private address",
  enterTheAddressIn:
    "Enter the address in a calendar program as a subscription. Whoever has it can read stops and booked " +
    "work without signing in: revoke it when it was passed on or a device is lost.",
  yourAddressItIs: "Your address. It is shown only now:",
  made: (madeAt: string) => `Made ${madeAt}`,
  neverRead: "never read",
  lastRead: (lastReadAt: string) => `last read ${lastReadAt}`,
  revoke: "Revoke",
  revokeThisAddress: "Revoke this address?",
  calendarsThatReadIt: "Calendars that read it hear nothing more; what they have stays with them.",
  makeAPrivateAddress: "Make a private address",
};

export const compare = {
  keptPlans: "Kept plans",
  ofPiecesDiffer: (differ: number, size: number) => `${differ} of ${size} pieces differ`,
  plan: "Plan",
  expectedCost: "Expected cost",
  oneTimeInTen: "One time in ten over",
  meanOfTheWorst: "Mean of the worst tenth",
  failuresToBeExpected: "Failures to be expected",
  lifeThrownAway: "Life thrown away",
  fromTheBestAt: "From the best, at most",
  wait: "wait",
  notInIt: "not in it",
  bookedBy: (bookedBy: ReactNode, bookedAt: string) => (
    <>
      Booked by {bookedBy}, {bookedAt}
    </>
  ),
  bookThisPlan: "Book this plan",
  putAside: "Put aside",
  putAsideName: (name: string) => `Put “${name}” aside?`,
  itIsNoLonger: "It is no longer listed; the record of changes keeps it.",
};

export const costs = {
  whatWorkCostsJuncteral: "What work costs · Juncteral",
  asItIsWritten: "As it is written after an amount",
  anHourOfA: "An hour of a fitter or an electrician",
  anHourOverWhat: "An hour over what a stop's crew has",
  dearThePlanAvoids: "Dear: the plan avoids it unless a wish asks for it",
  openingAMachine: "Opening a machine",
  isolatingDrainingVentingFilling: "Isolating, draining, venting, filling: once a stop for all its work",
  aStopOfIts: "A stop of its own",
  whatItCostsBeside: "What it costs beside the hours",
  anHourThatA: "An hour that a machine stands outside a planned stop",
  chanceOfFailingIn: "Chance of failing in each month beyond the limit, %",
  crossingALimitIs: "Crossing a limit is not failing",
  plan: "Plan",
  whatWorkCosts: "What work costs",
  setBy: (setBy: string) => `Set by ${setBy}.`,
  usualFiguresUntilThe: "Usual figures until the plant sets its own: orders of magnitude, not quotes.",
  save: "Save",
  anEngineerSetsThese: "An engineer sets these.",
  byComponent: "By component",
  openItInThe: "open it in the fleet",
  theCostOfA: (link: ReactNode) => (
    <>
      The cost of a new part, of failing in service, and spares on hand are set at each component: {link}. Where they
      are not, usual figures of its kind count, and the plan says so.
    </>
  ),
};

export const lives = {
  livesByKindJuncteral: "Lives by kind · Juncteral",
  andMore: (parts: number) => ` and ${parts} more`,
  plan: "Plan",
  scorecard: "Scorecard",
  livesByKind: "Lives by kind",
  noKindHasLives: "No kind has lives enough to tell how long it lasts",
  howLongPartsLast: "How long parts last here",
  runningHoursFromNew:
    "Running hours from new to the limit. Parts that were replaced before, or run on, count as at least so old.",
  noLifeHasBeen: "No life has been read against a limit yet.",
  ofCameToThe: (crossed: number, lives: number) => `${crossed} of ${lives} came to the limit`,
  notFitted: (none: string) => `Not fitted: ${none}.`,
  weibullShape95To: (shape: string, low: string, high: string, scale: string, cLow: string, cHigh: string) =>
    `Weibull shape ${shape} (95\u00a0% ${low} to ${high}), scale ${scale} (${cLow} to ${cHigh}).`,
  byAge: (note: string) => `By age: ${note}`,
  byAgeReplacingAt: (age: string, note: string) => `By age, replacing at ${age} would cost least. ${note}`,
  crossingTheLimitIs:
    "Crossing the limit is taken as failing here, which makes the age too early; the condition of each " +
    "part decides.",
  ageWouldReplaceCondition: (oldAndSteady: string) =>
    `Age would replace, condition would not: ${oldAndSteady}. They show no wear that matters; read on.`,
  conditionAsksSoonerThan: (youngAndWorn: string) =>
    `Condition asks sooner than age: ${youngAndWorn}. Age would leave them in too long.`,
  ageAndConditionAsk: "Age and condition ask for the same today.",
};

export const parts = {
  partsJuncteral: "Parts · Juncteral",
  booked: (fromName: string) => `Booked: ${fromName}`,
  earliestLikelyDayOf: "earliest likely day of the limit",
  plan: "Plan",
  noPartIsNeeded: "No part is needed",
  partToOrderNow: (due: number) => `${counted(due, "part")} to order now`,
  noPartHasTo: "No part has to be ordered today",
  orderListAsCsv: "Order list as CSV",
  nothingInThePlan: "Nothing in the plan of the next year needs a part.",
  orderBy: "Order by",
  neededBy: "Needed by",
  leadTime: "Lead time",
  onHand: "On hand",
  now: (orderBy: string) => `now (${orderBy})`,
  notStated: "not stated",
  no: "no",
};

export const plan = {
  planJuncteral: "Plan · Juncteral",
  chooseAPlanFrom: "Choose a plan from the list.",
  nothingToPlanYet: "Nothing to plan yet",
  thereIsNoSite: "There is no site.",
  beginWithAMachine: "Begin with a machine",
  anEngineerBeginsWith: "An engineer begins with a machine.",
  aStopOfIts: "a stop of its own",
  waitReadAgainBy: (again: string) => `wait, read again by ${again}`,
  nothingIsDueIn: "Nothing is due in the next year",
  planningPieceOfWork: (pieces: number) => `Planning ${counted(pieces, "piece")} of work`,
  parts: "Parts",
  whatWorkCosts: "What work costs",
  scorecard: "Scorecard",
  calendar: "Calendar",
  report: "Report",
  bestSoFarAt: (gap: string) => `Best so far, at most ${gap} from the best; still solving.`,
  provenNoPlanOf: "Proven: no plan of these pieces is cheaper.",
  atMostDearerThan: (gap: string) => `At most ${gap} dearer than the best possible.`,
  whatIsPinnedAnd: (wished: string) => ` What is pinned and wished costs ${wished} of it.`,
  expectedCostOneTime: (expected: ReactNode, high: string, failures: string, proof: string, wished: string) => (
    <>
      Expected cost {expected}, one time in ten over {high}; {failures} failures to be expected. {proof}
      {wished}
    </>
  ),
  solving: "Solving…",
  stoppedBeforeAPlan: "Stopped before a plan to these wishes was found.",
  site: "Site",
  show: "Show",
  aMonth: "a month",
  months: (m: number) => `${m} months`,
  aYear: "a year",
  years: (m: number) => `${m} years`,
  machineOrComponent: "Machine or component",
  all: "all",
  weigh: "Weigh",
  theExpectedCost: "the expected cost",
  theWorstTenthAs: "the worst tenth as much",
  mostlyTheWorstTenth: "mostly the worst tenth",
  moreCrewAtEach: "More crew at each stop",
  none: "none",
  stopSolving: "Stop solving",
  solveAgain: "Solve again",
  takeWishesBack: "Take wishes back",
  whatCanBeDone: (offers: string) => `What can be done: ${offers}.`,
  howLongItsPart: (machine: string, component: string) =>
    `${machine}, ${component}: how long its part takes is not stated, so it is taken as on the shelf.`,
  stateIt: "State it",
  namesTheMachineWhich: (stop: string, tag: string) => `${stop} names the machine ${tag}, which is not at this site.`,
  noForecastFaultOr: "No forecast, fault or booking asks for work in the next year.",
  noMachineOrComponent: "No machine or component of the plan is called so.",
  ofPieces: (shown: number, rows: number) => `${shown} of ${rows} pieces.`,
  showMore: "Show more",
  keepThisPlanAs: "Keep this plan as",
  oneMoreFitter: "One more fitter",
  keepIt: "Keep it",
  costsAndChancesAre: (failsAMonth: string) =>
    "Costs and chances are estimates for deciding between stops, not a promise. Crossing a limit is not " +
    `failing: ${failsAMonth} of parts beyond their limit are taken to fail in each month. The ` +
    "manufacturer’s limits and local rules come first.",
  atPlannedStops: (stop: number) => `${stop} at planned stops`,
  at: (own: number) => `${own} at ${own === 1 ? "a stop of its own" : "stops of their own"}`,
  wait: (wait: number) => `${wait} wait${wait === 1 ? "s" : ""}`,
  pieceOfWork: (all: number, parts: string) => `${counted(all, "piece")} of work: ${parts}`,
};

export const scorecard = {
  scorecardJuncteral: "Scorecard · Juncteral",
  onTime: "on time",
  late: (late: string) => `${late} late`,
  early: (late: string) => `${late} early`,
  tooFewCame: "too few came",
  to: (low: string, high: string) => `${low} to ${high}`,
  of: (crossed: number, lives: number) => `${crossed} of ${lives}`,
  plan: "Plan",
  scorecard: "Scorecard",
  of100LivesCrossed: (share: number) => `Of 100 lives, ${share} crossed their limit between P10 and P90; 80 should`,
  noForecastHasCome: "No forecast has come due yet",
  tooFewLivesHave: "Too few lives have crossed their limit to judge the forecasts",
  livesByKind: "Lives by kind",
  aForecastIsKept:
    "A forecast is kept when it is shown and says something new. It is scored when its life crosses the limit.",
  none: "none",
  crossedBeforeAnyForecast: (unforeseen: number) =>
    ` ${unforeseen} ${unforeseen === 1 ? "life" : "lives"} crossed before any forecast was issued.`,
  noneCrossedBeforeA: " None crossed before a forecast was issued.",
  forecastsOfLivesAs: (
    forecasts: number,
    lives: number,
    crossed: number | string,
    allCrossed: number,
    unforeseen: string,
  ) =>
    `${forecasts} forecasts of ${lives} lives, as they were issued; ${crossed} crossed ` +
    `${allCrossed === 1 ? "its" : "their"} limit. Each life counts once. A part that was replaced ` +
    `before, or runs on, counts as long as it was seen.${unforeseen}`,
  whereNoTrendWas: (lives: number, before: number, share: string) =>
    `Where no trend was proved, only the earliest date was given, for ${lives} lives: ${before} crossed ` +
    `before it (${share}; each date by itself may be wrong one time in twenty).`,
  thePlanDrawsThem: (name: string, widened: number) => `${name} (the plan draws them ${widened} times as wide)`,
  tooNarrowSoFar: (narrow: string) => `Too narrow so far: ${narrow}. Allow for more on either side.`,
  howOftenForecastsHeld:
    "How often forecasts held is shown once three lives have crossed; until then only what came is listed.",
  cameBetweenP10And: "Came between P10 and P90",
  beforeP10: "Before P10",
  afterP90: "After P90",
  group: "Group",
  all: "All",
  allForecasts: "All forecasts",
  withAndWithoutPeers: "With and without peers",
  byReadingsAtThe: "By readings at the time",
  byHowFarAhead: "By how far ahead",
  byKindTheFirst: (byKind: number, kinds: number) => `By kind, the first ${byKind} of ${kinds}`,
  byKind: "By kind",
  replacedNoForecastThree: "replaced, no forecast three months before",
  notForeseenThreeMonths: "not foreseen three months before",
  replacedWithAboutDays: (p50: number) => `replaced with about ${p50} days left`,
  replacedBeforeItCrossed: "replaced before it crossed",
  cameBeforeP10: "came before P10",
  cameAfterP90: "came after P90",
  asForecast: "as forecast",
  whatCame: "What came",
  theLastForecastFrom: "the last forecast from at least three months before: P10, P50, P90",
  found: (findings: string) => `Found: ${findings}`,
  replaced: (endedAt: string) => `replaced ${endedAt}`,
  crossed: (crossedAt: string) => `crossed ${crossedAt}`,
};

export const stops = {
  plannedStops: "Planned stops",
  noStopIsPlanned: "No stop is planned: every piece would need one of its own.",
  planAStop: "Plan a stop",
  day: (name: string, at: string, days: number) => `${name}, ${at}, ${counted(days, "day")}`,
  pieceOfCrewHours: (own: number, hours: number, has: number) =>
    `${counted(own, "piece")}, ${hours} of ${has} crew hours`,
  hours: (t: string) => `${t} hours`,
  hoursOfForThis: (t: string, name: string) => `${t} hours of ${name} for this plan`,
  planWithoutIt: "plan without it",
  wherePartOfA: "Where part of a crew is wanted elsewhere, write what is left for this plan.",
};
