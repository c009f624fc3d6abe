/** The working of a computed number. */
import { decimalsFor, formatNumber, type Working, type WorkingRow } from "@core";
import { useShow } from "./site";

/** A label with its figures in the reader's units. */
function labelOf({ label, given = [] }: WorkingRow, show: ReturnType<typeof useShow>): string {
  const [first = "", ...rest] = label.split("{}");
  return rest.reduce((text, part, i) => {
    const figure = given[i];
    const digits = figure?.digits === undefined ? {} : { digits: figure.digits };
    return text + (figure ? show(figure.value, figure.quantity, digits) : "") + part;
  }, first);
}

export function WorkingTable({ working }: { working: Working }) {
  const show = useShow();
  return (
    <div className="text-sm">
      <p className="pt-2 text-ink">{working.formula}</p>
      <dl className="mt-1">
        {working.rows.map((row, i) => (
          <div key={i} className="flex justify-between gap-3 py-0.5">
            <dt className="text-ink-2">{labelOf(row, show)}</dt>
            <dd className="font-semibold whitespace-nowrap">
              {row.quantity
                ? show(row.value, row.quantity, row.digits === undefined ? {} : { digits: row.digits })
                : formatNumber(row.value, row.digits ? decimalsFor(row.value, row.digits) : 0)}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-ink-2">
        {working.source} {working.note}
      </p>
    </div>
  );
}
