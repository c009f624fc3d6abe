/** What the pages of this place say, page by page; a page holds no text of its own. */
import { counted } from "~/ui/counted";
export const pointChart = {
  asNew: "as new",
  last: (value: string) => `last ${value}`,
  readingsFromTo: (readings: number, at: string, lastAt: string) =>
    `${counted(readings, "reading")} from ${at} to ${lastAt}`,
};

export const report = {
  reportJuncteral: (name: string) => `Report, ${name} · Juncteral`,
  plan: "Plan",
  conditionOfTo: (machine: string, from: string, to: string) => `Condition of ${machine}, ${from} to ${to}`,
  none: "none",
  madePoints: (madeAt: string, counts: string) => `Made ${madeAt}. Points: ${counts}.`,
  from: "From",
  to: "To",
  showThisPeriod: "Show this period",
  printOrSaveAs: "Print or save as PDF",
  figuresAsCsv: "Figures as CSV",
  asJson: "as JSON",
  faults: "Faults",
  namedByTheReadings: "named by the readings",
  noFaultIsNamed: "No fault is named by the readings.",
  sinceAbout: (since: string) => `, since about ${since}`,
  whatChangedInThe: "What changed in the period",
  readingsAtPoints: (readings: number, points: number) =>
    `${counted(readings, "reading")} at ${counted(points, "point")}.`,
  crossedItsLimitAbout: (p: string, crossedAt: string) => `${p} crossed its limit about ${crossedAt}.`,
  noPointCrossedIts: "No point crossed its limit.",
  pointsThatNeedAttention: "Points that need attention",
  dotsReadingsBandP10: "dots: readings; band: P10 to P90; dashed: P50",
  noneEveryPointIs: "None: every point is steady, or not known well enough yet.",
  workDone: "Work done",
  noneInThePeriod: "None in the period.",
  found: (findings: string) => `Found: ${findings}`,
  workBooked: "Work booked",
  noneBooked: "None.",
  aStopOfIts: "a stop of its own",
  planName: (name: string) => `Plan: ${name}`,
  expectedCostOneTime: (expected: string, high: string) => `Expected cost ${expected}, one time in ten over ${high}.`,
  wait: "wait",
  howTheForecastsHeld: "How the forecasts held",
  ofLivesCrossedBetween: (share: string) => `${share} of lives crossed between P10 and P90 `,
  to80Should: (low: string, high: string) => `(${low} to ${high}); 80 % should.`,
  forecastsOfLivesCrossed: (forecasts: number, lives: number, crossed: number) =>
    `${counted(forecasts, "forecast")} of ${lives} ${lives === 1 ? "life" : "lives"}; ${crossed} crossed: too few to judge.`,
  ofLivesWithAn: (lives: number, before: number) =>
    `Of ${lives} lives with an earliest date only, ${before} crossed before it.`,
  allPoints: "All points",
  juncteralAdvisesThePerson:
    "Juncteral advises; the person responsible decides and signs. The manufacturer’s limits and local " +
    "rules come first.",
  madeByDate: "Made by, date",
  seenByDate: "Seen by, date",
  lastReading: "Last reading",
  marginUsed: "Margin used",
};
