/** The library of elements, by kind. */
import { consumer, cylinder, motor } from "./actuator";
import { counterbalance, pilotCheck } from "./holding";
import { closedLoopPump, flushing } from "./loop";
import { accumulator, cooler, filter, flowControl, line, shuttle, strainer, tank, throttle } from "./passive";
import { compensatedPump, fixedPump } from "./pump";
import { check, reducing, relief, sequence, unloader } from "./relief";
import type { ElementKind } from "./types";
import { directional, proportional } from "./valve";

const define = <K extends string>(kinds: Record<K, ElementKind>) => kinds;

export const elementKinds = define({
  tank,
  strainer,
  fixedPump,
  compensatedPump,
  closedLoopPump,
  relief,
  unloader,
  check,
  sequence,
  reducing,
  flowControl,
  throttle,
  line,
  filter,
  cooler,
  accumulator,
  directional,
  proportional,
  pilotCheck,
  counterbalance,
  shuttle,
  flushing,
  cylinder,
  motor,
  consumer,
});

export type ElementKindId = keyof typeof elementKinds;
export const elementKindIds = Object.keys(elementKinds) as ElementKindId[];
