import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { count } from "../../ui/format";
import { Table } from "../../ui/Table";
import { LevelMark } from "../rubric";
import type { Which } from "./api";

type Page = Schemas["CalibrationPage"];
type Cell = Schemas["CellLevels"];
type Answer = Page["answers"][number];

/** From this distance in levels on, raters are parted. */
const PARTED = 2;

/** What everybody gave, answer by criterion; a cell opens the answer and the talk about it. */
export function Comparison({ page, which }: { page: Page; which: Which }) {
  const used = page.criteria.filter((c) => page.answers.some((a) => a.cells.some((cell) => cell.criterion === c.key)));
  return (
    <section className="mt-6">
      <h2>{page.raters.length === 0 ? "The answers" : "What everybody gave"}</h2>
      <p className="mb-2 text-sm text-ink-soft">
        {page.raters.length === 0
          ? "Somebody who knows may say now at which level each should stand. Raters see it once all are in."
          : `In the order ${page.raters.join(", ")}. Choose a cell to read the answer and talk about it.`}
      </p>
      <Table
        caption="Levels by answer and criterion"
        saveAs={`calibration-${which.number}`}
        rows={page.answers}
        rowKey={(a) => String(a.place)}
        columns={[
          {
            key: "answer",
            head: "Answer",
            rowHeader: true,
            cell: (a) => <AnswerName answer={a} which={which} />,
          },
          ...used.map((criterion) => ({
            key: criterion.key,
            head: criterion.name,
            sortBy: (a: Answer) => -(cellOf(a, criterion.key)?.distance ?? 0),
            cell: (a: Answer) => {
              const cell = cellOf(a, criterion.key);
              return cell ? (
                <CellLink answer={a} cell={cell} criterion={criterion} which={which} />
              ) : (
                <span className="text-ink-soft">–</span>
              );
            },
          })),
        ]}
      />
    </section>
  );
}

const cellOf = (answer: Answer, criterion: string) => answer.cells.find((c) => c.criterion === criterion);

function AnswerName({ answer, which }: { answer: Answer; which: Which }) {
  return (
    <Link
      to={`/calibrations/${which.studyId}/${which.number}/${answer.place}`}
      className="text-tarn underline underline-offset-4 [overflow-wrap:anywhere]"
    >
      {answer.prompt}, answer {answer.ofPrompt}
    </Link>
  );
}

type CellLinkProps = { answer: Answer; cell: Cell; criterion: Schemas["RulerCriterion"]; which: Which };

function CellLink({ answer, cell, criterion, which }: CellLinkProps) {
  const { highestLevel: highest } = criterion;
  const agreed = cell.settled ?? cell.reference;
  return (
    <Link
      to={`/calibrations/${which.studyId}/${which.number}/${answer.place}?criterion=${criterion.key}`}
      className={classes(
        "inline-block rounded-leaf border px-1.5 py-0.5 no-underline",
        cell.distance >= PARTED ? "border-ochre" : "border-transparent hover:border-edge",
      )}
    >
      <span className="sr-only">
        {answer.prompt}, answer {answer.ofPrompt}, {criterion.name}:
      </span>
      <Levels levels={cell.levels} highest={highest} />{" "}
      {cell.after.length > 0 && (
        <span className="mt-0.5 block whitespace-nowrap">
          <Levels levels={cell.after} highest={highest} /> <span className="text-sm text-ink-soft">again</span>
        </span>
      )}
      {cell.levels.length === 0 && agreed === undefined && <span className="text-sm">note a reference</span>}
      <span className="flex gap-x-2 text-sm">
        {agreed !== undefined && (
          <span>
            {cell.settled === undefined ? "reference" : "settled"} {agreed}
          </span>
        )}
        {cell.words > 0 && <span className="text-ink-soft">{count(cell.words, "note", "notes")}</span>}
      </span>
    </Link>
  );
}

function Levels({ levels, highest }: { levels: (number | null | undefined)[]; highest: number }) {
  return (
    <span className="inline-flex gap-0.5">
      {levels.map((level, i) => (
        <LevelMark key={i} level={level ?? undefined} notApplicable={level == null} highest={highest} />
      ))}
    </span>
  );
}
