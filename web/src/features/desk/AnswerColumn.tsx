import {
  type ComponentProps,
  type Dispatch,
  type KeyboardEvent,
  lazy,
  memo,
  type RefObject,
  Suspense,
  useMemo,
  useRef,
  useState,
} from "react";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { AnswerText } from "./reading/AnswerText";
import type { DiffLayout } from "./reading/ChangedFiles";
import { type LineNotes, type Margin, MarginContext, NotesContext } from "./reading/notes";
import { begin, forget, move, pickedLines, pickSelection, type Pointer } from "./reading/pointing";
import { RemarkNotes } from "./reading/RemarkNote";
import { areSame, type PlacedRemark } from "./remarks";
import type { Part, ViewChange } from "./view";

type Answer = Schemas["SheetView"]["answers"][number];

export type AnswerColumnProps = {
  sheetId: string;
  column: number;
  answerId: string;
  number: number;
  outcome: Answer["outcome"];
  text: string;
  hasCode: boolean;
  /** Whether what came of trying it can be looked at. */
  tried: boolean;
  start: Schemas["StartingFile"][];
  remarks: PlacedRemark[];
  part: Part;
  diff: DiffLayout;
  focused: boolean;
  pinned: boolean;
  wide: boolean;
  /** Place among the answers shown, from the left; absent while it is not shown. */
  place: number | undefined;
  /** Whether it is drawn already; a moment after the desk opened or its layout changed it is. */
  drawn: boolean;
  onView: Dispatch<ViewChange>;
  onRemove: (answerId: string, remarkId: string) => void;
};

const ENDED: Record<Answer["outcome"], string | undefined> = {
  COMPLETE: undefined,
  INCOMPLETE: "broke off",
  REFUSED: "was refused",
  FAILED: "failed",
  TIMED_OUT: "ran out of time",
};

const PART_NAMES: Record<Part, string> = { text: "Text", changes: "Changes", files: "Files" };
const ALL_PARTS: Part[] = ["text", "changes", "files"];

/** One answer to read. It is drawn anew only when something of its own changes, not with every grade. */
export const AnswerColumn = memo(
  Column,
  (before, after) => areSame(before.remarks, after.remarks) && NAMES.every((name) => before[name] === after[name]),
);

function Column(props: AnswerColumnProps) {
  const { column, number, part, remarks, focused, pinned, wide, diff, place, onView } = props;
  const section = useRef<HTMLElement>(null);
  const pointing = usePointing(section, props);
  const notes = useNotes(remarks, column, onView);
  // Two halves of a difference leave no room beside them.
  const margin: Margin = wide && !(part === "changes" && diff === "beside") ? "beside" : "below";
  const hasMargin = margin === "beside" && remarks.some((r) => r.remark.lines);
  return (
    <section
      ref={section}
      aria-label={`Answer ${number}`}
      // Kept, and kept laid out, while it is not shown, so that showing it again takes no time.
      inert={place === undefined}
      style={{ order: place ?? 0 }}
      data-column={column}
      tabIndex={0}
      {...pointing}
      className={classes(
        "answer-column min-w-0 snap-start overflow-y-auto border-r border-rule px-3 pb-2",
        place === undefined && "answer-away",
        !props.drawn && "answer-late",
        pinned && "sticky left-[12.5rem] z-[5]",
        focused ? "bg-vellum shadow-[inset_0_3px_0_var(--heather)]" : "bg-paper",
      )}
    >
      <ColumnHead {...props} />
      <NotesContext value={notes}>
        <MarginContext value={margin}>
          <RemarkNotes notes={remarks.filter((r) => !r.remark.lines)} />
          <div
            className={classes(
              hasMargin && "with-margin",
              wide && part === "text" && (hasMargin ? "max-w-[73rem]" : "max-w-4xl"),
            )}
          >
            <Drawn {...props} />
          </div>
          <ElsewhereNotes remarks={remarks} part={part} />
        </MarginContext>
      </NotesContext>
    </section>
  );
}

/** What was drawn once is kept, also while it is not shown; what never was costs nothing yet. */
function Drawn(props: AnswerColumnProps) {
  const [begun, setBegun] = useState(props.drawn);
  if (props.drawn && !begun) {
    setBegun(true);
  }
  return (
    <Suspense fallback={<p className="mt-1 text-ink-soft">Fetching …</p>}>
      {begun && <ColumnPart {...props} />}
    </Suspense>
  );
}

/** Remarks as the lines want them: the same list until one of them says something else, or every line were drawn anew. */
function useNotes(remarks: PlacedRemark[], column: number, onView: Dispatch<ViewChange>): LineNotes {
  const [said, setSaid] = useState(remarks);
  if (said !== remarks && !areSame(said, remarks)) {
    setSaid(remarks);
  }
  return useMemo(
    () => ({
      remarks: said,
      onOpen: (id) => {
        const editing = said.find((r) => r.id === id);
        if (editing) {
          onView({ type: "remark", remarking: { column, editing } });
        }
      },
    }),
    [said, column, onView],
  );
}

/** Pointing at lines of an answer, and going through its remarks, by keyboard. */
function usePointing(
  section: RefObject<HTMLElement | null>,
  { column, answerId, onView, onRemove }: AnswerColumnProps,
): Pick<ComponentProps<"section">, "onKeyDown" | "onFocus" | "onPointerUp"> {
  const pointer = useRef<Pointer>(undefined);
  const onPointerKey = (place: HTMLElement, from: Pointer, { key, shiftKey }: KeyboardEvent): boolean => {
    const by = STEPS[key];
    if (key === "Escape") {
      pointer.current = undefined;
      forget(place);
      onView({ type: "focus", focus: { row: 0, column } });
      backToTable(column);
    } else if (by !== undefined) {
      pointer.current = move(place, from, by, shiftKey);
    }
    return key === "Escape" || by !== undefined;
  };
  return {
    onKeyDown: (event) => {
      const place = section.current;
      if (event.ctrlKey || event.metaKey || event.altKey || !place) {
        return;
      }
      const onNote = event.target instanceof HTMLElement ? event.target.dataset["remark"] : undefined;
      const handled =
        onNote !== undefined
          ? onNoteKey(place, event.target, event.key, () => onRemove(answerId, onNote))
          : pointer.current !== undefined && onPointerKey(place, pointer.current, event);
      if (handled) {
        event.preventDefault();
        event.stopPropagation();
      }
    },
    // The desk's key for pointing puts the focus here and says so.
    onFocus: ({ target }) => {
      const place = section.current;
      if (place && target === place && place.dataset["point"] !== undefined) {
        place.removeAttribute("data-point");
        const first = begin(place);
        pointer.current = first ? { anchor: first, tip: first } : undefined;
      }
    },
    onPointerUp: () => {
      if (section.current) {
        pickSelection(section.current);
      }
    },
  };
}

/** Puts the focus into the table's cell under a column. */
function backToTable(column: number | string): void {
  const cells = `[data-cell$="-${column}"]`;
  (
    document.querySelector<HTMLElement>(`${cells}[tabindex="0"]`) ?? document.querySelector<HTMLElement>(cells)
  )?.focus();
}

/** What a column shows, besides its remarks, which are told apart by what they say. */
const NAMES = [
  "answerId",
  "column",
  "text",
  "part",
  "diff",
  "focused",
  "pinned",
  "wide",
  "place",
  "drawn",
  "onView",
  "onRemove",
] as const satisfies (keyof AnswerColumnProps)[];

const STEPS: Record<string, number> = { ArrowUp: -1, ArrowDown: 1, PageUp: -15, PageDown: 15 };

/** Moves among the remarks of a column, removes one, or leaves them. */
function onNoteKey(column: HTMLElement, note: EventTarget, key: string, remove: () => void): boolean {
  const notes = [...column.querySelectorAll<HTMLElement>("[data-remark]")];
  const at = notes.findIndex((n) => n === note);
  if (key === "ArrowDown" || key === "ArrowUp") {
    notes[at + (key === "ArrowDown" ? 1 : -1)]?.focus();
    return true;
  }
  if (key === "Delete" || key === "Backspace") {
    (notes[at + 1] ?? notes[at - 1] ?? column).focus();
    remove();
    return true;
  }
  if (key === "Escape") {
    backToTable(column.dataset["column"] ?? "");
    return true;
  }
  return false;
}

function ColumnHead({ column, number, outcome, hasCode, tried, part, pinned, onView }: AnswerColumnProps) {
  const ended = ENDED[outcome];
  const look = "rounded-leaf px-[3px] py-0.5 text-[0.76rem] hover:bg-heather-wash";
  return (
    <div className="sticky top-0 z-[4] -mx-3 mb-1 flex flex-wrap items-baseline border-b border-rule px-3 py-1 [background-color:inherit]">
      <h2 className="mr-0.5 text-[0.95rem] whitespace-nowrap">
        Answer {number}
        {ended && <span className="ml-2 font-sans text-sm font-normal text-clay">{ended}</span>}
      </h2>
      {hasCode &&
        ALL_PARTS.map((p) => (
          <button
            key={p}
            type="button"
            tabIndex={-1}
            aria-pressed={part === p}
            onClick={() => onView({ type: "part", column, part: p })}
            className={classes(look, part === p ? "font-semibold underline underline-offset-4" : "text-ink-soft")}
          >
            {PART_NAMES[p]}
          </button>
        ))}
      {tried && <TrialButton look={classes(look, "text-ink-soft")} onView={onView} />}
      <span className="ml-auto flex">
        <button
          type="button"
          tabIndex={-1}
          aria-pressed={pinned}
          aria-label={`Pin answer ${number}`}
          onClick={() => onView({ type: "pin", column })}
          className={classes(look, pinned ? "font-semibold" : "text-ink-soft")}
        >
          {pinned ? "Pinned" : "Pin"}
        </button>
        <button
          type="button"
          tabIndex={-1}
          aria-label={`Remark on answer ${number}`}
          // The selection must outlive the click.
          onPointerDown={(e) => e.preventDefault()}
          onClick={() => {
            const place = document.querySelector(`[data-column="${column}"]`);
            const lines = place ? pickedLines(place) : undefined;
            onView({ type: "remark", remarking: { column, ...(lines && { lines }) } });
          }}
          className={classes(look, "text-ink-soft")}
        >
          Remark
        </button>
      </span>
    </div>
  );
}

function TrialButton({ look, onView }: { look: string; onView: Dispatch<ViewChange> }) {
  return (
    <button type="button" tabIndex={-1} onClick={() => onView({ type: "trying" })} className={look}>
      Trial
    </button>
  );
}

// Only few answers are read as code, so what shows it is fetched when the first one is.
const AnswerChanges = lazy(async () => ({ default: (await import("./reading/AnswerCode")).AnswerChanges }));
const AnswerFiles = lazy(async () => ({ default: (await import("./reading/AnswerCode")).AnswerFiles }));

function ColumnPart({ sheetId, answerId, text, part, start, diff }: AnswerColumnProps) {
  if (part === "changes") {
    return <AnswerChanges sheetId={sheetId} answerId={answerId} start={start} layout={diff} />;
  }
  if (part === "files") {
    return <AnswerFiles sheetId={sheetId} answerId={answerId} />;
  }
  return text ? <AnswerText text={text} /> : <p className="mt-1 text-ink-soft">There is no text.</p>;
}

const PARTS_OF: Record<Part, string[]> = { text: ["TEXT"], changes: ["BEFORE", "AFTER"], files: ["FILE"] };

/** Remarks on lines of another part than the one that is shown, so that none is out of sight. */
function ElsewhereNotes({ remarks, part }: { remarks: PlacedRemark[]; part: Part }) {
  const elsewhere = remarks.filter((r) => r.remark.lines && !PARTS_OF[part].includes(r.remark.lines.part));
  return elsewhere.length === 0 ? null : (
    <div className="mt-3 border-t border-rule pt-1">
      <p className="text-sm text-ink-soft">Remarks on its other parts</p>
      <RemarkNotes notes={elsewhere} />
    </div>
  );
}
