/**
 * The forecasts that would have been issued through the years, as of each date with what was known then: readings up to
 * it, and what peers had told by the date before it. Never with hindsight.
 */
import { DAY } from "@core";
import { eq, inArray, max } from "drizzle-orm";
import { db } from "~/db/client.server";
import { components, forecastsIssued, instrumentRecalls, lives, points } from "~/db/schema";
import {
  assessInThread,
  assessPointOf,
  contextOf,
  issuedOf,
  issuedRow,
  pointSetups,
  readingsOfLife,
} from "~/domain/condition/index.server";

/** Forecasts are issued again so often, over so long. */
const EVERY = 122 * DAY;
const YEARS = 5;
/** Fewer readings forecast nothing. */
const FEWEST = 4;
const WEAR = ["caseDrainFlow", "leakageFlow", "flow", "clearance", "pressureDrop"] as const;

type Setup = Awaited<ReturnType<typeof pointSetups>>[number];
type Reading = Awaited<ReturnType<typeof readingsOfLife>>[number];

interface Course {
  setup: Setup;
  family: string;
  life: typeof lives.$inferSelect;
  readings: Reading[];
}

/** Every life of every point whose wear is read. */
async function courses(): Promise<Course[]> {
  const setups = await pointSetups(db()).where(inArray(points.quantity, [...WEAR]));
  const found: Course[] = [];
  for (const setup of setups) {
    const own = await db()
      .select({ life: lives })
      .from(lives)
      .innerJoin(components, eq(components.id, lives.componentId))
      .innerJoin(points, eq(points.componentId, components.id))
      .where(eq(points.id, setup.pointId));
    for (const { life } of own)
      found.push({
        setup,
        family: `${setup.componentKind}/${setup.quantity}`,
        life,
        readings: await readingsOfLife(db(), setup.pointId, life.id),
      });
  }
  return found;
}

/** What was known of one life on a date. */
function asOf({ setup, life, readings }: Course, date: number, recallKnownAt: number) {
  const context = contextOf(setup, [], { startHours: life.startHours, startedAt: life.startedAt });
  const known = readings.filter((r) => r.at <= date);
  return {
    readings: known.map((r) => ({ ...r, recalled: r.recalled && recallKnownAt <= date })),
    point: assessPointOf(setup, life.knownWhenNew),
    context: {
      ...context,
      now: date,
      partReadyAt: null,
      readingsInAll: known.length,
      measured: (context.measured ?? []).filter((m) => m.at <= date),
      contamination: context.contamination && context.contamination.at <= date ? context.contamination : null,
    },
  };
}

/** Issue the forecasts of the years before `now`. */
export async function backIssue(now: number): Promise<void> {
  const all = await courses();
  const [recall] = await db()
    .select({ at: max(instrumentRecalls.untilAt) })
    .from(instrumentRecalls);
  const recallKnownAt = recall?.at?.getTime() ?? 0;
  /** By course: what it told at the date before. */
  const told = new Map<Course, string>();
  for (let date = now - YEARS * 365 * DAY; date < now - EVERY / 2; date += EVERY) {
    const alive = all.filter(
      ({ life, readings }) =>
        life.startedAt.getTime() < date &&
        (life.endedAt === null || life.endedAt.getTime() > date) &&
        readings.filter((r) => r.at <= date).length >= FEWEST,
    );
    const results = await Promise.all(
      alive.map(async (course) => {
        const peers = all.flatMap((other) =>
          other !== course && other.family === course.family ? (told.get(other) ?? []) : [],
        );
        return {
          course,
          result: await assessInThread({
            ...asOf(course, date, recallKnownAt),
            kind: course.setup.componentKind,
            peers,
          }),
        };
      }),
    );
    const rows = results.flatMap(({ course, result: { detail, life } }) => {
      if (life) told.set(course, life);
      const issued = issuedOf(detail);
      return issued ? [issuedRow(course.setup.pointId, course.life.id, date, issued)] : [];
    });
    if (rows.length > 0) await db().insert(forecastsIssued).values(rows);
  }
}
