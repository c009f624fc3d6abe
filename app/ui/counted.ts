/** "1 hold point", "12 hold points": so many of a thing whose plural takes an s. */
export const counted = (n: number, thing: string): string => `${n} ${thing}${n === 1 ? "" : "s"}`;
