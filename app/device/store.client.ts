/** What a tablet keeps by itself: the way walked so far and everything not sent yet. IndexedDB through idb. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Fate, Outgoing } from "~/domain/rounds/outgoing";

export type Kept = Outgoing & { order: number; problem?: Pick<Fate, "fate" | "field" | "message"> };

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
  startedAt: number;
}

interface Schema extends DBSchema {
  walks: { key: string; value: Walk };
  outbox: { key: string; value: Kept; indexes: { order: number } };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

function store(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>("juncteral-rounds", 1, {
    upgrade(db) {
      db.createObjectStore("walks", { keyPath: "roundId" });
      db.createObjectStore("outbox", { keyPath: "submission" }).createIndex("order", "order");
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

/** Keep an entry until the server has it. The order is that of keeping. */
export async function keep(item: Outgoing): Promise<void> {
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

/** Send one batch of a round. Undefined: no network; a status that is not ok comes back as it is. */
async function post(roundId: string, batch: readonly Kept[]): Promise<Response | undefined> {
  try {
    return await fetch(`/rounds/${roundId}/send`, {
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
 * Send what waits, in order, once; another tab that is sending is left to it. A round, or an entry, that the server
 * does not take never holds up the others.
 */
export async function sendKept(): Promise<Sent> {
  const send = async (): Promise<Sent> => {
    const tried = new Set<string>();
    const stuck = new Set<string>();
    let any = false;
    for (;;) {
      const waiting = (await kept()).filter((k) => !k.problem && !tried.has(k.submission) && !stuck.has(k.roundId));
      const first = waiting[0];
      if (!first) return stuck.size > 0 ? "server" : any ? "sent" : "nothing";
      const batch = waiting.filter((k) => k.roundId === first.roundId).slice(0, first.kind === "photo" ? 1 : BATCH);
      const answer = await post(first.roundId, batch);
      if (!answer) return "noNetwork";
      if (answer.type === "opaqueredirect" || answer.status === 401 || answer.status === 403) return "signIn";
      for (const item of batch) tried.add(item.submission);
      if (answer.ok) {
        await settle(((await answer.json()) as { fates: Fate[] }).fates);
        any = true;
      } else if (answer.status >= 400 && answer.status < 500) {
        // one of them is the trouble: each is asked about by itself
        for (const item of batch) {
          const own = batch.length > 1 ? await post(item.roundId, [item]) : answer;
          if (!own) return "noNetwork";
          if (own.ok) await settle(((await own.json()) as { fates: Fate[] }).fates);
          else if (own.status >= 400 && own.status < 500) await settle([unreadable(item)]);
          else stuck.add(item.roundId);
        }
      } else stuck.add(first.roundId);
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
