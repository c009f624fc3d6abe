/** Loads held by shut-in oil, as they are read after ten minutes: how far they creep, what is left before a valve opens. */
import { figureOf, type Circumstances } from "./circumstances";
import { nodesOf, type CircuitElement, type Netlist } from "./netlist";

/** Bulk modulus of mineral oil without air, bar (common handbook value). */
const BULK_MODULUS = 14_000;
/** Both are read over ten minutes. */
const MINUTES = 10;

interface Held {
  holding: CircuitElement;
  cylinder: CircuitElement;
  /** Is the chamber that is shut in the one on the bore side? */
  bore: boolean;
}

/** Cylinders with a load-holding valve at one of their chambers. */
function heldCylinders(netlist: Netlist): Held[] {
  const { nodeOf } = nodesOf(netlist);
  const cylinders = netlist.elements.filter((e) => e.kind === "cylinder");
  return netlist.elements
    .filter((e) => e.kind === "pilotCheck" || e.kind === "counterbalance")
    .flatMap((holding) => {
      const node = nodeOf.get(`${holding.id}/C`);
      if (node === undefined) return [];
      return cylinders.flatMap((cylinder) =>
        ["A", "B"].flatMap((port) =>
          nodeOf.get(`${cylinder.id}/${port}`) === node ? [{ holding, cylinder, bore: port === "A" }] : [],
        ),
      );
    });
}

/** Areas of a cylinder, cm². */
function areasOf(cylinder: CircuitElement, c: Circumstances) {
  const full = (Math.PI / 400) * figureOf(cylinder, "bore", c) ** 2;
  return { full, annulus: full - (Math.PI / 400) * figureOf(cylinder, "rod", c) ** 2 };
}

/** Leak across the piston of what a fault adds, L/min at the pressure of the load. */
const leakOf = (cylinder: CircuitElement, c: Circumstances, area: number) =>
  (((c.faults?.[cylinder.id]?.pistonLeak ?? 0) / (c.viscosity ?? 1)) * (100 * figureOf(cylinder, "load", c))) / area;

/**
 * Margin of a load-holding valve: a leak across the piston raises the opposite side, which is its pilot, where the load
 * is on the bore side (core/holding/margin). Half the stroke is taken for both chambers.
 * @returns bar; null: it holds no cylinder
 */
export function marginOf(netlist: Netlist, holding: CircuitElement, c: Circumstances): number | null {
  const held = heldCylinders(netlist).filter((h) => h.holding.id === holding.id);
  if (held.length === 0) return null;
  const rises = held.map(({ cylinder, bore }) => {
    const { full, annulus } = areasOf(cylinder, c);
    const [own, opposite] = bore ? [full, annulus] : [annulus, full];
    const ratio = opposite / own;
    // otherwise the opposite side falls to the void
    if (ratio >= 1) return 0;
    const litres = figureOf(cylinder, "stroke", c) / 20_000;
    const perBar = litres * (opposite + ratio * ratio * own);
    return (BULK_MODULUS * leakOf(cylinder, c, own) * (1 - ratio) * MINUTES) / perBar;
  });
  return figureOf(holding, "margin", c) - Math.max(...rises);
}

/**
 * Creep of a held load in ten minutes. Behind a load-holding valve oil that crosses the piston stays between the two
 * chambers; what leaks back through the valve lets the load down.
 * @returns mm
 */
export function creepOf(netlist: Netlist, cylinder: CircuitElement, c: Circumstances): number {
  const { full } = areasOf(cylinder, c);
  const pressure = (100 * figureOf(cylinder, "load", c)) / full;
  const held = heldCylinders(netlist).filter((h) => h.cylinder.id === cylinder.id);
  const added =
    held.length === 0
      ? (c.faults?.[cylinder.id]?.pistonLeak ?? 0)
      : Math.max(...held.map((h) => c.faults?.[h.holding.id]?.leakBack ?? 0));
  const leak = (figureOf(cylinder, "pistonLeak", c) + added) / (c.viscosity ?? 1);
  return ((leak * pressure) / (0.06 * full)) * MINUTES * 60 * 10_000;
}
