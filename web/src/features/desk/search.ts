/** A line of an answer that holds what is looked for. */
export type Match = { column: number; line: number };

/** A longer list is cut: nobody steps through it. */
const MOST = 5_000;

/** The lines of texts that hold the words, in the order of the answers; lines count from 1. Case does not matter. */
export function matchesIn(texts: string[], words: string): Match[] {
  const wanted = words.toLocaleLowerCase();
  if (wanted === "") {
    return [];
  }
  const found: Match[] = [];
  texts.forEach((text, column) => {
    const lines = text.split("\n");
    for (let i = 0; i < lines.length && found.length < MOST; i++) {
      if (lines[i]?.toLocaleLowerCase().includes(wanted)) {
        found.push({ column, line: i + 1 });
      }
    }
  });
  return found;
}
