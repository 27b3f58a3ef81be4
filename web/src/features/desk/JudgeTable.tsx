import { flushSync } from "react-dom";
import { type CSSProperties, type KeyboardEvent, type Ref, useImperativeHandle, useRef } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { classes } from "../../ui/classes";
import type { CellValue, Mark } from "./cells";
import { CELL_KEYS, type CellActions, dispatch } from "./keys";
import { cellLabel, cellWords, concerns, emptied, gradeOf, optionsOf, proposalFor, type Row, rowName } from "./rows";
import type { Desk } from "./useDesk";
import type { Focus } from "./view";

export type JudgeTableHandle = { focus: (cell: Focus) => void; focusReason: (column: number) => void };

type JudgeTableProps = {
  ref: Ref<JudgeTableHandle>;
  label: string;
  sheet: Schemas["SheetView"];
  desk: Desk;
  rows: Row[];
  /** Whether nothing can be set. */
  locked: boolean;
  /** Whether a guess can be set all the same: once the sheet is in. */
  guessing: boolean;
  /** Whether reasons stand below the rows. */
  reasons: boolean;
  /** Which answers are shown, so that each column stands under its answer. */
  columns: number[];
  pinned: number | undefined;
  template: CSSProperties;
  focus: Focus;
  onFocus: (focus: Focus) => void;
};

/** More rows are not shown at a time: those around the cell in focus. The answers above must keep their room. */
const MOST_ROWS = 5;
/** Of a sheet that can only be read, there is a line that says so as well. */
const MOST_ROWS_LOCKED = 4;

const STUCK = "sticky left-0 z-10 border-r border-rule bg-paper px-3";

/** What is judged as rows, answers as columns under their texts. One stop for Tab; arrows inside. */
export function JudgeTable(props: JudgeTableProps) {
  const { ref, label, rows, locked, reasons, focus, onFocus } = props;
  const table = useRef<HTMLDivElement>(null);
  const at: Focus = { row: Math.min(focus.row, rows.length - 1), column: focus.column };
  const most = locked ? MOST_ROWS_LOCKED : MOST_ROWS;
  const from = Math.max(0, Math.min(at.row - Math.floor(most / 2), rows.length - most));

  const go = (cell: Focus) => {
    // At once, so that the next key of a fast typist finds its cell, also one that a wide reading did not show before.
    if (cell.row !== focus.row || cell.column !== focus.column) {
      flushSync(() => onFocus(cell));
    }
    table.current?.querySelector<HTMLElement>(`[data-cell="${cell.row}-${cell.column}"]`)?.focus();
  };
  const focusReason = (column: number) =>
    table.current?.querySelector<HTMLElement>(`[data-reason="${column}"]`)?.focus();

  useImperativeHandle(ref, () => ({ focus: go, focusReason }));

  const onKeyDown = (event: KeyboardEvent, cell: Focus) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    if (plain && dispatch(CELL_KEYS, cellActions(props, cell, { go, focusReason }), event.key)) {
      event.preventDefault();
      event.stopPropagation();
    }
  };
  return (
    <div
      ref={table}
      role="grid"
      aria-label={label}
      aria-readonly={locked}
      aria-rowcount={rows.length + (reasons ? 1 : 0)}
      className="min-w-fit shrink-0 border-t-2 border-edge bg-paper"
    >
      {rows.slice(from, from + most).map((row, i) => (
        <JudgedRow key={rowKey(row)} {...props} row={row} place={from + i} at={at} onKeyDown={onKeyDown} />
      ))}
      {reasons && <ReasonRow {...props} onLeave={(column) => go({ row: at.row, column })} />}
    </div>
  );
}

type Goes = { go: (cell: Focus) => void; focusReason: (column: number) => void };

/** What the keys do in one cell. */
function cellActions(props: JudgeTableProps, cell: Focus, { go, focusReason }: Goes): CellActions {
  const { sheet, desk, rows, locked, guessing, reasons, columns } = props;
  const answer = sheet.answers[cell.column];
  const row = rows[cell.row];
  const isOpen = answer && row && (!locked || (guessing && row.kind === "guess")) && concerns(row, answer);
  const set = (value: CellValue | undefined): boolean => {
    if (value) {
      desk.set(value);
    }
    return value !== undefined;
  };
  const mark = (change: (mark: Mark) => Mark | undefined): boolean => {
    if (!isOpen || row.kind !== "criterion") {
      return false;
    }
    const changed = change(desk.markAt(answer.id, row.criterion.id));
    return set(changed && gradeOf(row.criterion, answer.id, changed));
  };
  return {
    move: (by, across) =>
      go({
        row: Math.min(Math.max(cell.row + by, 0), rows.length - 1),
        column: stepAmong(columns, cell.column, across, sheet.answers.length),
      }),
    toEnd: (end) => go({ row: cell.row, column: end === "first" ? 0 : sheet.answers.length - 1 }),
    choose: (digit) => !!isOpen && set(optionsOf(row, answer, sheet, desk).find((o) => o.digit === digit)?.value),
    empty: () => !!isOpen && set(emptied(row, answer.id)),
    notApplicable: () => mark(({ confidence }) => ({ notApplicable: true, ...(confidence && { confidence }) })),
    confidence: (confidence) =>
      mark((now) => (now.level !== undefined || now.notApplicable ? { ...now, confidence } : undefined)),
    reason: () => {
      if (reasons) {
        focusReason(cell.column);
      }
      return reasons;
    },
  };
}

type JudgedRowProps = JudgeTableProps & {
  row: Row;
  place: number;
  at: Focus;
  onKeyDown: (event: KeyboardEvent, cell: Focus) => void;
};

function JudgedRow({ row, place, at, onKeyDown, ...props }: JudgedRowProps) {
  const { sheet, desk, columns, pinned, template, onFocus } = props;
  return (
    <div role="row" aria-rowindex={place + 1} className="grid border-b border-rule" style={template}>
      <div role="rowheader" className={classes(STUCK, "py-0.5 font-medium", row.kind === "point" && "text-sm")}>
        <span className={row.kind === "point" ? "line-clamp-2" : undefined}>{rowName(row)}</span>
      </div>
      {columns.map((column) => {
        const answer = sheet.answers[column];
        const here = at.row === place && at.column === column;
        return answer ? (
          <div
            key={answer.id}
            role="gridcell"
            data-cell={`${place}-${column}`}
            tabIndex={here ? 0 : -1}
            aria-label={cellLabel(row, answer, desk)}
            onFocus={() => onFocus({ row: place, column })}
            onClick={(e) => e.currentTarget.focus()}
            onKeyDown={(e) => onKeyDown(e, { row: place, column })}
            className={classes(
              "flex cursor-pointer items-center gap-2 border-r border-rule px-3 py-0.5 -outline-offset-2",
              pinned === column && "sticky left-[12.5rem] z-[5] bg-paper",
              here && "bg-heather-wash",
            )}
          >
            <CellFace row={row} answer={answer} sheet={sheet} desk={desk} />
          </div>
        ) : null;
      })}
    </div>
  );
}

/** The next answer among those shown, or among all if only some are. */
function stepAmong(columns: number[], from: number, by: number, answers: number): number {
  if (columns.length === answers) {
    const at = columns.indexOf(from);
    return columns[Math.min(Math.max(at + by, 0), columns.length - 1)] ?? from;
  }
  return Math.min(Math.max(from + by, 0), answers - 1);
}

const rowKey = (row: Row): string =>
  row.kind === "criterion" ? row.criterion.id : row.kind === "point" ? `point ${row.index}` : row.kind;

type Answer = Schemas["SheetView"]["answers"][number];

type CellFaceProps = { row: Row; answer: Answer; sheet: Schemas["SheetView"]; desk: Desk };

function CellFace({ row, answer, sheet, desk }: CellFaceProps) {
  const { words, filled } = cellWords(row, answer, desk);
  const mark = row.kind === "criterion" ? desk.markAt(answer.id, row.criterion.id) : undefined;
  const proposal =
    row.kind === "criterion" && mark?.level === undefined ? proposalFor(row.criterion, answer, sheet, desk) : undefined;
  return (
    <>
      {row.kind === "criterion" && <Gauge level={mark?.level} levels={row.criterion.levels.length} />}
      <span className={classes("truncate", !filled && "text-ink-soft", row.kind === "point" && "text-sm")}>
        {mark?.level !== undefined && <strong className="mr-1 tabular-nums">{mark.level}</strong>} {words}
      </span>
      {proposal && (
        <span aria-hidden="true" className="ml-auto text-xs whitespace-nowrap text-ink-soft">
          key points: {proposal.level}
        </span>
      )}
    </>
  );
}

/** The scale as a short ruler with a bead at the grade; the number stands beside it. */
function Gauge({ level, levels }: { level: number | undefined; levels: number }) {
  const step = 32 / Math.max(levels - 1, 1);
  const at = (n: number) => 5 + n * step;
  return (
    <svg width="42" height="16" aria-hidden="true" className="shrink-0">
      <path
        d={`M5 10H37${Array.from({ length: levels }, (_, i) => `M${at(i)} 7v6`).join("")}`}
        stroke="var(--edge)"
        fill="none"
      />
      {level !== undefined && <circle cx={at(level)} cy={10} r="4.5" fill="var(--level)" />}
    </svg>
  );
}

type ReasonRowProps = JudgeTableProps & { onLeave: (column: number) => void };

function ReasonRow({ sheet, desk, locked, columns, pinned, template, focus, onFocus, onLeave }: ReasonRowProps) {
  return (
    <div role="row" className="grid border-b border-rule" style={template}>
      <div role="rowheader" className={classes(STUCK, "py-0.5 font-medium")}>
        Reason
      </div>
      {columns.map((column) => {
        const answer = sheet.answers[column];
        return answer ? (
          <div
            key={answer.id}
            role="gridcell"
            className={classes(
              "border-r border-rule p-0.5",
              pinned === column && "sticky left-[12.5rem] z-[5] bg-paper",
            )}
          >
            <textarea
              data-reason={column}
              aria-label={`Reason for the grades of answer ${answer.number}`}
              rows={2}
              maxLength={LIMITS.SetReason.text}
              readOnly={locked}
              placeholder={locked ? "" : "Why these grades"}
              value={desk.reasonAt(answer.id)}
              onChange={(e) => desk.set({ kind: "reason", answerId: answer.id, text: e.target.value })}
              onFocus={() => onFocus({ row: focus.row, column })}
              onKeyDown={(e) => {
                if (e.key === "Escape") {
                  e.preventDefault();
                  onLeave(column);
                }
              }}
              className="block w-full resize-none rounded-leaf border border-transparent bg-transparent px-2 py-0.5 text-[0.95rem] leading-snug placeholder:text-ink-soft hover:border-edge focus:border-edge focus:bg-vellum"
            />
          </div>
        ) : null;
      })}
    </div>
  );
}
