/** What falls due by date, a line each: what, why, when. */
import { Link } from "react-router";
import { Due } from "./due";

export interface DueRow {
  kind: string;
  id: string;
  what: string;
  why: string;
  dueAt: number;
  to: string;
}

export function DueRows({ items }: { items: readonly DueRow[] }) {
  return (
    <ul>
      {items.map((d) => (
        <li key={d.kind + d.id} className="ruled grid grid-cols-[minmax(0,1fr)_6.5rem] gap-x-3 py-1.5">
          <span className="min-w-0 [overflow-wrap:anywhere]">
            <Link to={d.to} className="hover:underline">
              {d.what}
            </Link>
            <span className="text-ink-2">: {d.why}</span>
          </span>
          <span className="text-right">
            <Due at={d.dueAt} />
          </span>
        </li>
      ))}
    </ul>
  );
}
