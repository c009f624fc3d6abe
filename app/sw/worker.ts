/**
 * The service worker: keeps the pages that are walked with, and the program itself, so that a round opens and
 * goes on without a network, also after the tab was closed or the tablet restarted.
 */
import { clientsClaim } from "workbox-core";
import { registerRoute } from "workbox-routing";
import { CacheFirst, NetworkFirst } from "workbox-strategies";
import { sendKept } from "../device/store.client";

interface WorkerScope extends EventTarget {
  skipWaiting(): Promise<void>;
  location: Location;
}
declare const self: WorkerScope;

const PROGRAM = "juncteral-program";
const WALKS = "juncteral-walks";
const walkPath = /^\/(rounds\/[0-9a-f-]{36}\/walk|work\/runs\/[0-9a-f-]{36})$/;

void self.skipWaiting();
clientsClaim();

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/assets/"),
  new CacheFirst({ cacheName: PROGRAM }),
);
registerRoute(
  ({ request, url }) => request.mode === "navigate" && walkPath.test(url.pathname),
  new NetworkFirst({ cacheName: WALKS, networkTimeoutSeconds: 4 }),
);

/** The network is back, and no page needs to be open: what was kept is sent. */
self.addEventListener("sync", (event) => {
  const sync = event as Event & { tag: string; waitUntil(work: Promise<unknown>): void };
  if (sync.tag === "juncteral-send") sync.waitUntil(sendKept());
});

/** A page was open before the worker was: it names what it was made of. */
self.addEventListener("message", (event) => {
  const { data } = event as MessageEvent<{ take?: string[]; forget?: true }>;
  if (data.forget) void caches.delete(WALKS);
  const taken = (data.take ?? []).map((u) => new URL(u, self.location.href));
  void caches
    .open(PROGRAM)
    .then((cache) =>
      Promise.all(
        taken
          .filter((u) => u.pathname.startsWith("/assets/"))
          .map(async (u) => (await cache.match(u.href)) ?? cache.add(u.href)),
      ),
    );
  void caches
    .open(WALKS)
    .then((cache) => cache.addAll(taken.filter((u) => walkPath.test(u.pathname)).map((u) => u.href)));
});
