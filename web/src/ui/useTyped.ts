import { useState } from "react";

/**
 * What is typed where it is kept in the address: shown at once, as the address follows a moment later, and whoever types fast would
 * lose letters to what it said before.
 */
export function useTyped(kept: string, keep: (text: string) => void): [string, (text: string) => void] {
  const [text, setText] = useState(kept);
  const type = (typed: string) => {
    setText(typed);
    keep(typed);
  };
  return [text, type];
}
