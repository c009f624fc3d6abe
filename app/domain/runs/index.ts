/** What a run is made of and what a tablet sends of it, in the browser too. */
export type { OutgoingFinding, OutgoingStep, OutgoingWithdrawal, OutgoingWork, OutgoingWorkPhoto } from "./outgoing";
export { procedureText } from "./procedureForm";
export { type RunFinding, type RunPhoto, type RunState, SHORTEST_REASON } from "./runState";
