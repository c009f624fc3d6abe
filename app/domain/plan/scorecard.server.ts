/** Forecasts as they were issued against what came. Nothing here is ever edited: a corrected reading moves what came, not what was said. */
import { sql } from "drizzle-orm";
import {
  DAY,
  componentKinds,
  quantities,
  scorecard,
  wideningOf,
  type ComponentKind,
  type IssuedForecast,
  type PointQuantityId,
  type Scorecard,
} from "@core";
import { ask } from "~/db/client.server";

/** The newest forecasts that are held to account. */
const MOST = 20_000;
const SHOWN_KINDS = 20;
const SHOWN_LIVES = 20;

interface Row {
  life: string;
  issuedAt: Date | string;
  p10: Date | string | null;
  p50: Date | string | null;
  p90: Date | string | null;
  readings: number;
  like: number | null;
  kind: ComponentKind;
  quantity: PointQuantityId;
  crossedAt: Date | string | null;
  until: Date | string;
}

const ms = (value: Date | string) => new Date(value).getTime();
const maybe = (value: Date | string | null) => (value === null ? null : ms(value));

async function issuedForecasts(): Promise<(IssuedForecast & Pick<Row, "readings" | "like" | "kind" | "quantity">)[]> {
  const rows = await ask<Row>(sql`
    select f.point_id || '/' || f.life_id as life, f.issued_at as "issuedAt", f.p10, f.p50, f.p90, f.readings, f."like",
           c.kind, p.quantity, e.crossed_at as "crossedAt", e.seen_until as until
    from (select * from forecasts_issued where not no_trend order by issued_at desc limit ${MOST}) f
    join peer_evidence e on e.point_id = f.point_id and e.life_id = f.life_id and e.seen_until is not null
    join points p on p.id = f.point_id join components c on c.id = p.component_id`);
  return rows.map((r) => ({
    life: r.life,
    issuedAt: ms(r.issuedAt),
    p10: maybe(r.p10),
    p50: maybe(r.p50),
    p90: maybe(r.p90),
    outcome: { at: maybe(r.crossedAt) ?? ms(r.until), crossed: r.crossedAt !== null },
    readings: r.readings,
    like: r.like,
    kind: r.kind,
    quantity: r.quantity,
  }));
}

export interface ScoreGroup {
  name: string;
  card: Scorecard;
  /** How much wider the plan draws forecasts like these, since they did not hold; 1: as issued. */
  widened: number;
}

function grouped<T>(all: readonly T[], nameOf: (f: T) => string): { name: string; own: T[] }[] {
  const found = new Map<string, T[]>();
  for (const f of all) {
    const name = nameOf(f);
    const own = found.get(name);
    if (own) own.push(f);
    else found.set(name, [f]);
  }
  return [...found].map(([name, own]) => ({ name, own }));
}

const groups = <T extends IssuedForecast>(all: readonly T[], nameOf: (f: T) => string): ScoreGroup[] =>
  grouped(all, nameOf)
    .map(({ name, own }) => ({ name, card: scorecard(own), widened: wideningOf(own) }))
    .sort((a, b) => b.card.crossed - a.card.crossed || b.card.lives - a.card.lives);

const YEAR = 365 * DAY;
const aheadOf = ({ p50, issuedAt }: IssuedForecast) => {
  const left = p50 === null ? Infinity : p50 - issuedAt;
  return left < YEAR / 2
    ? "Limit expected within half a year"
    : left < 2 * YEAR
      ? "Within two years"
      : "Later, or beyond the horizon";
};
const readingsOf = ({ readings }: { readings: number }) =>
  readings <= 10 ? "Up to 10 readings" : readings <= 30 ? "11 to 30 readings" : "More than 30 readings";

/** A kind of component and the quantity that tells its wear. */
export const familyOf = (f: { kind: string; quantity: string }): string => `${f.kind}/${f.quantity}`;

/** By kind: how much wider its forecasts are drawn than issued, since past ones did not hold; kinds that held are left out. */
export async function widenings(): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const { name, own } of grouped(await issuedForecasts(), familyOf)) {
    const factor = wideningOf(own);
    if (factor > 1) found.set(name, factor);
  }
  return found;
}

/** Coverage below which forecasts of a kind say so, where enough lives came to their end. */
const HONEST = 0.7;

/** "Not before": what was shown where no trend was proved, and how often it came before. */
async function notBefore(): Promise<{ lives: number; before: number }> {
  const [row] = await ask<{ lives: number; before: number }>(sql`
    select count(*)::int as lives, (count(*) filter (where broken))::int as before from (
      select bool_or(e.crossed_at < f.p5) as broken from forecasts_issued f
      join peer_evidence e on e.point_id = f.point_id and e.life_id = f.life_id and e.seen_until is not null
      where f.no_trend and f.p5 is not null and (e.crossed_at is null or e.crossed_at > f.issued_at)
      group by f.point_id, f.life_id) told`);
  return row!;
}

/** The scorecard: in all, and by what may matter. */
export async function scorecardPage() {
  const all = await issuedForecasts();
  const byKind = groups(
    all,
    (f) => `${componentKinds[f.kind]?.label ?? f.kind}, ${quantities[f.quantity].label.toLowerCase()}`,
  );
  const due = byKind.filter(({ card }) => card.lives > 0);
  return {
    all: scorecard(all),
    byKind: due.slice(0, SHOWN_KINDS),
    kinds: due.length,
    byPeers: groups(all, (f) =>
      f.like === null ? "No peer known" : f.like >= 0.5 ? "Like its peers" : "Unlike its peers",
    ),
    byReadings: groups(all, readingsOf),
    byAhead: groups(all, aheadOf),
    narrow: byKind
      .filter(({ card, widened }) => widened > 1 || (card.covered !== null && card.covered.high < HONEST))
      .map(({ name, widened }) => ({ name, widened })),
    notBefore: await notBefore(),
    ...(await whatCame()),
  };
}

export interface LifeEnd {
  pointId: string;
  machine: string;
  component: string;
  point: string;
  /** When the limit was crossed; null: the part went before it. */
  crossedAt: number | null;
  endedAt: number | null;
  /** The last forecast before the end: when it was issued, and its P10, P50 and P90. */
  last: { issuedAt: number; p10: number | null; p50: number | null; p90: number | null } | null;
  /** What was found on opening. */
  findings: string;
}

/** Lives that crossed their limit or were ended, the newest first, with the last forecast from half a year before. */
async function whatCame(): Promise<{ ends: LifeEnd[]; unforeseen: number }> {
  const rows = await ask<{
    pointId: string;
    machine: string;
    component: string;
    point: string;
    crossedAt: Date | string | null;
    endedAt: Date | string | null;
    issuedAt: Date | string | null;
    p10: Date | string | null;
    p50: Date | string | null;
    p90: Date | string | null;
    findings: string | null;
  }>(sql`
    select e.point_id as "pointId", m.name as machine, c.name as component, p.name as point, e.crossed_at as "crossedAt",
           l.ended_at as "endedAt", f.issued_at as "issuedAt", f.p10, f.p50, f.p90, i.findings
    from peer_evidence e join lives l on l.id = e.life_id join points p on p.id = e.point_id
    join components c on c.id = p.component_id join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
    left join lateral (select * from forecasts_issued f where f.point_id = e.point_id and f.life_id = e.life_id
      and f.issued_at < coalesce(e.crossed_at, l.ended_at) - interval '90 days' order by f.issued_at desc limit 1) f on true
    left join lateral (select findings from interventions i where i.ended_life_id = e.life_id limit 1) i on true
    where e.seen_until is not null and (e.crossed_at is not null or l.ended_at is not null)
    order by coalesce(e.crossed_at, l.ended_at) desc limit ${SHOWN_LIVES}`);
  const [count] = await ask<{ unforeseen: number }>(sql`
    select count(*)::int as unforeseen from peer_evidence e where e.crossed_at is not null and not exists (
      select 1 from forecasts_issued f where f.point_id = e.point_id and f.life_id = e.life_id and f.issued_at < e.crossed_at)`);
  return {
    ends: rows.map((r) => ({
      pointId: r.pointId,
      machine: r.machine,
      component: r.component,
      point: r.point,
      crossedAt: maybe(r.crossedAt),
      endedAt: maybe(r.endedAt),
      last:
        r.issuedAt === null
          ? null
          : { issuedAt: ms(r.issuedAt), p10: maybe(r.p10), p50: maybe(r.p50), p90: maybe(r.p90) },
      findings: r.findings ?? "",
    })),
    unforeseen: count!.unforeseen,
  };
}
