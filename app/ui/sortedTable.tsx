/** A table whose columns sort: by the reader's click, in the order given until then. */
import { useState, type ReactNode } from "react";
import { inOrder, type Key } from "./sortRows";

export interface Column<Row> {
  id: string;
  label: string;
  right?: boolean;
  className?: string | ((row: Row) => string);
  /** What the column sorts by; a column without it stays as it is. null goes last either way. */
  by?: (row: Row) => Key;
  cell: (row: Row) => ReactNode;
}

interface Order {
  id: string;
  descending: boolean;
}

export function SortedTable<Row extends { id: string }>(props: {
  label: string;
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  rowClass?: (row: Row) => string;
  small?: boolean;
}) {
  const { label, columns, rows, rowClass, small } = props;
  const [order, setOrder] = useState<Order | null>(null);
  const by = order && columns.find((c) => c.id === order.id)?.by;
  const sorted = by ? inOrder(rows, by, order.descending) : rows;
  const pad = small ? "text-sm [&_td]:py-1 [&_th]:py-1" : "[&_td]:py-1.5 [&_th]:py-1.5";
  return (
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={label}>
      <table className={`w-full [&_td]:pr-4 [&_th]:pr-4 ${pad}`}>
        <thead>
          <tr className="ruled">
            {columns.map((c) => {
              const mine = order?.id === c.id ? order : null;
              const next = mine
                ? mine.descending
                  ? null
                  : { id: c.id, descending: true }
                : { id: c.id, descending: false };
              return (
                <th
                  key={c.id}
                  scope="col"
                  className={c.right ? "text-right" : ""}
                  aria-sort={mine ? (mine.descending ? "descending" : "ascending") : undefined}
                >
                  {c.by ? (
                    <button type="button" className="font-[inherit] hover:text-ink" onClick={() => setOrder(next)}>
                      {c.label}
                      <span aria-hidden="true" className="inline-block w-3 text-center">
                        {mine ? (mine.descending ? "↓" : "↑") : ""}
                      </span>
                    </button>
                  ) : (
                    c.label
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {sorted.map((row) => (
            <tr key={row.id} className={`ruled ${rowClass?.(row) ?? ""}`}>
              {columns.map((c) => {
                const own = typeof c.className === "function" ? c.className(row) : (c.className ?? "");
                return (
                  <td key={c.id} className={`${c.right ? "text-right" : ""} ${own}`}>
                    {c.cell(row)}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
