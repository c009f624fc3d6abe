/** What a tablet keeps by itself: ways walked, work under way, and everything not sent yet. IndexedDB through idb. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Fate, Outgoing } from "~/domain/rounds/index";
import type { OutgoingWork, RunState } from "~/domain/runs/index";

interface Stored {
  order: number;
  problem?: Pick<Fate, "fate" | "field" | "message">;
}
export type KeptOfRound = Outgoing & Stored;
export type KeptOfWork = OutgoingWork & Stored;
export type Kept = KeptOfRound | KeptOfWork;

/** Where an entry goes, and which page it was made on. */
export const pageOf = (item: Kept): string =>
  "runId" in item ? `/work/runs/${item.runId}` : `/rounds/${item.roundId}/walk`;
const sentTo = (item: Kept): string =>
  "runId" in item ? `/work/runs/${item.runId}/send` : `/rounds/${item.roundId}/send`;

export interface Walk {
  roundId: string;
  /** Point ids in walking order, fixed when the walk began. */
  way: string[];
  index: number;
  /** Point ids dealt with, and how. */
  done: Record<string, "read" | "skipped">;
  /** Conditions last entered, by machine. */
  conditions: Record<string, { temperature: string; pressure: string; hours: string }>;
  /** Conditions that the person has seen to hold, by machine. */
  held: Record<string, string[]>;
  /** Valves that were moved on the way, by component; left out by walks of an older version. */
  moved?: string[];
  startedAt: number;
}

interface Schema extends DBSchema {
  walks: { key: string; value: Walk };
  outbox: { key: string; value: Kept; indexes: { order: number } };
  /** Procedures under way as the server last had them, so that they open again without a network. */
  runs: { key: string; value: RunState & { runId: string } };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

function store(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>("juncteral-rounds", 2, {
    upgrade(db, before) {
      if (before < 1) {
        db.createObjectStore("walks", { keyPath: "roundId" });
        db.createObjectStore("outbox", { keyPath: "submission" }).createIndex("order", "order");
      }
      db.createObjectStore("runs", { keyPath: "runId" });
    },
    // a page of another version wants to go on: this one lets go and opens anew
    blocking(_current, _wanted, event) {
      (event.target as IDBDatabase).close();
      opened = undefined;
    },
  });
  return opened;
}

export async function walkOf(roundId: string): Promise<Walk | undefined> {
  return (await store()).get("walks", roundId);
}

export async function keepWalk(walk: Walk): Promise<void> {
  await (await store()).put("walks", walk);
}

export async function runOf(runId: string): Promise<RunState | undefined> {
  return (await store()).get("runs", runId);
}

export async function keepRun(runId: string, state: RunState): Promise<void> {
  await (await store()).put("runs", { ...state, runId });
}

/** Keep an entry until the server has it. The order is that of keeping. */
export async function keep(item: Outgoing | OutgoingWork): Promise<void> {
  const db = await store();
  const tx = db.transaction("outbox", "readwrite");
  const last = await tx.store.index("order").openCursor(null, "prev");
  await tx.store.put({ ...item, order: (last?.value.order ?? 0) + 1 });
  await tx.done;
}

/** Put right what the server refused: it is sent again. */
export async function replaceKept(item: Kept): Promise<void> {
  const { problem: _problem, ...rest } = item;
  await (await store()).put("outbox", rest);
}

export async function drop(submission: string): Promise<void> {
  await (await store()).delete("outbox", submission);
}

export async function kept(): Promise<Kept[]> {
  return (await store()).getAllFromIndex("outbox", "order");
}

export type Sent = "sent" | "nothing" | "noNetwork" | "signIn" | "server";

const BATCH = 10;

/** Send one batch. Undefined: no network; a status that is not ok comes back as it is. */
async function post(to: string, batch: readonly Kept[]): Promise<Response | undefined> {
  try {
    return await fetch(to, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(batch),
      redirect: "manual",
    });
  } catch {
    return undefined;
  }
}

async function settle(fates: readonly Fate[]): Promise<void> {
  const db = await store();
  for (const fate of fates) {
    if (fate.fate === "saved") await db.delete("outbox", fate.submission);
    else {
      const item = await db.get("outbox", fate.submission);
      if (item) await db.put("outbox", { ...item, problem: fate });
    }
  }
}

/** Entries that the server will never take as they are, and that it said nothing of: shown to the person, one by one. */
const unreadable = (item: Kept): Fate => ({
  submission: item.submission,
  fate: "refused",
  message: "The server cannot read this entry.",
});

/**
 * Send what waits, in order, once; another tab that is sending is left to it. A page, or an entry, that the server
 * does not take never holds up the others.
 */
export async function sendKept(): Promise<Sent> {
  const send = async (): Promise<Sent> => {
    const tried = new Set<string>();
    const stuck = new Set<string>();
    let any = false;
    for (;;) {
      const waiting = (await kept()).filter((k) => !k.problem && !tried.has(k.submission) && !stuck.has(sentTo(k)));
      const first = waiting[0];
      if (!first) return stuck.size > 0 ? "server" : any ? "sent" : "nothing";
      const to = sentTo(first);
      const photo = first.kind === "photo" || first.kind === "workPhoto";
      const batch = waiting.filter((k) => sentTo(k) === to).slice(0, photo ? 1 : BATCH);
      const answer = await post(to, batch);
      if (!answer) return "noNetwork";
      if (answer.type === "opaqueredirect" || answer.status === 401 || answer.status === 403) return "signIn";
      for (const item of batch) tried.add(item.submission);
      if (answer.ok) {
        await settle(((await answer.json()) as { fates: Fate[] }).fates);
        any = true;
      } else if (answer.status >= 400 && answer.status < 500) {
        // one of them is the trouble: each is asked about by itself
        for (const item of batch) {
          const own = batch.length > 1 ? await post(to, [item]) : answer;
          if (!own) return "noNetwork";
          if (own.ok) await settle(((await own.json()) as { fates: Fate[] }).fates);
          else if (own.status >= 400 && own.status < 500) await settle([unreadable(item)]);
          else stuck.add(to);
        }
      } else stuck.add(to);
    }
  };
  if (!navigator.locks) return send();
  return navigator.locks.request("juncteral-send", send);
}

/** Ask the device not to sweep away what is kept, and to send it in the background when the network is back, where it can. */
export async function holdOn(): Promise<void> {
  await navigator.storage?.persist?.().catch(() => false);
  const registration = (await navigator.serviceWorker?.getRegistration().catch(() => undefined)) as
    (ServiceWorkerRegistration & { sync?: { register(tag: string): Promise<void> } }) | undefined;
  await registration?.sync?.register("juncteral-send").catch(() => undefined);
}
