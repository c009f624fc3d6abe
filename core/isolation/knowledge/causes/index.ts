/** Every cause that the house knows, by id. */
import type { Cause } from "../types";
import { controlCauses } from "./control";
import { serviceCauses } from "./service";
import { supplyCauses } from "./supply";
import { workCauses } from "./work";

const all = { ...supplyCauses, ...controlCauses, ...workCauses, ...serviceCauses };

export type CauseId = keyof typeof all;
export const causes: Readonly<Record<CauseId, Cause>> = all;
export const causeIds = Object.keys(all) as CauseId[];
