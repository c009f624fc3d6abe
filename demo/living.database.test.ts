/** A machine whose meter was replaced is judged as if it had not been; what five years leave is in the record. */
import { sql } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { ownDatabase } from "~/db/testDatabase";
import { closeQueue } from "~/platform/jobs.server";
import { loadDemo } from "./load.server";
import { people } from "./world";

let drop: () => Promise<void>;
beforeAll(async () => {
  drop = await ownDatabase("living");
  await migrateDatabase();
  await loadDemo(Object.fromEntries(people.map((p) => [p.signIn, "a long enough one"])), { only: ["Slipway winch"] });
}, 120_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

test("the winch has a new meter, and its hours still rise at its duty", async () => {
  const {
    rows: [meter],
  } = await db().execute<{ before: number; after: number }>(sql`select before, after from hour_meter_changes`);
  expect(meter!.before).toBeGreaterThan(3000);
  const {
    rows: [newest],
  } = await db().execute<{ hours: number }>(sql`select hours from readings order by taken_at desc limit 1`);
  expect(newest!.hours).toBeGreaterThan(900);
  expect(newest!.hours).toBeLessThan(1100);
  const { rows } = await db().execute<{ state: string }>(sql`select state from assessments`);
  expect(rows.length).toBeGreaterThan(5);
  expect(rows.filter((r) => !["steady", "drifting", "unproven"].includes(r.state))).toEqual([]);
});
