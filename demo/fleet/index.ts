/** The twenty-four machines, with the stories among them. */
import { random } from "@core";
import type { MachinePlan } from "../world";
import { bridgeMachines } from "./bridge";
import { lockMachines } from "./lock";
import { quayMachines } from "./quay";

/** The plan of the whole fleet; the same seed gives the same fleet. All draw from one stream, in this order. */
export function fleetPlan(seed = 20261124): MachinePlan[] {
  const rng = random(seed).fork("fleet");
  const s = (low: number, high: number) => rng.between(low, high);
  return [...lockMachines(s), ...bridgeMachines(s), ...quayMachines(s)];
}
