/** The quay and the yard. */
import { cylinder, pistonMotor } from "../parts/actuators";
import { filter, tank } from "../parts/oilSide";
import { gearPump } from "../parts/pumps";
import { directionalValve, proportionalValve, reliefValve } from "../parts/valves";
import type { Spread } from "../parts/limits";
import type { ComponentPlan, MachinePlan, OilPlan } from "../world";
import { ESTER, USUAL_WARMTH, VG32, VG46, harbourPump } from "./common";

export function quayMachines(s: Spread): MachinePlan[] {
  const pump = harbourPump(s);
  const crane = (
    n: number,
    main: ComponentPlan,
    valve: ComponentPlan,
    returnFilter: ComponentPlan,
    oil: OilPlan = {},
  ): MachinePlan => ({
    area: "Quay",
    name: `Quay crane ${n}`,
    tag: `QC-${n}`,
    round: "Quay cranes 1 to 3",
    hoursPerDay: 11,
    circuit: "Hoist circuit",
    pressure: 250,
    fluid: VG46,
    temperature: USUAL_WARMTH,
    oil: { volume: 320, everyDays: 45, ...oil },
    components: [tank(54), main, reliefValve(285, s), returnFilter, valve, pistonMotor("Hoist motor", 500, s)],
  });
  const carrier = (n: number, oil?: OilPlan): MachinePlan => ({
    area: "Quay",
    name: `Straddle carrier ${n}`,
    tag: `SC-${n}`,
    ...(oil && { oil }),
    round: "Yard machines",
    hoursPerDay: 12,
    circuit: "Lift circuit",
    pressure: 230,
    fluid: VG46,
    temperature: USUAL_WARMTH,
    components: [
      tank(55),
      pump("Pump", { displacement: 63, pressure: 230 }),
      reliefValve(265, s),
      filter(s),
      directionalValve("Lift valve", s),
      cylinder("Lift cylinder", s),
    ],
  });
  const craneMeter = "F-11";
  const contamination = { daysAgo: 250, factor: 7 };

  return [
    crane(
      1,
      pump("Hoist pump", { displacement: 71, pressure: 250, meter: craneMeter }),
      proportionalValve("Hoist valve", s),
      filter(s),
    ),
    crane(
      2,
      pump("Hoist pump", {
        displacement: 71,
        pressure: 250,
        caseDrain: { truth: { law: "clearance", end: 4.6, crossesInDays: 290, change: contamination } },
      }),
      proportionalValve("Hoist valve", s, {
        leak: { truth: { law: "clearance", end: 4.2, crossesInDays: 420, change: contamination } },
      }),
      filter(s, { elements: [1620, 1165, 710, 261], past: 0.33 }),
      { contamination: { daysAgo: 252, counts: 8, metals: { iron: 4.5, copper: 4, tin: 3.5 } } },
    ),
    crane(
      3,
      pump("Hoist pump", { displacement: 71, pressure: 250, meter: craneMeter }),
      proportionalValve("Hoist valve", s),
      filter(s),
    ),
    carrier(1, { fromDrain: 100 }),
    carrier(2),
    {
      area: "Quay",
      name: "Mobile harbour crane",
      tag: "MH-1",
      round: "Yard machines",
      hoursPerDay: 7,
      circuit: "Luffing circuit",
      pressure: 240,
      fluid: VG46,
      temperature: USUAL_WARMTH,
      components: [
        tank(53),
        pump("Pump", { displacement: 71, pressure: 240, meter: craneMeter }),
        reliefValve(275, s),
        filter(s),
        proportionalValve("Luffing valve", s),
        cylinder("Luffing cylinder", s),
      ],
    },
    {
      area: "Yard",
      name: "Waste compactor",
      tag: "WC-1",
      oil: { flushed: { daysAgo: 426, counts: 14 } },
      round: "Yard machines",
      hoursPerDay: 8,
      circuit: "Press circuit",
      pressure: 200,
      fluid: VG46,
      temperature: USUAL_WARMTH,
      components: [
        tank(52),
        { ...pump("Pump", { pressure: 200, leadTimeDays: 35 }), replacedDaysAgo: 425 },
        reliefValve(235, s),
        filter(s),
        directionalValve("Press valve", s),
        cylinder("Press cylinder", s),
      ],
    },
    {
      area: "Yard",
      name: "Dredge tender hoist",
      tag: "DT-1",
      round: "Yard machines",
      hoursPerDay: 4,
      circuit: "Hoist circuit",
      pressure: 180,
      fluid: ESTER,
      temperature: USUAL_WARMTH,
      components: [gearPump("Pump", 28, 170, s), reliefValve(200, s), directionalValve("Hoist valve", s), filter(s)],
    },
    {
      area: "Yard",
      name: "Workshop press",
      tag: "WP-1",
      round: "Yard machines",
      hoursPerDay: 2,
      circuit: "Press circuit",
      pressure: 300,
      fluid: VG32,
      temperature: { mean: 38, swing: 6, scatter: 2 },
      components: [gearPump("Pump", 6, 220, s), reliefValve(320, s), cylinder("Ram", s)],
    },
    {
      area: "Yard",
      name: "Fender jack set",
      tag: "FJ-1",
      round: "Yard machines",
      hoursPerDay: 0.8,
      circuit: "Jack circuit",
      pressure: 200,
      fluid: VG32,
      temperature: { mean: 32, swing: 9, scatter: 2 },
      components: [gearPump("Pump", 6, 180, s), directionalValve("Jack valve", s), cylinder("Fender jack", s)],
    },
  ];
}
