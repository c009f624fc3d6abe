/** The operating state in which a value is read. A series never mixes states. */
export const readingStates = {
  idle: "idle",
  fullStroke: "full stroke",
  holding: "holding",
  cycle: "over a cycle, least and greatest",
  standing: "standing, cold",
  any: "as it runs",
} as const;

export type ReadingState = keyof typeof readingStates;
export const readingStateIds = Object.keys(readingStates) as ReadingState[];
