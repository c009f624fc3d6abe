/** Kinds of component, and what stays unknown when a kind lacks a measuring point. Common practice. */
import type { PointQuantityId } from "../units/quantities";

interface Need {
  quantity: PointQuantityId;
  /** What cannot be known without it. */
  unknown: string;
}

interface Kind {
  label: string;
  needs: readonly Need[];
}

const define = <T extends Record<string, Kind>>(table: T) => table;

export const componentKinds = define({
  axialPistonPump: {
    label: "Axial piston pump",
    needs: [
      { quantity: "caseDrainFlow", unknown: "internal wear: the pump may fail unannounced" },
      { quantity: "pressure", unknown: "whether its pressure control still acts where it was set" },
      { quantity: "vacuum", unknown: "whether it is starved at the inlet" },
    ],
  },
  gearPump: {
    label: "Gear pump",
    needs: [
      { quantity: "flow", unknown: "what it delivers: a pressure alone never says" },
      { quantity: "pressure", unknown: "the resistance that it works against" },
      { quantity: "vacuum", unknown: "whether it is starved at the inlet" },
    ],
  },
  pistonMotor: {
    label: "Piston motor",
    needs: [
      { quantity: "caseDrainFlow", unknown: "internal wear: the motor may fail unannounced" },
      { quantity: "temperatureRise", unknown: "heat made inside it" },
    ],
  },
  closedLoopPump: {
    label: "Closed-loop pump",
    needs: [
      { quantity: "caseDrainFlow", unknown: "internal wear: the pump may fail unannounced" },
      { quantity: "pressure", unknown: "what the loop works against" },
    ],
  },
  flushingValve: {
    label: "Flushing valve",
    needs: [{ quantity: "flow", unknown: "whether the warm oil of the loop is changed" }],
  },
  reliefValve: {
    label: "Relief valve",
    needs: [
      { quantity: "pressure", unknown: "where it opens, and so whether it lies above the working control" },
      { quantity: "temperatureRise", unknown: "whether it passes oil while it should be shut" },
    ],
  },
  unloaderValve: { label: "Unloader", needs: [{ quantity: "pressure", unknown: "where it cuts in and out" }] },
  reducingValve: {
    label: "Reducing valve",
    needs: [{ quantity: "pressure", unknown: "what the side behind it gets: clutches slip when it is low" }],
  },
  proportionalValve: {
    label: "Proportional valve",
    needs: [
      { quantity: "leakageFlow", unknown: "how far its bore is worn" },
      { quantity: "responseTime", unknown: "whether its spool sticks" },
    ],
  },
  directionalValve: {
    label: "Directional valve",
    needs: [{ quantity: "temperatureRise", unknown: "whether it leaks across" }],
  },
  loadHoldingValve: {
    label: "Load-holding valve",
    needs: [{ quantity: "pilotMargin", unknown: "how near it is to opening by itself" }],
  },
  cylinder: {
    label: "Cylinder",
    needs: [
      { quantity: "creep", unknown: "whether a load is held" },
      { quantity: "strokeTime", unknown: "whether it gets its flow" },
    ],
  },
  filter: { label: "Filter", needs: [{ quantity: "pressureDrop", unknown: "how far the element is blocked" }] },
  accumulator: { label: "Accumulator", needs: [{ quantity: "pressure", unknown: "its gas precharge" }] },
  other: { label: "Other component", needs: [] },
});

export type ComponentKind = keyof typeof componentKinds;
export const componentKindIds = Object.keys(componentKinds) as ComponentKind[];

export interface MissingPoint extends Need {
  componentId: string;
}

/**
 * Points that components of a circuit lack, each with what cannot be known without it.
 * @param components of the register with the quantities that are read at each; a kind that is not known lacks nothing
 * @returns component, quantity and what stays unknown
 * @example missingPoints([{ id: "f1", kind: "filter", quantities: [] }]) // [{ quantity: "pressureDrop" }]
 * @example missingPoints([{ id: "f1", kind: "filter", quantities: ["pressureDrop"] }]) // []
 */
export function missingPoints(
  components: readonly { id: string; kind: string; quantities: readonly string[] }[],
): MissingPoint[] {
  return components.flatMap((component) => {
    const kind = Object.hasOwn(componentKinds, component.kind)
      ? componentKinds[component.kind as ComponentKind]
      : componentKinds.other;
    return kind.needs
      .filter((need) => !component.quantities.includes(need.quantity))
      .map((need) => ({ ...need, componentId: component.id }));
  });
}
