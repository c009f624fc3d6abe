/** The fleet at a glance: machines down, families of readings across, each cell its worst reading. */
import { sql } from "drizzle-orm";
import {
  conditionStates,
  familyOfQuantity,
  readingFamilyIds,
  stateOfUrgency,
  urgenciesOf,
  type ConditionState,
  type ReadingFamily,
} from "@core";
import { ask } from "~/db/client.server";

/** Machines a page. */
const ROWS = 100;

export interface MatrixCell {
  /** The point, or the circuit whose oil it is. */
  id: string;
  state: ConditionState;
  /** Margin used, 1: at the limit; null: unknown. */
  margin: number | null;
}

export interface MatrixRow {
  id: string;
  name: string;
  tag: string;
  area: string;
  worst: ConditionState;
  cells: Partial<Record<ReadingFamily, MatrixCell>>;
}

export interface MatrixWish {
  area: string;
  /** Machines whose worst state is this one; empty: all. */
  state: string;
  /** A family: its worst first; "name"; else the worst machine first. */
  sort: string;
  page: number;
}

const families = sql.join(
  Object.entries(familyOfQuantity).map(([quantity, family]) => sql`(${quantity}::text, ${family}::text)`),
  sql`, `,
);

/** One page of the matrix. */
export async function fleetMatrix(wish: MatrixWish) {
  const sorted = readingFamilyIds.find((f) => f === wish.sort);
  const order = sorted
    ? sql`max(urgency) filter (where family = ${sorted}) desc nulls last, m.name`
    : wish.sort === "name"
      ? sql`m.name, m.id`
      : sql`max(urgency) desc nulls last, m.name`;
  const wanted = conditionStates.find((s) => s === wish.state);
  const unread = wanted === "unproven" ? sql`max(w.urgency) is null or` : sql``;
  const [least, below] = wanted ? urgenciesOf(wanted) : [0, 0];
  const having = wanted
    ? sql`(${unread} max(w.urgency) >= ${least}::float8 and max(w.urgency) < ${below}::float8)`
    : sql`true`;
  const from = Math.min(1000, Math.max(0, Math.floor(wish.page))) * ROWS;
  const rows = await ask<Omit<MatrixRow, "worst"> & { urgency: number | null; found: number }>(sql`
    with of_component as (
      select distinct on (p.component_id, f.family) p.component_id, f.family, p.id, a.state, a.urgency, a.margin
      from points p join (values ${families}) f(quantity, family) on f.quantity = p.quantity
      left join assessments a on a.point_id = p.id
      where p.retired_at is null order by p.component_id, f.family, a.urgency desc nulls last, p.id),
    worst as (
      (select distinct on (k.machine_id, w.family) k.machine_id, w.family, w.id, w.state, w.urgency,
              (w.margin ->> 'value')::float8 as margin
       from of_component w join components c on c.id = w.component_id join circuits k on k.id = c.circuit_id
       where c.retired_at is null and k.retired_at is null
       order by k.machine_id, w.family, w.urgency desc nulls last, w.id)
      union all
      (select distinct on (k.machine_id) k.machine_id, 'oil', k.id, o.state, o.urgency, (o.margin ->> 'value')::float8
       from oil_assessments o join circuits k on k.id = o.circuit_id
       where k.retired_at is null order by k.machine_id, o.urgency desc, k.id))
    select m.id, m.name, m.tag, m.area, max(w.urgency) as urgency, (count(*) over ())::int as found,
           coalesce(jsonb_object_agg(w.family, jsonb_build_object('id', w.id, 'state', coalesce(w.state, 'unread'),
             'margin', w.margin)) filter (where w.family is not null), '{}'::jsonb) as cells
    from machines m left join worst w on w.machine_id = m.id
    where m.retired_at is null and (${wish.area} = '' or m.area = ${wish.area})
    group by m.id having ${having} order by ${order} limit ${ROWS} offset ${from}`);
  const found = rows[0]?.found ?? 0;
  return {
    rows: rows.map(({ urgency, found: _all, ...row }): MatrixRow => ({
      ...row,
      worst: urgency === null ? "unread" : stateOfUrgency(urgency),
    })),
    found,
    from,
    more: found > from + ROWS,
  };
}
