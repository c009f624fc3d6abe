/** What no healthy or broken machine can show: asked about from the first reading on. */
import type { Question } from "../assessment/question";
import { formatQuantity } from "../units/format";
import { quantityOf, type PointQuantityId } from "../units/quantities";

/** A meter and a plate are each off by a little. */
const SLACK = 1.08;
/** A peak stands above the working pressure; more than this many times it is another unit (common practice). */
const OVER_WORKING = 1.8;
/** Hotter than this, °C, no hydraulic oil is at work: it smokes. */
const HOTTEST = 130;
const flows: readonly PointQuantityId[] = ["flow", "caseDrainFlow", "leakageFlow"];

export interface KnownOfCircuit {
  /** Displacement times speed of all its pumps, L/min; null: not stated. */
  pumpedFlow: number | null;
  /** bar; null: not stated. */
  workingPressure: number | null;
}

/**
 * What is asked of a value that physics forbids: the log form and the tablet hold it back until it is answered.
 * @param quantity what was read
 * @param value core unit
 * @param known of the circuit, from plates and settings
 * @returns the question; undefined: it can be
 * @example physicsQuestion("flow", 174, { pumpedFlow: 46.2, workingPressure: null }).kind // "physics"
 */
export function physicsQuestion(quantity: PointQuantityId, value: number, known: KnownOfCircuit): Question | undefined {
  const odd = physicallyOdd(quantity, value, known);
  return odd ? { kind: "physics", message: `${odd} Read it once more, or keep it and say why.` } : undefined;
}

/**
 * Why a value cannot be, whatever the machine's condition: it is asked about or listed, never refused.
 * @param quantity what was read
 * @param value core unit
 * @param known of the circuit, from plates and settings
 * @returns a sentence; undefined: it can be
 * @example physicallyOdd("flow", 44, { pumpedFlow: 46.2, workingPressure: null }) // undefined
 * @example typeof physicallyOdd("flow", 174, { pumpedFlow: 46.2, workingPressure: null }) // "string"
 */
export function physicallyOdd(quantity: PointQuantityId, value: number, known: KnownOfCircuit): string | undefined {
  const { pumpedFlow, workingPressure } = known;
  const show = (core: number) => formatQuantity(core, quantity, { unit: quantityOf(quantity).unit });
  if (flows.includes(quantity) && pumpedFlow !== null && value > pumpedFlow * SLACK)
    return `${show(value)} is more than the pumps of this circuit deliver: ${show(pumpedFlow)} by displacement and speed.`;
  if (quantity === "pressure" && workingPressure !== null && value > workingPressure * OVER_WORKING)
    return `${show(value)} is far above the working pressure of ${show(workingPressure)} and every setting near it.`;
  if (quantity === "temperature" && value > HOTTEST) return `${show(value)} is hotter than any hydraulic oil at work.`;
  return undefined;
}
