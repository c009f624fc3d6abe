/** Rounds: what is read where, taken along, and received. */
export { saveRound } from "./commands.server";
export {
  type StripPart,
  type WalkPoint,
  choosablePoints,
  roundList,
  roundRow,
  stripsOf,
  walkPoints,
} from "./queries.server";
export { receive } from "./receive.server";
