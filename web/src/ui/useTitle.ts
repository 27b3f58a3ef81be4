import { useEffect } from "react";

/** The page's name in the window and in the history. */
export function useTitle(title: string | undefined): void {
  useEffect(() => {
    document.title = title ? `${title} · Mossbank` : "Mossbank";
  }, [title]);
}
