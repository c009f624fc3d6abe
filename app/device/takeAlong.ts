/** The page that is open, and all it is made of, is kept on the device: it opens again without a network. */
export function takeAlong(): void {
  if (!("serviceWorker" in navigator)) return;
  void navigator.serviceWorker
    .register("/sw.js", { type: "module" })
    // parts that are only asked for when they are used must be there when there is no network to ask
    .then(() => Promise.all([navigator.serviceWorker.ready, import("./store.client"), import("./photo.client")]))
    .then(
      ([registration]) => {
        const parts = [
          ...document.querySelectorAll<HTMLLinkElement | HTMLScriptElement>("link[href], script[src]"),
        ].map((e) => ("href" in e && e.href ? e.href : (e as HTMLScriptElement).src));
        const loaded = performance
          .getEntriesByType("resource")
          .map((e) => e.name)
          .filter((n) => n.startsWith(window.location.origin));
        registration.active?.postMessage({
          take: [...new Set([...parts, ...loaded, ...(navigator.onLine ? [window.location.pathname] : [])])],
        });
      },
      () => undefined,
    );
}
