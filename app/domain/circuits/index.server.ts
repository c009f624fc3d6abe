/** What others use of the circuits: their diagrams. */
export { diagramIfAny, diagramOf, type CircuitDiagram } from "./diagram.server";
