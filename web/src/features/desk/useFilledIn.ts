import { useEffect, useState } from "react";

/**
 * How many of the answers shown may be drawn, from the left, besides the one in focus: at first, and after a change of the
 * layout, none, and one more with each frame, so that the desk opens and the key is answered at once however much there is to
 * draw.
 */
export function useFilledIn(layout: string, columns: number): number {
  const [filled, setFilled] = useState({ layout, columns: 0 });
  // Of an earlier layout, nothing is drawn yet.
  const drawn = filled.layout === layout ? filled.columns : 0;
  useEffect(() => {
    if (drawn >= columns) {
      return;
    }
    const next = requestAnimationFrame(() => setFilled({ layout, columns: drawn + 1 }));
    return () => cancelAnimationFrame(next);
  }, [layout, columns, drawn]);
  return drawn;
}
