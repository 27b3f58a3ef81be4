import { type RefObject, useEffect, useState } from "react";

/** How far outside what is seen something counts as near. */
const NEAR = "600px";

/** Whether an element is, or has been, near what is seen; what is dear to draw waits for that. */
export function useSeen(place: RefObject<Element | null>, from = false): boolean {
  const [seen, setSeen] = useState(from);
  useEffect(() => {
    const element = place.current;
    if (!element || seen) {
      return;
    }
    // The first margin is for the page, the second for what scrolls within it.
    const near: IntersectionObserverInit & { scrollMargin: string } = { rootMargin: NEAR, scrollMargin: NEAR };
    const watch = new IntersectionObserver((all) => all.some((s) => s.isIntersecting) && setSeen(true), near);
    watch.observe(element);
    return () => watch.disconnect();
  }, [place, seen]);
  return seen;
}
