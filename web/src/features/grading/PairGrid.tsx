import type { CSSProperties } from "react";
import type { Schemas } from "../../api/client";

/** How many answers each two raters share, as a triangle; the number stands in each cell, the shade only helps. */
export function PairGrid({ plan }: { plan: Schemas["PlanView"] }) {
  const { raters, pairs } = plan;
  const most = Math.max(1, ...pairs.map((p) => p.answers));
  const shared = (a: string, b: string) =>
    pairs.find((p) => (p.firstId === a && p.secondId === b) || (p.firstId === b && p.secondId === a))?.answers ?? 0;
  const shade = (n: number): CSSProperties & Record<"--share", number> => ({ "--share": n / most });
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Answers that each two raters share">
      <table className="border-collapse text-sm">
        <caption className="mb-1 text-left text-ink-soft">Answers that each two raters share</caption>
        <thead>
          <tr>
            <td />
            {raters.slice(0, -1).map((r) => (
              <th key={r.raterId} scope="col" className="max-w-24 truncate px-2 py-1 text-left font-medium">
                {r.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {raters.slice(1).map((row, i) => (
            <tr key={row.raterId}>
              <th scope="row" className="max-w-40 truncate py-1 pr-3 text-left font-medium">
                {row.name}
              </th>
              {raters.slice(0, i + 1).map((column) => (
                <td
                  key={column.raterId}
                  style={shade(shared(row.raterId, column.raterId))}
                  className="level-ramp border border-rule px-2 py-1 text-right tabular-nums"
                >
                  {shared(row.raterId, column.raterId)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
