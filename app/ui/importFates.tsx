/** What becomes of the rows of a file, before it is imported. */
import { counted } from "./counted";
import { CheckField } from "./form";
import { Section } from "./page";

const lineText = (line: number) => `line ${line}`;

export const columnText = (column: number | null | undefined) =>
  column === null || column === undefined ? "" : String(column);

export interface FileFates {
  head: string[];
  rows: { line: number; cells: string[]; fate: "add" | "there" | "bad"; reason: string }[];
  bad: { line: number; reason: string }[];
  /** The same, one for all rows that have it. */
  faults: { reason: string; count: number; first: number; last: number }[];
  /** Added all the same, but somebody should look. */
  odd: { line: number; reason: string }[];
  counts: { add: number; there: number; bad: number };
}

/** "3 to add, 1 bad". */
export function fatesText({ counts }: FileFates): string {
  if (counts.add + counts.there + counts.bad === 0) return "The file has no rows";
  const parts = [`${counts.add} to add`];
  if (counts.there) parts.push(`${counts.there} there already`);
  if (counts.bad) parts.push(`${counts.bad} bad`);
  return parts.join(", ");
}

const fateText = { add: "will be added", there: "there already", bad: "bad" };

export function BadRows({ fates: { bad, faults, counts }, skipBad }: { fates: FileFates; skipBad: boolean }) {
  if (bad.length === 0) return null;
  // a fault of many rows is one fault
  const told = faults.length < bad.length && faults.length > 0;
  return (
    <Section
      title="Bad rows, by line"
      aside={counts.bad > bad.length ? `the first ${bad.length} of ${counts.bad}` : undefined}
    >
      <ul className="max-h-56 overflow-y-auto text-sm" tabIndex={0} aria-label="Bad rows">
        {(told ? faults : bad.map((b) => ({ reason: b.reason, count: 1, first: b.line, last: b.line }))).map((f) => (
          <li key={`${f.first} ${f.reason}`} className="ruled grid grid-cols-[11rem_minmax(0,1fr)] py-1">
            <span className="text-ink-2">
              {f.count === 1 ? lineText(f.first) : `${f.count} rows, ${f.first} to ${f.last}`}
            </span>
            <span className="[overflow-wrap:anywhere]">{f.reason}</span>
          </li>
        ))}
      </ul>
      <CheckField
        name="skipBad"
        label={`Leave out the ${counted(counts.bad, "bad row")} and import the rest`}
        defaultChecked={skipBad}
      />
    </Section>
  );
}

export function OddRows({ odd }: { odd: FileFates["odd"] }) {
  if (odd.length === 0) return null;
  return (
    <Section
      title="Values and running hours to look at"
      aside="imported as they are; hours that do not fit are not used"
    >
      <ul className="max-h-40 overflow-y-auto text-sm" tabIndex={0} aria-label="Rows to look at">
        {odd.map((o) => (
          <li key={o.line} className="ruled grid grid-cols-[5rem_minmax(0,1fr)] py-1">
            <span className="text-ink-2">{lineText(o.line)}</span>
            <span className="[overflow-wrap:anywhere]">{o.reason}</span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

export function FirstRows({ fates: { head, rows }, hasHeader }: { fates: FileFates; hasHeader: boolean }) {
  return (
    <Section title="First rows and what becomes of them">
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="First rows">
        <table className="w-full text-sm whitespace-nowrap [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">line</th>
              <th scope="col">fate</th>
              {hasHeader
                ? head.slice(0, 16).map((h, i) => (
                    <th scope="col" key={i}>
                      {h}
                    </th>
                  ))
                : null}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.line} className="ruled">
                <td className="text-ink-2">{r.line}</td>
                <td
                  className={
                    r.fate === "bad" ? "font-medium text-verm" : r.fate === "there" ? "text-ink-2" : "text-sea"
                  }
                >
                  {fateText[r.fate]}
                </td>
                {r.cells.map((c, i) => (
                  <td key={i}>{c}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Section>
  );
}
