import type { Schemas } from "../../api/client";
import { percent } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { Table } from "../../ui/Table";
import { useStudy } from "../study";

type Report = Schemas["AgreementReport"];

export function SeveritySection({ report }: { report: Report }) {
  const leads = useStudy().role === "LEAD";
  const far = Math.max(
    1,
    ...report.severity.flatMap((r) => [Math.abs(r.severity.low ?? 0), Math.abs(r.severity.high ?? 0)]),
  );
  const edge = Math.ceil(far * 2) / 2;
  const axis: Axis = { from: -edge, to: edge, decimals: 1, marks: [{ at: 0, label: "kind ← 0 → strict" }] };
  return (
    <section id="severity-table" className="mt-8 scroll-mt-4">
      <h2>{leads ? "Who is strict, who is kind" : "Strict or kind: your own place"}</h2>
      {report.severity.length === 0 ? (
        <p>No sheet is sent in yet.</p>
      ) : (
        <Table
          caption="Severity of raters"
          saveAs="severity"
          rows={report.severity}
          rowKey={(r) => r.raterId}
          columns={[
            { key: "name", head: "Rater", rowHeader: true, sortBy: (r) => r.name, cell: (r) => r.name },
            {
              key: "picture",
              head: <IntervalAxis axis={axis} />,
              cell: (r) => <IntervalRow figure={r.severity} axis={axis} />,
            },
            {
              key: "severity",
              head: "Levels below the others",
              sortBy: (r) => r.severity.value ?? 0,
              cell: (r) => <FigureText figure={r.severity} decimals={2} />,
            },
            {
              key: "ends",
              head: "Grades at the ends",
              align: "right",
              sortBy: (r) => r.shareAtEnds,
              cell: (r) => percent(r.shareAtEnds),
            },
            { key: "grades", head: "Grades", align: "right", sortBy: (r) => r.grades, cell: (r) => r.grades },
          ]}
        />
      )}
      <p className="mt-1 text-sm text-ink-soft">
        On the same answers, by least squares; 0 is the average rater. Standings are adjusted for it.
      </p>
    </section>
  );
}
