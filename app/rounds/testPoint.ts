/** For tests of a walk: the case drain of a hoist's pump. */
import { DAY } from "@core";
import type { WalkPoint } from "~/domain/rounds/index.server";

export const NOW = Date.UTC(2026, 10, 24, 9);

export const drain: WalkPoint = {
  id: "p",
  name: "Case drain",
  machine: "Quay crane 2",
  machineId: "m",
  circuit: "Hoist",
  circuitId: "k",
  component: "Hoist pump",
  componentId: "c",
  quantity: "caseDrainFlow",
  unit: "L/min",
  readState: "any",
  conditions: "at 210 bar",
  instrument: null,
  caution: "",
  fluid: { kv40: 46, kv100: 6.8, density15: 875 },
  expectation: null,
  known: { pumpedFlow: 103, workingPressure: 210 },
  state: "steady",
  last: { raw: 1.5, at: NOW - 7 * DAY, temperature: 48, hours: 12_000 },
  timeZone: "Europe/London",
  needsConditions: true,
  isOilTemperature: false,
  dueAt: NOW,
  everyDays: 7,
  closer: false,
};
