import { useState } from "react";

/** What was chosen, kept in this window under a name until it is closed: leaving the page loses nothing. */
function keptOf<T extends object>(name: string): Partial<T> {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(name) ?? "{}");
    return typeof kept === "object" && kept !== null ? kept : {};
  } catch {
    return {};
  }
}

/** What was chosen of some choices, and choosing more. */
export function useKept<T extends object>(name: string) {
  const [chosen, setChosen] = useState(() => keptOf<T>(name));
  return {
    chosen,
    choose: (more: Partial<T>) => {
      const next = { ...chosen, ...more };
      sessionStorage.setItem(name, JSON.stringify(next));
      setChosen(next);
    },
  };
}
