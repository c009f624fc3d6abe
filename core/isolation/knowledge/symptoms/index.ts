/** Every symptom that the house knows, by id. */
import type { Symptom } from "../types";
import { motionSymptoms } from "./motion";
import { pressureSymptoms } from "./pressure";
import { wearSymptoms } from "./wear";

const all = { ...pressureSymptoms, ...motionSymptoms, ...wearSymptoms };

export type SymptomId = keyof typeof all;
export const symptoms: Readonly<Record<SymptomId, Symptom>> = all;
export const symptomIds = Object.keys(all) as SymptomId[];

/** As a person looks for them. */
export const symptomGroups: { title: string; ids: SymptomId[] }[] = [
  { title: "Pressure and force", ids: Object.keys(pressureSymptoms) as SymptomId[] },
  { title: "Movement and holding", ids: Object.keys(motionSymptoms) as SymptomId[] },
  { title: "Heat, sound, leakage, oil", ids: Object.keys(wearSymptoms) as SymptomId[] },
];
