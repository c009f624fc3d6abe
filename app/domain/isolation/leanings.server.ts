/**
 * What the register says of the parts of a circuit before any test: an open bulletin makes every fault of its part likelier,
 * and what closed isolations found at parts of the same model makes that likelier here.
 */
import { sql } from "drizzle-orm";
import { causes, lowerFirst, type CauseId, type Leaning } from "@core";
import { ask } from "~/db/client.server";
import { now } from "~/runtime/clock.server";

/** A part with an open bulletin is at fault so many times as often (common practice, graded and not counted). */
const BULLETIN = 4;
/** Each case of the model counts like one more of its kind, up to this many times as often. */
const MOST_PEERS = 4;
/** Closed cases of so many years tell of a model. */
const YEARS = 3;
const MOST_ROWS = 50;

async function bulletins(circuitId: string): Promise<Leaning[]> {
  const rows = await ask<{ element: string; component: string; title: string; bulletin: string }>(sql`
    select c.id as element, c.name as component, g.title, g.bulletin
    from campaign_parts p join campaigns g on g.id = p.campaign_id join components c on c.id = p.component_id
    where c.circuit_id = ${circuitId} and c.retired_at is null and g.closed_at is null and p.result in ('open', 'old')
    order by g.made_at limit ${MOST_ROWS}`);
  return rows.map((r) => ({
    element: r.element,
    cause: null,
    factor: BULLETIN,
    text: `A bulletin is open for ${lowerFirst(r.component)}: ${r.title}${r.bulletin ? ` (${r.bulletin})` : ""}`,
  }));
}

async function peers(circuitId: string): Promise<Leaning[]> {
  const rows = await ask<{ element: string; model: string; cause: string; cases: number; text: string }>(sql`
    select c.id as element, c.model, split_part(f.suspect, '@', 1) as cause, count(*)::int as cases, min(i.found_text) as text
    from isolations i cross join jsonb_array_elements_text(i.found) f(suspect)
    join components peer on peer.id::text = split_part(f.suspect, '@', 2)
    join components c on c.kind = peer.kind and c.model = peer.model and c.model <> ''
    where c.circuit_id = ${circuitId} and c.retired_at is null
      and i.closed_at > ${new Date(now()).toISOString()}::timestamptz - make_interval(years => ${YEARS})
    group by c.id, c.model, cause order by c.id, cause limit ${MOST_ROWS}`);
  return rows.map((r) => {
    const known = Object.hasOwn(causes, r.cause) ? causes[r.cause as CauseId].label : r.text;
    const had = r.cases === 1 ? "One" : String(r.cases);
    return {
      element: r.element,
      cause: r.cause,
      factor: Math.min(MOST_PEERS, 1 + r.cases),
      text: `${had} of this model (${r.model}) had it: ${lowerFirst(known)}`,
    };
  });
}

/** Everything that leans towards a fault of one element of a circuit. */
export const leaningsOf = async (circuitId: string): Promise<Leaning[]> =>
  (await Promise.all([bulletins(circuitId), peers(circuitId)])).flat();
