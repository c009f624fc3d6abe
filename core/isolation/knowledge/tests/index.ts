/** Every test that the house knows, by id. */
import type { Test } from "../types";
import { openedTests } from "./opened";
import { outsideTests } from "./outside";
import { supplyTests } from "./supply";
import { workTests } from "./work";

const all = { ...outsideTests, ...supplyTests, ...workTests, ...openedTests };

export type TestId = keyof typeof all;
export const tests: Readonly<Record<TestId, Test>> = all;
export const testIds = Object.keys(all) as TestId[];
