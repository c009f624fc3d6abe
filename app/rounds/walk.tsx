/** A round on a tablet, one point a screen, with or without a network. */
import { DAY } from "@core";
import { useEffect, useState } from "react";
import { isRouteErrorResponse } from "react-router";
import type { Route } from "./+types/walk";
import { now } from "~/runtime/clock.server";
import { guard, idParam } from "~/platform/guard.server";
import { siteTimeZone } from "~/domain/assets/index.server";
import { ErrorPage } from "~/ui/errorPage";
import { SiteProvider } from "~/ui/site";
import { roundRow, stripsOf, walkPoints } from "~/domain/rounds/index.server";
import type { Walk } from "~/device/store.client";
import { Insecure } from "~/device/insecure";
import { takeAlong } from "~/device/takeAlong";
import { useOutbox } from "~/device/useOutbox";
import { uuid } from "~/device/uuid";
import { dueWork } from "~/domain/bookings/index.server";
import { AlsoDue } from "./alsoDue";
import { WalkEnd } from "./walkEnd";
import { WalkPointScreen } from "./walkPoint";
import { WalkTop } from "./walkTop";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.round.name ?? "Round"} · Juncteral` },
];

export const loader = guard("technician", async ({ params, user }) => {
  const [round, points, timeZone] = await Promise.all([
    roundRow(idParam(params)),
    walkPoints(idParam(params), user.units),
    siteTimeZone(),
  ]);
  const machineIds = [...new Set(points.map((p) => p.machineId))];
  return {
    round: { id: round.id, name: round.name },
    alsoDue: machineIds.length > 0 ? await dueWork({ most: DUE_TAKEN, machineIds }) : [],
    points,
    strips: await stripsOf(points.map((p) => p.circuitId)),
    user,
    timeZone,
    now: now(),
  };
});

// the way is walked with what was taken along: nothing is asked for again
export const shouldRevalidate = () => false;

/** What else falls due at the machines of a round, at most. */
const DUE_TAKEN = 40;

/** Points that fall due within this time are on the way today. */
const SOON = 7 * DAY;
/** A walk left lying longer than this begins anew; what it kept is still sent. */
const LONGEST_WALK = 2 * DAY;

export default function WalkPage({ loaderData }: Route.ComponentProps) {
  const { round, points, alsoDue, strips, user, timeZone, now: loadedAt } = loaderData;
  const [walk, setWalk] = useState<(Walk & { clock: { loadedAt: number; offset: number } }) | null>(null);
  const outbox = useOutbox();
  // the way is fixed when the walk begins, and stays; a point that has left the round since is left out
  const byId = new Map(points.map((p) => [p.id, p]));
  const way = (walk?.way ?? []).flatMap((id) => byId.get(id) ?? []);

  useEffect(() => {
    let gone = false;
    void (async () => {
      const store = await import("~/device/store.client");
      const before = (await store.walkOf(round.id)) as
        (Walk & { clock?: { loadedAt: number; offset: number } }) | undefined;
      // the same page opened again from the device keeps the clock that it was taken along with
      const clock = before?.clock?.loadedAt === loadedAt ? before.clock : { loadedAt, offset: loadedAt - Date.now() };
      // what is due soon; the whole round where nothing is
      const due = points.filter((p) => p.dueAt < loadedAt + SOON);
      const fresh = {
        roundId: round.id,
        way: (due.length > 0 ? due : points).map((p) => p.id),
        index: 0,
        done: {},
        conditions: {},
        held: {},
        startedAt: Date.now(),
        clock,
      };
      const goesOn =
        before?.way?.some((id) => points.some((p) => p.id === id)) && Date.now() - before.startedAt < LONGEST_WALK;
      const next = before && goesOn ? { ...before, held: before.held ?? {}, clock } : fresh;
      if (gone) return;
      setWalk(next);
      await store.keepWalk(next);
    })();
    takeAlong();
    return () => {
      gone = true;
    };
  }, [round.id, loadedAt, points]);

  const update = async (change: Partial<Walk>) => {
    if (!walk) return;
    const next = { ...walk, ...change };
    setWalk(next);
    await (await import("~/device/store.client")).keepWalk(next);
  };
  async function keepMoved(pointId: string, componentId: string) {
    const store = await import("~/device/store.client");
    const entry = { submission: uuid(), roundId: round.id, pointId, at: present(), by: user.id };
    await store.keep({ ...entry, kind: "move", componentId });
    await update({ moved: [...(walk?.moved ?? []), componentId] });
    void store.holdOn();
    await outbox.look();
    void outbox.send();
  }
  const present = () => Date.now() + (walk?.clock.offset ?? 0);
  const point = walk ? way[walk.index] : undefined;
  return (
    <SiteProvider value={{ timeZone, now: loadedAt, units: user.units }}>
      <div className="mx-auto min-h-screen max-w-[860px] px-4 py-3 sm:px-7">
        <WalkTop
          round={round}
          index={walk?.index ?? 0}
          count={way.length}
          outbox={outbox}
          onGo={(index) => void update({ index })}
        />
        <Insecure />
        <main>
          {!walk ? (
            <p className="py-10 text-ink-2">Getting the round ready …</p>
          ) : point ? (
            <>
              <WalkPointScreen
                key={point.id + String(walk.done[point.id] ?? "")}
                round={round}
                point={point}
                parts={strips[point.circuitId] ?? []}
                walk={walk}
                present={present}
                user={user}
                outbox={outbox}
                onDone={(how, kept) =>
                  void update({
                    index: walk.index + 1,
                    done: { ...walk.done, [point.id]: how },
                    ...(kept && {
                      conditions: { ...walk.conditions, [point.machineId]: kept.conditions },
                      held: { ...walk.held, [point.machineId]: kept.held },
                    }),
                  })
                }
              />
              <AlsoDue
                items={alsoDue.filter((d) => d.machineId === point.machineId)}
                moved={walk.moved ?? []}
                onMoved={(componentId) => void keepMoved(point.id, componentId)}
              />
            </>
          ) : (
            <WalkEnd
              round={round}
              points={way}
              walk={walk}
              outbox={outbox}
              onGo={(index) => void update({ index })}
              onAgain={() =>
                void update({ index: 0, done: {}, conditions: {}, held: {}, moved: [], startedAt: Date.now() })
              }
            />
          )}
        </main>
      </div>
    </SiteProvider>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return (
    <ErrorPage
      status={isRouteErrorResponse(error) ? error.status : 500}
      detail={isRouteErrorResponse(error) ? error.data : undefined}
    />
  );
}
