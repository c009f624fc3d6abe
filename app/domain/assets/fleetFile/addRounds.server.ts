/** The rounds of a fleet file. */
import type { Queryable } from "~/db/client.server";
import { roundPoints, rounds } from "~/db/schema";
import { inParts, type Adding } from "./adding.server";
import { now } from "~/runtime/clock.server";
import type { FleetFile } from "./types";

/** Rounds with their points in walking order; none is late for the time before it was added. */
export async function addRounds(
  tx: Queryable,
  adding: Adding,
  file: FleetFile,
  siteIds: ReadonlyMap<string, string>,
  pointIds: ReadonlyMap<string, string>,
): Promise<void> {
  const begunAt = new Date(now());
  const all = file.sites.flatMap((s) =>
    (s.rounds ?? []).map((r) => ({ key: `${siteIds.get(s.name)}/${r.name}`, site: s.name, r })),
  );
  const { ids, fresh } = await adding.level(
    "rounds",
    tx.select().from(rounds),
    (r) => `${r.siteId}/${r.name}`,
    all.map(({ key, site, r }) => ({
      key,
      row: {
        siteId: siteIds.get(site)!,
        name: r.name,
        intervalDays: r.intervalDays ?? 30,
        intervalHours: r.intervalHours ?? null,
        closer: r.closer ?? true,
        walkedBy: r.walkedBy ?? "",
        begunAt,
      },
    })),
    (rows) => tx.insert(rounds).values(rows),
  );
  await inParts(
    all
      .filter(({ key }) => fresh.has(key))
      .flatMap(({ key, site, r }) =>
        r.points.flatMap(({ code, state, site: elsewhere }, position) => {
          const pointId = pointIds.get(`${siteIds.get(elsewhere ?? site)}/${code}/${state}`);
          return pointId ? [{ roundId: ids.get(key)!, pointId, position, addedAt: begunAt }] : [];
        }),
      ),
    (rows) => tx.insert(roundPoints).values(rows).onConflictDoNothing(),
  );
}
