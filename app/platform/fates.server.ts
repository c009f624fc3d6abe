/** What would become of each row of a file, as the preview shows it. */

export const SHOWN_ROWS = 25;

const SHOWN_BAD = 200;

const SHOWN_CELLS = 16;

/** `odd`: added all the same, but somebody should look. */
export type AnyFate =
  | { line: number; fate: "add"; odd?: string }
  | { line: number; fate: "there" }
  | { line: number; fate: "bad"; reason: string };

/** Different faults that are told apart. */
const SHOWN_FAULTS = 50;

/** What a preview shows, collected row by row: counts of all, the first rows, the first bad ones. */
export class FatesShown<F extends AnyFate> {
  private readonly counts = { add: 0, there: 0, bad: 0 };
  private readonly bad: { line: number; reason: string }[] = [];
  private readonly odd: { line: number; reason: string }[] = [];
  /** The same fault in many rows is told once. */
  private readonly faults = new Map<string, { count: number; first: number; last: number }>();
  private readonly rows: { line: number; cells: string[]; fate: AnyFate["fate"]; reason: string }[] = [];

  constructor(private readonly nameOf: (fate: F & { fate: "add" }) => string) {}

  take(fate: F, cells: readonly string[]): void {
    this.counts[fate.fate]++;
    if (fate.fate === "bad") {
      if (this.bad.length < SHOWN_BAD) this.bad.push({ line: fate.line, reason: fate.reason });
      this.count(fate.reason, fate.line);
    }
    if (fate.fate === "add" && fate.odd && this.odd.length < SHOWN_BAD)
      this.odd.push({ line: fate.line, reason: fate.odd });
    const reason =
      fate.fate === "bad"
        ? fate.reason
        : fate.fate === "there"
          ? "recorded already"
          : this.nameOf(fate as F & { fate: "add" });
    if (this.rows.length < SHOWN_ROWS)
      this.rows.push({
        line: fate.line,
        cells: cells.slice(0, SHOWN_CELLS).map((c) => c.slice(0, 60)),
        fate: fate.fate,
        reason,
      });
  }

  private count(reason: string, line: number, times = 1): void {
    const known = this.faults.get(reason);
    if (known) Object.assign(known, { count: known.count + times, last: Math.max(known.last, line) });
    else if (this.faults.size < SHOWN_FAULTS) this.faults.set(reason, { count: times, first: line, last: line });
  }

  /**
   * Held against the record: of the rows that were good by themselves some are there already, and some say another
   * thing than the record. @param lines of the first rows that are there, and of the first that contradict
   */
  settle(
    there: { count: number; lines: readonly number[] },
    against: { count: number; lines: readonly number[] },
    reason: string,
  ): void {
    this.counts.add -= there.count + against.count;
    this.counts.there += there.count;
    this.counts.bad += against.count;
    const [known, wrong] = [new Set(there.lines), new Set(against.lines)];
    for (const row of this.rows) {
      if (known.has(row.line)) Object.assign(row, { fate: "there", reason: "recorded already" });
      if (wrong.has(row.line)) Object.assign(row, { fate: "bad", reason });
    }
    this.bad.push(...against.lines.map((line) => ({ line, reason })));
    if (against.count > 0) this.count(reason, against.lines[0] ?? 0, against.count);
    this.bad.sort((p, q) => p.line - q.line);
    this.bad.length = Math.min(this.bad.length, SHOWN_BAD);
  }

  /** The last line that is shown. */
  get lastShown(): number {
    return this.rows.at(-1)?.line ?? 0;
  }

  get found(): { add: number; there: number; bad: number } {
    return this.counts;
  }

  /** @param headings cells of the line that names the columns */
  shown(headings: string[]) {
    const faults = [...this.faults].map(([reason, where]) => ({ reason, ...where })).sort((a, b) => b.count - a.count);
    return { head: headings, counts: this.counts, bad: this.bad, faults, odd: this.odd, rows: this.rows };
  }
}

/** What a preview shows of a file. */
export type ShownFates = ReturnType<FatesShown<AnyFate>["shown"]>;
