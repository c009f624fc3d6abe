/** What the pages of this place say, page by page; a page holds no text of its own. */
import type { ReactNode } from "react";

export const charts = {
  corrected: "corrected",
  asRead: "as read",
  baseline: (centre: string) => `baseline ${centre} ± `,
  provisional: ", provisional",
  lowerLimit: "lower limit",
  stop: (at: string) => `stop ${at}`,
  newPart: (serial: string) => `new part ${serial}`,
  asReadIn: (unit: string) => `${unit}, as read`,
};

export const correct = {
  correctAReadingJuncteral: "Correct a reading · Juncteral",
  correctTheReadingOf: (takenAt: string) => `Correct the reading of ${takenAt}`,
  itReadReadBy: (entered: string, by: string) =>
    `It read ${entered}, read by ${by}. The old one stays in the record, with who changed it, when and why.`,
  hasAlreadyCorrectedThis: "has already corrected this reading:",
  saveTheCorrectedReading: "Save the corrected reading",
  withdrawIt: "Withdraw it",
  doubtfulKeepItBut: "Doubtful: keep it, but count it less",
  why: "Why",
  forExampleReadIn: "For example: read in gal/min, one digit off, meter not at zero",
};

export const forecastSection = {
  itDoesNotGo: (like: string) => ` It does not go the way its peers went: they hardly count (${like} %).`,
  likeItsPeers: (like: string) => ` Like its peers: ${like} %.`,
  forecast: "Forecast",
  noTrendProved: "no trend proved",
  noTrendIsProved: "No trend is proved, so no date is given",
  theEarliestPlausibleIs: "; the earliest plausible is",
  limitReached: "limit reached",
  hoursOn: "hours on",
  date: "date",
  beyondTheHorizon: "beyond the horizon",
  chanceOfReachingIt: "chance of reaching it before the stop",
  theRateMostLikely: (at: string) => ` The rate most likely changed about ${at}.`,
  atThePaceOf: (readings: number) =>
    `At the pace of its last ${readings} readings, each beyond the one before; the doubt is what so few leave open.`,
  wearModels: (paths: string, like: string, probability: string) => `Wear models: ${paths}.${like}${probability}`,
};

export const limit = {
  changeALimitJuncteral: "Change a limit · Juncteral",
  whereIsTheLimit: "Where is the limit, and on what does it rest?",
  theManufacturerFigureFor: "The manufacturer's figure for the part comes before any rule of practice.",
  somebody: "Somebody",
  noBasis: "no basis",
  upper: (upper: string) => `upper ${upper}`,
  lower: (lower: string) => `lower ${lower}`,
  set: (by: string, basis: string, value: string, at: string) => `${by} set ${basis}: ${value}${at}.`,
  basis: "Basis",
  upperLimit: "Upper limit",
  percentAFactorOr: (unit: string) => `Percent, a factor, or a value in ${unit}, as the basis says`,
  lowerLimit: "Lower limit",
  thisQuantityDoesHarm: "This quantity does harm as it rises",
  leaveEmptyForNone: "Leave empty for none",
  reasonOrSource: "Reason or source",
  forExampleTheManufacturer: "For example the manufacturer's sheet, or common practice",
  yesThePartAlready: "Yes: the part already stands beyond this limit",
  saveTheLimit: "Save the limit",
  fullFlowIsDisplacement: (formatNumber: string) =>
    `Full flow is displacement times speed of the component. ${formatNumber} % of it is common practice ` +
    "for a pump's case drain where the manufacturer says nothing.",
};

export const photoSection = {
  photographs: "Photographs",
};

export const point = {
  juncteral: (name: string, component: string) => `${name}, ${component} · Juncteral`,
  correctedAndAsRead: "corrected and as read",
  sameMonth: "same month",
  table: "table",
  ofFullFlow: "% of full flow",
  limit: (limitShown: string, basisText: string) => `limit ${limitShown} · ${basisText}`,
  setBy: (setBy: string, limitSet: string) => `set by ${setBy}${limitSet}`,
  andTheUsualFlow: " and the usual flow",
  asRead: "● as read",
  correctedToAsRead: (correctedTo: string) => `● corrected to ${correctedTo} · ○ as read`,
  over: "over ",
  inThisLife: (over: string, count: number) => `${over}${count} in this life`,
  marked: (marked: number) => `${marked} marked`,
  corrected: (superseded: number) => `${superseded} corrected`,
  since: (lifeStartedAt: string) => `since ${lifeStartedAt}`,
  savedFor: (entered: string, machine: string, component: string) => `Saved ${entered} for ${machine}, ${component}.`,
  lookAtIt: "Look at it",
  thisPointIsRetired: "This point is retired: its record stays, no reading is due.",
  theReferenceIsFar: (pressure: string, temperature: string, farFromPressure: string, farFromTemperature: string) =>
    `The reference is far from how this point is read: ${pressure}${temperature} against ` +
    `${farFromPressure}, ${farFromTemperature} usually. The correction extrapolates beyond the ` +
    "conditions it was fitted on, so this is less certain.",
  takeTheUsualCondition: "Take the usual condition",
  anEngineerCanSet: "An engineer can set the usual one.",
  beingAssessedAgain: " (being assessed again)",
  booked: (kind: string, startsOn: string) => `Booked: ${kind}${startsOn}`,
  bookWorkIntoA: "Book work into a stop",
  changeTheLimit: "Change the limit",
  whichInstrumentFits: "Which instrument fits?",
  editThePoint: "Edit the point",
  viewsOfTheReadings: "Views of the readings",
  pressT: "press t",
  logTheFirstOne: "Log the first one beside: a part that was measured when new can be judged later.",
  aTechnicianCanLog: "A technician can log the first one.",
  noReadingYet: (mayLog: string) => `No reading yet. ${mayLog}`,
  readingsOfEachYear: "Readings of each year over the months",
  trendOfCorrectedAnd: (name: string) =>
    `Trend of ${name}, corrected and as read, with limit and forecast. The table has the same data.`,
  inTheSameMonth: (median: ReactNode, least: string, greatest: string, readings: number, raw: string) => (
    <>
      In the same month of earlier years, one month either side: median {median}, from {least} to {greatest} ({readings}{" "}
      readings). The latest: {raw}.
    </>
  ),
  fewerThanThreeReadings:
    "Fewer than three readings in the same month of earlier years of this life: nothing to compare with yet.",
  readings: "Readings",
  correctedReadingsKeptIn: "Corrected readings, kept in the record",
  of: (takenAt: string, why: string | null, by: string | null) => `of ${takenAt}: ${why ?? ""} (${by ?? ""})`,
  logAReading: "Log a reading",
  read: (readState: string, conditions: string) => `Read ${readState}. ${conditions}`,
  theToolAdvisesThe:
    "The tool advises; the person responsible decides and signs. The manufacturer's limits come first.",
};

export const readingForm = {
  usualTemperature: "usual temperature",
  at: (temperature: string) => `At ${temperature} `,
  usualLoad: "usual load",
  andExpect: (pressure: string) => `and ${pressure} expect `,
  oil: "Oil",
  load: "Load",
  hours: "Hours",
  leastOverTheCycle: "Least over the cycle",
  greatestOverTheCycle: "Greatest over the cycle",
  to: (least: string, high: string) => `${least} to ${high}`,
  outsideWhatItWas: " (outside what it was read at before, so less sure)",
  noExpectedRangeYet: "No expected range: it needs three readings of a healthy part. ",
  atTemperature: (temperature: string) => ` at ${temperature}`,
  lastTime: (raw: string, temperature: string, at: string) => `Last time ${raw}${temperature}, ${at}.`,
  keepItBecause: "Keep it, because",
  orPutTheValue: "Or put the value right above.",
  timeStateSpeedInstrument: "Time, state, speed, instrument, note",
  readAt: "Read at",
  speed: "Speed",
  rMin: "r/min",
  instrument: "Instrument",
  notStated: "not stated",
  note: "Note",
  saveAndGoTo: "Save and go to the next point",
};

export const table = {
  beforeTheRepair: "from before the repair, not used",
  outlierCountsLess: "outlier, counts less",
  doesNotFitThe: "does not fit the readings before it, not used until a second reading confirms it",
  instrumentRecalledNotUsed: "instrument recalled, not used",
  markedDoubtfulCountsLess: "marked doubtful, counts less",
  oilOrLoadNot: "oil or load not noted",
  conditionsOutsideTheLearned: "conditions outside the learned range",
  taken: "taken",
  asRead: "as read",
  oil: "oil",
  load: "load",
  hours: "hours",
  corrected: "corrected",
  share: "share",
  byWith: "by, with",
  correctThisReading: "Correct this reading",
  to: (least: string) => `${least} to `,
  kept: (keptBecause: string) => `kept: ${keptBecause}`,
  pagesOfReadings: "Pages of readings",
  newer: "newer",
  moreThan: "more than ",
  pageOf: (page: number, over: string, pages: number) => `page ${page} of ${over}${pages}`,
  older: "older",
};

export const workingsSection = {
  howThisWasWorked: "How this was worked out",
  theLastReading: "The last reading",
  theBaseline: "The baseline",
  theForecast: "The forecast",
  theTrend: "The trend",
  fewerThanFourReadings: "Fewer than four readings.",
  mannKendallPAs: "Mann-Kendall p, as read",
  mannKendallPCorrected: "Mann-Kendall p, corrected",
  theilSenAMonth: (symbol: string) => `Theil-Sen, ${symbol} a month`,
  to: (perMonth: string, low: string, high: string) => `${perMonth} (${low} to ${high})`,
};
