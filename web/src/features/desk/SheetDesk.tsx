import {
  type KeyboardEvent,
  lazy,
  Suspense,
  type SyntheticEvent,
  useCallback,
  useEffect,
  useMemo,
  useReducer,
  useRef,
  useState,
} from "react";
import { flushSync } from "react-dom";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { useTitle } from "../../ui/useTitle";
import { AnswerColumn } from "./AnswerColumn";
import { useSend, useTakeBack } from "./api";
import type { RemarkContent } from "./cells";
import { Conflicts } from "./Conflicts";
import { JudgeTable, type JudgeTableHandle } from "./JudgeTable";
import { KeyHelp } from "./KeyHelp";
import { KeyPointList } from "./KeyPointList";
import { LookAgain } from "./LookAgain";
import { lockOf } from "./lock";
import { Messages } from "./Messages";
import { type Missing, missingOn } from "./missing";
import { PromptPanel } from "./PromptPanel";
import { foldAll } from "./reading/folding";
import { pickedLines } from "./reading/pointing";
import { RemarkForm } from "./RemarkForm";
import { gradeRows, pointRows } from "./rows";
import { Ruler } from "./Ruler";
import { SavedSign } from "./SavedSign";
import { SearchBar } from "./SearchBar";
import { useActiveTime } from "./useActiveTime";
import { useCopy } from "./useCopy";
import { type Desk, useDesk } from "./useDesk";
import { useFilledIn } from "./useFilledIn";
import { changeView, columnsShown, firstView, type Focus, type ViewChange } from "./view";

type Sheet = Schemas["SheetView"];

const Comparison = lazy(async () => ({ default: (await import("./reading/Comparison")).Comparison }));

type SheetDeskProps = { sheet: Sheet; accountId: string; fromCopy: boolean };

/** Keys that change what is seen, and nothing else. */
const VIEW_KEYS: Record<string, ViewChange> = {
  v: { type: "layout" },
  i: { type: "pin-here" },
  t: { type: "tie" },
  d: { type: "next-part", all: false },
  D: { type: "next-part", all: true },
  a: { type: "diff" },
  g: { type: "compare" },
  p: { type: "prompt" },
  b: { type: "code" },
  q: { type: "search", open: true },
  "?": { type: "help", open: true },
};

/** How much of a screen a page key scrolls. */
const PAGE = 0.85;

const LINK = "text-sm text-tarn underline underline-offset-4";

/** The desk for one sheet: prompt, answers side by side, and docked below them the table and the ruler of anchors. */
export function SheetDesk({ sheet, accountId, fromCopy }: SheetDeskProps) {
  const desk = useDesk(sheet, accountId);
  useCopy(sheet);
  const send = useSend(sheet.id);
  const takeBack = useTakeBack(sheet.id);
  const navigate = useNavigate();
  const main = useRef<HTMLElement>(null);
  const table = useRef<JudgeTableHandle>(null);
  const hasCode = useMemo(() => sheet.answers.map((a) => a.hasCode), [sheet.answers]);
  const [view, onView] = useReducer(changeView(hasCode), undefined, () =>
    firstView(sheet.answers.length, firstEmpty(sheet, desk)),
  );
  const [missing, setMissing] = useState<Missing[]>();
  const [next, setNext] = useState<string>();
  const lock = lockOf(sheet);
  const { focus } = view;
  useTitle(`${sheet.prompt.title} · ${sheet.studyTitle}`);
  useActiveTime(sheet.id, sheet.answers[focus.column]?.id, lock === undefined);

  const rows = view.dock === "grades" ? gradeRows(sheet, desk) : pointRows(sheet);
  const columns = columnsShown(view);
  const filledIn = useFilledIn(view.layout, columns.length);
  const columnOf = (column: number) => main.current?.querySelector<HTMLElement>(`[data-column="${column}"]`) ?? null;
  /** Changes the view at once, so that the next key of a fast typist finds what it is meant for; then goes to a cell. */
  const showAndGo = (change: ViewChange, cell = focus) => {
    flushSync(() => onView(change));
    table.current?.focus(cell);
  };

  // Folding everything at once tells of every fold, and React looks at each; nobody here listens.
  useEffect(() => {
    const place = main.current;
    const quiet = (event: Event) => event.stopImmediatePropagation();
    place?.addEventListener("toggle", quiet, { capture: true });
    return () => place?.removeEventListener("toggle", quiet, { capture: true });
  }, []);

  // Ready for the keys as soon as the sheet is there, where the work goes on.
  const start = useRef(focus);
  useEffect(() => table.current?.focus(start.current), []);

  const setDesk = desk.set;
  // The columns are drawn anew when this changes, so it must not with every key.
  const latestSet = useRef(setDesk);
  useEffect(() => {
    latestSet.current = setDesk;
  });
  const onRemove = useCallback(
    (answerId: string, remarkId: string) => latestSet.current({ kind: "remark", answerId, remarkId }),
    [],
  );

  const sendIn = async () => {
    const left = missingOn(sheet, desk);
    setMissing(left);
    if (left[0]) {
      jump(left[0]);
      return;
    }
    if (await desk.settleAll()) {
      send.mutate(undefined, {
        onSuccess: ({ nextSheetId }) => {
          const after = nextSheetId ? `/sheets/${nextSheetId}` : "/";
          setNext(after);
          if (!sheet.afterwards) {
            void navigate(after);
          }
        },
      });
    }
  };

  const jump = (to: Missing) => {
    if (view.dock === "points") {
      flushSync(() => onView({ type: "dock" }));
    }
    table.current?.focus({ row: to.what === "grade" ? to.criterion : 0, column: to.column });
    if (to.what === "reason") {
      table.current?.focusReason(to.column);
    }
  };

  const scroll = (by: number) => {
    const column = columnOf(focus.column);
    column?.scrollBy({ top: by * PAGE * column.clientHeight });
    return column !== null;
  };

  const startRemark = () => {
    // Where the lines are pointed at, or else the answer in focus.
    const pointed = columns.find((c) => columnOf(c)?.querySelector("[data-picked]"));
    const column = pointed ?? focus.column;
    const place = columnOf(column);
    const lines = place ? pickedLines(place) : undefined;
    onView({ type: "remark", remarking: { column, ...(lines && { lines }) } });
  };

  const fold = () => {
    const order = [focus.column, ...sheet.answers.map((_, i) => i).filter((i) => i !== focus.column)];
    foldAll(order.flatMap((column) => columnOf(column) ?? []));
  };

  const act = (key: string): boolean => {
    const change = VIEW_KEYS[key];
    if (change) {
      if (change.type === "layout") {
        showAndGo(change);
      } else {
        onView(change);
      }
      return true;
    }
    switch (key) {
      case "s":
        if (lock === undefined) {
          void sendIn();
        } else if (next) {
          void navigate(next);
        }
        return true;
      case "k":
        if (sheet.prompt.keyPoints.length > 0) {
          showAndGo({ type: "dock" }, { row: 0, column: focus.column });
        }
        return true;
      case "f":
        fold();
        return true;
      case "l": {
        const column = columnOf(focus.column);
        if (column) {
          column.dataset["point"] = "";
          column.blur();
          column.focus({ preventScroll: true });
        }
        return true;
      }
      case "r":
        if (lock === undefined) {
          startRemark();
        }
        return true;
      case "m":
        columnOf(focus.column)?.querySelector<HTMLElement>("[data-remark]")?.focus();
        return true;
      case "PageDown":
      case "PageUp":
        return scroll(key === "PageDown" ? 1 : -1);
      default:
        return false;
    }
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const { target } = event;
    const typing =
      target instanceof HTMLTextAreaElement ||
      target instanceof HTMLInputElement ||
      target instanceof HTMLSelectElement;
    const ctrl = event.ctrlKey || event.metaKey;
    if (typing || event.altKey || view.help) {
      return;
    }
    const again = event.key === "y" || (event.key.toLowerCase() === "z" && event.shiftKey);
    const handled = !ctrl
      ? act(event.key)
      : lock === undefined && (again ? desk.redo() : event.key === "z" ? desk.undo() : undefined) !== undefined;
    if (handled) {
      event.preventDefault();
    }
  };

  const saveRemark = (column: number, remark: RemarkContent, remarkId: string) => {
    const answer = sheet.answers[column];
    if (answer) {
      desk.set({ kind: "remark", answerId: answer.id, remarkId, remark });
    }
  };
  const closeRemark = () => {
    main.current?.querySelectorAll("[data-picked]").forEach((line) => line.removeAttribute("data-picked"));
    showAndGo({ type: "remark" });
  };

  const template = { gridTemplateColumns: `12.5rem repeat(${columns.length}, minmax(19rem, 1fr))` };
  const { remarking } = view;
  return (
    <main
      ref={main}
      className="flex h-[calc(100dvh-2.75rem)] min-h-[36rem] flex-col"
      onKeyDown={onKeyDown}
      onScrollCapture={(e) => view.tied && scrollTogether(e, main.current)}
    >
      <div className="flex items-baseline gap-x-3 px-4 pt-2 max-lg:flex-wrap">
        <h1 className="truncate text-lg max-lg:basis-full">{sheet.prompt.title}</h1>
        <span className="text-sm whitespace-nowrap text-ink-soft">
          {[sheet.prompt.kind, sheet.prompt.language].filter(Boolean).join(" · ")} · sheet {sheet.place} of{" "}
          {sheet.ofSheets}
        </span>
        <button
          type="button"
          aria-expanded={view.prompt === "open"}
          className={`${LINK} whitespace-nowrap`}
          onClick={() => onView({ type: "prompt" })}
        >
          {view.prompt === "open" ? "Fold the prompt" : "Show the prompt"}
        </button>
        <span className="ml-auto" />
        {view.tied && <span className="text-sm whitespace-nowrap">scrolling together</span>}
        <SavedSign outbox={desk.outbox} fromCopy={fromCopy} />
        <button type="button" className={LINK} onClick={() => onView({ type: "help", open: true })}>
          Keys
        </button>
        {lock === undefined && (
          <Button tone="primary" disabled={send.isPending} onClick={() => void sendIn()}>
            Send in
          </Button>
        )}
      </div>
      {view.searching && (
        <SearchBar
          answers={sheet.answers}
          onShow={(column) => {
            onView({ type: "focus", focus: { row: focus.row, column } });
            onView({ type: "part", column, part: "text" });
          }}
          onClose={() => showAndGo({ type: "search", open: false })}
        />
      )}
      <PromptPanel prompt={sheet.prompt} shown={view.prompt} onView={onView} />
      <Messages
        missing={missing && missingOn(sheet, desk)}
        onJump={jump}
        failure={send.error}
        lock={lock}
        withdrawn={sheet.withdrawn}
        onTakeBack={sheet.roundClosed ? undefined : () => takeBack.mutate()}
        next={next}
      />
      <Conflicts desk={desk} sheet={sheet} />
      {view.compared && (
        <Suspense fallback={<p className="flex-1 px-4 py-2 text-ink-soft">Fetching …</p>}>
          <Comparison
            sheet={sheet}
            compared={view.compared}
            layout={view.diff}
            onCompare={(compared) => onView({ type: "compared", compared })}
            onClose={() => showAndGo({ type: "compared" })}
          />
        </Suspense>
      )}
      <div
        className={view.compared ? "shrink-0 overflow-x-auto" : "mt-1.5 flex min-h-0 flex-1 flex-col overflow-x-auto"}
      >
        {!view.compared && (
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
                  start={sheet.prompt.startingFiles}
                  remarks={desk.remarksOf(answer.id)}
                  part={view.parts[column] ?? "text"}
                  diff={view.diff}
                  focused={column === focus.column}
                  pinned={view.pinned === column && columns.length > 1}
                  wide={columns.length === 1}
                  place={place < 0 ? undefined : place}
                  drawn={column === focus.column || place < filledIn}
                  onView={onView}
                  onRemove={onRemove}
                />
              );
            })}
          </div>
        )}
        <JudgeTable
          ref={table}
          label={view.dock === "grades" ? "Grades" : "Key points"}
          sheet={sheet}
          desk={desk}
          rows={rows}
          locked={lock !== undefined}
          guessing={lock === "sent"}
          reasons={view.dock === "grades"}
          columns={columns}
          pinned={columns.length > 1 ? view.pinned : undefined}
          template={template}
          focus={focus}
          onFocus={(f) => onView({ type: "focus", focus: f })}
        />
      </div>
      {remarking ? (
        <RemarkForm
          key={remarking.editing?.id ?? "new"}
          sheet={sheet}
          remarking={remarking}
          onSave={(remark) => {
            saveRemark(remarking.column, remark, remarking.editing?.id ?? crypto.randomUUID());
            closeRemark();
          }}
          onRemove={() => {
            const answer = sheet.answers[remarking.column];
            if (answer && remarking.editing) {
              desk.set({ kind: "remark", answerId: answer.id, remarkId: remarking.editing.id });
            }
            closeRemark();
          }}
          onCopy={(column, { lines, ...remark }) => saveRemark(column, remark, crypto.randomUUID())}
          onClose={closeRemark}
        />
      ) : (
        <Ruler
          row={rows[Math.min(focus.row, rows.length - 1)]}
          answer={sheet.answers[focus.column]}
          sheet={sheet}
          desk={desk}
          locked={lock !== undefined}
          guessing={lock === "sent"}
        />
      )}
      <LookAgain sheet={sheet} desk={desk} />
      <KeyHelp open={view.help} onOpenChange={(open) => onView({ type: "help", open })} />
    </main>
  );
}

/** The first cell without a grade, or else the first of all. */
function firstEmpty(sheet: Sheet, desk: Desk): Focus {
  const to = missingOn(sheet, desk).find((m) => m.what === "grade");
  return { row: to?.what === "grade" ? to.criterion : 0, column: to?.column ?? 0 };
}

let following = false;

/** Takes the other answers along, by the share of their length, as they are not equally long. */
function scrollTogether(event: SyntheticEvent, main: HTMLElement | null): void {
  const moved = event.target;
  if (following || !(moved instanceof HTMLElement) || moved.dataset["column"] === undefined) {
    return;
  }
  following = true;
  const share = moved.scrollTop / Math.max(1, moved.scrollHeight - moved.clientHeight);
  main?.querySelectorAll<HTMLElement>("[data-column]").forEach((column) => {
    if (column !== moved) {
      column.scrollTop = share * (column.scrollHeight - column.clientHeight);
    }
  });
  requestAnimationFrame(() => {
    following = false;
  });
}
