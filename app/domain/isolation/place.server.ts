/** What the place Isolate lists: faults that stand, isolations that are open and closed, circuits to begin with. */
import { desc, eq, isNull, isNotNull, sql } from "drizzle-orm";
import { ask, db } from "~/db/client.server";
import { circuits, isolations, machines, type DiagnosisDetail } from "~/db/schema";

const MOST = 50;

/** Circuits whose readings name a fault, or are off and name none; the likeliest first. */
export async function standingFaults() {
  const rows = await ask<{
    circuitId: string;
    machine: string;
    circuit: string;
    share: number | null;
    text: string | null;
    off: number;
  }>(sql`
    select d.circuit_id as "circuitId", m.name as machine, k.name as circuit, d.share,
      (select string_agg(f ->> 'text', '; ') from jsonb_array_elements(d.detail -> 'named') f) as text, jsonb_array_length(d.detail -> 'off') as off
    from circuit_diagnoses d join circuits k on k.id = d.circuit_id join machines m on m.id = k.machine_id
    where d.detail is not null and k.retired_at is null and m.retired_at is null
    order by d.share desc nulls last, m.name limit ${MOST}`);
  return rows;
}

/** Isolations, open ones first, the newest first. */
export async function isolationsListed() {
  const columns = {
    id: isolations.id,
    machine: machines.name,
    symptom: isolations.symptom,
    openedAt: isolations.openedAt,
    openedBy: isolations.openedBy,
    closedAt: isolations.closedAt,
    found: isolations.foundText,
    foundOdds: isolations.foundOdds,
    results: sql<number>`(select count(*) from isolation_results r where r.isolation_id = ${isolations.id} and r.withdrawn_at is null)::int`,
  };
  const from = () =>
    db()
      .select(columns)
      .from(isolations)
      .innerJoin(circuits, eq(circuits.id, isolations.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId));
  const [open, closed] = await Promise.all([
    from().where(isNull(isolations.closedAt)).orderBy(desc(isolations.openedAt)).limit(MOST),
    from().where(isNotNull(isolations.closedAt)).orderBy(desc(isolations.closedAt)).limit(MOST),
  ]);
  return [...open, ...closed].map(({ openedAt, closedAt, ...row }) => ({
    ...row,
    openedAt: openedAt.getTime(),
    closedAt: closedAt?.getTime() ?? null,
  }));
}

/** Circuits whose machine's name or tag holds these letters. */
export async function circuitsNamed(letters: string) {
  const like = `%${letters.replace(/[\\%_]/g, "\\$&")}%`;
  return ask<{ id: string; machine: string; circuit: string }>(sql`
    select k.id, m.name as machine, k.name as circuit from circuits k join machines m on m.id = k.machine_id
    where k.retired_at is null and m.retired_at is null and (m.name ilike ${like} or m.tag ilike ${like})
    order by m.name, k.name limit 30`);
}

/** One circuit in use, with its machine; undefined: there is none. */
export async function circuitNamed(id: string) {
  const [row] = await ask<{ id: string; machine: string; circuit: string }>(sql`
    select k.id, m.name as machine, k.name as circuit from circuits k join machines m on m.id = k.machine_id
    where k.id = ${id} and k.retired_at is null and m.retired_at is null`);
  return row;
}

/** The standing diagnosis of a circuit, with the names of its points; undefined: no such circuit. */
export async function faultPage(circuitId: string) {
  const [row] = await ask<{
    machine: string;
    machineId: string;
    circuit: string;
    timeZone: string;
    none: string | null;
    detail: DiagnosisDetail | null;
    stale: boolean | null;
    failure: string | null;
    /** Ids of the elements of the diagram, in its order. */
    elements: string[] | null;
  }>(sql`
    select m.name as machine, m.id as "machineId", k.name as circuit, s.time_zone as "timeZone", d.none, d.detail, d.stale, d.failure,
      (select jsonb_path_query_array(c.netlist, '$.elements[*].id') from circuit_diagrams c where c.circuit_id = k.id) as elements
    from circuits k join machines m on m.id = k.machine_id join sites s on s.id = m.site_id
    left join circuit_diagnoses d on d.circuit_id = k.id where k.id = ${circuitId}`);
  if (!row) return undefined;
  const points = await ask<{ id: string; name: string; component: string; state: string | null }>(sql`
    select p.id, p.name, p.component, a.state from active_points p left join assessments a on a.point_id = p.id
    where p.circuit_id = ${circuitId} order by p.component_position, p.component, p.name`);
  return { ...row, points };
}
