/** The circuit laid out by itself: the graph and the drawing are core's, where its nodes go is the layout library's. */
import ELK from "elkjs/lib/elk.bundled.js";
import { drawnAsLaid, layoutGraph, type Drawing, type Netlist } from "@core";

/** Reads nothing but the netlist: the same one is always drawn alike. */
export async function layOut(netlist: Netlist): Promise<Drawing> {
  const graph = layoutGraph(netlist);
  const { options, nodes, edges } = graph;
  return drawnAsLaid(graph, await new ELK().layout({ id: "circuit", layoutOptions: options, children: nodes, edges }));
}
