import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { percent } from "../../ui/format";
import { type Axis, IntervalAxis, IntervalRow, sign } from "../../ui/IntervalRow";
import { type Column, Table } from "../../ui/Table";
import { CandidateName } from "../candidate";

type Report = Schemas["TraitReport"];
type Part = Report["parts"][number];
type Row = Part["rows"][number];
type Cell = Row["cells"][number];

const STANCES: Record<Row["stance"], string> = { CREDIT: "credit", FAULT: "fault" };

/** Each trait by candidate: in how many answers, of how many. */
export function TraitTable({ report, part }: { report: Report; part: Part }) {
  return (
    <Table
      caption="Traits by candidate"
      rows={part.rows}
      rowKey={(row) => row.stance + row.trait}
      saveAs="traits"
      columns={[
        {
          key: "trait",
          head: "Trait",
          rowHeader: true,
          sortBy: (row) => row.trait,
          cell: (row) => <span className="[overflow-wrap:anywhere]">{row.trait}</span>,
        },
        { key: "stance", head: "Said as", sortBy: (row) => row.stance, cell: (row) => STANCES[row.stance] },
        ...report.candidates.map((candidate, index): Column<Row> => ({
          key: candidate.id,
          head: <CandidateName name={candidate.name} index={index} />,
          sortBy: (row) => row.cells[index]?.share.value ?? -1,
          cell: (row) => {
            const cell = row.cells[index];
            return cell && <TraitCell cell={cell} what={`${row.trait}, ${candidate.name}`} />;
          },
        })),
      ]}
    />
  );
}

function TraitCell({ cell, what }: { cell: Cell; what: string }) {
  if (cell.of === 0) {
    return <span className="text-ink-soft">no answer</span>;
  }
  const { low, high } = cell.share;
  return (
    <>
      <span className="font-semibold">{cell.answers}</span> of {cell.of}
      {cell.answers > 0 && low !== undefined && high !== undefined && (
        <span className="block text-sm text-ink-soft">
          {percent(low)} to {percent(high)}
          {cell.agreed > 0 && `; ${cell.agreed} by more than one rater`}
        </span>
      )}
      {cell.examples.length > 0 && (
        <details className="text-sm print:hidden">
          <summary className="text-tarn underline underline-offset-4" aria-label={`Examples: ${what}`}>
            examples
          </summary>
          <ul>
            {cell.examples.map((example) => (
              <li key={example.answerId}>
                <Link to={`../answers/${example.promptId}?answer=${example.answerId}`}>{example.title}</Link>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

const SHARE: Axis = { from: 0, to: 1, decimals: 0, marks: [] };

/** How many of a prompt's key points answers cover, in the mean. */
export function PointsTable({ report, part }: { report: Report; part: Part }) {
  const index = (id: string) => report.candidates.findIndex((c) => c.id === id);
  return (
    <Table
      caption="Key points by candidate"
      rows={part.points}
      rowKey={(cell) => cell.candidateId}
      saveAs="key-points"
      columns={[
        {
          key: "name",
          head: "Candidate",
          rowHeader: true,
          cell: (cell) => (
            <CandidateName
              name={report.candidates[index(cell.candidateId)]?.name ?? ""}
              index={index(cell.candidateId)}
            />
          ),
        },
        {
          key: "picture",
          head: <IntervalAxis axis={SHARE} />,
          cell: (cell) => <IntervalRow figure={cell.share} axis={SHARE} {...sign(index(cell.candidateId))} />,
        },
        {
          key: "share",
          head: "Covered, interval",
          sortBy: (cell) => cell.share.value ?? -1,
          cell: ({ share }) =>
            share.value === undefined ? (
              <span className="text-ink-soft">none: {share.undefinedReason}</span>
            ) : (
              <>
                <strong className="font-semibold">{percent(share.value)}</strong>{" "}
                {share.low !== undefined && share.high !== undefined && (
                  <span className="text-ink-soft">
                    {percent(share.low)} to {percent(share.high)}
                  </span>
                )}
              </>
            ),
        },
        { key: "of", head: "Answers", align: "right", cell: (cell) => cell.of },
      ]}
    />
  );
}
