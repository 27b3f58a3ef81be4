import type { Schemas } from "../../api/client";
import { fixed } from "../../ui/format";
import { Table } from "../../ui/Table";

type Page = Schemas["CalibrationPage"];
type View = Schemas["DistanceView"];

function Distance({ view }: { view: View | undefined }) {
  return view === undefined ? (
    <span className="text-ink-soft">–</span>
  ) : (
    <>
      <span className="whitespace-nowrap">{fixed(view.apart, 0)} %</span>{" "}
      {Math.round(view.above) !== 0 && (
        <span className="text-sm whitespace-nowrap text-ink-soft">
          {fixed(Math.abs(view.above), 0)} % {view.above > 0 ? "above" : "below"}
        </span>
      )}
    </>
  );
}

/** How far each rater lies from the others and from the levels at which answers should stand. */
export function DistanceTable({ page }: { page: Page }) {
  const again = page.course.again !== undefined;
  const columns = [
    { key: "others", head: "From the others", pair: (d: Page["distances"][number]) => d.fromOthers },
    { key: "reference", head: "From the reference", pair: (d: Page["distances"][number]) => d.fromReference },
  ];
  return (
    <section className="min-w-0">
      <h2>{page.leads ? "Distances" : "How far you lie from the others"}</h2>
      <Table
        caption="Distance of raters from the others and from the reference, in percent of the scale"
        saveAs={`calibration-${page.summary.number}-distances`}
        rows={page.distances}
        rowKey={(d) => d.name}
        columns={[
          { key: "name", head: "Rater", rowHeader: true, cell: (d) => (d.own ? `${d.name} (you)` : d.name) },
          ...columns.flatMap(({ key, head, pair }) => [
            {
              key,
              head,
              cell: (d: Page["distances"][number]) => <Distance view={pair(d).before} />,
            },
            ...(again
              ? [
                  {
                    key: `${key} after`,
                    head: `${head}, again`,
                    cell: (d: Page["distances"][number]) => <Distance view={pair(d).after} />,
                  },
                ]
              : []),
          ]),
        ]}
      />
      <p className="mt-1 text-sm text-ink-soft">
        Mean over the answers, in percent of the scale: how far apart, and how far of that above or below. The reference
        is what people who know said beforehand, and elsewhere what the talk settled on.
      </p>
    </section>
  );
}
