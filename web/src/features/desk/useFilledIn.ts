import { useEffect, useState } from "react";

/** Columns that come in with each frame. */
const A_FRAME = 1;

/**
 * How many of the answers shown may be drawn, from the left: after a change of the layout one to begin with, and more with
 * each frame, so that the key is answered at once however much there is to draw.
 */
export function useFilledIn(layout: string, columns: number): number {
  const [filled, setFilled] = useState({ layout, columns });
  // Of an earlier layout, nothing is drawn yet.
  const drawn = filled.layout === layout ? filled.columns : A_FRAME;
  useEffect(() => {
    if (drawn >= columns) {
      return;
    }
    const next = requestAnimationFrame(() => setFilled({ layout, columns: drawn + A_FRAME }));
    return () => cancelAnimationFrame(next);
  }, [layout, columns, drawn]);
  return Math.max(drawn, A_FRAME);
}
