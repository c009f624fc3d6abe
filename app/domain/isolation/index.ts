/** The forms of a plant's own knowledge, in the browser too. */
export { actKinds, gradeTexts, lines, rankTexts } from "./plantForm";
