/**
 * Temperatures along the lines of a circuit in even motion. Oil that is throttled keeps the work as heat, 0.6 K for
 * every 10 bar; where lines are joined it mixes. What bodies and pipes give off to the air is left out: it is the
 * temperature of the oil, not of the metal. Oil that stands has no temperature of its own here.
 */
import { CARRIED } from "./gauges";
import { nodesOf, portKey, type Netlist, type PortRef } from "./netlist";
import type { SteadyState } from "./steady";

/** Less than this, L/min, is no flow that would warm anything. */
const STANDS = 1e-3;
const MOST_SWEEPS = 2000;
/** K. */
const SETTLED = 1e-4;

interface Stream {
  from: string;
  q: number;
  /** K that it takes up on its way. */
  rise: number;
}

/**
 * How much warmer than the reservoir the oil is at the ports: throttling warms it by 0.6 K for every 10 bar.
 * @param netlist the circuit
 * @param state a solved state of this netlist
 * @returns K at a port; null where no oil flows, or nothing is joined
 * @example
 * const circuit = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * warmthOf(circuit, steadyState(circuit))({ element: "tank", port: "T" }) // 0
 */
export function warmthOf(netlist: Netlist, state: SteadyState): (port: PortRef) => number | null {
  const { nodeOf } = nodesOf(netlist);
  const kindOf = new Map(netlist.elements.map((e) => [e.id, e.kind]));
  const at = (element: string, port: string): string | null => {
    if (port === "inside") return `${element}/inside`;
    const node = nodeOf.get(`${element}/${port}`);
    return node === undefined ? null : `node ${node}`;
  };
  const fixed = new Set(netlist.elements.filter((e) => e.kind === "tank").flatMap((e) => at(e.id, "T") ?? []));
  const streams = new Map<string, Stream[]>();
  for (const [element, effects] of state.effects) {
    if (kindOf.get(element) === "tank") continue;
    for (const f of effects.flows) {
      if (Math.abs(f.q) < STANDS) continue;
      const [from, to] = f.q > 0 ? [at(element, f.from), at(element, f.to)] : [at(element, f.to), at(element, f.from)];
      if (from === null || to === null || fixed.has(to)) continue;
      const q = Math.abs(f.q);
      const stream = { from, q, rise: (1000 * f.heat) / (CARRIED * q) };
      streams.set(to, [...(streams.get(to) ?? []), stream]);
    }
  }
  const warmth = new Map<string, number>([...fixed].map((node) => [node, 0]));
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let moved = 0;
    for (const [node, into] of streams) {
      let [sum, warm] = [0, 0];
      for (const s of into) {
        sum += s.q;
        warm += s.q * ((warmth.get(s.from) ?? 0) + s.rise);
      }
      const next = warm / sum;
      moved = Math.max(moved, Math.abs(next - (warmth.get(node) ?? 0)));
      warmth.set(node, next);
    }
    if (moved < SETTLED) break;
  }
  return (port) => {
    const node = nodeOf.get(portKey(port));
    return node === undefined ? null : (warmth.get(`node ${node}`) ?? null);
  };
}
