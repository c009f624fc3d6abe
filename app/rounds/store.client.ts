/** What a tablet keeps by itself: the way walked so far and everything not sent yet. IndexedDB through idb. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Fate, Outgoing } from "./outgoing";

export type Kept = Outgoing & { order: number; problem?: Pick<Fate, "fate" | "field" | "message"> };

export interface Walk {
  roundId: string;
  index: number;
  /** Point ids dealt with, and how. */
  done: Record<string, "read" | "skipped">;
  /** Conditions last entered, by machine. */
  conditions: Record<string, { temperature: string; pressure: string; hours: string }>;
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
  await (await store()).put("outbox", rest as Kept);
}

export async function drop(submission: string): Promise<void> {
  await (await store()).delete("outbox", submission);
}

export async function kept(): Promise<Kept[]> {
  return (await store()).getAllFromIndex("outbox", "order");
}

export type Sent = "sent" | "nothing" | "noNetwork" | "signIn" | "server";

const BATCH = 10;

/** Send what waits, in order, once; another tab that is sending is left to it. */
export async function sendKept(): Promise<Sent> {
  const send = async (): Promise<Sent> => {
    const tried = new Set<string>();
    let any = false;
    for (;;) {
      const waiting = (await kept()).filter((k) => !k.problem && !tried.has(k.submission));
      const first = waiting[0];
      if (!first) return any ? "sent" : "nothing";
      const batch = waiting.filter((k) => k.roundId === first.roundId).slice(0, first.kind === "photo" ? 1 : BATCH);
      for (const item of batch) tried.add(item.submission);
      let answer: Response;
      try {
        answer = await fetch(`/rounds/${first.roundId}/send`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(batch), redirect: "manual" });
      } catch {
        return "noNetwork";
      }
      if (answer.type === "opaqueredirect" || answer.status === 401 || answer.status === 403) return "signIn";
      if (!answer.ok) return "server";
      const { fates } = (await answer.json()) as { fates: Fate[] };
      const db = await store();
      for (const fate of fates) {
        if (fate.fate === "saved") await db.delete("outbox", fate.submission);
        else {
          const item = await db.get("outbox", fate.submission);
          if (item) await db.put("outbox", { ...item, problem: fate });
        }
      }
      any = true;
    }
  };
  if (!navigator.locks) return send();
  return navigator.locks.request("juncteral-send", send);
}
