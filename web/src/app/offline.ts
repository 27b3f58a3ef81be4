/** Keeps the application itself in the browser, so that it loads while the server cannot be reached. */
export function keepForOffline(): void {
  // Browsers have workers only where a page is served over a safe connection.
  if (!import.meta.env.PROD || !("serviceWorker" in navigator)) {
    return;
  }
  const { serviceWorker } = navigator;
  // What was fetched before the worker stood between the page and the server.
  const tell = async () =>
    (await serviceWorker.ready).active?.postMessage(
      performance.getEntriesByType("resource").map((entry) => entry.name),
    );
  serviceWorker.addEventListener("controllerchange", () => void tell());
  // After the page itself: nobody waits for this, and without it everything but that works.
  addEventListener(
    "load",
    () =>
      void serviceWorker
        .register("/offline.js")
        .then(tell)
        .catch(() => undefined),
  );
}
