import { type RefObject, useLayoutEffect, useState } from "react";

/** What stands at the left of the answers, and the least that one is read in, in rem. */
const HEADS = 12.5;
const LEAST = 19;

/** How much of the next answer is seen where not all fit, so that one sees that it is there; in rem. */
const EDGE = 1.5;

/**
 * How wide the columns are: as many answers as fit stand there whole, and the edge of the next shows that it is there.
 *
 * @param width of the place they stand in, in rem
 */
export function columnsIn(width: number, answers: number): string {
  const all = (width - HEADS) / LEAST >= answers;
  const fit = Math.max(1, Math.floor((width - HEADS - EDGE) / LEAST));
  return all || width === 0
    ? `${HEADS}rem repeat(${answers}, minmax(${LEAST}rem, 1fr))`
    : `${HEADS}rem repeat(${answers}, ${Math.max(LEAST, (width - HEADS - EDGE) / fit)}rem)`;
}

export function useColumns(place: RefObject<HTMLElement | null>, answers: number) {
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const { current } = place;
    if (!current) {
      return;
    }
    const rem = parseFloat(getComputedStyle(document.documentElement).fontSize) || 16;
    const measure = () => setWidth(current.clientWidth / rem);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(current);
    return () => observer.disconnect();
  }, [place]);
  return { gridTemplateColumns: columnsIn(width, answers) };
}
