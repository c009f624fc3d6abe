/** The twenty-four machines, with the stories among them. */
import { random } from "@core";
import type { OilPlan } from "./world";
import { cylinder, directionalValve, filter, gearPump, pistonMotor, pistonPump, proportionalValve, reliefValve, tank, type ComponentPlan, type MachinePlan } from "./world";

const VG46 = "Harbour mineral oil VG 46";
const VG32 = "Harbour mineral oil VG 32";
const ESTER = "Quayside ester VG 46";

/** A meter was put on a pump that was worn already: so many L/min from the first reading on, so many months ago. */
function wornWhenFirstRead(pump: ComponentPlan, caseDrain: number, months: number): ComponentPlan {
  return { ...pump, knownWhenNew: false, points: pump.points.map((p) => (p.quantity === "caseDrainFlow" ? { ...p, asNew: caseDrain, months } : p)) };
}

/** The plan of the whole fleet; the same seed gives the same fleet. */
export function fleetPlan(seed = 20261124): MachinePlan[] {
  const rng = random(seed).fork("fleet");
  const s = (low: number, high: number) => rng.between(low, high);
  const base = { mean: 48, swing: 7, scatter: 1.6 };

  const gate = (name: string, tag: string, round: string, pumps: ComponentPlan[]): MachinePlan => ({
    area: "Entrance lock", name, tag, round, hoursPerDay: 9, circuit: "Power unit circuit", pressure: 210, fluid: VG46, temperature: base,
    components: [tank(52), ...pumps, reliefValve(245, s), filter(s), proportionalValve("Gate valve", s), cylinder("Gate cylinder", s)],
  });
  const pump = (name: string, extra: Partial<Parameters<typeof pistonPump>[0]> = {}) => pistonPump({ name, displacement: 45, speed: 1450, pressure: 210, ...extra }, s);
  const sluice = (n: number, components: ComponentPlan[]): MachinePlan => ({
    area: "Entrance lock", name: `Sluice unit ${n}`, tag: `SL-${n}`, round: "Lock, south side and sluices", hoursPerDay: 4, circuit: "Sluice circuit", pressure: 175, fluid: VG32, temperature: { mean: 44, swing: 8, scatter: 1.6 },
    components,
  });
  const crane = (n: number, main: ComponentPlan, valve: ComponentPlan, returnFilter: ComponentPlan, oil: OilPlan = {}): MachinePlan => ({
    area: "Quay", name: `Quay crane ${n}`, tag: `QC-${n}`, round: "Quay cranes 1 to 3", hoursPerDay: 11, circuit: "Hoist circuit", pressure: 250, fluid: VG46, temperature: base,
    oil: { volume: 320, everyDays: 45, ...oil },
    components: [tank(54), main, reliefValve(285, s), returnFilter, valve, pistonMotor("Hoist motor", 500, s)],
  });
  const craneMeter = "F-11";
  const dirt = { daysAgo: 250, factor: 7 };

  return [
    gate("Outer gate north", "LG-ON", "Lock, north side", [
      pump("Pump A", { leadTimeDays: 70, caseDrain: { asNew: 1.37, truth: { law: "accelerating", end: 4.76, crossesInDays: 90 } } }),
      pump("Pump B"),
    ]),
    gate("Outer gate south", "LG-OS", "Lock, south side and sluices", [pump("Pump A"), pump("Pump B", { caseDrain: { truth: { law: "clearance", end: 5, crossesInDays: 900 } } })]),
    gate("Inner gate north", "LG-IN", "Lock, north side", [pump("Pump")]),
    gate("Inner gate south", "LG-IS", "Lock, south side and sluices", [wornWhenFirstRead(pump("Pump"), 7.9, 13)]),
    sluice(1, [tank(48), gearPump("Pump", 22, 160, s), reliefValve(190, s), directionalValve("Sluice valve", s, 2), cylinder("Sluice cylinder", s)]),
    sluice(2, [tank(48), gearPump("Pump", 22, 160, s), reliefValve(190, s), directionalValve("Sluice valve", s), cylinder("Sluice cylinder", s)]),
    sluice(3, [
      { ...tank(49, 65), points: tank(49, 65).points.map((p) => ({ ...p, step: { daysAgo: 190, factor: 1.36 } })) },
      gearPump("Pump", 22, 160, s),
      { kind: "unloaderValve", name: "Unloader", model: "EU 8", leadTimeDays: 14, points: [{ name: "Cut-out pressure", quantity: "pressure", state: "fullStroke", asNew: 175, noise: 0.008, limit: { basis: "absolute", upper: 185, lower: 165 }, instrument: "P-02", conditions: "Pressure rising slowly, gauge watched" }] },
      reliefValve(192, s, { setting: { step: { daysAgo: 190, factor: 0.875 }, limit: { basis: "absolute", upper: 215, lower: 183 } }, rise: { step: { daysAgo: 190, factor: 5.2 } } }),
      directionalValve("Sluice valve", s), cylinder("Sluice cylinder", s),
    ]),
    sluice(4, [tank(48), gearPump("Pump", 22, 160, s), reliefValve(190, s), directionalValve("Sluice valve", s), cylinder("Sluice cylinder", s)]),
    {
      area: "Bridge", name: "Bascule bridge drive", tag: "BR-D", oil: { everyDays: 45, silting: { sinceDaysAgo: 1250, doublingDays: 620 } }, round: "Bridge drive and locks", hoursPerDay: 6, circuit: "Main drive circuit", pressure: 200, fluid: VG46, temperature: { mean: 43, swing: 11, scatter: 1.6, warming: 1.8 },
      components: [
        tank(50), pump("Pump 1", { pressure: 200, caseDrain: { b: 0.95 } }), pump("Pump 2", { pressure: 200 }), reliefValve(235, s), filter(s),
        proportionalValve("Proportional valve 1", s, { leak: { asNew: 0.6, truth: { law: "linear", end: 4.17, crossesInDays: 700 } }, response: { asNew: 0.08, truth: { law: "linear", end: 1.875, crossesInDays: 1100 } } }),
        pistonMotor("Drive motor", 750, s),
      ],
    },
    {
      area: "Bridge", name: "Bridge nose locks", tag: "BR-L", round: "Bridge drive and locks", hoursPerDay: 1.5, circuit: "Lock circuit", pressure: 150, fluid: VG32, temperature: { mean: 38, swing: 9, scatter: 2 },
      components: [gearPump("Pump", 8, 140, s), reliefValve(170, s), directionalValve("Lock valve", s), cylinder("Nose lock cylinder", s)],
    },
    {
      area: "Ro-ro", name: "Ro-ro ramp", tag: "RR-1", oil: { wrongFill: { daysAgo: 160, litres: 90, fluid: "Harbour mineral oil VG 32" } }, round: "Ramp, gangway and slipway", hoursPerDay: 5, circuit: "Ramp circuit", pressure: 190, fluid: ESTER, temperature: base,
      components: [
        tank(50), pump("Pump", { pressure: 190 }), reliefValve(225, s), filter(s),
        { kind: "loadHoldingValve", name: "Port check valve", model: "EH 12", leadTimeDays: 21, points: [{ name: "Pilot check margin", quantity: "pilotMargin", state: "holding", asNew: 60, noise: 0.03, limit: { basis: "absolute", upper: null, lower: 10 }, conditions: "Ramp parked and propped, both chamber pressures after 10 min", truth: { law: "linear", end: 1 / 6, crossesInDays: 190 } }] },
        cylinder("Lift cylinder, port", s), cylinder("Lift cylinder, starboard", s),
      ],
    },
    {
      area: "Ro-ro", name: "Passenger gangway", tag: "RR-2", round: "Ramp, gangway and slipway", hoursPerDay: 3, circuit: "Gangway circuit", pressure: 160, fluid: VG32, temperature: base,
      components: [gearPump("Pump", 11, 150, s), reliefValve(180, s), directionalValve("Luffing valve", s), cylinder("Luffing cylinder", s)],
    },
    {
      area: "Slipway", name: "Slipway winch", tag: "SW-1", round: "Ramp, gangway and slipway", hoursPerDay: 2.5, circuit: "Winch circuit", pressure: 180, fluid: VG46, temperature: base,
      components: [tank(50), pump("Pump", { pressure: 180 }), reliefValve(210, s), pistonMotor("Winch motor", 1000, s, { knownWhenNew: false }, 3)],
    },
    {
      area: "Slipway", name: "Cradle jacks", tag: "SW-2", oil: { everyDays: 120, volume: 90, water: { sinceDaysAgo: 250, ppm: 720 } }, round: "Ramp, gangway and slipway", hoursPerDay: 1, circuit: "Jack circuit", pressure: 250, fluid: VG32, temperature: { mean: 36, swing: 9, scatter: 2 },
      components: [gearPump("Pump", 6, 200, s), directionalValve("Jack valve", s), cylinder("Jack 1", s), cylinder("Jack 2", s)],
    },
    crane(1, pump("Hoist pump", { displacement: 71, pressure: 250, meter: craneMeter }), proportionalValve("Hoist valve", s), filter(s)),
    crane(2, pump("Hoist pump", { displacement: 71, pressure: 250, caseDrain: { truth: { law: "clearance", end: 4.6, crossesInDays: 290, change: dirt } } }), proportionalValve("Hoist valve", s, { leak: { truth: { law: "clearance", end: 4.2, crossesInDays: 420, change: dirt } } }), filter(s, { elements: [1620, 1165, 710, 261], past: 0.33 }),
      { dirt: { daysAgo: 252, counts: 8, metals: { iron: 4.5, copper: 4, tin: 3.5 } } }),
    crane(3, pump("Hoist pump", { displacement: 71, pressure: 250, meter: craneMeter }), proportionalValve("Hoist valve", s), filter(s)),
    {
      area: "Quay", name: "Straddle carrier 1", tag: "SC-1", oil: { fromDrain: 100 }, round: "Yard machines", hoursPerDay: 12, circuit: "Lift circuit", pressure: 230, fluid: VG46, temperature: base,
      components: [tank(55), pump("Pump", { displacement: 63, pressure: 230 }), reliefValve(265, s), filter(s), directionalValve("Lift valve", s), cylinder("Lift cylinder", s)],
    },
    {
      area: "Quay", name: "Straddle carrier 2", tag: "SC-2", round: "Yard machines", hoursPerDay: 12, circuit: "Lift circuit", pressure: 230, fluid: VG46, temperature: base,
      components: [tank(55), pump("Pump", { displacement: 63, pressure: 230 }), reliefValve(265, s), filter(s), directionalValve("Lift valve", s), cylinder("Lift cylinder", s)],
    },
    {
      area: "Quay", name: "Mobile harbour crane", tag: "MH-1", round: "Yard machines", hoursPerDay: 7, circuit: "Luffing circuit", pressure: 240, fluid: VG46, temperature: base,
      components: [tank(53), pump("Pump", { displacement: 71, pressure: 240, meter: craneMeter }), reliefValve(275, s), filter(s), proportionalValve("Luffing valve", s), cylinder("Luffing cylinder", s)],
    },
    {
      area: "Yard", name: "Waste compactor", tag: "WC-1", oil: { flushed: { daysAgo: 426, counts: 14 } }, round: "Yard machines", hoursPerDay: 8, circuit: "Press circuit", pressure: 200, fluid: VG46, temperature: base,
      components: [
        tank(52),
        { ...pump("Pump", { pressure: 200, leadTimeDays: 35 }), replacedDaysAgo: 425 },
        reliefValve(235, s), filter(s), directionalValve("Press valve", s), cylinder("Press cylinder", s),
      ],
    },
    {
      area: "Yard", name: "Dredge tender hoist", tag: "DT-1", round: "Yard machines", hoursPerDay: 4, circuit: "Hoist circuit", pressure: 180, fluid: ESTER, temperature: base,
      components: [gearPump("Pump", 28, 170, s), reliefValve(200, s), directionalValve("Hoist valve", s), filter(s)],
    },
    {
      area: "Yard", name: "Workshop press", tag: "WP-1", round: "Yard machines", hoursPerDay: 2, circuit: "Press circuit", pressure: 300, fluid: VG32, temperature: { mean: 38, swing: 6, scatter: 2 },
      components: [gearPump("Pump", 6, 220, s), reliefValve(320, s), cylinder("Ram", s)],
    },
    {
      area: "Yard", name: "Fender jack set", tag: "FJ-1", round: "Yard machines", hoursPerDay: 0.8, circuit: "Jack circuit", pressure: 200, fluid: VG32, temperature: { mean: 32, swing: 9, scatter: 2 },
      components: [gearPump("Pump", 6, 180, s), directionalValve("Jack valve", s), cylinder("Fender jack", s)],
    },
  ];
}
