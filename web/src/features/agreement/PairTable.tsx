import { useState } from "react";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { fixed } from "../../ui/format";

type Report = Schemas["AgreementReport"];

/** Weighted kappa of each two raters as a half table: quadratic above, linear below it, with the count. */
export function PairTable({ report }: { report: Report }) {
  const [chosen, setChosen] = useState(report.criteria[0]?.criterionId);
  const pairs = report.pairs.filter((p) => p.criterionId === chosen);
  if (report.raters.length < 2) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2>Each two raters</h2>
      <div role="group" aria-label="Criterion" className="mt-1 mb-2 flex gap-1">
        {report.criteria.map((c) => (
          <button
            key={c.criterionId}
            type="button"
            aria-pressed={c.criterionId === chosen}
            onClick={() => setChosen(c.criterionId)}
            className={classes(
              "border-b-2 px-2 py-0.5",
              c.criterionId === chosen ? "border-heather font-semibold" : "border-transparent text-ink-soft",
            )}
          >
            {c.name}
          </button>
        ))}
      </div>
      <PairsOfRaters raters={report.raters} pairs={pairs} />
      <p className="mt-1 text-sm text-ink-soft">
        Cohen’s κ with quadratic weights; in brackets with linear weights, then the number of answers that both graded.
      </p>
    </section>
  );
}

function Pair({ pair }: { pair: Report["pairs"][number] | undefined }) {
  if (!pair || pair.answers === 0) {
    return <span className="text-sm text-ink-soft">none in common</span>;
  }
  if (pair.quadratic.value === undefined) {
    return <span className="text-sm text-ink-soft">none: {pair.quadratic.undefinedReason}</span>;
  }
  return (
    <>
      <strong className="font-semibold">{fixed(pair.quadratic.value, 2)}</strong>{" "}
      <span className="text-sm text-ink-soft">
        ({pair.linear.value === undefined ? "–" : fixed(pair.linear.value, 2)}) {pair.answers}
      </span>
    </>
  );
}

type PairsOfRatersProps = { raters: Report["raters"]; pairs: Report["pairs"] };

/** Every two raters once, below the diagonal. */
function PairsOfRaters({ raters, pairs }: PairsOfRatersProps) {
  const pairOf = (a: string, b: string) =>
    pairs.find(
      (p) => (p.firstRaterId === a && p.secondRaterId === b) || (p.firstRaterId === b && p.secondRaterId === a),
    );
  const columns = raters.slice(0, -1);
  return (
    <div className="overflow-x-auto" role="region" aria-label="Weighted kappa of each two raters" tabIndex={0}>
      <table className="border-collapse text-left">
        <caption className="sr-only">Weighted kappa of each two raters</caption>
        <thead>
          <tr>
            <td />
            {columns.map((r) => (
              <th key={r.raterId} scope="col" className="px-3 py-1 text-sm font-medium text-ink-soft">
                {r.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {raters.slice(1).map((row, i) => (
            <tr key={row.raterId} className="border-t border-rule">
              <th scope="row" className="py-1 pr-3 text-sm font-medium text-ink-soft">
                {row.name}
              </th>
              {columns.slice(0, i + 1).map((column) => (
                <td key={column.raterId} className="px-3 py-1 whitespace-nowrap">
                  <Pair pair={pairOf(row.raterId, column.raterId)} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
