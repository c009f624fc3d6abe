/** Diagrams of circuits, and their gauges as they stand. */
export { circuitPage } from "./circuitPage.server";
export { type CircuitDiagram, diagramIfAny, diagramOf } from "./diagram.server";
export { drawCircuit, previewOf } from "./draw.server";
export { drawingOf } from "./drawing.server";
export { presentOf } from "./present";
