/** What a tablet kept is sent from every page, not only from the round or the procedure. */
import { useEffect, useState } from "react";
import { Link } from "react-router";

const RETRY_MS = 30_000;
const DATABASE = "juncteral-rounds";

/** Has this device ever kept anything? Opening the store would make one. */
async function hasKept(): Promise<boolean> {
  if (!("indexedDB" in window)) return false;
  if (!indexedDB.databases) return true;
  return (await indexedDB.databases()).some((d) => d.name === DATABASE);
}

interface KeptState {
  waiting: number;
  troubles: number;
  page: string | null;
}

async function send(): Promise<KeptState> {
  const store = await import("~/device/store.client");
  if ((await store.kept()).some((k) => !k.problem)) await store.sendKept();
  const items = await store.kept();
  const first = items.find((k) => k.problem) ?? items[0];
  return {
    waiting: items.filter((k) => !k.problem).length,
    troubles: items.filter((k) => k.problem).length,
    page: first ? store.pageOf(first) : null,
  };
}

export function KeptReadings() {
  const [state, setState] = useState<KeptState | null>(null);
  useEffect(() => {
    let gone = false;
    const look = () =>
      void hasKept().then(async (has) => {
        if (!has) return;
        const found = await send();
        if (!gone) setState(found);
      });
    look();
    const timer = setInterval(look, RETRY_MS);
    window.addEventListener("online", look);
    return () => {
      gone = true;
      clearInterval(timer);
      window.removeEventListener("online", look);
    };
  }, []);
  if (!state?.page || state.waiting + state.troubles === 0) return null;
  return (
    <p role="status" className="mb-3 border-l-4 border-ochre bg-ochre-soft px-3 py-2 print:hidden">
      {state.troubles > 0
        ? `${state.troubles} ${state.troubles === 1 ? "entry" : "entries"} of this device could not be saved ` +
          `and ${state.troubles === 1 ? "needs" : "need"} you.`
        : `${state.waiting} ${state.waiting === 1 ? "entry is" : "entries are"} kept on this device and ` +
          "will be sent when the server answers."}{" "}
      <Link to={state.page} reloadDocument className="way">
        Open where it was made
      </Link>
    </p>
  );
}
