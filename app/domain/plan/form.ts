/** What a plan's page sends: wishes and choices as JSON, costs as fields. Nothing in it is believed before it is checked. */
import { number, object, string } from "yup";
import { noWishes, tradeIds, type Wishes } from "@core";

const MOST = 2000;
const short = (v: unknown): v is string => typeof v === "string" && v.length > 0 && v.length <= 80;
const entriesOf = (v: unknown): [string, unknown][] =>
  v && typeof v === "object" && !Array.isArray(v) ? Object.entries(v).slice(0, MOST) : [];
const listOf = (v: unknown): unknown[] => (Array.isArray(v) ? v.slice(0, MOST) : []);
const hours = (v: unknown) => (typeof v === "number" && v > 0 && v <= 10_000 ? v : 0);

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Option by piece. */
export const choiceFrom = (text: string): Record<string, string> =>
  Object.fromEntries(entriesOf(parsed(text)).filter((e): e is [string, string] => short(e[0]) && short(e[1])));

/** Wishes as they were sent; what is no wish is left out. */
export function wishesFrom(text: string): Wishes {
  const sent = Object.fromEntries(entriesOf(parsed(text)));
  const crew = Object.fromEntries(entriesOf(sent.moreCrew));
  const caution = typeof sent.caution === "number" ? sent.caution : 0;
  return {
    ...noWishes,
    pinned: Object.fromEntries(entriesOf(sent.pinned).filter((e): e is [string, string] => short(e[0]) && short(e[1]))),
    forbidden: Object.fromEntries(
      entriesOf(sent.forbidden).map(([piece, stops]) => [piece, listOf(stops).filter(short)]),
    ),
    together: listOf(sent.together).map((group) => listOf(group).filter(short)),
    without: listOf(sent.without).filter(short),
    moreCrew: { mechanical: hours(crew.mechanical), electrical: hours(crew.electrical) },
    crewAt: Object.fromEntries(
      entriesOf(sent.crewAt).flatMap(([stop, left]) => {
        const own = Object.fromEntries(entriesOf(left));
        // none left is a wish too, and a trade that is not told apart stays so
        const trades = tradeIds.filter((t) => typeof own[t] === "number");
        return trades.length > 0 ? [[stop, Object.fromEntries(trades.map((t) => [t, hours(own[t])]))]] : [];
      }),
    ),
    caution: Math.min(0.9, Math.max(0, caution)),
  };
}

const amount = (what: string, most = 1e7) =>
  number()
    .transform((v: number, typed: unknown) => (typeof typed === "string" && typed.trim() === "" ? undefined : v))
    .typeError("Write a number.")
    .min(0, "Not below 0.")
    .max(most, `At most ${most}.`)
    .required(`Say ${what}.`);

export const costsSchema = object({
  currency: string().trim().max(6, "At most 6 characters.").required("Say in which currency."),
  crewHour: amount("what an hour costs"),
  overHour: amount("what an hour over the crew costs"),
  opening: amount("what opening a machine costs"),
  extraStop: amount("what a stop of its own costs"),
  standing: amount("what an hour of standing costs"),
  failsAMonth: amount("the chance of failing, in percent", 99),
  version: number().integer().required(),
});

export const keepSchema = object({
  siteId: string().uuid().required(),
  name: string()
    .trim()
    .min(3, "Give the plan a name.")
    .max(80, "At most 80 characters.")
    .required("Give the plan a name."),
  submission: string().uuid().required(),
});
