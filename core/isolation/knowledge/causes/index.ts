/** Every cause that the house knows, by id. */
import type { Cause } from "../types";
import { controlCauses } from "./control";
import { serviceCauses } from "./service";
import { supplyCauses } from "./supply";
import { workCauses } from "./work";

const all = { ...supplyCauses, ...controlCauses, ...workCauses, ...serviceCauses };

export type CauseId = keyof typeof all;
export const causes: Readonly<Record<CauseId, Cause>> = all;
/** What a cause asks for at its place: the same act at the same place is one, whatever it is called for. */
export const actOf = ({ act, part }: Cause, element: string | null): string => `${act.do} ${element ?? part}`;
export const causeIds = Object.keys(all) as CauseId[];
