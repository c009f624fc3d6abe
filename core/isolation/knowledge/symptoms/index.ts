/** Every symptom that the house knows, by id. */
import type { Symptom } from "../types";
import { motionSymptoms } from "./motion";
import { pressureSymptoms } from "./pressure";
import { wearSymptoms } from "./wear";

const all = { ...pressureSymptoms, ...motionSymptoms, ...wearSymptoms };

export type SymptomId = keyof typeof all;
export const symptoms: Readonly<Record<SymptomId, Symptom>> = all;
export const symptomIds = Object.keys(all) as SymptomId[];
