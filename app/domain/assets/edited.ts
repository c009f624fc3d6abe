import type { Answer } from "~/domain/answer";

/** What becomes of an edit of the fleet register. `version`: of the record as somebody else left it meanwhile. */
export type Edited = Answer<{ id: string }, { version?: number }>;
