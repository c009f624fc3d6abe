/** A plan in words: what an option is called, and why it was taken. */
import { chance } from "../assessment/verdict";
import { formatNumber } from "../units/format";
import type { PlanLine } from "./lines";
import type { PlanOption, PlanPiece, PlanStop } from "./types";

const DAY = 86_400_000;

export interface PlanWriter {
  /** A day as the site writes it. */
  day: (ms: number) => string;
  currency: string;
  now: number;
  stops: ReadonlyMap<string, Pick<PlanStop, "name">>;
}

/** An amount to three figures, as a plan knows it: no better. */
export function moneyText(amount: number, currency: string): string {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, Math.abs(amount)))) - 2);
  const rounded = Math.round(amount / unit) * unit;
  return `${formatNumber(rounded, 0)}\u00a0${currency}`;
}

/** "Winter stop", "Now", "Stop of its own", "Not in this plan". */
export function optionName({ kind, id, at }: Pick<PlanOption, "kind" | "id" | "at">, writer: PlanWriter): string {
  if (kind === "stop") return writer.stops.get(id)?.name ?? "A stop";
  if (kind === "wait") return "Wait";
  return at - writer.now < DAY ? "Now" : "Own stop";
}

/** The same within a sentence, with its day. */
function optionPhrase(option: PlanOption, writer: PlanWriter): string {
  const day = writer.day(option.at);
  if (option.kind === "wait") return "waiting";
  if (option.kind === "own")
    return option.at - writer.now < DAY ? "stopping the machine now" : `a stop of its own on ${day}`;
  return `the ${(writer.stops.get(option.id)?.name ?? "stop").toLowerCase()} on ${day}`;
}

const failsText = (p: number) => (p < 0.005 ? "failing first is unlikely" : `${chance(p)} of failing first`);

/** Why a piece is done then, the risk until then, and what the next best would cost. */
export function reasonOf(line: PlanLine, piece: PlanPiece, writer: PlanWriter): string {
  const { option, next, shares } = line;
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  const risk =
    option.kind === "wait"
      ? `${chance(option.crossed)} of the limit within the plan`
      : `${chance(option.crossed)} of the limit before it, ${failsText(option.fails)}`;
  const said = [capital(risk)];
  if (piece.partAt !== null && piece.partAt > writer.now + DAY && option.kind !== "wait")
    said.push(
      piece.partSure
        ? `part there ${writer.day(piece.partAt)}`
        : `part there ${writer.day(piece.partAt)} if ordered today`,
    );
  if (shares > 0) said.push(`opened once with ${shares} other piece${shares === 1 ? "" : "s"}`);
  const other = next
    ? ` Next best: ${optionPhrase(next.option, writer)}, ${moneyText(next.more, writer.currency)} more.`
    : " There is no other way.";
  return `${said.join("; ")}.${other}`;
}

/** What to do about a piece that waits: when to read it again, so that the plan can be made anew in time. */
export function readAgainBy(piece: PlanPiece, now: number): number | null {
  const first = piece.crossings[Math.floor(piece.crossings.length * 0.1)];
  if (first === null || first === undefined) return null;
  const part = Math.max(0, (piece.partAt ?? now) - now);
  return Math.max(now, first - part - 30 * DAY);
}
