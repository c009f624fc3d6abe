/**
 * Parts of a drawn circuit sized for its flow. The usual figures of the elements are those of a pump of 45 cm³ at 1450 r/min;
 * behind one of a tenth or ten times that they would make a circuit that does not work, or one that hinders nothing.
 */
import { elementKinds, type ElementKindId } from "./kinds";
import { gaugeReader, workCommands } from "./gauges";
import type { Netlist } from "./netlist";

/** Flow that the usual figures are meant for, L/min. */
export const USUAL_FLOW = 65;
/** Nearer to it than by this factor the usual figures are good enough. */
const NEAR = 2.5;

/**
 * How a figure goes with the flow, as its power: what passes more is wider, what hinders less. Small circuits have the
 * valves, lines and filters of usual ones, which come no smaller; only what their pumps leak is less.
 */
const BY_FLOW: Partial<Record<ElementKindId, Record<string, number>>> = {
  line: { laminar: -1, turbulent: -2 },
  strainer: { laminar: -1, turbulent: -2 },
  filter: { laminar: -1, housing: -2, perBar: 1 },
  cooler: { laminar: -1, turbulent: -2, cooling: 1 },
  check: { k: 1 },
  directional: { k: 1, leak: 1 },
  proportional: { k: 1, leak: 1 },
  relief: { perBar: 1 },
  unloader: { k: 1 },
  reducing: { k: 1 },
  pilotCheck: { k: 1 },
  counterbalance: { k: 1 },
  flushing: { perBar: 1 },
  accumulator: { volume: 1 },
  fixedPump: { slip: 1, caseLeak: 1 },
  compensatedPump: { slip: 1, caseLeak: 1 },
  closedLoopPump: { slip: 1, caseLeak: 1 },
};

const PUMPS: ReadonlySet<ElementKindId> = new Set(["fixedPump", "compensatedPump", "closedLoopPump"]);

/** Bores and rods of cylinders, mm, from ISO 3320 with the usual rod to each bore (memory). */
const CYLINDERS = [
  [25, 14],
  [32, 18],
  [40, 22],
  [50, 36],
  [63, 45],
  [80, 56],
  [100, 70],
  [125, 80],
  [160, 110],
  [200, 140],
  [250, 180],
  [320, 220],
] as const;
const USUAL_BORE = 125;
/** Friction of a cylinder of the usual bore, kN; it goes with the force, and so with the area. */
const USUAL_FRICTION = 2;

/**
 * How many times the usual flow a circuit is meant for.
 * @param flow of its pumps together, L/min; 0: none is on record
 * @returns 1 where the usual figures are good enough
 * @example sizeOf(65) // 1
 * @example sizeOf(650) // 10
 */
export function sizeOf(flow: number): number {
  const size = flow / USUAL_FLOW;
  return flow <= 0 || (size < NEAR && size > 1 / NEAR) ? 1 : size;
}

/**
 * The figures of an element that go with the flow, sized.
 * @param kind of the element
 * @param size times the usual flow
 * @returns those figures; nothing where the usual ones hold
 * @example sizedFigures("check", 10) // { k: 400 }
 * @example sizedFigures("check", 1) // {}
 */
export function sizedFigures(kind: ElementKindId, size: number): Record<string, number> {
  const figures: Record<string, number> = {};
  if (size === 1) return figures;
  if (size < 1 && !PUMPS.has(kind)) return figures;
  for (const [name, power] of Object.entries(BY_FLOW[kind] ?? {})) {
    const { usual, least, greatest } = elementKinds[kind].data[name]!;
    figures[name] = Number(Math.min(greatest, Math.max(least, usual * size ** power)).toPrecision(3));
  }
  return figures;
}

/**
 * A line with the resistance that it has in a usual circuit, wider where more flows.
 * @param laminar bar per L/min
 * @param turbulent bar per (L/min)²
 * @param size times the usual flow
 * @example sizedLine(0.4, 0.01, 10) // { laminar: 0.04, turbulent: 0.0001 }
 */
export function sizedLine(laminar: number, turbulent: number, size: number) {
  const wider = Math.max(1, size);
  return { laminar: laminar / wider, turbulent: turbulent / wider ** 2 };
}

/**
 * A cylinder that this flow moves at the usual speed: its area goes with the flow.
 * @param size times the usual flow
 * @returns bore and rod in mm, of standard sizes, and friction in kN
 * @example sizedCylinder(1) // { bore: 125, rod: 80, friction: 2 }
 * @example sizedCylinder(0.1).bore // 40
 */
export function sizedCylinder(size: number): { bore: number; rod: number; friction: number } {
  const wanted = Math.log(USUAL_BORE * Math.sqrt(size));
  const off = ([bore]: readonly [number, number]) => Math.abs(Math.log(bore) - wanted);
  const [bore, rod] = CYLINDERS.reduce<readonly [number, number]>((a, b) => (off(b) < off(a) ? b : a), CYLINDERS[0]);
  return { bore, rod, friction: Number((USUAL_FRICTION * (bore / USUAL_BORE) ** 2).toPrecision(3)) };
}

/** A sound circuit's oil is taken to stay below this at work, °C (common practice: 40 to 60). */
const SOUND = 60;

/**
 * Let the reservoir give off what a sound circuit heats it by: no tank is built to boil its oil.
 * @param netlist a drawn circuit; its reservoir is changed where its oil would get hotter than 60 °C
 * @returns what was assumed, in words; null: nothing had to be
 * @throws {CircuitError} where the netlist cannot be computed
 */
export function coolEnough(netlist: Netlist): string | null {
  const tank = netlist.elements.find((e) => e.kind === "tank");
  const hot = tank && gaugeReader(netlist, new Map())({ commands: workCommands(netlist) }).tank;
  if (!tank || !hot || hot <= SOUND) return null;
  const { cooling, surroundings } = elementKinds.tank.data;
  const around = tank.data.surroundings ?? surroundings!.usual;
  const given = netlist.elements
    .filter((e) => e.kind === "tank" || e.kind === "cooler")
    .map((e) => e.data.cooling ?? elementKinds[e.kind].data.cooling!.usual)
    .reduce((a, b) => a + b, 0);
  const own = tank.data.cooling ?? cooling!.usual;
  const needed = own + given * ((hot - around) / (SOUND - around) - 1);
  tank.data.cooling = Number(Math.min(cooling!.greatest, needed).toPrecision(3));
  return (
    `With the usual tank its oil would stand at ${Math.round(hot)} °C: tank and lines are taken to give off ` +
    `${tank.data.cooling} W per K, as if it were kept at ${SOUND} °C. Put in what is there, a cooler for example.`
  );
}
