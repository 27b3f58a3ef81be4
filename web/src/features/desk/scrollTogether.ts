import { type RefObject, type UIEvent, useRef } from "react";

/** Takes the other answers along, by the share of their length, as they are not equally long. */
export function useScrollTogether(main: RefObject<HTMLElement | null>, tied: boolean): (event: UIEvent) => void {
  const following = useRef(false);
  return ({ target: moved }) => {
    if (!tied || following.current || !(moved instanceof HTMLElement) || moved.dataset["column"] === undefined) {
      return;
    }
    following.current = true;
    const share = moved.scrollTop / Math.max(1, moved.scrollHeight - moved.clientHeight);
    main.current?.querySelectorAll<HTMLElement>("[data-column]").forEach((column) => {
      if (column !== moved) {
        column.scrollTop = share * (column.scrollHeight - column.clientHeight);
      }
    });
    requestAnimationFrame(() => {
      following.current = false;
    });
  };
}
