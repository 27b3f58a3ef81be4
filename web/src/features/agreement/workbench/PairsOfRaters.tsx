import { useSearchParams } from "react-router";
import type { Schemas } from "../../../api/client";
import { classes } from "../../../ui/classes";
import { fixed } from "../../../ui/format";
import { pairOf } from "../PairTable";
import { Panel } from "./Panel";
import type { ViewProps } from "./Workbench";

type Pair = Schemas["PairPart"];

/** Weighted kappa of each two raters over what is looked at; a pair opens what both gave, beneath. */
export function PairsOfRaters({ report, narrowed, filter }: ViewProps) {
  const [address, setAddress] = useSearchParams();
  const raters = [...report.raters].sort((a, b) => a.name.localeCompare(b.name, "en"));
  const open = (pair: Pair) => {
    const next = new URLSearchParams(address);
    next.set("pair", `${pair.firstId}.${pair.secondId}`);
    next.delete("cell");
    next.set("criterion", narrowed.criterionId);
    setAddress(next, { preventScrollReset: true });
    requestAnimationFrame(() => document.getElementById("pair-table")?.scrollIntoView());
  };
  const columns = raters.slice(0, -1);
  return (
    <Panel title="Raters with each other" aside="κ, quadratic" how={<How />}>
      <table className="-ml-2 border-collapse text-left">
        <caption className="sr-only">Weighted kappa of each two raters on what is looked at</caption>
        <thead className="sticky -top-1 bg-vellum">
          <tr>
            <td />
            {columns.map((r) => (
              <th key={r.raterId} scope="col" title={r.name} className="px-1 text-xs font-normal text-ink-soft">
                {initials(r.name)}
                <span className="sr-only">, {r.name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {raters.slice(1).map((row, i) => (
            <tr key={row.raterId} className="border-t border-rule">
              <th
                scope="row"
                className="sticky -left-2 max-w-28 truncate bg-vellum py-0.5 pr-2 pl-2 font-normal"
                title={row.name}
              >
                {row.name}
              </th>
              {columns.slice(0, i + 1).map((column) => (
                <td key={column.raterId} className="p-0.5">
                  <PairCell
                    pair={pairOf(narrowed.raterPairs, (p) => [p.firstId, p.secondId], row.raterId, column.raterId)}
                    names={`${row.name} and ${column.name}`}
                    marked={filter.rater === row.raterId || filter.rater === column.raterId}
                    onOpen={open}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {raters.length < 2 && <p>It takes two raters.</p>}
    </Panel>
  );
}

const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((word) => word.charAt(0))
    .slice(0, 3)
    .join("");

type PairCellProps = { pair: Pair | undefined; names: string; marked: boolean; onOpen: (pair: Pair) => void };

/** The lower, the darker: the number carries it. */
function PairCell({ pair, names, marked, onOpen }: PairCellProps) {
  if (!pair) {
    return <span className="block w-11 text-center text-ink-soft">·</span>;
  }
  const value = pair.kappa.value;
  const words = `${names}: κ ${value === undefined ? `none, ${pair.kappa.undefinedReason ?? "not known"}` : fixed(value, 2)}, ${String(pair.answers)} answers, apart on ${String(pair.apart)}`;
  return (
    <button
      type="button"
      title={words}
      aria-label={words}
      onClick={() => onOpen(pair)}
      className={classes(
        "block w-11 rounded-leaf border px-1 text-center tabular-nums hover:border-ink",
        marked ? "border-heather" : "border-rule",
        value !== undefined && value < 0.4 && "bg-ochre-wash font-semibold",
      )}
    >
      {value === undefined ? "–" : fixed(value, 2)}
    </button>
  );
}

function How() {
  return (
    <>
      <p>
        Cohen’s κ with quadratic weights (Cohen, 1968) over the answers of the kind and prompt that are looked at and
        that both graded; counts stand in the words of each cell. Below 0.40 it is marked. A pair opens how often they
        gave which levels, and a cell of that the answers behind it.
      </p>
      <p>
        <a href="#pair-table">The numbers, with linear weights and counts</a>
      </p>
    </>
  );
}
