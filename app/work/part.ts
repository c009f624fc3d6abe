/** Will the part be there? Lead time against a stop. */
const DAY = 86_400_000;

export interface PartFacts {
  leadTimeDays: number | null;
  orderedOn: string | null;
  /** Start of the stop, epoch ms; null: no stop. */
  stopAt: number | null;
  now: number;
}

export interface PartAnswer {
  late: boolean;
  text: string;
}

/** In words: whether the part comes in time, counted from its order or from today. */
export function partAgainstStop({ leadTimeDays, orderedOn, stopAt, now }: PartFacts): PartAnswer {
  if (leadTimeDays === null) return { late: false, text: "lead time of the part not stated" };
  if (leadTimeDays === 0) return { late: false, text: "part on hand" };
  if (stopAt === null) return { late: false, text: `part takes ${leadTimeDays} days` };
  const ready = (orderedOn ? Date.parse(`${orderedOn}T00:00:00Z`) : now) + leadTimeDays * DAY;
  const days = Math.round(Math.abs(ready - stopAt) / DAY);
  if (ready > stopAt) return { late: true, text: `part ${days} day${days === 1 ? "" : "s"} after the stop` };
  return { late: false, text: orderedOn ? "part in time" : `part in time if ordered within ${days} day${days === 1 ? "" : "s"}` };
}
