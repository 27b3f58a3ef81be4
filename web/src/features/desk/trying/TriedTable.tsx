import { type ReactNode, useState } from "react";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { classes } from "../../../ui/classes";
import { count } from "../../../ui/format";
import {
  Messages,
  Output,
  outcomeWords,
  type PageRow,
  pageRows,
  PageViewer,
  type Place,
  summaryWords,
  Thumbnail,
} from "../../evidence";
import { pictureAt } from "./api";
import { Repairs } from "./Repairs";
import { inputRow, itemRows, type TriedRow } from "./tableRows";

type Trial = Schemas["TrialOnSheet"];

export type TriedAnswer = { answer: Schemas["SheetView"]["answers"][number]; trial: Trial };

type TriedTableProps = {
  answers: TriedAnswer[];
  inputs: Schemas["InputOnSheet"][];
  /** Absent where nothing can be repaired. */
  onRepair: ((answerId: string) => void) | undefined;
  sheetId: string;
  enlarged: Place | undefined;
  onEnlarge: (at: Place | undefined) => void;
};

/** What was asked as rows, answers as columns; a row opens to what was expected and what each wrote. */
export function TriedTable({ answers, inputs, onRepair, sheetId, enlarged, onEnlarge }: TriedTableProps) {
  const [open, setOpen] = useState<string>();
  const pages = pageRows(
    answers.map(({ trial }) => trial.result),
    answers.map(({ answer }) => pictureAt(sheetId, answer.id)),
  );
  const rows = [...itemRows(answers), ...inputs.map((input, i) => inputRow(input, i + 1, answers))];
  const toggle = (key: string) => setOpen(open === key ? undefined : key);
  return (
    <>
      <table className="w-full table-fixed border-collapse text-sm">
        <colgroup>
          <col className="w-[12.5rem]" />
        </colgroup>
        <thead className="sticky top-0 z-[1] bg-paper">
          <tr className="border-b border-edge align-bottom">
            <th scope="col" className="py-1 pr-3 pl-3 text-left font-medium">
              Asked
            </th>
            {answers.map(({ answer, trial }) => (
              <th key={answer.id} scope="col" className="px-3 py-1 text-left font-normal">
                <span className="font-semibold">Answer {answer.number}</span>
                <Standing trial={trial} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <Row key={row.key} row={row} open={open === row.key} onToggle={() => toggle(row.key)} />
          ))}
          {pages.map((row, i) => (
            <PageSteps
              key={row.key}
              row={row}
              answers={answers}
              onEnlarge={(column) => onEnlarge({ row: i, column })}
            />
          ))}
          <LogRow answers={answers} open={open === "log"} onToggle={() => toggle("log")} />
          <RepairsRow answers={answers} sheetId={sheetId} onRepair={onRepair} />
        </tbody>
      </table>
      {enlarged && pages.length > 0 && (
        <PageViewer
          rows={pages}
          heads={answers.map(({ answer }) => `Answer ${answer.number}`)}
          at={enlarged}
          onMove={onEnlarge}
          onClose={() => onEnlarge(undefined)}
        />
      )}
    </>
  );
}

function RepairsRow({ answers, sheetId, onRepair }: Pick<TriedTableProps, "answers" | "sheetId" | "onRepair">) {
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="py-1.5 pr-3 pl-3 text-left font-medium">
        Repairs
      </th>
      {answers.map(({ answer, trial }) => (
        <td key={answer.id} className="px-3 py-1.5">
          <Repairs sheetId={sheetId} answerId={answer.id} repairs={trial.repairs} />
          {onRepair && trial.result && (
            <Button className="mt-1 text-sm" onClick={() => onRepair(answer.id)}>
              Repair …<span className="sr-only"> answer {answer.number}</span>
            </Button>
          )}
        </td>
      ))}
    </tr>
  );
}

type PageStepsProps = { row: PageRow; answers: TriedAnswer[]; onEnlarge: (column: number) => void };

/** How the pages of all answers stood after one step. */
function PageSteps({ row, answers, onEnlarge }: PageStepsProps) {
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="py-1 pr-3 pl-3 text-left font-medium wrap-anywhere">
        {row.name}
      </th>
      {answers.map(({ answer }, i) => {
        const cell = row.cells[i];
        return (
          <td key={answer.id} className="px-3 py-1">
            {cell && (
              <>
                <span
                  className={classes(
                    "block border-l-2 pl-2 wrap-anywhere",
                    cell.good ? "border-lichen" : "border-clay",
                  )}
                >
                  {cell.words}
                </span>
                <Thumbnail cell={cell} label={`answer ${answer.number}, ${row.name}`} onEnlarge={() => onEnlarge(i)} />
              </>
            )}
          </td>
        );
      })}
    </tr>
  );
}

/** How an answer stands by trial, with its turns where it has several. */
function Standing({ trial }: { trial: Trial }) {
  if (trial.awaitsGrade) {
    return <span className="block text-ink-soft">shown once you have graded it</span>;
  }
  const last = trial.turns.at(-1);
  if (!last) {
    return <span className="block text-ink-soft">not tried</span>;
  }
  return (
    <>
      <span className="block">
        {last.isFlaky ? "now so, now so" : summaryWords(last.summary)}
        {trial.proposed === "AFTER_REPAIR" && `; passes after a repair of ${count(fewest(trial), "line", "lines")}`}
      </span>
      {trial.turns.length > 1 && (
        <span className="block text-ink-soft">
          {trial.turns
            .map((t) => `${t.turn === 0 ? "first reply" : `turn ${t.turn}`} ${outcomeWords(t.summary.outcome)}`)
            .join(" → ")}
        </span>
      )}
    </>
  );
}

/** Lines of the smallest repair that passes. */
const fewest = (trial: Trial): number =>
  Math.min(...trial.repairs.filter((r) => r.summary.outcome === "PASSED").map((r) => r.lines));

type RowProps = { row: TriedRow; open: boolean; onToggle: () => void };

function Row({ row, open, onToggle }: RowProps) {
  return (
    <>
      <tr className="border-b border-rule align-top">
        <RowHead name={row.name} open={open} onToggle={onToggle} />
        {row.cells.map((cell, i) => (
          <td key={i} className="px-3 py-1">
            {cell && (
              <span
                className={classes(
                  "line-clamp-2 border-l-2 pl-2 wrap-anywhere",
                  cell.good === undefined ? "border-edge" : cell.good ? "border-lichen" : "border-clay",
                )}
              >
                {cell.words}
              </span>
            )}
          </td>
        ))}
      </tr>
      {open && (
        <Opened head={row.expected === undefined ? undefined : <Output label="Expected" text={row.expected} />}>
          {row.cells.map(
            (cell) =>
              cell &&
              (cell.text === undefined ? (
                cell.words
              ) : (
                <Output label="Came" text={cell.text} against={cell.against ?? ""} />
              )),
          )}
        </Opened>
      )}
    </>
  );
}

function RowHead({ name, open, onToggle }: { name: string; open: boolean; onToggle: () => void }) {
  return (
    <th scope="row" className="py-1 pr-3 pl-3 text-left font-medium">
      <button
        type="button"
        aria-expanded={open}
        onClick={onToggle}
        className="w-full rounded-leaf text-left wrap-anywhere underline decoration-rule underline-offset-4 hover:bg-heather-wash"
      >
        {name}
      </button>
    </th>
  );
}

function Opened({ head, children }: { head: ReactNode; children: ReactNode[] }) {
  return (
    <tr className="border-b border-rule bg-vellum align-top">
      <td className="py-1.5 pr-3 pl-3">{head}</td>
      {children.map((child, i) => (
        <td key={i} className="px-3 py-1.5">
          {child}
        </td>
      ))}
    </tr>
  );
}

function LogRow({ answers, open, onToggle }: { answers: TriedAnswer[]; open: boolean; onToggle: () => void }) {
  return answers.some(({ trial }) => trial.result) ? (
    <>
      <tr className="border-b border-rule align-top">
        <RowHead name="Log" open={open} onToggle={onToggle} />
        {answers.map(({ answer, trial }) => (
          <td key={answer.id} className="px-3 py-1 text-ink-soft">
            {trial.result && count(warnings(trial.result), "warning", "warnings")}
          </td>
        ))}
      </tr>
      {open && (
        <Opened head={undefined}>
          {answers.map(({ trial }) =>
            trial.result ? (
              <div className="grid gap-2">
                {trial.result.messages.length > 0 && <Messages messages={trial.result.messages} />}
                <Output label="Log" text={trial.result.log} />
              </div>
            ) : undefined,
          )}
        </Opened>
      )}
    </>
  ) : null;
}

const warnings = (result: NonNullable<Trial["result"]>): number =>
  result.messages.filter((m) => m.message.sort === "WARNING").length;
