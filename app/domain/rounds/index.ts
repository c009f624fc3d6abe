/** What a tablet sends of a round, in the browser too. */
export type { Fate, Outgoing } from "./outgoing";
