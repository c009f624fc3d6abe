/** The migration that gives what was there its job: nothing is lost, numbers follow the days. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import { ask, closeConnections, db } from "./client.server";
import { ownDatabase } from "./testDatabase";

const MIGRATIONS = join(process.cwd(), "app/db/migrations");
let dropDatabase: () => Promise<void>;

async function migrateBy(holds: (file: string) => boolean) {
  for (const file of readdirSync(MIGRATIONS)
    .filter((f) => f.endsWith(".sql") && holds(f))
    .sort())
    for (const statement of readFileSync(join(MIGRATIONS, file), "utf8").split("--> statement-breakpoint"))
      await db().execute(sql.raw(statement));
}

beforeAll(async () => {
  dropDatabase = await ownDatabase("migratedjobs");
}, 60_000);
afterAll(async () => {
  await closeConnections();
  await dropDatabase();
});

test("an isolation and the work that came of it are one job; other work is a job of its own", async () => {
  await migrateBy((f) => f < "0033");
  const [s, m, k, c, i, came, alone] = Array.from({ length: 7 }, () => crypto.randomUUID());
  await db().execute(sql`insert into sites (id, name, time_zone) values (${s}, 'Quay', 'Europe/London')`);
  await db().execute(sql`insert into machines (id, site_id, name, tag) values (${m}, ${s}, 'Hoist', 'H-1')`);
  await db().execute(sql`insert into circuits (id, machine_id, name) values (${k}, ${m}, 'Hoist circuit')`);
  await db().execute(sql`insert into components (id, circuit_id, name, kind) values (${c}, ${k}, 'Pump', 'gearPump')`);
  await db().execute(sql`insert into isolations (id, circuit_id, symptom, opened_at, opened_by)
    values (${i}, ${k}, 'slow', '2026-03-01T08:00Z', 'T. Wren')`);
  await db()
    .execute(sql`insert into interventions (id, component_id, kind, booked_by, booked_at, origin, origin_id, note)
    values (${came}, ${c}, 'repair', 'R. Oduya', '2026-03-01T10:00Z', 'isolation', ${i}, 'Shaft seal'),
      (${alone}, ${c}, 'inspection', 'R. Oduya', '2026-01-05T10:00Z', '', '', 'Looked at')`);
  await migrateBy((f) => f.startsWith("0033"));
  expect(
    await ask<{ id: string; number: number; by: string }>(
      sql`select id, number, opened_by as by from jobs order by number`,
    ),
  ).toEqual([
    { id: alone, number: 1, by: "R. Oduya" },
    { id: i, number: 2, by: "T. Wren" },
  ]);
  expect(await ask(sql`select id, job_id as job, note from interventions order by booked_at`)).toEqual([
    { id: alone, job: alone, note: "Looked at" },
    { id: came, job: i, note: "Shaft seal" },
  ]);
  expect(await ask(sql`select job_id as job from isolations`)).toEqual([{ job: i }]);
});
