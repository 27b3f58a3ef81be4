import { at } from "../api/base";

const WORKER = "/offline.js";

/** Keeps the application itself in the browser, so that it loads while the server cannot be reached. */
export function keepForOffline(): void {
  // Browsers have workers only where a page is served over a safe connection.
  if (import.meta.env.PROD && "serviceWorker" in navigator) {
    // After the page itself: nobody waits for this, and without it everything but that works.
    addEventListener("load", () => void register().catch(() => undefined));
  }
}

async function register(): Promise<void> {
  await navigator.serviceWorker.register(at(WORKER));
  const registration = await navigator.serviceWorker.ready;
  // What was asked for before the worker stood between the page and the server did not come its way, so it is told.
  const watch = new PerformanceObserver((list) => {
    const files = list
      .getEntries()
      .map((entry) => entry.name)
      .filter((name) => !new URL(name).pathname.startsWith(at("/api/")));
    if (files.length > 0) {
      registration.active?.postMessage(files);
    }
  });
  watch.observe({ type: "resource", buffered: true });
}
