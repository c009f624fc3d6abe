/** What the page of a point asks of the database, each query built once. */
import { and, asc, count, desc, eq, getTableColumns, isNotNull, isNull, sql } from "drizzle-orm";
import { statement } from "~/db/client.server";
import { assessments, instruments, interventions, lives, photos, points, readings, stops } from "~/db/schema";
import { assessedColumns, currentDetail, pointSetups } from "~/domain/condition/index.server";

/** Rows of the table at a time. */
export const TABLE_PAGE = 24;
const SHOWN_PHOTOS = 6;
/** The newest lives that are drawn. */
const SHOWN_LIVES = 12;
/** Readings are counted up to this; a page says "over" it of what is longer, so that no page grows with a life. */
export const MOST_COUNTED = 10_000;

const here = and(eq(readings.pointId, sql.placeholder("point")), isNull(readings.supersededAt));

export const setupOf = statement((tx) => pointSetups(tx).where(eq(points.id, sql.placeholder("point"))));

/** Newest first. */
export const livesOf = statement((tx) =>
  tx
    .select(getTableColumns(lives))
    .from(lives)
    .innerJoin(points, eq(points.componentId, lives.componentId))
    .where(eq(points.id, sql.placeholder("point")))
    .orderBy(desc(lives.startedAt))
    .limit(SHOWN_LIVES),
);

/** One page of the table, newest first. */
export const tableRows = statement((tx) =>
  tx
    .select({
      ...assessedColumns,
      entered: readings.entered,
      least: readings.least,
      by: readings.takenBy,
      instrument: instruments.tag,
      note: readings.note,
      keptBecause: readings.keptBecause,
    })
    .from(readings)
    .leftJoin(instruments, eq(instruments.id, readings.instrumentId))
    .where(here)
    .orderBy(desc(readings.takenAt))
    .limit(TABLE_PAGE)
    .offset(sql.placeholder("from")),
);

export const storedAssessment = statement((tx) =>
  tx
    .select({
      state: assessments.state,
      verdict: assessments.verdict,
      margin: assessments.margin,
      stale: assessments.stale,
      detail: currentDetail,
    })
    .from(assessments)
    .where(eq(assessments.pointId, sql.placeholder("point"))),
);

/** Instruments to choose from. */
export const shelfOf = statement((tx) =>
  tx
    .select({ id: instruments.id, tag: instruments.tag, name: instruments.name })
    .from(instruments)
    .where(isNull(instruments.retiredAt))
    .orderBy(asc(instruments.tag)),
);

export const supersededCount = statement((tx) =>
  tx
    .select({ count: count() })
    .from(readings)
    .where(and(eq(readings.pointId, sql.placeholder("point")), isNotNull(readings.supersededAt))),
);

/** Work that is booked at its component. */
export const bookedWork = statement((tx) =>
  tx
    .select({ id: interventions.id, kind: interventions.kind, startsOn: stops.startsOn })
    .from(interventions)
    .innerJoin(points, eq(points.componentId, interventions.componentId))
    .leftJoin(stops, eq(stops.id, interventions.stopId))
    .where(
      and(eq(points.id, sql.placeholder("point")), isNull(interventions.doneAt), isNull(interventions.cancelledAt)),
    ),
);

export const newestPhotos = statement((tx) =>
  tx
    .select({ id: photos.id, at: photos.at, by: photos.by })
    .from(photos)
    .where(eq(photos.pointId, sql.placeholder("point")))
    .orderBy(desc(photos.at))
    .limit(SHOWN_PHOTOS),
);

/** Readings of each life, one more than are counted at most. */
export const countByLife = statement((tx) => {
  const some = tx
    .select({ lifeId: readings.lifeId })
    .from(readings)
    .where(here)
    .limit(MOST_COUNTED + 1)
    .as("some");
  return tx.select({ lifeId: some.lifeId, n: count() }).from(some).groupBy(some.lifeId);
});

/** Readings of one life, one more than are counted at most. */
export const countInLife = statement((tx) => {
  const some = tx
    .select({ id: readings.id })
    .from(readings)
    .where(and(here, eq(readings.lifeId, sql.placeholder("life"))))
    .limit(MOST_COUNTED + 1)
    .as("some");
  return tx.select({ n: count() }).from(some);
});

/** Hours that a reading noted last. */
export const lastNotedHours = statement((tx) =>
  tx
    .select({ hours: readings.hours })
    .from(readings)
    .where(and(here, isNotNull(readings.hours)))
    .orderBy(desc(readings.takenAt))
    .limit(1),
);
