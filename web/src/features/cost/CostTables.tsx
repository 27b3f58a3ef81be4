import type { Schemas } from "../../api/client";
import { count, duration, fixed, money } from "../../ui/format";
import { type FigureLike, FigureText } from "../../ui/IntervalRow";
import { type Column, Table } from "../../ui/Table";
import { CandidateName } from "../candidate";

type Report = Schemas["CostReport"];
type Row = Report["rows"][number];
type Team = Schemas["TeamCostReport"];

const NOT_KNOWN = "not known";

function Measured({ figure, written }: { figure: FigureLike; written: (value: number) => string }) {
  if (figure.value === undefined) {
    return <span className="text-ink-soft">{NOT_KNOWN}</span>;
  }
  return (
    <span className="whitespace-nowrap">
      {written(figure.value)}
      {figure.low !== undefined && figure.high !== undefined && (
        <span className="block text-sm text-ink-soft">
          {written(Math.max(0, figure.low))} to {written(figure.high)}
        </span>
      )}
    </span>
  );
}

function Named({ name, index, ruledOut }: { name: string; index: number; ruledOut: boolean }) {
  return (
    <>
      <CandidateName name={name} index={index} />
      {ruledOut && <span className="block text-sm text-ink-soft">ruled out by a fact</span>}
    </>
  );
}

/** What each candidate’s answers took, with what was paid for nothing. */
export function TakenTable({ report }: { report: Report }) {
  return (
    <Table
      caption="What answers took, by candidate"
      rows={report.rows}
      rowKey={(r) => r.candidateId}
      saveAs="cost-and-time"
      columns={[
        {
          key: "name",
          head: "Candidate",
          rowHeader: true,
          sortBy: (r) => r.name,
          cell: (r) => <Named {...r} index={report.rows.indexOf(r)} />,
        },
        {
          key: "score",
          head: "Score, interval",
          sortBy: (r) => r.score.value ?? -1,
          cell: (r) => <FigureText figure={r.score} decimals={1} />,
        },
        ...measuredColumns((value) => money(value, report.currency ?? "")),
      ]}
    />
  );
}

/** Of figures that are known or not, the unknown last. */
function figureColumn(key: string, head: string, of: (row: Row) => FigureLike, written: (value: number) => string) {
  return {
    key,
    head,
    align: "right" as const,
    sortBy: (r: Row) => of(r).value ?? Infinity,
    cell: (r: Row) => <Measured figure={of(r)} written={written} />,
  };
}

function measuredColumns(amount: (value: number) => string): Column<Row>[] {
  return [
    figureColumn("cost", "Cost of a prompt", (r) => r.cost, amount),
    figureColumn("time", "Time of an answer", (r) => r.time, duration),
    {
      key: "works",
      head: "Work as they are",
      align: "right",
      sortBy: (r) => r.working / Math.max(1, r.judged),
      cell: (r) =>
        r.judged === 0 ? <span className="text-ink-soft">nobody said</span> : `${r.working} of ${r.judged}`,
    },
    figureColumn("one", "One that works", (r) => r.oneThatWorks, amount),
    {
      key: "empty",
      head: "Left nothing",
      align: "right",
      sortBy: (r) => r.empty,
      cell: (r) => <Wasted row={r} amount={amount} />,
    },
  ];
}

function Wasted({ row, amount }: { row: Row; amount: (value: number) => string }) {
  if (row.empty === 0) {
    return <>none</>;
  }
  return (
    <>
      {count(row.empty, "answer", "answers")}
      {row.wasted.value !== undefined && (
        <span className="block text-sm text-ink-soft">paid {amount(row.wasted.value)}</span>
      )}
    </>
  );
}

const WAYS: Record<Schemas["PaidView"]["way"], string> = {
  TOKENS: "by tokens",
  PLAN: "by its plan",
  PLAN_AND_TOKENS: "by its plan, and by tokens what the cap stops",
};

type Way = { row: Team["rows"][number]; index: number; way: Schemas["PaidView"] | undefined };

/** What a month costs, in each way in which a candidate is sold. */
export function MonthTable({ team }: { team: Team }) {
  const ways = team.rows.flatMap((row, index): Way[] =>
    row.ways.length === 0 ? [{ row, index, way: undefined }] : row.ways.map((way) => ({ row, index, way })),
  );
  return (
    <Table
      caption="A month for the team"
      rows={ways}
      rowKey={({ row, way }) => `${row.candidateId} ${way?.way ?? ""}`}
      saveAs="a-month-for-the-team"
      columns={[
        {
          key: "name",
          head: "Candidate",
          rowHeader: true,
          sortBy: (w) => w.row.name,
          cell: (w) => <Named {...w.row} index={w.index} />,
        },
        { key: "way", head: "Paid for", cell: (w) => <PaidFor {...w} /> },
        {
          key: "month",
          head: "A month",
          align: "right",
          sortBy: (w) => w.way?.monthly ?? Infinity,
          cell: (w) => (w.way ? money(w.way.monthly, w.way.currency) : NOT_KNOWN),
        },
        {
          key: "stopped",
          head: "Tasks that the cap stops",
          align: "right",
          sortBy: (w) => w.way?.stopped ?? 0,
          cell: (w) =>
            w.way === undefined || w.way.stopped === 0
              ? "none"
              : `${fixed(w.way.stopped, 0)} of ${fixed(team.tasks, 0)}`,
        },
        {
          key: "task",
          head: "For a task that gets done",
          align: "right",
          sortBy: (w) => w.way?.aTask ?? Infinity,
          cell: (w) => (w.way?.aTask === undefined ? "–" : money(w.way.aTask, w.way.currency)),
        },
      ]}
    />
  );
}

function PaidFor({ row, way }: Way) {
  return (
    <>
      {way === undefined ? <span className="text-ink-soft">no price is known</span> : WAYS[way.way]}
      {row.capUncounted && (
        <span className="block text-sm text-ink-soft">
          its plan is not priced: the cap is in tokens, and those of its answers were not counted
        </span>
      )}
    </>
  );
}
