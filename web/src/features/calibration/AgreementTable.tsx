import type { Schemas } from "../../api/client";
import { fixed } from "../../ui/format";
import { Table } from "../../ui/Table";

type Page = Schemas["CalibrationPage"];
type Figure = Schemas["Figure"];

/** A value with its interval, or why there is none. */
function Value({ figure }: { figure: Figure | undefined }) {
  if (!figure) {
    return <span className="text-ink-soft">–</span>;
  }
  if (figure.value === undefined) {
    return <span className="text-sm text-ink-soft">none: {figure.undefinedReason}</span>;
  }
  return (
    <>
      {fixed(figure.value, 2)}
      {figure.low !== undefined && figure.high !== undefined && (
        <span className="ml-1 text-sm whitespace-nowrap text-ink-soft">
          ({fixed(figure.low, 2)} to {fixed(figure.high, 2)})
        </span>
      )}
    </>
  );
}

const reachedWords = (reached: boolean | undefined) =>
  reached === undefined ? "not looked at" : reached ? "yes" : "no";

/** Agreement before anybody saw another's grades, and after the talk: only the first counts for the floor. */
export function AgreementTable({ page }: { page: Page }) {
  const again = page.agreement.some((a) => a.after);
  return (
    <section className="min-w-0">
      <h2>Agreement</h2>
      <Table
        caption="Agreement by criterion, before the talk and after"
        saveAs={`calibration-${page.summary.number}-agreement`}
        rows={page.agreement}
        rowKey={(a) => a.criterion}
        columns={[
          { key: "name", head: "Criterion", rowHeader: true, cell: (a) => a.name },
          { key: "before", head: "Before the talk", cell: (a) => <Value figure={a.before} /> },
          { key: "floor", head: "Floor", align: "right", cell: (a) => fixed(a.floor, 2) },
          { key: "reached", head: "Reached", cell: (a) => reachedWords(a.reached) },
          ...(again
            ? [{ key: "after", head: "After it", cell: (a: Page["agreement"][number]) => <Value figure={a.after} /> }]
            : []),
        ]}
      />
      <p className="mt-1 text-sm text-ink-soft">
        The coefficient that the rule looks at, with its interval from leaving answers out one by one. The floor is held
        against the value itself: from so few prompts no interval would reach it. Grades given after the talk count for
        nothing, as they were talked into one.
      </p>
    </section>
  );
}
