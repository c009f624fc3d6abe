/** The entrance lock: gates and sluices. */
import { cylinder } from "../parts/actuators";
import { filter, tank } from "../parts/oilSide";
import { gearPump } from "../parts/pumps";
import { directionalValve, proportionalValve, reliefValve } from "../parts/valves";
import type { Spread } from "../parts/limits";
import type { ComponentPlan, MachinePlan } from "../world";
import { USUAL_WARMTH, VG32, VG46, harbourPump } from "./common";

/** A meter was put on a pump that was worn already: so many L/min from the first reading on, so many months ago. */
function wornWhenFirstRead(pump: ComponentPlan, caseDrain: number, months: number): ComponentPlan {
  return {
    ...pump,
    knownWhenNew: false,
    points: pump.points.map((p) => (p.quantity === "caseDrainFlow" ? { ...p, asNew: caseDrain, months } : p)),
  };
}

export function lockMachines(s: Spread): MachinePlan[] {
  const pump = harbourPump(s);
  const gate = (name: string, tag: string, round: string, pumps: ComponentPlan[]): MachinePlan => ({
    area: "Entrance lock",
    name,
    tag,
    round,
    hoursPerDay: 9,
    circuit: "Power unit circuit",
    pressure: 210,
    fluid: VG46,
    temperature: USUAL_WARMTH,
    components: [
      tank(52),
      ...pumps,
      reliefValve(245, s),
      filter(s),
      proportionalValve("Gate valve", s),
      cylinder("Gate cylinder", s),
    ],
  });
  const sluice = (n: number, components: ComponentPlan[]): MachinePlan => ({
    area: "Entrance lock",
    name: `Sluice unit ${n}`,
    tag: `SL-${n}`,
    round: "Lock, south side and sluices",
    hoursPerDay: 4,
    circuit: "Sluice circuit",
    pressure: 175,
    fluid: VG32,
    temperature: { mean: 44, swing: 8, scatter: 1.6 },
    components,
  });
  return [
    gate("Outer gate north", "LG-ON", "Lock, north side", [
      pump("Pump A", {
        leadTimeDays: 70,
        caseDrain: { asNew: 1.37, truth: { law: "accelerating", end: 4.76, crossesInDays: 90 } },
      }),
      pump("Pump B"),
    ]),
    gate("Outer gate south", "LG-OS", "Lock, south side and sluices", [
      pump("Pump A"),
      pump("Pump B", { caseDrain: { truth: { law: "clearance", end: 5, crossesInDays: 900 } } }),
    ]),
    gate("Inner gate north", "LG-IN", "Lock, north side", [pump("Pump")]),
    gate("Inner gate south", "LG-IS", "Lock, south side and sluices", [wornWhenFirstRead(pump("Pump"), 7.9, 13)]),
    sluice(1, [
      tank(48),
      gearPump("Pump", 22, 160, s),
      reliefValve(190, s),
      directionalValve("Sluice valve", s, 2),
      cylinder("Sluice cylinder", s),
    ]),
    sluice(2, [
      tank(48),
      gearPump("Pump", 22, 160, s),
      reliefValve(190, s),
      directionalValve("Sluice valve", s),
      cylinder("Sluice cylinder", s),
    ]),
    sluice(3, [
      { ...tank(49, 65), points: tank(49, 65).points.map((p) => ({ ...p, step: { daysAgo: 190, factor: 1.36 } })) },
      gearPump("Pump", 22, 160, s),
      {
        kind: "unloaderValve",
        name: "Unloader",
        model: "EU 8",
        leadTimeDays: 14,
        points: [
          {
            name: "Cut-out pressure",
            quantity: "pressure",
            state: "fullStroke",
            asNew: 175,
            noise: 0.008,
            limit: { basis: "absolute", upper: 185, lower: 165 },
            instrument: "P-02",
            conditions: "Pressure rising slowly, gauge watched",
          },
        ],
      },
      reliefValve(192, s, {
        setting: { step: { daysAgo: 190, factor: 0.875 }, limit: { basis: "absolute", upper: 215, lower: 183 } },
        rise: { step: { daysAgo: 190, factor: 5.2 } },
      }),
      directionalValve("Sluice valve", s),
      cylinder("Sluice cylinder", s),
    ]),
    sluice(4, [
      tank(48),
      gearPump("Pump", 22, 160, s),
      reliefValve(190, s),
      directionalValve("Sluice valve", s),
      cylinder("Sluice cylinder", s),
    ]),
  ];
}
