/** The entries that wait on this device, and the state of the network in words. */
import { useCallback, useEffect, useState } from "react";
import type { Kept, KeptOfRound, KeptOfWork } from "~/device/store.client";

export type Network = "sent" | "noNetwork" | "signIn" | "server";
const RETRY_MS = 15_000;

export function networkWords(network: Network, waiting: number): string {
  const kept = waiting === 0 ? "" : ` · ${waiting} kept here`;
  if (network === "noNetwork") return `no network${kept || " · what you enter is kept here"}`;
  if (network === "signIn") return `signed out${kept}`;
  if (network === "server") return `the server does not answer${kept}`;
  return waiting === 0 ? "all sent" : `sending${kept}`;
}

export function useOutbox() {
  const [items, setItems] = useState<Kept[]>([]);
  const [network, setNetwork] = useState<Network>("sent");
  const look = useCallback(async () => setItems(await (await import("~/device/store.client")).kept()), []);
  const send = useCallback(async () => {
    const sent = await (await import("~/device/store.client")).sendKept();
    setNetwork(sent === "nothing" ? (navigator.onLine ? "sent" : "noNetwork") : sent);
    await look();
  }, [look]);
  useEffect(() => {
    const first = setTimeout(() => void send(), 0);
    const again = () => void send();
    const off = () => setNetwork("noNetwork");
    const timer = setInterval(again, RETRY_MS);
    window.addEventListener("online", again);
    window.addEventListener("offline", off);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
      window.removeEventListener("online", again);
      window.removeEventListener("offline", off);
    };
  }, [send]);
  return { items, waiting: items.filter((i) => !i.problem), network, look, send };
}

/** Entries of rounds that the server would not take. */
export const troublesOfRounds = (items: readonly Kept[]): KeptOfRound[] =>
  items.filter((i): i is KeptOfRound => "roundId" in i && i.problem !== undefined);

/** Entries of one procedure: all that are kept here, refused ones too. */
export const entriesOfRun = (items: readonly Kept[], runId: string): KeptOfWork[] =>
  items.filter((i): i is KeptOfWork => "runId" in i && i.runId === runId);
