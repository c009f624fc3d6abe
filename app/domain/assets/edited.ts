/** What becomes of an edit of the fleet register. `version`: of the record as somebody else left it meanwhile. */
export type Edited =
  { ok: true; id: string } | { ok: false; problems: Record<string, string>; status: number; version?: number };
