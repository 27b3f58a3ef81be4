import { useState } from "react";

/** Browsers let a page copy only where it came by TLS or from this machine, and people may forbid it. */
export type Copied = "not yet" | "copied" | "refused";

/** Copies text, and tells whether it is there: whoever pastes something else would not notice. */
export function useCopy(text: string): [Copied, () => void] {
  const [copied, setCopied] = useState<Copied>("not yet");
  const copy = () => {
    // There is no clipboard at all where copying is not allowed.
    Promise.resolve()
      .then(() => navigator.clipboard.writeText(text))
      .then(
        () => setCopied("copied"),
        () => setCopied("refused"),
      );
  };
  return [copied, copy];
}
