/** The lives of a part in its place: replacements of a pump, elements of a filter. */
import { DAY } from "@core";
import type { ComponentPlan, PointPlan } from "./world";

/** An element is full after so many days, and its drop is then this many times that of a new one. */
const ELEMENT_DAYS = 500;
const ELEMENT_FULL = 2.7;

/** When each life began, the first at the origin, with an id for each. */
export function livesOf(component: ComponentPlan, now: number, origin: number): { starts: number[]; ids: string[] } {
  const renewed = component.elements ?? (component.replacedDaysAgo === undefined ? [] : [component.replacedDaysAgo]);
  const starts = [origin, ...renewed.map((days) => now - days * DAY)];
  return { starts, ids: starts.map(() => crypto.randomUUID()) };
}

/** What is true of a point in one of these lives. */
export function lifePlan(
  point: PointPlan,
  component: ComponentPlan,
  starts: readonly number[],
  life: number,
  now: number,
): PointPlan {
  const last = life === starts.length - 1;
  if (component.elements) {
    if (last && component.past !== undefined) return { ...point, asNew: point.asNew * component.past };
    return {
      ...point,
      truth: { law: "exponential", end: ELEMENT_FULL, crossesInDays: (starts[life]! - now) / DAY + ELEMENT_DAYS },
    };
  }
  return last
    ? point
    : { ...point, truth: { law: "exponential", end: 4.9, crossesInDays: (starts[life + 1]! - now) / DAY } };
}
