/** The forms of planned work, in the browser too. */
export { type InterventionKind, interventionKinds, interventionLabels } from "./form";
