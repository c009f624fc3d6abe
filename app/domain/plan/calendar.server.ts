/**
 * Stops and booked work as a calendar (RFC 5545), and private addresses at which it is read without signing in. Days of a
 * stop are all-day events in the site's own days, so that no time zone can move them; UIDs never change.
 */
import { createHash, randomBytes } from "node:crypto";
import { and, asc, count, eq, gte, isNotNull, isNull, or, sql } from "drizzle-orm";
import ical, { ICalCalendarMethod, ICalEventStatus, ICalEventTransparency } from "ical-generator";
import { DAY, HOUR, addDays } from "@core";
import { db } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { calendarFeeds, circuits, components, interventions, machines, sites, stops } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { now } from "~/runtime/clock.server";

/** Stops that are over stay in the calendar for so long, cancelled ones too, so that a reader hears of the cancellation. */
const KEPT = 366 * DAY;
const MOST = 500;
const WORK_OF_A_STOP = 40;

const whatIs = { replacement: "replace", repair: "repair", inspection: "inspect" } as const;

/** The calendar of all sites, as text. */
export async function calendarText(origin: string): Promise<string> {
  const since = new Date(now() - KEPT).toISOString().slice(0, 10);
  const [stopRows, work] = await Promise.all([
    db()
      .select({ stop: stops, site: sites.name })
      .from(stops)
      .innerJoin(sites, eq(sites.id, stops.siteId))
      .where(gte(stops.startsOn, since))
      .orderBy(asc(stops.startsOn))
      .limit(MOST),
    db()
      .select({
        stopId: interventions.stopId,
        kind: interventions.kind,
        hours: interventions.crewHours,
        machine: machines.name,
        component: components.name,
        version: interventions.version,
        done: sql<boolean>`${interventions.doneAt} is not null`,
      })
      .from(interventions)
      .innerJoin(stops, eq(stops.id, interventions.stopId))
      .innerJoin(components, eq(components.id, interventions.componentId))
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(and(isNotNull(interventions.stopId), isNull(interventions.cancelledAt), gte(stops.startsOn, since)))
      .orderBy(machines.name)
      .limit(MOST * 4),
  ]);
  const calendar = ical({
    name: "Juncteral: stops and work",
    prodId: { company: "juncteral", product: "plan", language: "EN" },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 4 * 3600,
  });
  const stamp = new Date(now());
  for (const { stop, site } of stopRows) {
    const own = work.filter((w) => w.stopId === stop.id);
    const hours = own.reduce((sum, w) => sum + w.hours, 0);
    const lines = own
      .slice(0, WORK_OF_A_STOP)
      .map((w) => `${w.machine}, ${w.component}: ${whatIs[w.kind]}, ${w.hours} h${w.done ? ", done" : ""}`);
    calendar.createEvent({
      id: `stop-${stop.id}@juncteral`,
      // what was booked in or out counts as a change too
      sequence: stop.version - 1 + own.reduce((sum, w) => sum + w.version, 0),
      start: stop.startsOn,
      end: addDays(stop.startsOn, stop.days),
      allDay: true,
      stamp,
      summary: stop.retiredAt ? `Cancelled: ${stop.name}` : stop.name,
      location: site,
      description: stop.retiredAt
        ? "This stop was taken out of the plan."
        : [`${hours} of ${stop.crewHours + stop.electricianHours} crew hours booked.`, ...lines].join("\n"),
      url: `${origin}/work`,
      status: stop.retiredAt ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
      transparency: ICalEventTransparency.TRANSPARENT,
    });
  }
  return calendar.toString();
}

const hashOf = (token: string) => createHash("sha256").update(token).digest("hex");

/** Addresses of a person that are not revoked, the newest first; the token itself is known only when it is made. */
export async function feedsOf(personId: string) {
  const rows = await db()
    .select()
    .from(calendarFeeds)
    .where(and(eq(calendarFeeds.personId, personId), isNull(calendarFeeds.revokedAt)))
    .orderBy(sql`${calendarFeeds.madeAt} desc`)
    .limit(20);
  return rows.map((r) => ({ id: r.id, madeAt: r.madeAt.getTime(), lastReadAt: r.lastReadAt?.getTime() ?? null }));
}

const MOST_FEEDS = 10;

/** Make a private address. @returns its token, once */
export async function makeFeed(actor: Actor): Promise<Answer<{ token: string }>> {
  if (actor.id === null) return { ok: false, problems: { form: "Sign in to make an address." } };
  const person = actor.id;
  return db().transaction(async (tx) => {
    // one at a time, so that a burst cannot pass the limit
    await tx.select({ id: users.id }).from(users).where(eq(users.id, person)).for("update");
    const [open] = await tx
      .select({ n: count() })
      .from(calendarFeeds)
      .where(and(eq(calendarFeeds.personId, person), isNull(calendarFeeds.revokedAt)));
    if (open!.n >= MOST_FEEDS)
      return { ok: false as const, problems: { form: `You have ${MOST_FEEDS} addresses. Revoke one first.` } };
    const token = randomBytes(24).toString("base64url");
    const [row] = await tx
      .insert(calendarFeeds)
      .values({ personId: person, tokenHash: hashOf(token), madeAt: new Date(now()) })
      .returning({ id: calendarFeeds.id });
    await audit(tx, actor, { what: "made a calendar address", recordId: row!.id });
    return { ok: true as const, token };
  });
}

/** Revoke an address of one's own: from now on it answers as if it had never been. */
export async function revokeFeed(id: string, actor: Actor): Promise<Answer> {
  const rows = await db()
    .update(calendarFeeds)
    .set({ revokedAt: new Date(now()) })
    .where(and(eq(calendarFeeds.id, id), sql`${calendarFeeds.personId} = ${actor.id}`, isNull(calendarFeeds.revokedAt)))
    .returning({ id: calendarFeeds.id });
  if (rows.length === 0) return { ok: false, because: "gone", problems: { form: "This address is already revoked." } };
  await audit(db(), actor, { what: "revoked a calendar address", recordId: id });
  return { ok: true, id };
}

/** Does this token open the calendar? A person who may no longer sign in reads nothing either. */
export async function opensFeed(token: string): Promise<boolean> {
  const [feed] = await db()
    .select({ id: calendarFeeds.id, lastReadAt: calendarFeeds.lastReadAt })
    .from(calendarFeeds)
    .innerJoin(users, eq(users.id, calendarFeeds.personId))
    .where(and(eq(calendarFeeds.tokenHash, hashOf(token)), isNull(calendarFeeds.revokedAt), isNull(users.retiredAt)));
  if (!feed) return false;
  await db()
    .update(calendarFeeds)
    .set({ lastReadAt: new Date(now()) })
    .where(
      and(
        eq(calendarFeeds.id, feed.id),
        or(
          isNull(calendarFeeds.lastReadAt),
          sql`${calendarFeeds.lastReadAt} < ${new Date(now() - HOUR).toISOString()}`,
        ),
      ),
    );
  return true;
}
