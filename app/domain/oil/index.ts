/** The forms of oil, in the browser too. */
export { placeOptions, sludgeOptions, stateOptions } from "./form";
export { labMappingOf, placeFields } from "./labFile/mapping";
