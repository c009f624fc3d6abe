/** What other subjects of the domain use of work. */
export { keepMove } from "./due.server";
