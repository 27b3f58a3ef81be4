/** The lines of an answer's text that are selected in a part of the page; none if nothing is. */
export function linesPicked(within: HTMLElement | null): { from: number; to: number } | undefined {
  const selection = document.getSelection();
  if (!within || !selection || selection.isCollapsed) {
    return undefined;
  }
  const ends = [selection.anchorNode, selection.focusNode].map((node) =>
    (node instanceof Element ? node : node?.parentElement)?.closest<HTMLElement>("[data-from]"),
  );
  const numbers = ends.flatMap((line) =>
    line && within.contains(line)
      ? [Number(line.dataset["from"]), Number(line.dataset["to"] ?? line.dataset["from"])]
      : [],
  );
  return numbers.length === 0 ? undefined : { from: Math.min(...numbers), to: Math.max(...numbers) };
}
