import { type CSSProperties, type Dispatch, useCallback, useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { AnswerColumn } from "./AnswerColumn";
import { KeyPointList } from "./KeyPointList";
import type { Desk } from "./useDesk";
import { useFilledIn } from "./useFilledIn";
import type { View, ViewChange } from "./view";

type AnswerColumnsProps = {
  sheet: Schemas["SheetView"];
  desk: Desk;
  view: View;
  onView: Dispatch<ViewChange>;
  /** Which answers are shown, from left to right. */
  columns: number[];
  template: CSSProperties;
};

/** The answers side by side. */
export function AnswerColumns({ sheet, desk, view, onView, columns, template }: AnswerColumnsProps) {
  const filledIn = useFilledIn(view.layout, columns.length);
  const { set } = desk;
  // The columns are drawn anew when this changes, so it must not with every key.
  const latestSet = useRef(set);
  useEffect(() => {
    latestSet.current = set;
  });
  const onRemove = useCallback(
    (answerId: string, remarkId: string) => latestSet.current({ kind: "remark", answerId, remarkId }),
    [],
  );
  return (
    <div
      className="relative grid min-h-0 min-w-fit flex-1 overflow-x-clip"
      data-shown={columns.length}
      style={template}
    >
      <KeyPointList points={sheet.prompt.keyPoints} />
      {sheet.answers.map((answer, column) => {
        const place = columns.indexOf(column);
        return (
          <AnswerColumn
            key={answer.id}
            sheetId={sheet.id}
            column={column}
            answerId={answer.id}
            number={answer.number}
            outcome={answer.outcome}
            text={answer.text}
            hasCode={answer.hasCode}
            tried={sheet.tried}
            start={sheet.prompt.startingFiles}
            remarks={desk.remarksOf(answer.id)}
            part={view.parts[column] ?? "text"}
            diff={view.diff}
            focused={column === view.focus.column}
            pinned={view.pinned === column && columns.length > 1}
            wide={columns.length === 1}
            place={place < 0 ? undefined : place}
            drawn={column === view.focus.column || place < filledIn}
            onView={onView}
            onRemove={onRemove}
          />
        );
      })}
    </div>
  );
}
