/** The answer of every command of the domain, and the refusals that many of them share. */
import { FORM_IS_OLD } from "~/platform/validate";

/**
 * Why nothing was saved, where it is not what was entered: the record is gone, somebody was faster or it is closed, too many tries,
 * no hand is free just now, or not for this role. A program acts on the word, a person reads the problems.
 */
export type Because = "gone" | "conflict" | "tooOften" | "busy" | "forbidden";

/** Nothing was saved: what is wrong, by field ("form" for the whole form). Without `because` it is what was entered. */
export interface Refused {
  ok: false;
  problems: Record<string, string>;
  because?: Because;
}

/** @typeParam T what is told when it was done, @typeParam U what a refusal tells beside its problems */
export type Answer<T extends object = { id: string }, U extends object = object> = ({ ok: true } & T) | (Refused & U);

/** The record was changed since the page was loaded: nothing is overwritten unseen. `what`: "this round". */
export const changedMeanwhile = (what: string, who = "Somebody else"): Refused => ({
  ok: false,
  because: "conflict",
  problems: {
    form: `${who} changed ${what} in the meantime. What you entered stays here: load the page to see theirs.`,
  },
});

/** The form has no id of its own, or one of an old page. */
export { FORM_IS_OLD };
export const formIsOld = (): Refused => ({ ok: false, problems: { form: FORM_IS_OLD } });
