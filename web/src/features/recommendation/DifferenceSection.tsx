import type { Schemas } from "../../api/client";
import { fixed } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { type Column, Table } from "../../ui/Table";
import { CandidateOf } from "./CandidateOf";

type Report = Schemas["RecommendationReport"];

/** How far each two candidates are apart. */
export function DifferenceSection({ report }: { report: Report }) {
  if (report.differences.length === 0) {
    return null;
  }
  const far = Math.max(
    report.rule.terms.margin,
    ...report.differences.flatMap((d) => [
      Math.abs(d.adjustedDifference.low ?? 0),
      Math.abs(d.adjustedDifference.high ?? 0),
    ]),
  );
  const edge = Math.ceil(far / 10) * 10;
  const axis: Axis = {
    from: -edge,
    to: edge,
    decimals: 0,
    marks: marks(report.rule.terms.margin, edge),
  };
  return (
    <section className="mt-8">
      <h2>Differences</h2>
      <Table
        caption="Differences between each two candidates"
        rows={report.differences}
        rowKey={(d) => `${d.higherId} ${d.lowerId}`}
        columns={differenceColumns(report, axis)}
      />
      <p className="mt-1 text-sm text-ink-soft">
        On the prompts and by the raters that both have. Intervals are corrected (Holm) for the number of pairs; each
        holds by itself, not all at once. They are for other prompts and other raters of the sort; what was found here,
        on these prompts by these raters, is surer, and is true of this study alone.
      </p>
    </section>
  );
}

/** Where both would be printed over each other, one label says both. */
function marks(margin: number, edge: number): Axis["marks"] {
  const words = `margin ${fixed(margin, 1)}`;
  return margin < edge / 3
    ? [
        { at: 0, label: "" },
        { at: margin, label: `0, ${words}` },
      ]
    : [
        { at: 0, label: "0" },
        { at: margin, label: words },
      ];
}

function differenceColumns(report: Report, axis: Axis): Column<Report["differences"][number]>[] {
  return [
    {
      key: "pair",
      head: "Higher, lower",
      rowHeader: true,
      cell: (d) => (
        <span className="inline-flex flex-wrap gap-x-2">
          <CandidateOf report={report} id={d.higherId} /> over <CandidateOf report={report} id={d.lowerId} />
        </span>
      ),
    },
    {
      key: "picture",
      head: <IntervalAxis axis={axis} />,
      cell: (d) => <IntervalRow figure={d.adjustedDifference} axis={axis} />,
    },
    {
      key: "difference",
      head: "Points, corrected interval",
      cell: (d) => <FigureText figure={d.adjustedDifference} decimals={1} />,
    },
    {
      key: "here",
      head: "Here alone",
      cell: (d) => <FigureText figure={d.here} decimals={1} />,
    },
    {
      key: "p",
      head: "p, corrected",
      align: "right",
      cell: (d) => (d.p.value === undefined ? "–" : d.p.value < 0.01 ? "< 0.01" : fixed(d.p.value, 2)),
    },
  ];
}
