/** The files out bring everything back: a machine's record through its fleet file and its CSV into an empty database, and the same is said of it. */
import { actorNamed } from "~/domain/access/testActor";
import { sql } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { ownDatabase } from "~/db/testDatabase";
import { assessStalePoints } from "~/domain/condition/assessment.server";
import { csvOut } from "~/platform/csv.server";
import { importRecord } from "~/platform/imports.server";
import { storeUpload } from "~/platform/uploads.server";
import { closeQueue } from "~/platform/jobs.server";
import { exportFleet } from "~/domain/assets/fleetFile/export.server";
import { importFleet } from "~/domain/assets/fleetFile/import.server";
import { preview, runImport, saveMapping } from "~/domain/readings/csv/import.server";
import { readingsQuery } from "~/domain/readings/csv/export.server";
import { loadDemo } from "./load.server";
import { people } from "./world";

let drop: () => Promise<void>;

beforeAll(async () => {
  drop = await ownDatabase("round_trip");
  await migrateDatabase();
  await loadDemo(Object.fromEntries(people.map((p) => [p.signIn, "a long enough one"])), {
    only: process.env.ROUND_TRIP_ALL ? undefined : ["Quay crane 2"],
  });
}, 300_000);

afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

interface Said extends Record<string, unknown> {
  point: string;
  state: string;
  readings: number;
  last: number | null;
  asks: boolean;
  verdict: { text?: string; value?: number; date?: number }[];
  ends: boolean;
}

const CHANCE = /(?:less than an?|more than an?|an?) (\d+) % chance/g;
/** Of some hundred draws: three standard errors of a chance of a few percent, and more. */
const FEW_POINTS = 6;

/**
 * What is said of every point, in words. Draws are seeded by the point's id, which is another one now: figures
 * that come from them are held to a few percent (a figure that is rounded has an edge somewhere), days of forecasts to
 * being there.
 */
async function said() {
  const { rows } = await db().execute<Said>(sql`
    select m.tag || '/' || c.name || '/' || p.name as point, a.state, a.readings, a.last_raw as last, a.asks_again as asks, a.verdict, a.p50 is not null as ends
    from assessments a join points p on p.id = a.point_id join components c on c.id = p.component_id
      join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id order by 1`);
  return {
    words: rows.map(({ verdict, ...row }) => ({
      ...row,
      verdict: verdict.map(({ value, date, text, ...part }) => ({
        ...part,
        text: text?.replace(CHANCE, "a chance"),
        value: value !== undefined,
        date: date !== undefined,
      })),
    })),
    chances: rows.flatMap(({ point, verdict }) =>
      verdict.flatMap(({ text }) =>
        [...(text ?? "").matchAll(CHANCE)].map(([, percent]) => ({ point, percent: Number(percent) })),
      ),
    ),
    figures: rows.flatMap(({ point, verdict }) =>
      verdict.flatMap(({ value }) => (value === undefined ? [] : [{ point, value }])),
    ),
  };
}

const FEW_PERCENT = 0.04;

/** What a life tells its peers leans on what they tell it. */
const PASSES = 2;

const counted = async () =>
  (
    await db().execute<Record<string, number>>(sql`select
  (select count(*)::int from readings where superseded_at is null) as readings, (select count(*)::int
    from lives) as lives, (select count(*)::int from lives where ended_at is not null) as ended, (select count(*)::int
    from hour_meter_changes where withdrawn_at is null) as meters,
  (select count(*)::int from instrument_checks) as checks, (select count(*)::int from instrument_recalls
    where withdrawn_at is null) as recalls, (select count(*)::int from instruments
    where calibration_due_at is not null) as due, (select count(*)::int from points
    where instrument_id is not null) as instruments, (select count(*)::int from points where limit_basis is not null) as limits,
  (select count(*)::int from rounds) as rounds, (select count(*)::int
    from round_points) as way, (select count(max_pressure)::int from components) as rated, (select count(*)::int
    from machines where duty_deviation <> 0.15) as duty`)
  ).rows[0]!;

async function csv(query: string): Promise<string> {
  let text = "";
  for await (const part of await csvOut(query)) text += String(part);
  return text;
}

test("fleet file and readings into an empty database: the same lives, limits, instruments, rounds, and the same verdicts", async () => {
  // without the oil's samples, which travel in a file of their own
  await db().execute(sql`truncate oil_assessments, samples, oil_events, debris_events cascade`);
  await db().execute(sql`truncate peer_evidence`);
  // settings of the site go along: without them a plant would lose its hold points on the way
  await db().execute(
    sql`update sites set holds_released = true, two_signatures = true, next_chance_days = 21, accepted_percent = 20`,
  );
  for (let pass = 0; pass < PASSES; pass++) {
    await db().execute(sql`update assessments set stale = true`);
    await assessStalePoints();
  }
  const [before, had] = [await said(), await counted()];
  expect(had.ended).toBeGreaterThan(0);
  const fleet = JSON.stringify(await exportFleet());
  const readings = await csv(readingsQuery({ machineId: "", pointId: "", from: "", to: "", withSuperseded: false }));

  await db().execute(sql`truncate sites, fluids, instruments, imports, changes cascade`);
  expect(await counted()).toMatchObject({ readings: 0, lives: 0, rounds: 0 });
  const added = await importFleet(fleet, actorNamed("R. Oduya"));
  if (!added.ok) throw new Error(added.messages.join("\n"));
  const upload = await storeUpload("readings.csv", Buffer.from(readings), "R. Oduya");
  const shown = await preview(await importRecord(upload));
  expect(shown.counts).toMatchObject({ add: had.readings, there: 0, bad: 0 });
  expect(await saveMapping(upload, shown.mapping)).toBeNull();
  expect(await runImport(await importRecord(upload))).toMatchObject({ ok: true, added: had.readings });
  for (let pass = 0; pass < PASSES; pass++) {
    await db().execute(sql`update assessments set stale = true`);
    await assessStalePoints();
  }
  expect(await counted()).toEqual(had);
  const after = await said();
  expect(after.words).toEqual(before.words);
  const apart = after.figures.filter(
    ({ value }, i) => Math.abs(value - before.figures[i]!.value) > FEW_PERCENT * Math.abs(before.figures[i]!.value),
  );
  expect(apart).toEqual([]);
  expect(after.chances.filter(({ percent }, i) => Math.abs(percent - before.chances[i]!.percent) > FEW_POINTS)).toEqual(
    [],
  );
  // the files say the same again
  expect(JSON.stringify(await exportFleet())).toBe(fleet);
  expect(await csv(readingsQuery({ machineId: "", pointId: "", from: "", to: "", withSuperseded: false }))).toBe(
    readings,
  );
}, 300_000);
