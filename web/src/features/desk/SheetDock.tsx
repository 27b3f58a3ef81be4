import { type RefObject } from "react";
import type { Schemas } from "../../api/client";
import { RemarkForm } from "./RemarkForm";
import { forget } from "./reading/pointing";
import type { Row } from "./rows";
import { Ruler } from "./Ruler";
import type { RemarkContent } from "./cells";
import type { Desk } from "./useDesk";
import type { View, ViewChange } from "./view";

type SheetDockProps = {
  sheet: Schemas["SheetView"];
  desk: Desk;
  view: View;
  rows: Row[];
  main: RefObject<HTMLElement | null>;
  locked: boolean;
  guessing: boolean;
  showAndGo: (change: ViewChange) => void;
};

/** What stands below the table: what can be given in the cell in focus, or the remark that is being written. */
export function SheetDock({ sheet, desk, view, rows, main, locked, guessing, showAndGo }: SheetDockProps) {
  const { focus, remarking } = view;
  if (!remarking) {
    return (
      <Ruler
        row={rows[Math.min(focus.row, rows.length - 1)]}
        answer={sheet.answers[focus.column]}
        sheet={sheet}
        desk={desk}
        locked={locked}
        guessing={guessing}
      />
    );
  }
  const put = (column: number, remarkId: string, remark?: RemarkContent) => {
    const answer = sheet.answers[column];
    if (answer) {
      desk.set({ kind: "remark", answerId: answer.id, remarkId, ...(remark && { remark }) });
    }
  };
  const close = () => {
    if (main.current) {
      forget(main.current);
    }
    showAndGo({ type: "remark" });
  };
  const { column, editing } = remarking;
  return (
    <RemarkForm
      key={editing?.id ?? "new"}
      sheet={sheet}
      remarking={remarking}
      onSave={(remark) => {
        put(column, editing?.id ?? crypto.randomUUID(), remark);
        close();
      }}
      onRemove={() => {
        if (editing) {
          put(column, editing.id);
        }
        close();
      }}
      onCopy={(to, { lines, ...remark }) => put(to, crypto.randomUUID(), remark)}
      onClose={close}
    />
  );
}
