import { vi } from "vitest";

/** What the page asks of a browser that lays it out, and the one of the tests does not. */
export function asIfLaidOut(): void {
  vi.stubGlobal(
    "IntersectionObserver",
    class {
      observe() {}
      disconnect() {}
    },
  );
  Element.prototype.scrollIntoView = () => undefined;
}
