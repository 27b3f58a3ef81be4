import { flushSync } from "react-dom";
import { type CSSProperties, type KeyboardEvent, type Ref, useImperativeHandle, useRef } from "react";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import type { Mark } from "./outbox";
import type { Desk } from "./useDesk";

export type Focus = { row: number; column: number };

export type GradeTableHandle = {
  focus: (cell: Focus) => void;
  /** Sets the cell in focus. */
  set: (mark: Mark) => void;
};

type GradeTableProps = {
  ref: Ref<GradeTableHandle>;
  sheet: Schemas["SheetView"];
  desk: Desk;
  locked: boolean;
  /** Which answers are shown, so that each column stands under its answer. */
  columns: number[];
  template: CSSProperties;
  focus: Focus;
  onFocus: (focus: Focus) => void;
};

const ARROWS: Record<string, Focus> = {
  ArrowUp: { row: -1, column: 0 },
  ArrowDown: { row: 1, column: 0 },
  ArrowLeft: { row: 0, column: -1 },
  ArrowRight: { row: 0, column: 1 },
};

function words(mark: Mark, criterion: Schemas["CriterionOnSheet"]): string {
  if (mark.notApplicable) {
    return "not applicable";
  }
  const level = criterion.levels.find((l) => l.level === mark.level);
  return level ? `${level.level} ${level.name}` : "no grade";
}

/** Criteria as rows, answers as columns under their texts, and a reason for each answer. One stop for Tab; arrows inside. */
export function GradeTable({ ref, sheet, desk, locked, columns, template, focus, onFocus }: GradeTableProps) {
  const table = useRef<HTMLDivElement>(null);

  const element = (cell: Focus) =>
    table.current?.querySelector<HTMLElement>(`[data-cell="${cell.row}-${cell.column}"]`) ?? null;

  const go = (cell: Focus) => {
    // At once, so that the next key of a fast typist finds its cell, also one that a wide reading did not show before.
    flushSync(() => onFocus(cell));
    element(cell)?.focus();
  };

  const set = (cell: Focus, mark: Mark) => {
    const answer = sheet.answers[cell.column];
    const criterion = sheet.criteria[cell.row];
    if (answer && criterion && !locked) {
      desk.setMark(answer.id, criterion.id, mark);
    }
  };

  useImperativeHandle(ref, () => ({
    focus: go,
    set: (mark) => {
      set(focus, mark);
      element(focus)?.focus();
    },
  }));

  const onKeyDown = (event: KeyboardEvent, cell: Focus) => {
    const arrow = ARROWS[event.key];
    const highest = (sheet.criteria[cell.row]?.levels.length ?? 1) - 1;
    if (event.ctrlKey || event.metaKey || event.altKey) {
      return;
    }
    if (arrow) {
      const row = Math.min(Math.max(cell.row + arrow.row, 0), sheet.criteria.length - 1);
      const column = Math.min(Math.max(cell.column + arrow.column, 0), sheet.answers.length - 1);
      go({ row, column });
    } else if (event.key === "Home" || event.key === "End") {
      go({ row: cell.row, column: event.key === "Home" ? 0 : sheet.answers.length - 1 });
    } else if (/^\d$/.test(event.key) && Number(event.key) <= highest) {
      set(cell, { level: Number(event.key), notApplicable: false });
    } else if (event.key === "x") {
      set(cell, { notApplicable: true });
    } else if (event.key === "Delete" || event.key === "Backspace") {
      set(cell, { notApplicable: false });
    } else if (event.key === "w") {
      table.current?.querySelector<HTMLElement>(`[data-reason="${cell.column}"]`)?.focus();
    } else {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <div
      ref={table}
      role="grid"
      aria-label="Grades"
      aria-readonly={locked}
      className="min-w-fit shrink-0 border-t-2 border-edge bg-paper"
    >
      {sheet.criteria.map((criterion, row) => (
        <div key={criterion.id} role="row" className="grid border-b border-rule" style={template}>
          <div
            role="rowheader"
            className="sticky left-0 z-10 border-r border-rule bg-paper px-3 py-1 font-medium"
            title={criterion.question}
          >
            {criterion.name}
          </div>
          {columns.map((column) => {
            const answer = sheet.answers[column];
            if (!answer) {
              return null;
            }
            const mark = desk.markAt(answer.id, criterion.id);
            const here = focus.row === row && focus.column === column;
            return (
              <div
                key={answer.id}
                role="gridcell"
                data-cell={`${row}-${column}`}
                tabIndex={here ? 0 : -1}
                aria-label={`Answer ${answer.number}, ${criterion.name}: ${words(mark, criterion)}`}
                onFocus={() => onFocus({ row, column })}
                onClick={(e) => e.currentTarget.focus()}
                onKeyDown={(e) => onKeyDown(e, { row, column })}
                className={classes(
                  "flex cursor-pointer items-center gap-2 border-r border-rule px-3 py-1 -outline-offset-2",
                  here && "bg-heather-wash",
                )}
              >
                <Gauge mark={mark} levels={criterion.levels.length} />
                <span
                  className={classes("truncate", mark.level === undefined && !mark.notApplicable && "text-ink-soft")}
                >
                  {mark.level !== undefined && <strong className="mr-1 tabular-nums">{mark.level}</strong>}{" "}
                  {mark.notApplicable
                    ? "not applicable"
                    : (criterion.levels.find((l) => l.level === mark.level)?.name ?? "–")}
                </span>
              </div>
            );
          })}
        </div>
      ))}
      <div role="row" className="grid border-b border-rule" style={template}>
        <div role="rowheader" className="sticky left-0 z-10 border-r border-rule bg-paper px-3 py-1 font-medium">
          Reason
        </div>
        {columns.map((column) => {
          const answer = sheet.answers[column];
          return answer ? (
            <div key={answer.id} role="gridcell" className="border-r border-rule p-1">
              <textarea
                data-reason={column}
                aria-label={`Reason for the grades of answer ${answer.number}`}
                rows={2}
                maxLength={4000}
                readOnly={locked}
                placeholder={locked ? "" : "Why these grades"}
                value={desk.reasonAt(answer.id)}
                onChange={(e) => desk.setReason(answer.id, e.target.value)}
                onFocus={() => onFocus({ row: focus.row, column })}
                onKeyDown={(e) => {
                  if (e.key === "Escape") {
                    e.preventDefault();
                    go({ row: focus.row, column });
                  }
                }}
                className="block w-full resize-none rounded-leaf border border-transparent bg-transparent px-2 py-0.5 text-[0.95rem] placeholder:text-ink-soft hover:border-edge focus:border-edge focus:bg-vellum"
              />
            </div>
          ) : null;
        })}
      </div>
    </div>
  );
}

/** The scale as a short ruler with a bead at the grade; the number stands beside it. */
function Gauge({ mark, levels }: { mark: Mark; levels: number }) {
  const step = 32 / Math.max(levels - 1, 1);
  const at = (level: number) => 5 + level * step;
  return (
    <svg width="42" height="16" aria-hidden="true" className="shrink-0">
      <path
        d={`M5 10H37${Array.from({ length: levels }, (_, i) => `M${at(i)} 7v6`).join("")}`}
        stroke="var(--edge)"
        fill="none"
      />
      {mark.level !== undefined && <circle cx={at(mark.level)} cy={10} r="4.5" fill="var(--level)" />}
    </svg>
  );
}
