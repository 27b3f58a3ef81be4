import { type KeyboardEvent, lazy, Suspense, type UIEvent, useEffect, useMemo, useReducer, useRef } from "react";
import { flushSync } from "react-dom";
import type { Schemas } from "../../api/client";
import { useTitle } from "../../ui/useTitle";
import { AnswerColumns } from "./AnswerColumns";
import { Conflicts } from "./Conflicts";
import { JudgeTable, type JudgeTableHandle } from "./JudgeTable";
import { KeyHelp } from "./KeyHelp";
import { LookAgain } from "./LookAgain";
import { lockOf } from "./lock";
import { Messages } from "./Messages";
import { type Missing, missingOn } from "./missing";
import { PromptPanel } from "./PromptPanel";
import { gradeRows, pointRows } from "./rows";
import { useScrollTogether } from "./scrollTogether";
import { SearchBar } from "./SearchBar";
import { SheetDock } from "./SheetDock";
import { SheetHead } from "./SheetHead";
import { useActiveTime } from "./useActiveTime";
import { useColumns } from "./useColumns";
import { useCopy } from "./useCopy";
import { type Desk, useDesk } from "./useDesk";
import { useSending } from "./useSending";
import { useSheetKeys } from "./useSheetKeys";
import { changeView, columnsShown, firstView, type Focus, type View, type ViewChange } from "./view";

type Sheet = Schemas["SheetView"];

const Tried = lazy(async () => ({ default: (await import("./trying/Tried")).Tried }));
const Comparison = lazy(async () => ({ default: (await import("./reading/Comparison")).Comparison }));

type SheetDeskProps = { sheet: Sheet; accountId: string; fromCopy: boolean };

/** The desk for one sheet: prompt, answers side by side, and docked below them the table and the ruler of anchors. */
export function SheetDesk({ sheet, accountId, fromCopy }: SheetDeskProps) {
  const desk = useDesk(sheet, accountId);
  useCopy(sheet);
  const main = useRef<HTMLElement>(null);
  const place = usePlace(sheet, desk);
  const { view, onView, showAndGo, table } = place;
  const sending = useSending(sheet, desk, place.jump);
  const lock = lockOf(sheet);
  const locked = lock !== undefined;
  useTitle(`${sheet.prompt.title} · ${sheet.studyTitle}`);
  useActiveTime(sheet.id, sheet.answers[view.focus.column]?.id, !locked);

  const columns = columnsShown(view);
  const onSend = () => void sending.send();
  const sendOrGoOn = locked ? sending.goOn : onSend;
  const onKeyDown = useSheetKeys({ sheet, desk, view, columns, main, locked, onView, showAndGo, sendOrGoOn });
  const scrolledTogether = useScrollTogether(main, view.tied);
  const begins = useBeginning(onView);
  const seen = { sheet, desk, view, onView, showAndGo };
  const rows = view.dock === "grades" ? gradeRows(sheet, desk) : pointRows(sheet);
  const given = { rows, locked, guessing: lock === "sent" };
  return (
    <main
      ref={main}
      className="flex h-[calc(100dvh-2.75rem)] min-h-[36rem] flex-col"
      onKeyDownCapture={begins.onKeyDown}
      onKeyDown={onKeyDown}
      onScrollCapture={(event) => {
        begins.onScroll(event);
        scrolledTogether(event);
      }}
    >
      <SheetHead {...seen} fromCopy={fromCopy} onSend={locked ? undefined : onSend} sending={sending.isPending} />
      {view.searching && <Search {...seen} />}
      <PromptPanel prompt={sheet.prompt} shown={view.prompt} onView={onView} />
      <Messages
        missing={sending.missing}
        onJump={place.jump}
        failure={sending.failure}
        lock={lock}
        withdrawn={sheet.withdrawn}
        onTakeBack={sending.takeBack}
        next={sending.next}
      />
      <Conflicts desk={desk} sheet={sheet} />
      <Compared {...seen} />
      <TriedHere {...seen} columns={columns} locked={locked} />
      <AnswersAndTable {...seen} {...given} columns={columns} table={table} />
      <SheetDock {...seen} {...given} main={main} />
      <LookAgain sheet={sheet} desk={desk} />
      <KeyHelp open={view.help} onOpenChange={(open) => onView({ type: "help", open })} />
    </main>
  );
}

/** What came of trying the answers, where that is looked at. */
function TriedHere({ sheet, view, onView, showAndGo, columns, locked }: Seen & { columns: number[]; locked: boolean }) {
  return view.trying && sheet.tried ? (
    <Suspense fallback={<p className="flex-1 px-4 py-2 text-ink-soft">Fetching …</p>}>
      <Tried
        sheet={sheet}
        columns={columns}
        locked={locked}
        enlarged={view.enlarged}
        onEnlarge={(at) => onView({ type: "enlarge", ...(at && { at }) })}
        onClose={() => showAndGo({ type: "trying" })}
      />
    </Suspense>
  ) : null;
}

type Seen = {
  sheet: Sheet;
  desk: Desk;
  view: View;
  onView: (change: ViewChange) => void;
  showAndGo: (change: ViewChange, cell?: Focus) => void;
};

/** Where on the sheet the rater is, and how they look at it. */
function usePlace(sheet: Sheet, desk: Desk) {
  const table = useRef<JudgeTableHandle>(null);
  const hasCode = useMemo(() => sheet.answers.map((a) => a.hasCode), [sheet.answers]);
  const [view, onView] = useReducer(changeView(hasCode), undefined, () =>
    firstView(sheet.answers.length, firstEmpty(sheet, desk)),
  );
  // Ready for the keys as soon as the sheet is there, where the work goes on.
  const start = useRef(view.focus);
  useEffect(() => table.current?.focus(start.current), []);

  /** Changes the view at once, so that the next key of a fast typist finds what it is meant for; then goes to a cell. */
  const showAndGo = (change: ViewChange, cell: Focus = view.focus) => {
    flushSync(() => onView(change));
    table.current?.focus(cell);
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
  return { view, onView, table, showAndGo, jump };
}

/** A key that moves in the table or grades. */
const GRADING_KEY = /^(Arrow(Up|Down|Left|Right)|\d)$/;

/** Reading begins with the first scroll of an answer, grading with the first key in the table: then the prompt gives way. */
function useBeginning(onView: (change: ViewChange) => void) {
  const within = (target: EventTarget, what: string) => target instanceof HTMLElement && target.closest(what) !== null;
  return {
    onScroll: ({ target }: UIEvent) => {
      if (within(target, "[data-column]")) {
        onView({ type: "begin" });
      }
    },
    onKeyDown: ({ target, key, ctrlKey, metaKey, altKey }: KeyboardEvent) => {
      if (GRADING_KEY.test(key) && !ctrlKey && !metaKey && !altKey && within(target, "[data-cell]")) {
        onView({ type: "begin" });
      }
    },
  };
}

/** The first cell without a grade, or else the first of all. */
function firstEmpty(sheet: Sheet, desk: Desk): Focus {
  const to = missingOn(sheet, desk).find((m) => m.what === "grade");
  return { row: to?.what === "grade" ? to.criterion : 0, column: to?.column ?? 0 };
}

function Search({ sheet, view, onView, showAndGo }: Seen) {
  return (
    <SearchBar
      answers={sheet.answers}
      onShow={(column) => {
        onView({ type: "focus", focus: { row: view.focus.row, column } });
        onView({ type: "part", column, part: "text" });
      }}
      onClose={() => showAndGo({ type: "search", open: false })}
    />
  );
}

function Compared({ sheet, view, onView, showAndGo }: Seen) {
  return view.compared ? (
    <Suspense fallback={<p className="flex-1 px-4 py-2 text-ink-soft">Fetching …</p>}>
      <Comparison
        sheet={sheet}
        compared={view.compared}
        layout={view.diff}
        onCompare={(compared) => onView({ type: "compared", compared })}
        onClose={() => showAndGo({ type: "compared" })}
      />
    </Suspense>
  ) : null;
}

type AnswersAndTableProps = Seen & {
  rows: ReturnType<typeof gradeRows>;
  locked: boolean;
  guessing: boolean;
  columns: number[];
  table: React.RefObject<JudgeTableHandle | null>;
};

/** Answers, and below each what is judged of it; while two are compared, only that. */
function AnswersAndTable({ table, columns, ...props }: AnswersAndTableProps) {
  const { sheet, desk, view, onView, rows, locked, guessing } = props;
  const place = useRef<HTMLDivElement>(null);
  const wide = useColumns(place, columns.length);
  const isGrades = view.dock === "grades";
  const isTried = view.trying === true && sheet.tried;
  // What came of trying stands above in columns of its own: all of them, to be seen at one glance.
  const template = isTried ? { gridTemplateColumns: `12.5rem repeat(${columns.length}, minmax(0, 1fr))` } : wide;
  const isOther = view.compared !== undefined || isTried;
  return (
    <div
      ref={place}
      className={
        isOther
          ? "shrink-0 overflow-x-auto"
          : "mt-1.5 flex min-h-0 flex-1 snap-x snap-proximity scroll-pl-[12.5rem] flex-col overflow-x-auto"
      }
    >
      {!isOther && (
        <AnswerColumns sheet={sheet} desk={desk} view={view} onView={onView} columns={columns} template={template} />
      )}
      <JudgeTable
        ref={table}
        label={isGrades ? "Grades" : "Key points"}
        sheet={sheet}
        desk={desk}
        rows={rows}
        locked={locked}
        guessing={guessing}
        reasons={isGrades}
        columns={columns}
        pinned={columns.length > 1 ? view.pinned : undefined}
        template={template}
        focus={view.focus}
        onFocus={(focus) => onView({ type: "focus", focus })}
      />
    </div>
  );
}
