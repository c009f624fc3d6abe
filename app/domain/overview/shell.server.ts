/** What the frame of every page shows. */
import { sql } from "drizzle-orm";
import { calculatorGroups, calculators, urgenciesOf } from "@core";
import { ask, db } from "~/db/client.server";
import { cleanText } from "~/platform/validate";
import { workerHealth, type WorkerHealth } from "~/platform/heartbeat.server";

export interface ShellCounts {
  site: string;
  timeZone: string;
  decisions: number;
  oils: number;
  openWork: number;
  worker: WorkerHealth;
}

/** @param open how many decisions are open; pages that show it too ask once */
export async function shellCounts(open: Promise<number>): Promise<ShellCounts> {
  const [decisions, worker, rows] = await Promise.all([
    open,
    workerHealth(),
    ask<{ site: string | null; timeZone: string | null; oils: number; openWork: number }>(sql`
    select (select name from sites where retired_at is null order by name limit 1) as site,
           (select time_zone from sites where retired_at is null order by name limit 1) as "timeZone",
           (select count(*)::int from oil_assessments o join circuits k on k.id = o.circuit_id
             join machines m on m.id = k.machine_id where o.urgency >= ${urgenciesOf("alert")[0]} and k.retired_at is null and m.retired_at is null) as oils,
           (select count(*)::int from interventions where done_at is null and cancelled_at is null) as "openWork"`),
  ]);
  const row = rows[0]!;
  return {
    site: row.site ?? "No site yet",
    timeZone: row.timeZone ?? "UTC",
    decisions,
    oils: row.oils,
    openWork: row.openWork,
    worker,
  };
}

export interface Found {
  kind: "machine" | "component" | "point" | "oil" | "action";
  /** Of the record; the address for an action. */
  id: string;
  label: string;
  where: string;
  to: string;
}

const action = (label: string, where: string, to: string): Found => ({ kind: "action", id: to, label, where, to });

const actions: Found[] = [
  action("Import readings", "Records", "/records/import"),
  action("Export readings", "Records", "/records"),
  action("Add a machine", "Fleet", "/fleet/new/machine"),
  action("Plan a stop", "Work", "/fleet/new/stop"),
  action("Fleet file", "Records", "/records/fleet"),
  action("Rounds", "Rounds", "/rounds"),
  action("Add a round", "Rounds", "/rounds/new"),
  action("Instruments", "Rounds", "/instruments"),
  action("Tests at the machine", "Rounds", "/tests"),
  action("Import a laboratory’s file", "Oil", "/oil/import"),
  action("Oil of the fleet", "Oil", "/oil"),
  action("Preferred units", "Account", "/account"),
  action("People who may sign in", "Account", "/account/people"),
  ...calculators.map((c) => action(c.title, `Calculators, ${calculatorGroups[c.group]}`, `/calculators/${c.id}`)),
];

const LIMIT = 12;

/** Machines, components and points whose name or place contains every word of the text, and actions; or records of one kind. */
export async function find(text: string, only?: Found["kind"]): Promise<Found[]> {
  const words = cleanText(text).slice(0, 200).toLowerCase().split(/\s+/).filter(Boolean).slice(0, 6);
  if (words.length === 0) return [];
  const like = words.map((w) => `%${w.replace(/[\\%_]/g, "\\$&")}%`);
  const all = (column: ReturnType<typeof sql>) =>
    sql.join(
      like.map((l) => sql`${column} ilike ${l}`),
      sql` and `,
    );
  const exact = cleanText(text).toLowerCase();
  /** What is called exactly so comes first, then what the text ends with ("saw line working pressure"), then what begins so. */
  const near = (name: ReturnType<typeof sql>) =>
    sql`case when lower(${name}) = ${exact} then 0 when right(${exact}, length(${name})) = lower(${name}) then 1
      when starts_with(lower(${name}), ${exact}) then 2 else 3 end`;
  const result = await db().execute<{
    kind: Found["kind"];
    id: string;
    label: string;
    where: string;
    machineId: string;
  }>(sql`
    (select 'machine' as kind, m.id, m.name as label, m.area as where, m.id as "machineId", 0 as rank,
        ${near(sql`m.name`)} as near from machines m
      where m.retired_at is null and ${all(sql`(m.name || ' ' || m.tag || ' ' || m.area)`)} order by near, m.name limit ${LIMIT})
    union all
    (select 'component', c.id, c.name, m.name, m.id, 1, ${near(sql`c.name`)} as near
      from components c join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
      where c.retired_at is null and m.retired_at is null
        and ${all(sql`(m.name || ' ' || m.tag || ' ' || c.name || ' ' || c.tag)`)} order by near, m.name, c.name limit ${LIMIT})
    union all
    (select 'point', p.id, p.name, m.name || ', ' || c.name, m.id, 2, ${near(sql`p.name`)} as near from points p
      join components c on c.id = p.component_id join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
      where p.retired_at is null and m.retired_at is null
        and ${all(sql`(m.name || ' ' || m.tag || ' ' || c.name || ' ' || p.name || ' ' || p.tag)`)}
        order by near, m.name, c.name, p.name limit ${LIMIT})
    union all
    (select 'oil', k.id, 'Oil of ' || m.name, k.name, m.id, 3, 3 as near from circuits k join machines m on m.id = k.machine_id
      where k.retired_at is null and m.retired_at is null
        and ${all(sql`('oil ' || m.name || ' ' || m.tag || ' ' || k.name)`)} order by m.name, k.name limit ${LIMIT})
    order by near, rank limit ${2 * LIMIT}`);
  const found = result.rows.map((r): Found => ({
    kind: r.kind,
    id: r.id,
    label: r.label,
    where: r.where,
    to:
      r.kind === "oil"
        ? `/oil/${r.id}`
        : r.kind === "point"
          ? `/points/${r.id}`
          : r.kind === "component"
            ? `/fleet/machines/${r.machineId}#c-${r.id}`
            : `/fleet/machines/${r.id}`,
  }));
  if (only) return found.filter((f) => f.kind === only);
  return [...found, ...actions.filter((a) => words.every((w) => `${a.label} ${a.where}`.toLowerCase().includes(w)))];
}
