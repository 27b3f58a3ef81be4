import type { Schemas } from "../../api/client";
import { duration, money } from "../../ui/format";
import { Table } from "../../ui/Table";
import { CandidateOf } from "./CandidateOf";

type Report = Schemas["RecommendationReport"];

/** Time and cost of each candidate's answers. */
export function MeasureSection({ report }: { report: Report }) {
  return (
    <section className="mt-8">
      <h2>What the answers took</h2>
      <Table
        caption="Time and cost by candidate"
        rows={report.measures}
        rowKey={(m) => m.candidateId}
        columns={[
          {
            key: "name",
            head: "Candidate",
            rowHeader: true,
            cell: (m) => <CandidateOf report={report} id={m.candidateId} />,
          },
          { key: "complete", head: "Complete answers", align: "right", cell: (m) => `${m.complete} of ${m.answers}` },
          {
            key: "time",
            head: "Median time",
            align: "right",
            sortBy: (m) => m.medianTotalMs ?? 0,
            cell: (m) => (m.medianTotalMs === undefined ? "not measured" : duration(m.medianTotalMs)),
          },
          {
            key: "tokens",
            head: "Median tokens out",
            align: "right",
            sortBy: (m) => m.medianOutputTokens ?? 0,
            cell: (m) => m.medianOutputTokens ?? "not measured",
          },
          {
            key: "mean",
            head: "Cost a prompt",
            align: "right",
            sortBy: (m) => meanCost(report, m.candidateId) ?? 0,
            cell: (m) => {
              const mean = meanCost(report, m.candidateId);
              return mean === undefined ? "not known" : money(mean, report.costs.currency ?? "");
            },
          },
          {
            key: "cost",
            head: "Cost of all",
            align: "right",
            sortBy: (m) => m.totalCost ?? 0,
            cell: (m) =>
              m.totalCost === undefined || m.currency === undefined ? "not known" : money(m.totalCost, m.currency),
          },
        ]}
      />
    </section>
  );
}

/** Over the prompts that all contenders answered, so that it can be compared. */
function meanCost(report: Report, candidateId: string): number | undefined {
  return report.costs.means.find((m) => m.candidateId === candidateId)?.mean;
}
