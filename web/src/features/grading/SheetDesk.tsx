import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiProblem, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { Markdown } from "../../ui/Markdown";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { KeyPoints, StartingFiles } from "../prompt";
import { AnchorRuler } from "./AnchorRuler";
import { useSend, useTakeBack } from "./api";
import { Conflicts } from "./Conflicts";
import { type Focus, GradeTable, type GradeTableHandle } from "./GradeTable";
import { KeyHelp } from "./KeyHelp";
import { SavedSign } from "./SavedSign";
import { useDesk } from "./useDesk";

type Sheet = Schemas["SheetView"];

type SheetDeskProps = { sheet: Sheet; accountId: string };

/** The desk for one sheet: prompt, answers side by side, the grade table under them, the ruler of anchors at the bottom. */
export function SheetDesk({ sheet, accountId }: SheetDeskProps) {
  const desk = useDesk(sheet, accountId);
  const send = useSend(sheet.id);
  const takeBack = useTakeBack(sheet.id);
  const navigate = useNavigate();
  const table = useRef<GradeTableHandle>(null);
  const [focus, setFocus] = useState<Focus>({ row: 0, column: 0 });
  const [promptOpen, setPromptOpen] = useState(true);
  const [wide, setWide] = useState(false);
  const [help, setHelp] = useState(false);
  const [missing, setMissing] = useState<string>();
  const locked = sheet.sent || sheet.roundClosed || sheet.setAside;
  useTitle(`${sheet.prompt.title} · ${sheet.studyTitle}`);

  const empty = sheet.answers.flatMap((answer, column) =>
    sheet.criteria.flatMap((criterion, row) => {
      const mark = desk.markAt(answer.id, criterion.id);
      return mark.level === undefined && !mark.notApplicable ? [{ row, column }] : [];
    }),
  );

  const sendIn = async () => {
    const first = empty[0];
    if (first) {
      setMissing(empty.length === 1 ? "One grade is missing." : `${empty.length} grades are missing.`);
      table.current?.focus(first);
      return;
    }
    setMissing(undefined);
    if (await desk.settleAll()) {
      send.mutate(undefined, {
        onSuccess: ({ nextSheetId }) => void navigate(nextSheetId ? `/sheets/${nextSheetId}` : "/"),
      });
    }
  };

  const onKey = (key: string): boolean => {
    switch (key) {
      case "s":
        void sendIn();
        return true;
      case "p":
        setPromptOpen(!promptOpen);
        return true;
      case "o":
        setWide(!wide);
        return true;
      case "?":
        setHelp(true);
        return true;
      default:
        return false;
    }
  };

  const columns = wide ? [focus.column] : sheet.answers.map((_, i) => i);
  const grid = { gridTemplateColumns: `12.5rem repeat(${columns.length}, minmax(19rem, 1fr))` };
  return (
    <main
      className="flex h-[calc(100dvh-2.75rem)] min-h-[36rem] flex-col"
      onKeyDown={(e) => {
        const typing = e.target instanceof HTMLTextAreaElement || e.target instanceof HTMLInputElement;
        if (!typing && !e.ctrlKey && !e.metaKey && !e.altKey && !help && !locked && onKey(e.key)) {
          e.preventDefault();
        }
      }}
    >
      <div className="flex items-baseline gap-3 px-4 pt-2">
        <h1 className="truncate text-lg">{sheet.prompt.title}</h1>
        <span className="text-sm whitespace-nowrap text-ink-soft">
          {[sheet.prompt.kind, sheet.prompt.language].filter(Boolean).join(" · ")} · sheet {sheet.place} of{" "}
          {sheet.ofSheets}
        </span>
        <button
          type="button"
          aria-expanded={promptOpen}
          className="text-sm text-tarn underline underline-offset-4"
          onClick={() => setPromptOpen(!promptOpen)}
        >
          {promptOpen ? "Fold the prompt" : "Show the prompt"}
        </button>
        <span className="ml-auto" />
        <SavedSign outbox={desk.outbox} />
        <button type="button" className="text-sm text-tarn underline underline-offset-4" onClick={() => setHelp(true)}>
          Keys
        </button>
        {!locked && (
          <Button tone="primary" disabled={send.isPending} onClick={() => void sendIn()}>
            Send in
          </Button>
        )}
      </div>
      {promptOpen && (
        <section
          aria-label="Prompt"
          tabIndex={0}
          className="mx-4 mt-1.5 max-h-[22vh] shrink-0 overflow-y-auto border-y border-rule py-2"
        >
          <Markdown text={sheet.prompt.request} className="max-w-4xl text-[0.95rem]" />
          {sheet.prompt.constraints.length > 0 && (
            <ul className="mt-2 max-w-4xl list-disc pl-5 text-[0.95rem]">
              {sheet.prompt.constraints.map((c, i) => (
                <li key={i}>{c}</li>
              ))}
            </ul>
          )}
          {sheet.prompt.startingFiles.length > 0 && (
            <div className="mt-2 max-w-4xl">
              <StartingFiles files={sheet.prompt.startingFiles} />
            </div>
          )}
        </section>
      )}
      <Messages
        missing={missing}
        failure={send.error}
        refusal={desk.outbox.refusal}
        locked={sheet.setAside ? "set-aside" : sheet.sent ? "sent" : sheet.roundClosed ? "closed" : undefined}
        onTakeBack={sheet.roundClosed ? undefined : () => takeBack.mutate()}
      />
      <Conflicts desk={desk} sheet={sheet} />
      <div className="mt-1.5 flex min-h-0 flex-1 flex-col overflow-x-auto">
        <div className="grid min-h-0 min-w-fit flex-1" style={grid}>
          <aside
            aria-label="Key points"
            tabIndex={0}
            className="sticky left-0 z-10 overflow-y-auto border-r border-rule bg-paper px-3 py-2 text-sm"
          >
            <h2 className="mb-1.5 text-base">A right answer</h2>
            <KeyPoints points={sheet.prompt.keyPoints} />
          </aside>
          {columns.map((column) => (
            <AnswerColumn key={column} answer={sheet.answers[column]} focused={column === focus.column} wide={wide} />
          ))}
        </div>
        <GradeTable
          ref={table}
          sheet={sheet}
          desk={desk}
          locked={locked}
          columns={columns}
          template={grid}
          focus={focus}
          onFocus={setFocus}
        />
      </div>
      <AnchorRuler
        criterion={sheet.criteria[focus.row]}
        answerNumber={focus.column + 1}
        mark={markInFocus(sheet, desk, focus)}
        locked={locked}
        onLevel={(level) => {
          table.current?.set({ level, notApplicable: false });
        }}
      />
      <KeyHelp open={help} onOpenChange={setHelp} />
    </main>
  );
}

function markInFocus(sheet: Sheet, desk: ReturnType<typeof useDesk>, focus: Focus) {
  const answer = sheet.answers[focus.column];
  const criterion = sheet.criteria[focus.row];
  return answer && criterion ? desk.markAt(answer.id, criterion.id) : { notApplicable: false };
}

type AnswerColumnProps = { answer: Sheet["answers"][number] | undefined; focused: boolean; wide: boolean };

const ENDED: Record<Sheet["answers"][number]["outcome"], string | undefined> = {
  COMPLETE: undefined,
  INCOMPLETE: "broke off",
  REFUSED: "was refused",
  FAILED: "failed",
  TIMED_OUT: "ran out of time",
};

function AnswerColumn({ answer, focused, wide }: AnswerColumnProps) {
  if (!answer) {
    return null;
  }
  const ended = ENDED[answer.outcome];
  return (
    <section
      aria-label={`Answer ${answer.number}`}
      tabIndex={0}
      className={classes(
        "min-w-0 overflow-y-auto border-r border-rule px-3 py-2",
        focused && "bg-vellum shadow-[inset_0_3px_0_var(--heather)]",
      )}
    >
      <h2 className="text-base">
        Answer {answer.number}
        {ended && <span className="ml-2 font-sans text-sm font-normal text-clay">{ended}</span>}
      </h2>
      {answer.text ? (
        <Markdown text={answer.text} className={classes("mt-1 text-[0.95rem]", wide && "max-w-4xl")} />
      ) : (
        <p className="mt-1 text-ink-soft">There is no text.</p>
      )}
    </section>
  );
}

type MessagesProps = {
  missing: string | undefined;
  failure: Error | null;
  refusal: string | undefined;
  locked: "sent" | "closed" | "set-aside" | undefined;
  onTakeBack: (() => void) | undefined;
};

const LOCKS = {
  sent: "This sheet is sent in.",
  closed: "The round is closed; grades stay as they are.",
  "set-aside": "The prompt turned out faulty and was set aside; there is nothing to grade here.",
};

function Messages({ missing, failure, refusal, locked, onTakeBack }: MessagesProps) {
  if (locked) {
    return (
      <Note tone="info" role="status" className="mx-4 mt-1.5 flex items-center gap-3">
        {LOCKS[locked]}
        {locked === "sent" && onTakeBack && <Button onClick={onTakeBack}>Take it back</Button>}
        <Link to="/" className="text-tarn underline underline-offset-4">
          All your sheets
        </Link>
      </Note>
    );
  }
  const failed =
    failure instanceof ApiProblem ? `${failure.message} ${failure.errors[0]?.message ?? ""}` : failure?.message;
  const text = missing ?? refusal ?? failed;
  return text ? (
    <Note tone="caution" role="alert" className="mx-4 mt-1.5">
      {text}
    </Note>
  ) : null;
}
