/** The report: its figures and its charts. */
export type { ReportChart } from "./charts.server";
export { type Report, type ReportPoint, report, reportAsked } from "./report.server";
