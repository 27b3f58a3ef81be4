import { useEffect, useRef } from "react";
import { tellTime } from "./api";

/** Without a key or a move for so long, nobody is reading; in milliseconds. */
const IDLE_AFTER = 60_000;
const TICK = 1_000;
const TELL_EVERY = 15_000;

/**
 * Measures how long each answer is looked at and tells the server: only while the page is seen, has the focus and something
 * was done lately.
 */
export function useActiveTime(sheetId: string, answerId: string | undefined, running: boolean): void {
  const looked = useRef(answerId);
  useEffect(() => {
    looked.current = answerId;
  }, [answerId]);

  useEffect(() => {
    if (!running) {
      return;
    }
    const windowId = crypto.randomUUID();
    const sums = new Map<string, number>();
    let lastDone = Date.now();
    let told = 0;
    const active = () => {
      lastDone = Date.now();
    };
    const tell = () => {
      const answers = [...sums].map(([id, ms]) => ({ answerId: id, ms }));
      const total = answers.reduce((sum, a) => sum + a.ms, 0);
      if (total > told) {
        told = total;
        // Lost time is no loss to the rater; what is told next holds it all again.
        tellTime(sheetId, { windowId, answers }).catch(() => undefined);
      }
    };
    const tick = setInterval(() => {
      const id = looked.current;
      if (id && document.visibilityState === "visible" && document.hasFocus() && Date.now() - lastDone < IDLE_AFTER) {
        sums.set(id, (sums.get(id) ?? 0) + TICK);
      }
    }, TICK);
    const telling = setInterval(tell, TELL_EVERY);
    const events = ["keydown", "pointermove", "wheel", "pointerdown"] as const;
    events.forEach((e) => window.addEventListener(e, active, { passive: true }));
    window.addEventListener("pagehide", tell);
    return () => {
      clearInterval(tick);
      clearInterval(telling);
      events.forEach((e) => window.removeEventListener(e, active));
      window.removeEventListener("pagehide", tell);
      tell();
    };
  }, [sheetId, running]);
}
