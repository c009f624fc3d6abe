/** The instruments of a fleet file. */
import type { Actor } from "~/domain/access/index.server";
import type { Queryable } from "~/db/client.server";
import { instrumentChecks, instrumentRecalls, instruments } from "~/db/schema";
import { date, inParts, type Adding } from "./adding.server";
import type { FleetFile } from "./types";

/** Instruments with their calibrations, checks and recalls. */
export async function addInstruments(
  tx: Queryable,
  adding: Adding,
  file: FleetFile,
  actor: Actor,
): Promise<Map<string, string>> {
  const wanted = (file.instruments ?? []).map(({ checks: _checks, recalls: _recalls, ...i }) => ({
    key: i.tag,
    row: {
      ...i,
      calibratedAt: date(i.calibratedAt),
      calibrationDueAt: date(i.calibrationDueAt),
      retiredAt: date(i.retiredAt),
    },
  }));
  const { ids, fresh } = await adding.level(
    "instruments",
    tx.select().from(instruments),
    (i) => i.tag,
    wanted,
    (rows) => tx.insert(instruments).values(rows),
  );
  const added = (file.instruments ?? []).filter((i) => fresh.has(i.tag));
  await inParts(
    added.flatMap((i) =>
      (i.checks ?? []).map((c) => ({
        ...c,
        at: new Date(c.at),
        by: c.by || actor.name,
        instrumentId: ids.get(i.tag)!,
      })),
    ),
    (rows) => tx.insert(instrumentChecks).values(rows),
  );
  await inParts(
    added.flatMap((i) =>
      (i.recalls ?? []).map((r) => ({
        reason: r.reason,
        fromAt: new Date(r.fromAt),
        untilAt: new Date(r.untilAt),
        by: r.by || actor.name,
        instrumentId: ids.get(i.tag)!,
      })),
    ),
    (rows) => tx.insert(instrumentRecalls).values(rows),
  );
  return ids;
}
