/** The answer of every command of the domain. */

/** Nothing was saved: why, by field ("form" for the whole form). `status`: as HTTP would say it, 422 where it is left out. */
export interface Refused {
  ok: false;
  problems: Record<string, string>;
  status?: number;
}

/** @typeParam T what is told when it was done, @typeParam U what a refusal tells beside its problems */
export type Answer<T extends object = { id: string }, U extends object = object> = ({ ok: true } & T) | (Refused & U);
