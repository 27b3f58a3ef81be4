import type { Schemas } from "../../api/client";
import { percent } from "../../ui/format";
import { type Column, Table } from "../../ui/Table";
import { CandidateName } from "../candidate";

type Report = Schemas["EvidenceReport"];
type Row = Schemas["CandidateEvidence"];

type WorksTableProps = { report: Report; part: Schemas["EvidencePart"] };

const number = (key: string, head: string, of: (row: Row) => number): Column<Row> => ({
  key,
  head,
  align: "right",
  sortBy: of,
  cell: of,
});

const share = (key: string, head: string, of: (row: Row) => [number, Schemas["Figure"]]): Column<Row> => ({
  key,
  head,
  align: "right",
  sortBy: (row) => of(row)[1].value ?? -1,
  cell: (row) => <Share hits={of(row)[0]} tried={row.tried} figure={of(row)[1]} />,
});

/** What works by trial, by candidate: counts with intervals, the unit being the answer. */
export function WorksTable({ report, part }: WorksTableProps) {
  const place = (row: Row) => report.candidates.findIndex((c) => c.candidateId === row.candidateId);
  return (
    <Table
      caption={`What works by trial${part.kind === "" ? "" : `, ${part.kind}`}`}
      rows={part.candidates}
      rowKey={(row) => row.candidateId}
      saveAs="works-by-trial"
      columns={[
        {
          key: "name",
          head: "Candidate",
          rowHeader: true,
          sortBy: (row) => report.candidates[place(row)]?.name ?? "",
          cell: (row) => <CandidateName name={report.candidates[place(row)]?.name ?? ""} index={place(row)} />,
        },
        share("as-is", "Work as they are", (row) => [row.worksAsIs, row.asIs]),
        share("repaired", "With repairs", (row) => [row.worksAsIs + row.worksAfterRepair, row.withRepairs]),
        number("not", "Do not", (row) => row.worksNot),
        number("flaky", "Now so, now so", (row) => row.flaky),
        number("untried", "Not tried", (row) => row.answers - row.tried),
        ...(part.candidates.some((c) => c.breaking > 0)
          ? [number("breaking", "Break a test", (row) => row.breaking)]
          : []),
        number("warnings", "Warnings", (row) => row.warnings),
        number("deprecated", "Of these, outdated", (row) => row.deprecations),
      ]}
    />
  );
}

function Share({ hits, tried, figure }: { hits: number; tried: number; figure: Schemas["Figure"] }) {
  if (figure.value === undefined) {
    return <span className="text-ink-soft">none tried</span>;
  }
  return (
    <span className="whitespace-nowrap">
      {hits} of {tried}
      {figure.low !== undefined && figure.high !== undefined && (
        <span className="block text-sm text-ink-soft">
          {percent(figure.low)} to {percent(figure.high)}
        </span>
      )}
    </span>
  );
}
