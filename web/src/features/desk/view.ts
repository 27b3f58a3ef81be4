import type { RemarkContent } from "./cells";
import type { Compared } from "./reading/Comparison";
import type { DiffLayout } from "./reading/ChangedFiles";

/** How the desk looks at one sheet: nothing of this is saved, and nothing of it is judged. */

export type Part = "text" | "changes" | "files";
export type Layout = "all" | "two" | "one";
export type Dock = "grades" | "points";
export type Focus = { row: number; column: number };

/** A remark that is being written: a new one, or one that stands. */
export type Remarking = {
  column: number;
  lines?: NonNullable<RemarkContent["lines"]>;
  editing?: { id: string; remark: RemarkContent };
};

export type View = {
  layout: Layout;
  pinned?: number;
  /** What is shown of each answer. */
  parts: Part[];
  dock: Dock;
  focus: Focus;
  /** A new one is open, and folds away once reading or grading begins; opened by hand, it stays. */
  prompt: "new" | "open" | "folded" | "code";
  tied: boolean;
  diff: DiffLayout;
  searching: boolean;
  help: boolean;
  compared?: Compared;
  /** Whether what came of trying the answers is shown in their place. */
  trying?: boolean;
  /** Which picture of their pages is enlarged: by its step, and by its place among the answers that are shown. */
  enlarged?: { row: number; column: number };
  remarking?: Remarking;
};

export type ViewChange =
  | { type: "layout" | "tie" | "diff" | "pin-here" | "prompt" | "code" | "dock" | "compare" | "trying" | "begin" }
  | { type: "focus"; focus: Focus }
  | { type: "part"; column: number; part: Part }
  | { type: "next-part"; all: boolean }
  | { type: "pin"; column: number }
  | { type: "search" | "help"; open: boolean }
  | { type: "enlarge"; at?: NonNullable<View["enlarged"]> }
  | { type: "compared"; compared?: Compared }
  | { type: "remark"; remarking?: Remarking };

export const firstView = (answers: number, focus: Focus = { row: 0, column: 0 }): View => ({
  layout: "all",
  parts: Array.from({ length: answers }, (): Part => "text"),
  dock: "grades",
  focus,
  prompt: "new",
  tied: false,
  diff: "inline",
  searching: false,
  help: false,
});

export const isPromptOpen = (view: View): boolean => view.prompt === "new" || view.prompt === "open";

const LAYOUTS: Record<Layout, Layout> = { all: "two", two: "one", one: "all" };
const PARTS: Record<Part, Part> = { text: "changes", changes: "files", files: "text" };

/** @param hasCode which answers have more than a text */
export function changeView(hasCode: boolean[]) {
  return (view: View, change: ViewChange): View => {
    const { pinned, compared, remarking, ...rest } = view;
    switch (change.type) {
      case "layout":
        return { ...view, layout: LAYOUTS[view.layout] };
      case "tie":
        return { ...view, tied: !view.tied };
      case "diff":
        return { ...view, diff: otherDiff(view.diff) };
      case "pin-here":
      case "pin": {
        const column = change.type === "pin" ? change.column : view.focus.column;
        return {
          ...rest,
          ...(compared && { compared }),
          ...(remarking && { remarking }),
          ...(pinned === column ? {} : { pinned: column }),
        };
      }
      case "prompt":
        return { ...view, prompt: isPromptOpen(view) ? "folded" : "open" };
      case "begin":
        return begun(view);
      case "code":
        return { ...view, prompt: view.prompt === "code" ? "folded" : "code" };
      case "dock":
        return otherDock(view);
      case "compare":
        return compared ? withoutComparison(view) : { ...view, trying: false, compared: compareFrom(view) };
      case "trying":
        return { ...begun(withoutComparison(view)), trying: !view.trying };
      case "enlarge": {
        const { enlarged, ...others } = view;
        return change.at ? { ...begun(withoutComparison(others)), trying: true, enlarged: change.at } : others;
      }
      case "compared":
        return change.compared ? { ...view, compared: change.compared } : withoutComparison(view);
      case "focus":
        return { ...view, focus: change.focus };
      case "part":
        return { ...view, parts: view.parts.with(change.column, change.part) };
      case "next-part":
        return { ...view, parts: nextParts(view, hasCode, change.all) };
      case "search":
      case "help":
        return { ...view, [change.type === "search" ? "searching" : "help"]: change.open };
      case "remark":
        return {
          ...rest,
          ...(pinned !== undefined && { pinned }),
          ...(compared && { compared }),
          ...(change.remarking && { remarking: change.remarking }),
        };
    }
  };
}

/** What comes after the part that is shown of the answer in focus, for it or for all that have more than a text. */
function nextParts(view: View, hasCode: boolean[], all: boolean): Part[] {
  const at = view.focus.column;
  return all
    ? view.parts.map((p, i) => (hasCode[i] ? PARTS[view.parts[at] ?? p] : "text"))
    : view.parts.with(at, hasCode[at] ? PARTS[view.parts[at] ?? "text"] : "text");
}

const otherDock = (view: View): View => ({
  ...view,
  dock: view.dock === "grades" ? "points" : "grades",
  focus: { ...view.focus, row: 0 },
});

const otherDiff = (diff: DiffLayout): DiffLayout => (diff === "inline" ? "beside" : "inline");

/** Whoever reads or grades has read the prompt. */
const begun = (view: View): View => (view.prompt === "new" ? { ...view, prompt: "folded" } : view);

function withoutComparison(view: View): View {
  const { compared, ...rest } = view;
  return rest;
}

/** The answer in focus against the pinned one, or else against its neighbour. */
function compareFrom(view: View): Compared {
  const { column } = view.focus;
  const neighbour = column + 1 < view.parts.length ? column + 1 : Math.max(0, column - 1);
  const other = view.pinned !== undefined && view.pinned !== column ? view.pinned : neighbour;
  return { first: Math.min(column, other), second: Math.max(column, other) };
}

/** The answers that are shown, from left to right; a pinned one stands first. */
export function columnsShown(view: View): number[] {
  const { column } = view.focus;
  const all = view.parts.map((_, i) => i);
  if (view.layout === "one") {
    return [column];
  }
  if (view.layout === "two") {
    const { first, second } = compareFrom(view);
    return view.pinned !== undefined && view.pinned !== column ? [view.pinned, column] : [...new Set([first, second])];
  }
  return view.pinned === undefined ? all : [view.pinned, ...all.filter((i) => i !== view.pinned)];
}
