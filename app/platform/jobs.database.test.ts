/** The queue against a real database: a sweep that is asked for is never swallowed. */
import { sql } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { ownDatabase } from "~/db/testDatabase";
import { closeQueue, queues, requestAssessment } from "./jobs.server";

if (!process.env.DATABASE_URL) throw new Error("These tests need a database: run them with npm test -- jest.");

let dropDatabase: () => Promise<void>;

beforeAll(async () => {
  dropDatabase = await ownDatabase("jobs");
  await migrateDatabase();
});

afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

const waiting = async () =>
  Number(
    (
      await db().execute<{ n: string }>(
        sql`select count(*) as n from pgboss.job where name = ${queues.assessStale} and state = 'created'`,
      )
    ).rows[0]!.n,
  );

test("what changes in the second after a sweep was done is swept again, and many requests are few jobs", async () => {
  await requestAssessment();
  expect(await waiting()).toBe(1);
  // a worker is quick: the first request is served before the second comes, all within one second
  await db().execute(
    sql`update pgboss.job set state = 'completed', completed_on = now() where name = ${queues.assessStale}`,
  );
  await requestAssessment();
  expect(await waiting()).toBe(1);
  for (let i = 0; i < 20; i++) await requestAssessment();
  expect(await waiting()).toBeLessThan(5);
});
