/** A procedure under way: what the server has, what this device has not sent yet, and what others do meanwhile. */
import { useCallback, useEffect, useState } from "react";
import { standOfRun, type StepEntry } from "@core";
import type { KeptOfWork } from "~/device/store.client";
import { entriesOfRun, useOutbox } from "~/device/useOutbox";
import { uuid } from "~/device/uuid";
import type {
  OutgoingFinding,
  OutgoingStep,
  OutgoingWithdrawal,
  OutgoingWork,
  OutgoingWorkPhoto,
  RunFinding,
  RunPhoto,
  RunState,
} from "~/domain/runs/index";
import type { RunPage } from "~/domain/runs/index.server";

/** Others' steps are looked for so often. */
const LOOK_MS = 5000;

interface Clock {
  loadedAt: number;
  offset: number;
}
type KeptRun = RunState & { clock?: Clock };

type Without<T> = T extends OutgoingWork ? Omit<T, "submission" | "runId" | "at" | "by"> : never;
export type NewEntry =
  Without<OutgoingStep> | Without<OutgoingFinding> | Without<OutgoingWithdrawal> | Without<OutgoingWorkPhoto>;

const asEntry = (item: OutgoingStep, name: string): StepEntry => ({
  submission: item.submission,
  step: item.step,
  kind: item.entry,
  values: item.values,
  reason: item.reason,
  at: item.at,
  by: name,
});

export function useRun(page: RunPage, user: { id: string; name: string }, loadedAt: number) {
  const outbox = useOutbox();
  const { id } = page.run;
  const [known, setKnown] = useState<KeptRun>(page.state);
  const [clock, setClock] = useState<Clock | null>(null);
  /** Made on this page since it was opened. */
  const [made, setMade] = useState<OutgoingWork[]>([]);

  const learn = useCallback(
    async (state: RunState, kept?: Clock) => {
      setKnown(state);
      await (await import("~/device/store.client")).keepRun(id, { ...state, ...(kept && { clock: kept }) } as RunState);
    },
    [id],
  );

  const look = useCallback(async () => {
    if (!navigator.onLine) return;
    const answer = await fetch(`/work/runs/${id}/state`, { redirect: "manual" }).catch(() => undefined);
    if (answer?.ok) await learn((await answer.json()) as RunState, clock ?? undefined);
  }, [id, learn, clock]);

  useEffect(() => {
    let gone = false;
    void (async () => {
      const before = (await (await import("~/device/store.client")).runOf(id)) as KeptRun | undefined;
      // the same page opened again from the device keeps the clock that it was taken along with
      const own = before?.clock?.loadedAt === loadedAt ? before.clock : { loadedAt, offset: loadedAt - Date.now() };
      if (gone) return;
      setClock(own);
      const newer = before && before.entries.length > page.state.entries.length ? before : page.state;
      await learn(newer, own);
    })();
    return () => {
      gone = true;
    };
  }, [id, loadedAt, page.state, learn]);

  useEffect(() => {
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => clearInterval(timer);
  }, [look]);

  const waiting = entriesOfRun(outbox.items, id);
  const refused = new Set(waiting.filter((w) => w.problem).map((w) => w.submission));
  // what is sent has left the outbox, and what the server has is not read again yet: it stays done in between
  const mine = [...waiting, ...made.filter((m) => !waiting.some((w) => w.submission === m.submission))].filter(
    (m) => !refused.has(m.submission),
  );
  const there = new Set([
    ...known.entries.map((e) => e.submission),
    ...known.findings.map((f) => f.id),
    ...known.photos.map((p) => p.submission),
  ]);
  const fresh = mine.filter((m) => !there.has(m.submission));
  const entries = [...known.entries, ...fresh.flatMap((m) => (m.kind === "step" ? [asEntry(m, user.name)] : []))];
  const stand = standOfRun(page.run.procedure, entries, page.rules);

  const findings: RunFinding[] = [
    ...known.findings,
    ...fresh.flatMap((m) =>
      m.kind === "finding"
        ? [{ id: m.submission, kind: m.finding, values: m.values, at: m.at, by: user.name, withdrawn: null }]
        : [],
    ),
  ].map((f) => {
    const taken = fresh.find((m) => m.kind === "withdrawal" && m.finding === f.id) as OutgoingWithdrawal | undefined;
    return taken && !f.withdrawn ? { ...f, withdrawn: { by: user.name, at: taken.at, because: taken.reason } } : f;
  });
  const photos: (RunPhoto & { base64?: string })[] = [
    ...known.photos,
    ...fresh.flatMap((m) =>
      m.kind === "workPhoto"
        ? [{ ...m, id: m.submission, findingId: m.finding || null, width: 4, height: 3, by: user.name }]
        : [],
    ),
  ];

  /** Keep an entry on the device; it is sent at once where there is a network. Returns its id. */
  async function keep(entry: NewEntry): Promise<string> {
    const store = await import("~/device/store.client");
    const submission = uuid();
    const at = Date.now() + (clock?.offset ?? 0);
    const item = { ...entry, submission, runId: id, at, by: user.id } as OutgoingWork;
    await store.keep(item);
    setMade((before) => [...before, item]);
    void store.holdOn();
    await outbox.look();
    void outbox.send().then(look);
    return submission;
  }

  /** A refused entry: sent again as it is now, or given up. */
  async function settle(item: KeptOfWork, how: "again" | "drop", after?: string): Promise<void> {
    const store = await import("~/device/store.client");
    if (how === "drop") {
      setMade((before) => before.filter((m) => m.submission !== item.submission));
      await store.drop(item.submission);
    } else await store.replaceKept(item.kind === "step" && after !== undefined ? { ...item, after } : item);
    await outbox.send();
    await look();
  }

  return {
    stand,
    entries,
    findings,
    photos,
    closed: known.closed,
    outbox,
    waiting: waiting.filter((w) => !w.problem).length,
    troubles: waiting.filter((w) => w.problem),
    keep,
    settle,
  };
}

export type Run = ReturnType<typeof useRun>;
