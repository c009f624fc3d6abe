/** What others use of the circuits: their diagrams, and their gauges as they stand. */
export { drawingOf } from "./drawing.server";
export { diagramIfAny, diagramOf, type CircuitDiagram } from "./diagram.server";
export { presentOf } from "./present";
