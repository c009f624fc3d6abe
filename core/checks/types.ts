/** A test at the machine: what must be true first, what is altered, what is entered, what it says. Definitions are data. */
import type { ComponentKind } from "../equipment/kinds";
import type { Calculator } from "../calculators/types";
import type { PointQuantityId } from "../units/quantities";

export interface Check {
  id: string;
  title: string;
  /** Kinds of component on which it is offered. */
  kinds: readonly ComponentKind[];
  /** What must be true before it starts. */
  before: readonly string[];
  caution: string;
  /** The maker's way, done first where there is one. */
  makersWay: string;
  /** A way that people use and warn against. */
  notRecommended?: string;
  steps: readonly string[];
  /** What is altered for it, to be put back afterwards. */
  alters: readonly string[];
  /** Broken off at once when this line of the working lies above that one. */
  breakOff?: { row: string; above: string; then: string };
  /** Seconds after which it is broken off, with what to do then. */
  timeLimit?: { seconds: number; then: string };
  calculation: Calculator;
  /** Line of the working that is compared with last time. */
  compares?: string;
}

/** A test that a plant defines for itself: readings, each with its bounds. */
export interface PlantTest {
  title: string;
  asks: string;
  kinds: readonly ComponentKind[];
  before: readonly string[];
  caution: string;
  steps: readonly string[];
  alters: readonly string[];
  readings: readonly { label: string; quantity: PointQuantityId; least: number | null; greatest: number | null }[];
}
