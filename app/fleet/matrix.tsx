import { Form, Link, useSearchParams } from "react-router";
import type { Route } from "./+types/matrix";
import {
  stateWords,
  conditionStates,
  formatNumber,
  readingFamilies,
  readingFamilyIds,
  type ReadingFamily,
} from "@core";
import { fleetMatrix, type MatrixCell } from "~/domain/overview/index.server";
import { areaList } from "~/domain/assets/index.server";
import { guard } from "~/platform/guard.server";
import { fieldClass } from "~/ui/form";
import { Empty, PageHead } from "~/ui/page";
import { StateGlyph, stateTone } from "~/ui/state";

export const meta = () => [{ title: "Fleet · Juncteral" }];

export const loader = guard("viewer", async ({ request }) => {
  const search = new URL(request.url).searchParams;
  const wish = {
    area: search.get("area") ?? "",
    state: search.get("state") ?? "",
    sort: search.get("sort") ?? "",
    page: Number(search.get("page") ?? 0) || 0,
  };
  const [matrix, areas] = await Promise.all([fleetMatrix(wish), areaList()]);
  return { ...matrix, areas, wish };
});

/** Where a cell leads: to the point that is worst there, or to the oil. */
const wayOf = (family: ReadingFamily, cell: MatrixCell) =>
  family === "oil" ? `/oil/${cell.id}` : `/points/${cell.id}`;

function Cell({ family, cell, machine }: { family: ReadingFamily; cell: MatrixCell | undefined; machine: string }) {
  if (!cell) return <span aria-label="no such reading">·</span>;
  const known = cell.margin !== null && cell.state !== "unproven";
  const percent = known ? Math.round(Math.max(0, cell.margin!) * 100) : null;
  const text =
    percent === null
      ? "not known yet"
      : `${percent > 999 ? "far over" : `${formatNumber(percent, 0)} %`} of margin used`;
  return (
    <Link
      to={wayOf(family, cell)}
      aria-label={`${machine}, ${readingFamilies[family].toLowerCase()}: ${stateWords[cell.state]}, ${text}`}
      title={`${stateWords[cell.state]}, ${text}`}
      className={`inline-flex min-h-8 items-center gap-1 hover:bg-sea-soft max-lg:min-h-11 ${stateTone[cell.state]}`}
    >
      <StateGlyph state={cell.state} size={15} />
      <span
        className={`w-9 text-left text-xs tabular-nums ${cell.state === "alarm" || cell.state === "alert" ? "font-semibold" : ""}`}
      >
        {percent === null ? "–" : percent > 999 ? "> 999" : percent}
      </span>
    </Link>
  );
}

export default function Matrix({ loaderData: { rows, found, from, more, areas, wish } }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const way = (change: Record<string, string>) => {
    const next = new URLSearchParams(search);
    next.delete("page");
    for (const [name, value] of Object.entries(change))
      if (value) next.set(name, value);
      else next.delete(name);
    return `?${next.toString()}`;
  };
  const head = (id: string, label: string) => (
    <Link
      to={way({ sort: wish.sort === id ? "" : id })}
      className={`hover:text-ink ${wish.sort === id ? "font-semibold text-ink" : ""}`}
    >
      {label}
      {wish.sort === id ? <span aria-hidden="true"> ↓</span> : null}
    </Link>
  );
  const sorted = (id: string) => (wish.sort === id ? "descending" : undefined);
  return (
    <>
      <PageHead title="The fleet at a glance">
        <p>Worst reading of each family, with the margin used in percent: 100 is the limit.</p>
      </PageHead>
      <Form method="get" className="mb-3 flex flex-wrap items-end gap-3">
        {wish.sort ? <input type="hidden" name="sort" value={wish.sort} /> : null}
        <label className="text-sm">
          Area
          <select name="area" defaultValue={wish.area} className={fieldClass}>
            <option value="">all areas</option>
            {areas.filter(Boolean).map((a) => (
              <option key={a} value={a}>
                {a}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm">
          Worst state
          <select name="state" defaultValue={wish.state} className={fieldClass}>
            <option value="">any</option>
            {conditionStates.map((s) => (
              <option key={s} value={s}>
                {stateWords[s]}
              </option>
            ))}
          </select>
        </label>
        <button className="act max-lg:min-h-11">Show</button>
      </Form>
      {rows.length === 0 ? (
        <Empty>
          No machine is like that.{" "}
          <Link to="?" className="way">
            Show all
          </Link>
        </Empty>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Machines by families of readings">
          <table className="w-full text-sm [&_td]:pr-2 [&_th]:pr-2">
            <thead>
              <tr className="ruled align-bottom">
                <th scope="col" aria-sort={wish.sort === "name" ? "ascending" : undefined}>
                  {head("name", "machine")}
                </th>
                {readingFamilyIds.map((f) => (
                  <th key={f} scope="col" aria-sort={sorted(f)} className="leading-tight">
                    {head(f, readingFamilies[f])}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.id} className="ruled">
                  <th scope="row" className="text-left font-normal">
                    <Link to={`/fleet/machines/${row.id}`} className="hover:underline">
                      {row.name}
                    </Link>
                  </th>
                  {readingFamilyIds.map((f) => (
                    <td key={f}>
                      <Cell family={f} cell={row.cells[f]} machine={row.name} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {found > rows.length ? (
        <p className="mt-3 flex gap-4 text-sm text-ink-2">
          {`${from + 1} to ${from + rows.length} of ${found}`}
          {from > 0 ? (
            <Link to={way({ page: String(Math.max(0, wish.page - 1)) })} className="way">
              The ones before
            </Link>
          ) : null}
          {more ? (
            <Link to={way({ page: String(wish.page + 1) })} className="way">
              The next ones
            </Link>
          ) : null}
        </p>
      ) : null}
    </>
  );
}
