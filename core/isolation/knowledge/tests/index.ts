/** Every test that the house knows, by id. */
import type { Test } from "../types";
import { measuredTests } from "./measured";
import { openedTests } from "./opened";
import { outsideTests } from "./outside";

const all = { ...outsideTests, ...measuredTests, ...openedTests };

export type TestId = keyof typeof all;
export const tests: Readonly<Record<TestId, Test>> = all;
export const testIds = Object.keys(all) as TestId[];
