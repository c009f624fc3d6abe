/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
import type { ReactNode } from "react";

export const horizon = {
  beyondTheHorizon: "beyond the horizon",
  to: (p10: string, p90: string) => `${p10} to ${p90}`,
  booked: (bookedOn: string) => `booked ${bookedOn}`,
};

export const needs = {
  putItRightNow: "Put it right now",
  seeTheEvidence: "See the evidence",
  booked: (kind: string, startsOn: string) => `Booked: ${kind}${startsOn}`,
  bookWorkIntoA: "Book work into a stop",
  planForAStop: "Plan for a stop",
  seeItInThe: "See it in the plan",
  odds: (share: string) => `: odds ${share}.`,
  sinceAbout: (since: string) => `, since about ${since}`,
  itAccountsForFindings: (points: number) => `It accounts for ${counted(points, "finding")}`,
  takeASecondReading: "Take a second reading",
  bookATest: "Book a test",
  lookAtTheTrend: "Look at the trend",
  findTheCause: "Find the cause",
  oilOfThe: (machine: string, circuit: string) => `${machine}, oil of the ${circuit}`,
  aDebrisEventIs: "A debris event is open",
  seeWhatHappened: "See what happened",
};

export const today = {
  todayJuncteral: "Today · Juncteral",
  nothingNeeds: "Nothing needs",
  oneThingNeeds: "One thing needs",
  twoThingsNeed: "Two things need",
  threeThingsNeed: "Three things need",
  fourThingsNeed: "Four things need",
  fiveThingsNeed: "Five things need",
  sixThingsNeed: "Six things need",
  sevenThingsNeed: "Seven things need",
  eightThingsNeed: "Eight things need",
  nineThingsNeed: "Nine things need",
  sinceYouLastLooked: "Since you last looked",
  was: (before: string) => `, was ${before}`,
  moreChangedTheirState: (states: number) => `${states} more changed their state.`,
  pieceOfWorkDone: (done: number) => `${counted(done, "piece")} of work done`,
  dueByDate: "Due by date",
  allOfIt: "All of it",
  thingsNeed: (open: number) => `${open} things need`,
  aDecision: (open: string) => `${open} a decision`,
  noPartNeeded: "no part needed",
  noMachinesYet: "No machines yet",
  pointsWatched: (weekday: string, day: number, month: string, watched: number, byState: string) =>
    `${weekday} ${day} ${month}. ${watched} points watched${byState}.`,
  needsYouWorstFirst: "Needs you, worst first",
  beginWithAMachine:
    "Begin with a machine from a template: it is ready to be read in two minutes. Or load a whole fleet " +
    "from a file.",
  addAMachineFrom: "Add a machine from a template",
  loadAFleetFile: "Load a fleet file",
  anEngineerAddsThe: "An engineer adds the first machine.",
  nothingNeedsOfWhatWasRead: (unread: number, watched: number) =>
    unread === watched
      ? "Nothing is read yet"
      : `Nothing needs a decision in what was read; ${unread} of ${watched} points are not read yet`,
  whatWasReadIsWell: (read: number, unread: number) =>
    read === 0
      ? "No point was read yet, so nothing is known of these machines. Walk the rounds, or log a reading at a point."
      : `${read === 1 ? "The point that was read needs nobody" : `The ${read} points that were read need nobody`}. ` +
        `${unread === 1 ? "One was not read yet" : `${unread} were not read yet`}, ` +
        `and nothing is known of ${unread === 1 ? "it" : "them"}: walk the rounds.`,
  everyPointIsSteady: "Every point is steady. Walk the rounds that are due; that is all for today.",
  fleet: "Fleet",
  oil: "Oil",
  theWorstOfAnd: (shown: number, open: number, fleet: ReactNode, oil: ReactNode) => (
    <>
      The worst {shown} of {open}; {fleet} and {oil} have the rest.
    </>
  ),
  horizon: "Horizon",
  nextMonthsP10To: (months: number) => `next ${months} months · P10 to P90, mark at P50`,
  nothingToForecast: "Nothing is read yet, so nothing can be forecast.",
  noPointIsForecast: (months: number) => `No point is forecast to reach its limit within ${months} months.`,
  readingsDue: "Readings due",
  withinAWeek: (duePoints: number) => `${duePoints} within a week`,
  noReadingFallsDue: "No reading falls due within a week.",
  point: "point",
  points: "points",
  workAtTheNext: "Work at the next stop",
  crewHoursOf: (work: number, crewHours: number) => `${work} crew hours of ${crewHours}`,
  noStopIsPlanned: "No stop is planned.",
  planAStop: "Plan a stop",
  nothingIsBookedOn: "Nothing is booked on it yet.",
};
