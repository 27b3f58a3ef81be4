import type { Schemas } from "../../api/client";
import { fixed, percent } from "../../ui/format";
import { FigureText } from "../../ui/IntervalRow";
import { type Column, Table } from "../../ui/Table";

type Report = Schemas["AgreementReport"];
type Self = Report["selfAgreement"][number];

/** How far raters agree with themselves, where answers came to them twice. */
export function SelfSection({ report }: { report: Report }) {
  if (report.selfAgreement.length === 0) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2>With themselves</h2>
      <p className="mb-1 text-sm text-ink-soft">
        First against second grades of answers that came to a rater twice, unannounced. Second grades count for nothing
        else.
      </p>
      <Table
        caption="Agreement of raters with themselves"
        saveAs="self-agreement"
        rows={report.selfAgreement}
        rowKey={(s) => s.raterId}
        columns={[
          { key: "name", head: "Rater", rowHeader: true, sortBy: (s) => s.name, cell: (s) => s.name },
          { key: "grades", head: "Pairs of grades", align: "right", cell: (s) => s.grades },
          {
            key: "apart",
            head: "Came again after",
            cell: (s) => (
              <span className="text-sm">
                {fixed(s.sheetsApart, 0)} sheets, {fixed(s.daysApart, 1)} days
              </span>
            ),
          },
          shareColumn("exact", "Same level", (s: Self) => s.exact),
          shareColumn("within", "Within one", (s: Self) => s.withinOne),
          {
            key: "kappa",
            head: "κ, quadratic",
            align: "right",
            cell: (s) => <FigureText figure={s.kappa} decimals={2} />,
          },
        ]}
      />
    </section>
  );
}

export function shareColumn<Row>(key: string, head: string, of: (row: Row) => Schemas["Figure"]): Column<Row> {
  return {
    key,
    head,
    align: "right",
    cell: (row) => {
      const share = of(row).value;
      return share === undefined ? "–" : percent(share);
    },
  };
}
