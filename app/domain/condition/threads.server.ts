/** Judging a point, in a thread. */
import { inThreads } from "~/platform/threads.server";
import assessTask, { type AssessResult, type AssessTask } from "./assessTask";

export type { AssessResult };

/** Judge one point in a thread. Rejects when the task throws. */
export const assessInThread = inThreads<AssessTask, AssessResult>("assess", assessTask);
