/** Controls, and marks of format such as those that turn the direction of text, by their classes in Unicode. */
const UNSEEN = /[\p{Cc}\p{Cf}]/gu;

/** What stays: ends of lines, tabs, and the joiners that some scripts are written with. */
const ORDINARY = new Set(["\n", "\r", "\t", "\u200c", "\u200d", "\u00ad"]);

/**
 * The text with what cannot be seen spelled out, one sign for each character: with such characters code can be made to look
 * like other code.
 */
export function spelledOut(text: string): string {
  return text.replace(UNSEEN, (c) =>
    ORDINARY.has(c) ? c : `⟦${(c.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, "0")}⟧`,
  );
}
