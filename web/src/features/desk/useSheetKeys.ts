import { type KeyboardEvent, type RefObject, useEffect } from "react";
import type { Schemas } from "../../api/client";
import { dispatch, isTyping, SHEET_KEYS, type SheetActions } from "./keys";
import { foldAll } from "./reading/folding";
import { pickedLines } from "./reading/pointing";
import type { Desk } from "./useDesk";
import type { Focus, View, ViewChange } from "./view";

type SheetKeysProps = {
  sheet: Schemas["SheetView"];
  desk: Desk;
  view: View;
  columns: number[];
  main: RefObject<HTMLElement | null>;
  locked: boolean;
  onView: (change: ViewChange) => void;
  showAndGo: (change: ViewChange, cell?: Focus) => void;
  sendOrGoOn: () => void;
};

/** How much of a screen a page key scrolls. */
const PAGE = 0.85;

/** Answers a key pressed anywhere on the sheet, unless somebody is typing. */
export function useSheetKeys(props: SheetKeysProps): (event: KeyboardEvent) => void {
  const { desk, view, main, locked } = props;

  // Folding everything at once tells of every fold, and React looks at each; nobody here listens.
  useEffect(() => {
    const place = main.current;
    const quiet = (event: Event) => event.stopImmediatePropagation();
    place?.addEventListener("toggle", quiet, { capture: true });
    return () => place?.removeEventListener("toggle", quiet, { capture: true });
  }, [main]);

  return (event) => {
    // A dialog over the desk is a child of it here, and none in the page: its keys are its own.
    const isElsewhere = event.target instanceof Node && !event.currentTarget.contains(event.target);
    if (isElsewhere || isTyping(event.target) || event.altKey || view.help) {
      return;
    }
    const ctrl = event.ctrlKey || event.metaKey;
    const again = event.key === "y" || (event.key.toLowerCase() === "z" && event.shiftKey);
    const handled = !ctrl
      ? dispatch(SHEET_KEYS, actions(props), event.key)
      : !locked && (again ? desk.redo() : event.key === "z" ? desk.undo() : undefined) !== undefined;
    if (handled) {
      event.preventDefault();
    }
  };
}

function actions({ sheet, view, columns, main, locked, onView, showAndGo, sendOrGoOn }: SheetKeysProps): SheetActions {
  const at = view.focus.column;
  const columnOf = (column: number) => main.current?.querySelector<HTMLElement>(`[data-column="${column}"]`) ?? null;
  return {
    view: onView,
    showAndGo,
    sendOrGoOn,
    keyPoints: () => {
      if (sheet.prompt.keyPoints.length > 0) {
        showAndGo({ type: "dock" }, { row: 0, column: at });
      }
    },
    trying: () => {
      if (sheet.tried) {
        showAndGo({ type: "trying" });
      }
    },
    enlarge: () => {
      if (sheet.tried) {
        onView({ type: "enlarge", at: { row: 0, column: Math.max(0, columns.indexOf(at)) } });
      }
    },
    fold: () => {
      const order = [at, ...sheet.answers.map((_, i) => i).filter((i) => i !== at)];
      foldAll(order.flatMap((column) => columnOf(column) ?? []));
    },
    point: () => {
      const column = columnOf(at);
      if (column) {
        column.dataset["point"] = "";
        column.blur();
        column.focus({ preventScroll: true });
      }
    },
    remark: () => {
      if (locked) {
        return;
      }
      // Where the lines are pointed at, or else the answer in focus.
      const column = columns.find((c) => columnOf(c)?.querySelector("[data-picked]")) ?? at;
      const place = columnOf(column);
      const lines = place ? pickedLines(place) : undefined;
      onView({ type: "remark", remarking: { column, ...(lines && { lines }) } });
    },
    remarks: () => columnOf(at)?.querySelector<HTMLElement>("[data-remark]")?.focus(),
    scroll: (screens) => {
      const column = columnOf(at);
      column?.scrollBy({ top: screens * PAGE * column.clientHeight });
      return column !== null;
    },
  };
}
