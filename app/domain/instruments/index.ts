/** The forms of instruments, in the browser too. */
export { principleIds, principles } from "./form";
