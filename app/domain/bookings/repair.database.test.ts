/** A reading taken while its part is being put right: the good one is the first of what comes after, not a slip of the pen. */
import { closeConnections, migrateDatabase } from "~/db/client.server";
import { ownDatabase } from "~/db/testDatabase";
import { bookWork } from "./commands.server";
import { startRun } from "~/domain/runs/index.server";
import { addPlant, ENGINEER, readingForm, TECHNICIAN, type Plant } from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { logReading, pointPlace } from "~/domain/readings/index.server";

let plant: Plant;
let dropDatabase: () => Promise<void>;

beforeAll(async () => {
  dropDatabase = await ownDatabase("repair");
  await migrateDatabase();
  plant = await addPlant("RP");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

async function asked(value: string, takenAt: string): Promise<string | null> {
  const done = await logReading(await pointPlace(plant.drain), readingForm({ value, takenAt }), TECHNICIAN);
  return "question" in done && done.question ? done.question.kind : null;
}

test("a better reading is asked about before the work is begun, not while it is; a worse one always", async () => {
  expect(await asked("6.0", "2026-11-20T08:00")).toBeNull();
  expect(await asked("0.4", "2026-11-24T08:10")).not.toBeNull();
  const booked = await bookWork(
    {
      componentId: plant.pump,
      kind: "replacement",
      stopId: "",
      crewHours: "4",
      submission: crypto.randomUUID(),
    },
    ENGINEER,
  );
  if (!booked.ok) throw new Error(JSON.stringify(booked.problems));
  // booked, and nobody has begun
  expect(await asked("0.4", "2026-11-24T08:20")).not.toBeNull();
  const run = { procedure: "replace-compensated-pump", submission: crypto.randomUUID() };
  expect(await startRun(booked.id, run, TECHNICIAN)).toMatchObject({ ok: true });
  expect(await asked("60", "2026-11-24T09:00")).not.toBeNull();
  expect(await asked("0.4", "2026-11-24T09:00")).toBeNull();
});
