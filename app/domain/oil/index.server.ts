/** The oil of a circuit: samples, fills, debris, cleanliness, what follows from them. */
export { type ShownOil, circuitPage, elementsIn, metalOf } from "./circuitPage.server";
export { cleanUpPage } from "./cleanUpPage.server";
export { answerTask, closeDebris, isClean, openDebris, reopenDebris } from "./debris.server";
export { debrisPage } from "./debrisPage.server";
export { renewElement } from "./element.server";
export { noteOilEvent, withdrawOilEvent } from "./fills.server";
export { fluidPage } from "./fluidPage.server";
export { type LabPreview, labPreview, laboratoryNames, runLabImport, saveLabMapping } from "./labFile/import.server";
export { undoLabImport } from "./labFile/undo.server";
export { oilList, oilOverview } from "./overview.server";
export { circuitPlace } from "./place.server";
export { photoOf, samplePage } from "./samplePage.server";
export { saveSample, withdrawSample } from "./samples.server";
export { samplesQuery } from "./samplesCsv.server";
export { setCircuitOil, setComponentOil } from "./settings.server";
export { settingsPage } from "./settingsPage.server";
