import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { fixed, percent } from "../../ui/format";
import { type Column, Table } from "../../ui/Table";
import { CandidateName } from "../candidate";
import { TURN_VERDICTS } from "./words";

type Report = Schemas["WorkReport"];
type Part = Report["parts"][number];
type Row = Part["rows"][number];

function nameColumn(report: Report): Column<Row> {
  const place = (row: Row) => report.candidates.findIndex((c) => c.id === row.candidateId);
  return {
    key: "name",
    head: "Candidate",
    rowHeader: true,
    sortBy: (r) => report.candidates[place(r)]?.name ?? "",
    cell: (r) => <CandidateName name={report.candidates[place(r)]?.name ?? ""} index={place(r)} />,
  };
}

const counted = (key: string, head: string, of: (row: Row) => number): Column<Row> => ({
  key,
  head,
  align: "right",
  sortBy: of,
  cell: (r) => of(r),
});

type TableProps = { report: Report; part: Part };

export function WorksTable({ report, part }: TableProps) {
  return (
    <Table
      caption="How many answers work, by raters’ word"
      rows={part.rows}
      rowKey={(r) => r.candidateId}
      saveAs="does-it-work"
      columns={[
        nameColumn(report),
        {
          key: "share",
          head: "Work as they are",
          align: "right",
          sortBy: (r) => r.share.value ?? -1,
          cell: (r) => <Share row={r} />,
        },
        counted("repaired", "After a trivial repair", (r) => r.repaired),
        counted("not", "Do not", (r) => r.not),
        counted("gaveUp", "Gave up", (r) => r.gaveUp),
        counted("saidDone", "Say done, are not", (r) => r.saidDone),
        counted("split", "Raters split", (r) => r.split),
        counted("untried", "Nobody tried", (r) => r.answers - r.said),
      ]}
    />
  );
}

function Share({ row: { asIs, said, share } }: { row: Row }) {
  if (share.value === undefined) {
    return <span className="text-ink-soft">nobody said</span>;
  }
  return (
    <span className="whitespace-nowrap">
      {asIs} of {said}
      {share.low !== undefined && share.high !== undefined && (
        <span className="block text-sm text-ink-soft">
          {percent(share.low)} to {percent(share.high)}
        </span>
      )}
    </span>
  );
}

/** After how many follow-ups answers came to work, and what follow-ups did. */
export function TurnsTable({ report, part }: TableProps) {
  const longest = Math.max(0, ...part.rows.map((r) => r.turns.toWork.length));
  return (
    <Table
      caption="After how many follow-ups answers do what was asked"
      rows={part.rows}
      rowKey={(r) => r.candidateId}
      saveAs="follow-ups-to-a-working-answer"
      columns={[
        nameColumn(report),
        ...Array.from({ length: longest }, (_, k) =>
          counted(`after-${k}`, k === 0 ? "At once" : `After ${k}`, (r) => r.turns.toWork[k] ?? 0),
        ),
        counted("never", "Never", (r) => r.turns.never),
        counted("unknown", "Not known", (r) => r.turns.unknown),
        {
          key: "mean",
          head: "Follow-ups, mean",
          align: "right",
          sortBy: (r) => r.turns.mean.value ?? Infinity,
          cell: (r) => (r.turns.mean.value === undefined ? "–" : fixed(r.turns.mean.value, 1)),
        },
        counted("mended", "Mended", (r) => r.turns.mended),
        counted("broke", "Broke", (r) => r.turns.broke),
        counted("stuck", "Stuck", (r) => r.turns.stuck),
      ]}
    />
  );
}

type Course = Report["courses"][number];

/** One answer that was followed up a row, with a mark a reply. */
export function CoursesTable({ report }: { report: Report }) {
  const place = (course: Course) => report.candidates.findIndex((c) => c.id === course.candidateId);
  const name = (course: Course) => report.candidates[place(course)]?.name ?? "";
  return (
    <Table
      caption="Answers that were followed up, from turn to turn"
      rows={report.courses}
      rowKey={(c) => c.answerId}
      saveAs="from-turn-to-turn"
      columns={[
        {
          key: "title",
          head: "Prompt",
          rowHeader: true,
          sortBy: (c) => c.title,
          cell: (c) => <Link to={`../answers/${c.promptId}?answer=${c.answerId}`}>{c.title}</Link>,
        },
        {
          key: "name",
          head: "Candidate",
          sortBy: name,
          cell: (c) => (
            <>
              <CandidateName name={name(c)} index={place(c)} />
              {c.attempt > 1 && <span className="text-sm text-ink-soft"> attempt {c.attempt}</span>}
            </>
          ),
        },
        { key: "turns", head: "First reply, then follow-ups", cell: (c) => <Marks course={c} /> },
      ]}
    />
  );
}

type Mark = Course["marks"][number];

const SHORT: Record<NonNullable<Mark["verdict"]>, string> = {
  DOES: "does",
  DOES_NOT: "does not",
  GAVE_UP: "gave up",
  SAID_DONE: "says done",
};

/** Each reply in a word; what changed between two stands between them. */
function Marks({ course }: { course: Course }) {
  return (
    <ol className="flex flex-wrap items-baseline gap-x-1.5">
      {course.marks.map((mark, i) => (
        <li key={i} title={mark.verdict && TURN_VERDICTS[mark.verdict]}>
          {i > 0 && <span className="text-sm text-ink-soft">{between(course.marks[i - 1], mark)} </span>}
          <span className={mark.verdict === "DOES" ? "font-semibold text-lichen" : ""}>
            {mark.verdict === undefined ? <span className="text-ink-soft">nobody said</span> : SHORT[mark.verdict]}
          </span>
          {mark.byRaters && <span className="text-sm text-ink-soft"> (raters)</span>}
        </li>
      ))}
    </ol>
  );
}

function between(before: Mark | undefined, after: Mark): string {
  if (before?.verdict === undefined || after.verdict === undefined) {
    return "→";
  }
  const [did, does] = [before.verdict === "DOES", after.verdict === "DOES"];
  return did ? (does ? "→ held:" : "→ broke:") : does ? "→ mended:" : "→ stuck:";
}
