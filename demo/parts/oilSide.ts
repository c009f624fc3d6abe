/** Filter and tank as the harbour has them, each with the points that are read of it and what is true of a sound one. */
import { absolute, maker, type Spread } from "./limits";
import type { ComponentPlan } from "../world";

/** Elements last about fifteen months; their drop grows the faster the fuller they are. */
export function filter(s: Spread, change: Partial<ComponentPlan> = {}): ComponentPlan {
  const first = s(1500, 1800);
  const asNew = s(0.7, 1.0);
  return {
    kind: "filter",
    name: "Return filter",
    model: "EF 10",
    leadTimeDays: 3,
    elements: [first, first - s(430, 480), first - s(880, 960), first - s(1330, 1440)]
      .map(Math.round)
      .filter((d) => d > 20),
    filter: { beta: 200, size: 6, flow: 65, bypass: 3, element: "EF 10, 6 µm" },
    points: [
      {
        name: "Differential pressure",
        quantity: "pressureDrop",
        state: "fullStroke",
        asNew,
        noise: 0.045,
        limit: maker(2.8),
        reference: { pressure: 1, temperature: 50 },
        a: 0,
        b: -1,
        conditions: "Oil above 35 °C, full flow",
      },
    ],
    ...change,
  };
}

export function tank(temperature: number, limit = 70): ComponentPlan {
  return {
    kind: "other",
    name: "Reservoir",
    model: "",
    leadTimeDays: 0,
    points: [
      {
        name: "Oil temperature",
        quantity: "temperature",
        state: "fullStroke",
        asNew: temperature,
        noise: 0.03,
        limit: absolute(limit),
        conditions: "After an hour at work, level read hot",
      },
    ],
  };
}
