/** What others use of the circuits: their diagrams. */
export { diagramOf, oilAt, type CircuitDiagram } from "./diagram.server";
