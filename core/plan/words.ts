/** A plan in words: what an option is called, and why it was taken. */
import { DAY } from "../units/time";
import { chance } from "../assessment/verdict";
import { formatNumber } from "../units/format";
import type { PlanLine } from "./lines";
import type { PlanOption, PlanPiece, PlanStop } from "./types";

export interface PlanWriter {
  /** A day as the site writes it. */
  day: (ms: number) => string;
  currency: string;
  now: number;
  stops: ReadonlyMap<string, Pick<PlanStop, "name">>;
}

/**
 * An amount to three figures, as a plan knows it: no better.
 * @param amount of money
 * @param currency its sign
 * @returns the text
 * @example moneyText(1234.5, "€") // "1230\u00a0€"
 */
export function moneyText(amount: number, currency: string): string {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, Math.abs(amount)))) - 2);
  const rounded = Math.round(amount / unit) * unit;
  return `${formatNumber(rounded, 0)}\u00a0${currency}`;
}

/**
 * What an option is called.
 * @param option of a plan
 * @param writer names of stops, the present
 * @returns the stop's name, "Now", "Own stop" or "Wait"
 * @example optionName({ kind: "own", id: "own:0", at: 0 }, { now: 0, stops: new Map() }) // "Now"
 */
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

/**
 * Why a piece is done then, the risk until then, and what the next best would cost.
 * @param line of the plan
 * @param piece that it is of
 * @param writer days, currency, names of stops
 * @returns two sentences
 * @example
 * const option = { kind: "wait", id: "wait", at: 0, crossed: 0.2, fails: 0.01 };
 * reasonOf({ option, next: null, shares: 0 }, { partAt: null }, { now: 0 })
 * // "A 20 % chance of the limit within the plan. There is no other way."
 */
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

/**
 * When to read a piece again that waits, so that the plan can be made anew in time: a month and the part's lead time before the
 * earliest tenth of its crossings.
 * @param piece of the plan
 * @param now epoch ms
 * @returns epoch ms, never before now; null: no crossing is foreseen that early
 * @example readAgainBy({ crossings: [100 * DAY], partAt: null }, 0) / DAY // 70
 * @example readAgainBy({ crossings: [null], partAt: null }, 0) // null
 */
export function readAgainBy(piece: PlanPiece, now: number): number | null {
  const first = piece.crossings[Math.floor(piece.crossings.length * 0.1)];
  if (first === null || first === undefined) return null;
  const part = Math.max(0, (piece.partAt ?? now) - now);
  return Math.max(now, first - part - 30 * DAY);
}
