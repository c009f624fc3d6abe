/**
 * Stale by construction: every column that an assessment reads, and every file that writes its table, is named here. A column or a
 * writer that is new fails until somebody has said what marks the points that depend on it.
 */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { eq } from "drizzle-orm";
import { QueryBuilder } from "drizzle-orm/pg-core";
import { assessedColumns, pointSetups } from "./setups.server";
import { instruments, readings } from "~/db/schema";
import type { Queryable } from "~/db/client.server";

const DOMAIN = join(process.cwd(), "app/domain");

/** Ids and joins say where something stands, not how it is; what is new has nothing that depends on it. */
const PLACE =
  /\.(id|point_id|component_id|circuit_id|machine_id|site_id|fluid_id|instrument_id|life_id|intervention_id|kind)$/;

/** What is read, by table. */
const READ: Record<string, readonly string[]> = {
  circuits: [],
  components: ["displacement", "lead_time_days", "run_in_hours", "spares_on_hand", "speed"],
  fluids: ["density15", "kv100", "kv40"],
  hour_meter_changes: ["after", "at", "before", "withdrawn_at"],
  instrument_recalls: ["from_at", "until_at", "withdrawn_at"],
  instruments: ["accuracy_class", "full_scale"],
  lives: ["ended_at", "known_when_new", "start_hours", "started_at"],
  machines: ["duty_deviation", "hours_per_day"],
  oil_assessments: ["contaminated_at", "contamination_factor", "detail"],
  points: [
    "limit_basis",
    "limit_lower",
    "limit_upper",
    "makers_new",
    "quantity",
    "reference_pressure",
    "reference_temperature",
  ],
  readings: ["doubtful", "hours", "pressure", "speed", "superseded_at", "taken_at", "temperature", "value"],
  sites: ["accepted_percent", "next_chance_days", "time_zone"],
};

/** Tables of the above, with those whose columns are asked for in SQL by hand: as drizzle calls them. */
const TABLES = [
  "circuits",
  "components",
  "fluids",
  "hourMeterChanges",
  "instrumentRecalls",
  "instruments",
  "interventions",
  "lives",
  "machines",
  "oilAssessments",
  "points",
  "readings",
  "sites",
  "stops",
];

const MARKS = "marks";
/** Every writer of these tables: it marks in the same transaction, or says why nothing depends on what it writes. */
const WRITERS: Record<string, string> = {
  "assets/commands.server.ts": MARKS,
  "assets/hourMeter.server.ts": MARKS,
  "assets/presentLife.server.ts": "within assets/commands.server.ts, which marks what lies below the component",
  "assets/fleetFile/addInstruments.server.ts": "adds only: nothing was read with an instrument that is new",
  "assets/fleetFile/addMissing.server.ts": "adds only: points below what is new begin stale",
  "assets/fleetFile/addParts.server.ts": "adds only: a point that is new begins stale",
  "bookings/commands.server.ts": MARKS,
  "bookings/lives.server.ts": "within bookings/commands.server.ts, which marks the points it is told of",
  "circuits/register.server.ts": "adds only: components that are new, with their first life",
  "condition/marking.server.ts": "is what marks",
  "condition/oilAssessment.server.ts": "marks the points that read what it found",
  "instruments/commands.server.ts": MARKS,
  "oil/element.server.ts": MARKS,
  "oil/fills.server.ts": MARKS,
  "oil/settings.server.ts": MARKS,
  "plan/bookPlan.server.ts": MARKS,
  "readings/commands.server.ts": MARKS,
  "readings/csv/store.server.ts": MARKS,
  "readings/csv/undo.server.ts": MARKS,
  "readings/log.server.ts": MARKS,
  "record/sign.server.ts":
    "writes what was done in words, signatures and the day to look again: no assessment reads these",
  "runs/receive.server.ts": "makes work a stop-gap: no assessment reads that",
};

const source = (file: string) => readFileSync(join(DOMAIN, file), "utf8");
const files = readdirSync(DOMAIN, { recursive: true, encoding: "utf8" }).filter(
  (f) => f.endsWith(".ts") && !/\.test\.ts$|testPlant/.test(f),
);
const writes = new RegExp(
  `\\.(update|insert|delete)\\(\\s*(${TABLES.join("|")})\\s*\\)|tableOf\\(kind\\)|insert into readings\\b`,
);

test("every column that an assessment reads is named", () => {
  const build = new QueryBuilder() as unknown as Queryable;
  const said = [
    pointSetups(build).toSQL().sql,
    new QueryBuilder()
      .select(assessedColumns)
      .from(readings)
      .leftJoin(instruments, eq(instruments.id, readings.instrumentId))
      .toSQL().sql,
    '"readings"."superseded_at"',
  ].join(" ");
  const read = new Map(Object.keys(READ).map((t) => [t, new Set<string>()]));
  for (const [, table, column] of said.matchAll(/"(\w+)"\."(\w+)"/g))
    if (!PLACE.test(`${table}.${column}`)) {
      if (!read.has(table!)) read.set(table!, new Set());
      read.get(table!)!.add(column!);
    }
  const found = Object.fromEntries([...read].map(([table, columns]) => [table, [...columns].sort()]));
  expect(found).toEqual(READ);
});

test("every writer of them is named, and none that is gone", () => {
  expect(files.filter((f) => writes.test(source(f))).sort()).toEqual(Object.keys(WRITERS).sort());
});

test.each(Object.keys(WRITERS).filter((f) => WRITERS[f] === MARKS))("%s marks what it changes", (file) => {
  expect(source(file)).toMatch(/\b(markStale|markOilStale)\(/);
});
