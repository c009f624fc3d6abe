/** Import of readings from a CSV file: a preview with every row's fate, then all or nothing. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { quantityOf } from "@core";
import { drizzle } from "drizzle-orm/node-postgres";
import type { PoolClient } from "pg";
import { db } from "~/db/client.server";
import {
  circuits,
  components,
  hourMeterChanges,
  imports,
  instruments,
  lives,
  machines,
  points,
  readings,
  sites,
} from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { markStale } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import {
  badRows,
  contentOf,
  copyIn,
  FatesShown,
  headingsOf,
  markDone,
  readRows,
  type Imported,
  type ImportRow,
  type Outcome,
  type ShownFates,
} from "~/platform/imports.server";
import { requestAssessment } from "~/platform/jobs.server";
import { check } from "~/platform/validate";
import { firstRows } from "~/platform/csv.server";
import { guessDateOrder, looksLikeHeadings, unusedColumns } from "~/platform/csvCells";
import { decode, guessDecimalMark, guessDelimiter } from "~/platform/csvText";
import { guessColumns, mappingSchema, type Mapping } from "./mapping";
import {
  codeInState,
  foldCode,
  ofMachine,
  rowReader,
  type Fate,
  type ImportLookup,
  type ImportPoint,
  type NewReading,
} from "./rows";

async function lookupFor(): Promise<ImportLookup> {
  const [pointRows, lifeRows, instrumentRows, meterRows, notedRows] = await Promise.all([
    db()
      .select({
        id: points.id,
        machineId: machines.id,
        hoursPerDay: machines.hoursPerDay,
        componentId: points.componentId,
        name: points.name,
        quantity: points.quantity,
        unit: points.unit,
        state: points.state,
        retired: sql<boolean>`(${points.retiredAt} is not null or ${components.retiredAt} is not null or ${machines.retiredAt} is not null)`,
        component: components.name,
        tag: machines.tag,
        machine: machines.name,
        timeZone: sites.timeZone,
      })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .innerJoin(sites, eq(sites.id, machines.siteId))
      .orderBy(
        sql`(${points.retiredAt} is not null or ${components.retiredAt} is not null or ${machines.retiredAt} is not null)`,
      ),
    db().select().from(lives),
    db().select({ id: instruments.id, tag: instruments.tag }).from(instruments),
    db().select().from(hourMeterChanges).where(isNull(hourMeterChanges.withdrawnAt)).orderBy(hourMeterChanges.at),
    db().execute<{
      id: string;
      at: number;
      hours: number;
    }>(sql`select p.id, (extract(epoch from r.taken_at) * 1000)::float8 as at, r.hours from points p cross join lateral (
      select taken_at, hours from readings where point_id = p.id and hours is not null and superseded_at is null
        order by taken_at desc limit 1) r where p.last_reading_at is not null`),
  ]);
  const meterOf = new Map<string, ImportPoint["meter"]>();
  for (const c of meterRows)
    meterOf.set(c.machineId, [
      ...(meterOf.get(c.machineId) ?? []),
      { at: c.at.getTime(), before: c.before, after: c.after },
    ]);
  const notedOf = new Map(notedRows.rows.map((r) => [r.id, { at: Number(r.at), hours: r.hours }]));
  const livesOf = new Map<string, ImportPoint["lives"]>();
  for (const l of lifeRows) {
    const list = livesOf.get(l.componentId) ?? [];
    list.push({ id: l.id, startedAt: l.startedAt.getTime(), endedAt: l.endedAt?.getTime() ?? null });
    livesOf.set(l.componentId, list);
  }
  const byCode = new Map<string, ImportPoint | null>();
  const onMachine = new Map<string, ImportPoint | null>();
  const inUse = new Set<string>();
  for (const p of pointRows) {
    const point: ImportPoint = {
      id: p.id,
      code: `${p.tag}/${p.component}/${p.name}`,
      quantity: p.quantity,
      unit: p.unit,
      state: p.state,
      timeZone: p.timeZone,
      lives: livesOf.get(p.componentId) ?? [],
      meter: meterOf.get(p.machineId) ?? [],
      hoursPerDay: p.hoursPerDay,
      noted: notedOf.get(p.id) ?? null,
    };
    byCode.set(p.id, point);
    if (!p.retired)
      for (const key of new Set(
        [p.tag, p.machine].flatMap((m) => [p.name, quantityOf(p.quantity).label].map((n) => ofMachine(m, n))),
      ))
        onMachine.set(key, onMachine.has(key) && onMachine.get(key) !== point ? null : point);
    const codes = [point.code, `${p.machine}/${p.component}/${p.name}`];
    for (const code of new Set([...codes.map(foldCode), ...codes.map((c) => codeInState(c, p.state))])) {
      // what is out of use keeps its old readings, and gives way to what bears its name now
      if (p.retired && inUse.has(code)) continue;
      if (!p.retired) inUse.add(code);
      byCode.set(code, byCode.has(code) ? null : point);
    }
  }
  for (const [key, point] of onMachine) if (!byCode.has(key)) byCode.set(key, point);
  return { points: byCode, instruments: new Map(instrumentRows.map((i) => [i.tag.toLowerCase(), i.id])), now: now() };
}

/** Lines above the headings that are looked through for them. */
const MOST_TITLES = 8;

/** A first mapping from the file itself. */
async function guessMapping(text: string): Promise<Mapping> {
  const delimiter = guessDelimiter(text);
  const rows = await firstRows(text, delimiter, 20);
  const guesses = rows.slice(0, MOST_TITLES + 1).map(guessColumns);
  // the first line that looks like headings, known or not: a line of data may hold a word that is one
  const titleLines = Math.max(
    0,
    rows
      .slice(0, MOST_TITLES + 1)
      .findIndex((row, i) => guesses[i]!.hasHeader || (looksLikeHeadings(row) && row.length > 3)),
  );
  const { columns, units } = guesses[titleLines] ?? guessColumns([]);
  const hasHeader = looksLikeHeadings(rows[titleLines] ?? []);
  const dates =
    typeof columns.takenAt === "number" ? rows.slice(titleLines + 1).map((r) => r[columns.takenAt!] ?? "") : [];
  return {
    delimiter,
    decimalMark: guessDecimalMark(text, delimiter),
    hasHeader,
    titleLines,
    dateOrder: guessDateOrder(dates),
    columns,
    units,
    pointId: "",
    skipBad: false,
    beginLives: false,
  };
}

export interface Preview extends ShownFates {
  mapping: Mapping;
  /** Headings of columns that nothing is taken from. */
  unused: string[];
}

const mappingOfRecord = async (record: ImportRow): Promise<Mapping | null> => {
  const stored = record.mapping ? await check(mappingSchema, record.mapping as Record<string, unknown>) : null;
  return stored?.ok ? stored.values : null;
};

/** Every row's fate under a mapping (the stored one, or a guess). */
export async function preview(record: ImportRow, tell?: (share: number) => Promise<void>): Promise<Preview> {
  const text = decode(await contentOf(record.id));
  const mapping = (await mappingOfRecord(record)) ?? (await guessMapping(text));
  const found = await staged(text, mapping, record.createdBy, tell, async (_client, shown) => ({
    keep: false,
    result: shown,
  }));
  const head = await headingsOf(text, mapping);
  return { mapping, unused: mapping.hasHeader ? unusedColumns(head, mapping.columns) : [], ...found.shown(head) };
}

/** The preview that a worker made, where it is of this mapping. */
export function storedPreview(record: ImportRow): Preview | null {
  return record.preview as Preview | null;
}

const OTHER_VALUE = "Another value is already recorded for that moment. Correct it at the point if this one is right.";
const SHOWN_AGAINST = 200;

/** All good rows of a file in the table `incoming`, held against the record, and what becomes of it. */
async function staged<R>(
  text: string,
  mapping: Mapping,
  by: string,
  tell: ((share: number) => Promise<void>) | undefined,
  use: (client: PoolClient, shown: FatesShown<Fate>) => Promise<Outcome<R>>,
): Promise<R> {
  const shown = new FatesShown<Fate>((fate) => `${fate.point.code}: ${fate.reading.entered}`);
  const fateOf = rowReader(mapping, await lookupFor(), by);
  async function* good(): AsyncGenerator<NewReading> {
    for await (const { fate, cells } of readRows(text, mapping, fateOf, tell)) {
      shown.take(fate, cells);
      if (fate.fate === "add") yield fate.reading;
    }
  }
  return copyIn(columns, good(), cellsOf, async (client) => {
    await client.query("analyze incoming");
    const same = "abs(r.value - i.value) <= 1e-9 * greatest(1, abs(r.value))";
    const against =
      "incoming i join readings r on r.point_id = i.point_id and r.taken_at = i.taken_at and r.superseded_at is null";
    const {
      rows: [counts],
    } = await client.query<{ there: number; other: number }>(
      `select count(*) filter (where ${same})::int as there, count(*) filter (where not ${same})::int as other from ${against}`,
    );
    const lines = async (where: string, most: number) =>
      (
        await client.query<{ line: number }>(
          `select i.line from ${against} where ${where} order by i.line limit ${most}`,
        )
      ).rows.map((r) => r.line);
    shown.settle(
      { count: counts!.there, lines: await lines(`${same} and i.line <= ${Number(shown.lastShown)}`, SHOWN_AGAINST) },
      { count: counts!.other, lines: await lines(`not ${same}`, SHOWN_AGAINST) },
      OTHER_VALUE,
    );
    return use(client, shown);
  });
}

/** Keep a mapping with the import. Returns what is wrong with it. */
export async function saveMapping(id: string, raw: unknown): Promise<Record<string, string> | null> {
  const checked = await check(mappingSchema, raw as Record<string, unknown>);
  if (!checked.ok) return fieldNames(checked.problems);
  const mapping = checked.values;
  const problems: Record<string, string> = {};
  if (typeof mapping.columns.value !== "number") problems["column-value"] = "Say which column holds the value.";
  if (typeof mapping.columns.takenAt !== "number") problems["column-takenAt"] = "Say which column holds the date.";
  if (typeof mapping.columns.point !== "number" && !mapping.pointId)
    problems["column-point"] = "Say which column names the point, or choose one point for all rows.";
  if (Object.keys(problems).length) return problems;
  await db().update(imports).set({ mapping }).where(eq(imports.id, id));
  return null;
}

/** Messages of the mapping under the names that the form's fields have: "units.value" is the field "unit-value". */
function fieldNames(problems: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(problems).map(([path, message]) => [
      path.replace(/^units\./, "unit-").replace(/^columns\./, "column-"),
      message,
    ]),
  );
}

/** Add every good row in one transaction, or nothing at all. Rows that are there already are counted, not doubled. */
export async function runImport(record: ImportRow, tell?: (share: number) => Promise<void>): Promise<Imported> {
  const mapping = await mappingOfRecord(record);
  if (!mapping) return { ok: false, message: "Look at the preview first." };
  const imported = await staged(
    decode(await contentOf(record.id)),
    mapping,
    record.createdBy,
    tell,
    async (client, shown): Promise<Outcome<Imported>> => {
      const { add, there, bad } = shown.found;
      const refused = badRows(bad, mapping.skipBad);
      if (refused) return { keep: false, result: { ok: false, message: refused } };
      const added = await storeIncoming(client, record.id, record.createdBy);
      await markDone(client, record.id, added, there + add - added);
      return { keep: true, result: { ok: true, added, there: there + add - added } };
    },
  );
  if (imported.ok) await requestAssessment();
  return imported;
}

/**
 * Take an import back as a whole: its readings stay on record as superseded and count no more, so that the file can be brought in
 * again under another mapping. What was corrected since stays corrected.
 */
export async function undoImport(id: string, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const [record] = await tx.select().from(imports).where(eq(imports.id, id)).for("update");
    if (!record?.doneAt) return { ok: false, status: 404, problems: { form: "Nothing of this file was imported." } };
    if (record.undoneAt) return { ok: true, id };
    const gone = await tx
      .update(readings)
      .set({
        supersededAt: new Date(now()),
        supersededBy: actor.name,
        supersededWhy: `import of ${record.fileName} undone`,
      })
      .where(and(eq(readings.importId, id), isNull(readings.supersededAt)))
      .returning({ pointId: readings.pointId });
    const touched = [...new Set(gone.map((r) => r.pointId))];
    if (touched.length > 0)
      await tx
        .update(points)
        .set({
          lastReadingAt: sql`(select max(r.taken_at) from readings r where r.point_id = ${points.id} and r.superseded_at is null)`,
        })
        .where(inArray(points.id, touched));
    await tx
      .update(imports)
      .set({ undoneAt: new Date(now()), undoneBy: actor.name })
      .where(eq(imports.id, id));
    await audit(tx, actor, {
      what: `took back the import of ${record.fileName}`,
      recordId: id,
      after: { readings: gone.length, points: touched.length },
    });
    await markStale(tx, touched);
    return { ok: true, id };
  });
}

const columns = {
  line: "int",
  point_id: "uuid",
  life_id: "uuid",
  taken_at: "timestamptz",
  value: "float8",
  least: "float8",
  entered: "text",
  temperature: "float8",
  pressure: "float8",
  speed: "float8",
  hours: "float8",
  instrument_id: "uuid",
  note: "text",
  taken_by: "text",
  kept_because: "text",
  doubtful: "bool",
};
const cellsOf = (r: NewReading) => [
  r.line,
  r.pointId,
  r.lifeId,
  new Date(r.takenAt).toISOString(),
  r.value,
  r.least,
  r.entered,
  r.temperature,
  r.pressure,
  r.speed,
  r.hours,
  r.instrumentId,
  r.note,
  r.by,
  r.keptBecause ?? "",
  r.doubtful ? "t" : "f",
];
const names = Object.keys(columns)
  .filter((name) => name !== "line" && name !== "doubtful")
  .join(", ");

/** Rows from before a life as the record has it begin it at the first of them; what was noted of the hours then comes along. */
async function beginEarlier(client: PoolClient): Promise<void> {
  await client.query(
    `update lives l set started_at = i.first, start_hours = coalesce(i.hours, l.start_hours) from (
       select life_id, min(taken_at) as first, (array_agg(hours order by taken_at))[1] as hours from incoming group by life_id) i
     where l.id = i.life_id and i.first < l.started_at`,
  );
}

/**
 * A part may have been replaced while the file was read: its lives are held and each row is put to the one that is there then,
 * the fitted moment belonging to the new part.
 */
async function findLivesAgain(client: PoolClient): Promise<void> {
  await client.query(
    `select c.id from components c where c.id in (select p.component_id from incoming i join points p on p.id = i.point_id)
     order by c.id for share`,
  );
  await client.query(
    `update incoming i set life_id = l.id from points p join lives l on l.component_id = p.component_id
     where p.id = i.point_id and l.id <> i.life_id and i.taken_at >= l.started_at
       and (l.ended_at is null or i.taken_at < l.ended_at)`,
  );
}

/**
 * Rows of `incoming` become readings, what is there left out; their points are stale from then on. An instrument that
 * had failed its last check by then makes a reading doubtful, as it does at the machine.
 */
async function storeIncoming(client: PoolClient, importId: string | null, sentBy: string | null): Promise<number> {
  await beginEarlier(client);
  await findLivesAgain(client);
  const inserted = await client.query(
    `insert into readings (${names}, doubtful, sent_by, import_id)
     select ${names}, doubtful or coalesce((select not c.passed from instrument_checks c
       where c.instrument_id = incoming.instrument_id and c.at <= incoming.taken_at order by c.at desc limit 1), false),
            case when taken_by = $2 then null else $2 end, $1::uuid
     from incoming on conflict (point_id, taken_at) where superseded_at is null do nothing`,
    [importId, sentBy],
  );
  await client.query(
    "update points p set last_reading_at = greatest(p.last_reading_at, i.newest) from (select point_id, " +
      "max(taken_at) as newest from incoming group by point_id) i where p.id = i.point_id",
  );
  const { rows } = await client.query<{ id: string }>("select distinct point_id as id from incoming");
  await markStale(
    drizzle(client),
    rows.map((r) => r.id),
  );
  return inserted.rowCount ?? 0;
}

/** Store readings that are known to be good, leaving out what is there. All in one transaction. */
export async function storeReadings(readings: readonly NewReading[], importId: string | null): Promise<number> {
  return copyIn(columns, readings, cellsOf, async (client) => ({
    keep: true,
    result: await storeIncoming(client, importId, null),
  }));
}
