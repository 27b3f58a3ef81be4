import type { RemarkContent } from "../cells";

/**
 * Lines of an answer that a rater points at, by keyboard or by selecting text. They are kept in the page itself, as marks on
 * its elements, so that moving along lines draws nothing else anew.
 */

export type Lines = NonNullable<RemarkContent["lines"]>;

/** More of the lines is not quoted. */
const LONGEST_QUOTE = 600;

const seen = (line: HTMLElement) => line.closest("details:not([open])") === null || line.closest("summary") !== null;

/** The lines of a column that can be pointed at, folded ones left out. */
export function linesIn(column: Element): HTMLElement[] {
  return [...column.querySelectorAll<HTMLElement>("[data-from]")].filter(seen);
}

const picked = (column: Element) => [...column.querySelectorAll<HTMLElement>("[data-picked]")];

export function forget(column: Element): void {
  picked(column).forEach((line) => line.removeAttribute("data-picked"));
}

function pick(column: Element, lines: HTMLElement[]): void {
  forget(column);
  lines.forEach((line) => line.setAttribute("data-picked", ""));
}

/** Points at the line nearest to the top of what is seen. */
export function begin(column: HTMLElement): HTMLElement | undefined {
  const top = column.getBoundingClientRect().top;
  const lines = linesIn(column);
  const first = lines.find((line) => line.getBoundingClientRect().bottom > top + 40) ?? lines[0];
  if (first) {
    pick(column, [first]);
  }
  return first;
}

/** The end of the lines pointed at that moves; the other one stays while lines are added. */
export type Pointer = { anchor: HTMLElement; tip: HTMLElement };

/** Moves by lines; with `extend` the lines between stay pointed at. */
export function move(column: HTMLElement, pointer: Pointer, by: number, extend: boolean): Pointer {
  const lines = linesIn(column);
  const at = lines.indexOf(pointer.tip);
  const tip = lines[Math.min(Math.max(at + by, 0), lines.length - 1)] ?? pointer.tip;
  const sameGround =
    tip.dataset["part"] === pointer.anchor.dataset["part"] && tip.dataset["path"] === pointer.anchor.dataset["path"];
  const anchor = extend && sameGround ? pointer.anchor : tip;
  const from = lines.indexOf(anchor);
  const to = lines.indexOf(tip);
  pick(column, lines.slice(Math.min(from, to), Math.max(from, to) + 1));
  tip.scrollIntoView({ block: "nearest" });
  return { anchor, tip };
}

/** Points at what the rater has selected as text; false if that is nothing, or in no column. */
export function pickSelection(column: HTMLElement): boolean {
  const selection = document.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) {
    return false;
  }
  const range = selection.getRangeAt(0);
  if (!column.contains(range.commonAncestorContainer)) {
    return false;
  }
  const lines = linesIn(column).filter((line) => range.intersectsNode(line));
  const ground = lines[0];
  if (!ground) {
    return false;
  }
  pick(
    column,
    lines.filter((l) => l.dataset["part"] === ground.dataset["part"] && l.dataset["path"] === ground.dataset["path"]),
  );
  return true;
}

const isPart = (part: string | undefined): part is Lines["part"] =>
  part === "TEXT" || part === "BEFORE" || part === "AFTER" || part === "FILE";

/** The lines pointed at, as a remark keeps them. */
export function pickedLines(column: Element): Lines | undefined {
  const lines = picked(column);
  const part = lines[0]?.dataset["part"];
  if (!isPart(part)) {
    return undefined;
  }
  const path = lines[0]?.dataset["path"];
  return {
    part,
    ...(path === undefined ? {} : { path }),
    from: Math.min(...lines.map((l) => Number(l.dataset["from"]))),
    to: Math.max(...lines.map((l) => Number(l.dataset["to"]))),
    quote: lines
      .map((l) => (l.dataset["code"] ?? ownText(l)).replaceAll("\u200b", ""))
      .join("\n")
      .slice(0, LONGEST_QUOTE),
  };
}

/** What a line says, without the remarks that stand in it. */
function ownText(line: Element): string {
  return [...line.childNodes]
    .map((n) => (n instanceof Element ? (n.hasAttribute("data-remark") ? "" : ownText(n)) : (n.textContent ?? "")))
    .join("");
}

/** The line of a text, where it is laid out; folded parts around it are opened. */
export function lineElement(column: Element, number: number): HTMLElement | undefined {
  const line = [...column.querySelectorAll<HTMLElement>("[data-part='TEXT']")].find(
    (l) => Number(l.dataset["from"]) <= number && Number(l.dataset["to"]) >= number,
  );
  for (let fold = line?.closest("details"); fold; fold = fold.parentElement?.closest("details")) {
    fold.open = true;
  }
  return line;
}

/** Brings a line into view, in a text of any length. */
export function goToLine(column: HTMLElement, number: number): void {
  const there = lineElement(column, number);
  if (there) {
    pick(column, [there]);
    there.scrollIntoView({ block: "center" });
    return;
  }
  const stretch = [...column.querySelectorAll<HTMLElement>("[data-stretch]")].find((s) => {
    const [from, to] = (s.dataset["stretch"] ?? "").split("-").map(Number);
    return from !== undefined && to !== undefined && from <= number && to >= number;
  });
  if (stretch) {
    stretch.scrollIntoView({ block: "start" });
    // It is laid out once it is near.
    const watch = new MutationObserver(() => {
      watch.disconnect();
      goToLine(column, number);
    });
    watch.observe(stretch, { childList: true });
  }
}
