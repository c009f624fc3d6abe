/** The bridge, the ro-ro berths and the slipway. */
import { cylinder, pistonMotor } from "../parts/actuators";
import { filter, tank } from "../parts/oilSide";
import { gearPump } from "../parts/pumps";
import { directionalValve, proportionalValve, reliefValve } from "../parts/valves";
import type { Spread } from "../parts/limits";
import type { MachinePlan } from "../world";
import { ESTER, USUAL_WARMTH, VG32, VG46, harbourPump } from "./common";

export function bridgeMachines(s: Spread): MachinePlan[] {
  const pump = harbourPump(s);
  return [
    {
      area: "Bridge",
      name: "Bascule bridge drive",
      tag: "BR-D",
      oil: { everyDays: 45, silting: { sinceDaysAgo: 1250, doublingDays: 620 } },
      round: "Bridge drive and locks",
      hoursPerDay: 6,
      circuit: "Main drive circuit",
      pressure: 200,
      fluid: VG46,
      temperature: { mean: 43, swing: 11, scatter: 1.6, warming: 1.8 },
      components: [
        tank(50),
        pump("Pump 1", { pressure: 200, caseDrain: { b: 0.95 } }),
        pump("Pump 2", { pressure: 200 }),
        reliefValve(235, s),
        filter(s),
        proportionalValve("Proportional valve 1", s, {
          leak: { asNew: 0.6, truth: { law: "linear", end: 4.17, crossesInDays: 700 } },
          response: { asNew: 0.08, truth: { law: "linear", end: 1.875, crossesInDays: 1100 } },
        }),
        pistonMotor("Drive motor", 750, s),
      ],
    },
    {
      area: "Bridge",
      name: "Bridge nose locks",
      tag: "BR-L",
      round: "Bridge drive and locks",
      hoursPerDay: 1.5,
      circuit: "Lock circuit",
      pressure: 150,
      fluid: VG32,
      temperature: { mean: 38, swing: 9, scatter: 2 },
      components: [
        gearPump("Pump", 8, 140, s),
        reliefValve(170, s),
        directionalValve("Lock valve", s),
        cylinder("Nose lock cylinder", s),
      ],
    },
    {
      area: "Ro-ro",
      name: "Ro-ro ramp",
      tag: "RR-1",
      oil: { wrongFill: { daysAgo: 160, litres: 90, fluid: "Harbour mineral oil VG 32" } },
      round: "Ramp, gangway and slipway",
      hoursPerDay: 5,
      circuit: "Ramp circuit",
      pressure: 190,
      fluid: ESTER,
      temperature: USUAL_WARMTH,
      components: [
        tank(50),
        pump("Pump", { pressure: 190 }),
        reliefValve(225, s),
        filter(s),
        {
          kind: "loadHoldingValve",
          name: "Port check valve",
          model: "EH 12",
          leadTimeDays: 21,
          points: [
            {
              name: "Pilot check margin",
              quantity: "pilotMargin",
              state: "holding",
              asNew: 60,
              noise: 0.03,
              limit: { basis: "absolute", upper: null, lower: 10 },
              conditions: "Ramp parked and propped, both chamber pressures after 10 min",
              truth: { law: "linear", end: 1 / 6, crossesInDays: 190 },
            },
          ],
        },
        cylinder("Lift cylinder, port", s),
        cylinder("Lift cylinder, starboard", s),
      ],
    },
    {
      area: "Ro-ro",
      name: "Passenger gangway",
      tag: "RR-2",
      round: "Ramp, gangway and slipway",
      hoursPerDay: 3,
      circuit: "Gangway circuit",
      pressure: 160,
      fluid: VG32,
      temperature: USUAL_WARMTH,
      components: [
        gearPump("Pump", 11, 150, s),
        reliefValve(180, s),
        directionalValve("Luffing valve", s),
        cylinder("Luffing cylinder", s),
      ],
    },
    {
      area: "Slipway",
      name: "Slipway winch",
      tag: "SW-1",
      round: "Ramp, gangway and slipway",
      hoursPerDay: 2.5,
      circuit: "Winch circuit",
      pressure: 180,
      fluid: VG46,
      temperature: USUAL_WARMTH,
      components: [
        tank(50),
        pump("Pump", { pressure: 180 }),
        reliefValve(210, s),
        pistonMotor("Winch motor", 1000, s, { knownWhenNew: false }, 3),
      ],
    },
    {
      area: "Slipway",
      name: "Cradle jacks",
      tag: "SW-2",
      oil: { everyDays: 120, volume: 90, water: { sinceDaysAgo: 250, ppm: 720 } },
      round: "Ramp, gangway and slipway",
      hoursPerDay: 1,
      circuit: "Jack circuit",
      pressure: 250,
      fluid: VG32,
      temperature: { mean: 36, swing: 9, scatter: 2 },
      components: [
        gearPump("Pump", 6, 200, s),
        directionalValve("Jack valve", s),
        cylinder("Jack 1", s),
        cylinder("Jack 2", s),
      ],
    },
  ];
}
