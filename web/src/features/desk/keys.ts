import type { Confidence } from "./cells";
import type { ViewChange } from "./view";

/**
 * The keys at the desk. What stands here is what a key does: the desk and its table ask here, and the list that raters read
 * is made of the same lines.
 */

/** What the keys of the whole sheet can do. */
export type SheetActions = {
  view: (change: ViewChange) => void;
  /** Changes the view and goes back to the cell in focus, which may have moved. */
  showAndGo: (change: ViewChange) => void;
  keyPoints: () => void;
  trying: () => void;
  enlarge: () => void;
  fold: () => void;
  point: () => void;
  remark: () => void;
  remarks: () => void;
  scroll: (screens: number) => boolean;
  sendOrGoOn: () => void;
};

/** What the keys of the table can do in the cell in focus; false where there is nothing to do it with. */
export type CellActions = {
  move: (rows: number, columns: number) => void;
  toEnd: (end: "first" | "last") => void;
  choose: (digit: number) => boolean;
  empty: () => boolean;
  notApplicable: () => boolean;
  confidence: (confidence: Confidence) => boolean;
  reason: () => boolean;
};

export type Binding<A> = {
  /** As KeyboardEvent.key has them; none where the browser itself does it, or a field. */
  on: readonly string[];
  /** As the list shows them. */
  shown: string;
  what: string;
  /** Does it; false if there was nothing to do, so that the key means what it means elsewhere. */
  run?: (actions: A, key: string) => unknown;
};

const key = <A>(on: string, what: string, run: Binding<A>["run"]): Binding<A> => ({
  on: [on],
  shown: on,
  what,
  ...(run && { run }),
});
const keys = <A>(on: string[], shown: string, what: string, run: Binding<A>["run"]): Binding<A> => ({
  on,
  shown,
  what,
  ...(run && { run }),
});
const told = (shown: string, what: string): Binding<unknown> => ({ on: [], shown, what });

const STEPS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

const CONFIDENCES: Record<string, Confidence> = { y: "SURE", h: "FAIRLY", u: "UNSURE" };

/** Keys in the table, with a cell in focus. */
export const CELL_KEYS: Binding<CellActions>[] = [
  keys(Object.keys(STEPS), "arrows", "move; Home and End to the first or last answer", (cell, pressed) =>
    cell.move(...(STEPS[pressed] ?? [0, 0])),
  ),
  keys(["Home", "End"], "", "", (cell, pressed) => cell.toEnd(pressed === "Home" ? "first" : "last")),
  keys([..."0123456789"], "0 – 9", "give the level, or choose what the ruler shows by its number", (cell, pressed) =>
    cell.choose(Number(pressed)),
  ),
  key("x", "not applicable", (cell) => cell.notApplicable()),
  keys(Object.keys(CONFIDENCES), "y, h, u", "of this grade: sure, fairly sure, unsure", (cell, pressed) =>
    cell.confidence(CONFIDENCES[pressed] ?? "SURE"),
  ),
  keys(["Delete", "Backspace"], "Delete", "take away what stands there", (cell) => cell.empty()),
  key("w", "write why; Escape goes back to the table", (cell) => cell.reason()),
];

const READING: Binding<SheetActions>[] = [
  key("v", "all answers, two of them, one", (sheet) => sheet.showAndGo({ type: "layout" })),
  key("i", "pin the answer in focus, or let it go", (sheet) => sheet.view({ type: "pin-here" })),
  keys(["d", "D"], "d", "its text, its changes, its files; with Shift, of all answers", (sheet, pressed) =>
    sheet.view({ type: "next-part", all: pressed === "D" }),
  ),
  key("a", "changes inline, or side by side", (sheet) => sheet.view({ type: "diff" })),
  key("g", "compare its code with another answer's", (sheet) => sheet.view({ type: "compare" })),
  key("e", "what came of trying the answers, and back", (sheet) => sheet.trying()),
  key("z", "pictures of their pages, enlarged; arrows go on, Escape closes", (sheet) => sheet.enlarge()),
  key("t", "scroll answers together", (sheet) => sheet.view({ type: "tie" })),
  key("f", "fold all sections and blocks, and open them", (sheet) => sheet.fold()),
  key("p", "the prompt", (sheet) => sheet.view({ type: "prompt" })),
  key("b", "the starting code", (sheet) => sheet.view({ type: "code" })),
  key("q", "search all answers; Enter goes on, Escape ends it", (sheet) => sheet.view({ type: "search", open: true })),
];

const REMARKS: Binding<SheetActions>[] = [
  key("l", "point at lines: arrows move, Shift takes more of them, Escape ends it", (sheet) => sheet.point()),
  key("r", "remark on the lines pointed at or selected, or on the whole answer", (sheet) => sheet.remark()),
  key("m", "go through the remarks: Enter opens one, Delete removes it", (sheet) => sheet.remarks()),
];

const TABLE: Binding<SheetActions>[] = [
  key("k", "key points, and back to the grades", (sheet) => sheet.keyPoints()),
  keys(["PageUp", "PageDown"], "Page Up, Page Down", "scroll the answer in focus", (sheet, pressed) =>
    sheet.scroll(pressed === "PageDown" ? 1 : -1),
  ),
];

const SHEET: Binding<SheetActions>[] = [
  // With Ctrl a key is undone or done again wherever the focus is, so the desk asks for it by itself.
  told("Ctrl Z", "undo; with Shift, do it again"),
  key("s", "send the sheet in; then, go to the next", (sheet) => sheet.sendOrGoOn()),
  told("Tab", "to the answers and back"),
  key("?", "this list", (sheet) => sheet.view({ type: "help", open: true })),
];

/** Keys of the sheet, wherever on it the focus is, unless something is being typed. */
export const SHEET_KEYS: Binding<SheetActions>[] = [...TABLE, ...READING, ...REMARKS, ...SHEET];

type Line = Pick<Binding<never>, "shown" | "what">;

/** The list that raters read. */
export const KEY_GROUPS: { title: string; lines: Line[] }[] = [
  { title: "In the table", lines: [...CELL_KEYS, ...TABLE].filter((line) => line.shown !== "") },
  { title: "Remarks", lines: REMARKS },
  { title: "Reading", lines: READING },
  { title: "The sheet", lines: SHEET },
];

/** Does what a key is there for; false if it is there for nothing, or there was nothing to do. */
export function dispatch<A>(bindings: Binding<A>[], actions: A, pressed: string): boolean {
  const binding = bindings.find((b) => b.on.includes(pressed));
  return binding?.run !== undefined && binding.run(actions, pressed) !== false;
}

/** Whether a key is pressed to write something, and not to command. */
export function isTyping(target: EventTarget): boolean {
  return (
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLInputElement ||
    target instanceof HTMLSelectElement ||
    (target instanceof HTMLElement && target.closest("[contenteditable=true]") !== null)
  );
}
