import { useEffect, useState } from "react";

/**
 * Whether all has come or failed, or was waited for long enough. What would push a page down when it comes late is waited for, so
 * that nobody presses something that has just moved.
 *
 * @param within milliseconds
 */
export function useSettled(parts: { isPending: boolean }[], within: number): boolean {
  // Once and for all: what failed is asked for anew by whatever shows it.
  const [settled, setSettled] = useState(false);
  const all = parts.every((part) => !part.isPending);
  if (all && !settled) {
    setSettled(true);
  }
  useEffect(() => {
    const timer = setTimeout(() => setSettled(true), within);
    return () => clearTimeout(timer);
  }, [within]);
  return settled || all;
}
