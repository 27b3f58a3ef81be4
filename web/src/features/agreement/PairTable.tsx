import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { fixed } from "../../ui/format";
import { useStudy } from "../study";
import { type CrossedPair, Crossing } from "./Crossing";

type Report = Schemas["AgreementReport"];

type PairTableProps = { report: Report; criterion: Report["criteria"][number] | undefined };

/** Weighted kappa of each two raters as a half table: quadratic above, linear below it, with the count. */
export function PairTable({ report, criterion }: PairTableProps) {
  const [address, setAddress] = useSearchParams();
  const chosen = criterion?.criterionId ?? "";
  const crossed = crossedPair(address, chosen);
  const leads = useStudy().role === "LEAD";
  const set = (changes: Record<string, string | undefined>) => {
    const next = new URLSearchParams(address);
    Object.entries(changes).forEach(([name, value]) =>
      value === undefined ? next.delete(name) : next.set(name, value),
    );
    setAddress(next, { replace: true, preventScrollReset: true });
  };
  const nameOf = (id: string) => report.raters.find((r) => r.raterId === id)?.name ?? "";
  const pairs = report.pairs.filter((p) => p.criterionId === chosen);
  if (report.raters.length < 2) {
    return null;
  }
  return (
    <section id="pair-table" className="mt-8 scroll-mt-4">
      <h2>Each two raters</h2>
      <div role="group" aria-label="Criterion" className="mt-1 mb-2 flex gap-1">
        {report.criteria.map((c) => (
          <button
            key={c.criterionId}
            type="button"
            aria-pressed={c.criterionId === chosen}
            onClick={() => set({ criterion: c.criterionId, cell: undefined, levels: undefined })}
            className={classes(
              "border-b-2 px-2 py-0.5",
              c.criterionId === chosen ? "border-heather font-semibold" : "border-transparent text-ink-soft",
            )}
          >
            {c.name}
          </button>
        ))}
      </div>
      <PairsOfRaters
        raters={report.raters}
        pairs={pairs}
        onCross={
          leads ? (pair) => set({ pair: `${pair.firstRaterId}.${pair.secondRaterId}`, cell: undefined }) : undefined
        }
      />
      <p className="mt-1 text-sm text-ink-soft">
        Cohen’s κ with quadratic weights; in brackets with linear weights, then the number of answers that both graded.{" "}
        {leads && "A pair opens what they gave, level by level."}
      </p>
      {leads && crossed && (
        <Crossing
          pair={crossed}
          names={{ first: nameOf(crossed.firstId), second: nameOf(crossed.secondId) }}
          onCell={(cell) => set({ cell: cell && `${cell.first}.${cell.second}` })}
          onClose={() => set({ pair: undefined, cell: undefined })}
        />
      )}
    </section>
  );
}

/** What the address says of the pair that is looked into. */
function crossedPair(address: URLSearchParams, criterionId: string): CrossedPair | undefined {
  const [firstId, secondId] = address.get("pair")?.split(".") ?? [];
  const [first, second] = address.get("cell")?.split(".").map(Number) ?? [];
  return firstId === undefined || secondId === undefined || criterionId === ""
    ? undefined
    : {
        criterionId,
        firstId,
        secondId,
        ...(first === undefined || second === undefined ? {} : { cell: { first, second } }),
      };
}

/** That of two raters, in either order. */
export function pairOf<Pair>(
  pairs: Pair[],
  idsOf: (pair: Pair) => [string, string],
  a: string,
  b: string,
): Pair | undefined {
  return pairs.find((p) => {
    const [first, second] = idsOf(p);
    return (first === a && second === b) || (first === b && second === a);
  });
}

type PairView = Report["pairs"][number];

type PairProps = { pair: PairView | undefined; onCross: ((pair: PairView) => void) | undefined };

function Pair({ pair, onCross }: PairProps) {
  if (!pair || pair.answers === 0) {
    return <span className="text-sm text-ink-soft">none in common</span>;
  }
  if (pair.quadratic.value === undefined) {
    return <span className="text-sm text-ink-soft">none: {pair.quadratic.undefinedReason}</span>;
  }
  const value = fixed(pair.quadratic.value, 2);
  return (
    <>
      {onCross ? (
        <button
          type="button"
          className="font-semibold text-tarn underline underline-offset-4"
          onClick={() => onCross(pair)}
        >
          {value}
        </button>
      ) : (
        <strong className="font-semibold">{value}</strong>
      )}{" "}
      <span className="text-sm text-ink-soft">
        ({pair.linear.value === undefined ? "–" : fixed(pair.linear.value, 2)}) {pair.answers}
      </span>
    </>
  );
}

type PairsOfRatersProps = { raters: Report["raters"]; pairs: PairView[]; onCross: PairProps["onCross"] };

/** Every two raters once, below the diagonal. */
function PairsOfRaters({ raters, pairs, onCross }: PairsOfRatersProps) {
  const own = (a: string, b: string) => pairOf(pairs, (p) => [p.firstRaterId, p.secondRaterId], a, b);
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
                  <Pair pair={own(row.raterId, column.raterId)} onCross={onCross} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
