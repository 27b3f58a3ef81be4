import { Fragment, type Ref } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { classes } from "../../../ui/classes";
import { count, fixed } from "../../../ui/format";
import { CandidateName } from "../../candidate";
import type { Order, Shown } from "./address";
import { PromptCell } from "./PromptCell";

type View = Schemas["PromptTableView"];
type Row = View["rows"][number];

type PromptRowsProps = { ref: Ref<HTMLTableElement>; view: View; shown: Shown; onSort: (by: string) => void };

/** Prompts by candidates; heads put the rows in order, and in the study's own order kinds have heads of their own. */
export function PromptRows({ ref, view, shown, onSort }: PromptRowsProps) {
  const { order } = shown;
  return (
    <div
      className="relative mt-3 overflow-x-auto"
      role="region"
      aria-label="What each candidate made of each prompt"
      tabIndex={0}
    >
      <table ref={ref} className="w-full border-collapse text-left">
        <caption className="sr-only">What each candidate made of each prompt</caption>
        <thead>
          <tr className="border-b border-edge align-bottom">
            <Head by="title" order={order} onSort={onSort}>
              Prompt
            </Head>
            {view.candidates.map((c, i) => (
              <Head key={c.id} by={c.id} order={order} onSort={onSort}>
                <CandidateName name={c.name} index={i} />
              </Head>
            ))}
            <Head by="mean" order={order} onSort={onSort} right>
              Mean
            </Head>
            <Head by="spread" order={order} onSort={onSort} right>
              Apart
            </Head>
          </tr>
        </thead>
        <tbody>
          {view.rows.map((row, i) => (
            <Fragment key={row.promptId}>
              {order.by === "LISTED" && row.kindId !== view.rows[i - 1]?.kindId && (
                <tr className="border-b border-rule">
                  <th colSpan={view.candidates.length + 3} scope="colgroup" className="pt-3 pb-1 text-sm font-medium">
                    {row.kind}
                  </th>
                </tr>
              )}
              <PromptRow row={row} view={view} shown={shown} />
            </Fragment>
          ))}
        </tbody>
        <tfoot>
          <tr className="border-t-2 border-edge align-top">
            <th scope="row" className="py-1.5 font-medium">
              {count(view.prompts, "prompt", "prompts")} together
            </th>
            {view.sums.map((sum) => (
              <td key={sum.candidateId} className="py-1.5 pl-4">
                <PromptCell cell={sum} marks={shown.marks} name="All" />
              </td>
            ))}
            <td colSpan={2} />
          </tr>
        </tfoot>
      </table>
    </div>
  );
}

function PromptRow({ row, view, shown }: { row: Row; view: View; shown: Shown }) {
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="max-w-72 py-1.5 font-normal [overflow-wrap:anywhere]">
        <Link to={`../answers/${row.promptId}`} className="text-tarn underline underline-offset-4">
          {row.title || "Without a title"}
        </Link>
        <span className="block text-xs text-ink-soft">
          {[shown.order.by === "LISTED" ? undefined : row.kind, row.wording && `${row.wording.toLowerCase()} wording`]
            .filter(Boolean)
            .join(", ")}
        </span>
      </th>
      {row.cells.map((cell, i) => (
        <td key={cell.candidateId} className="py-1.5 pl-4">
          <PromptCell
            cell={cell}
            marks={shown.marks}
            name={`${view.candidates[i]?.name ?? ""}, ${row.title}`}
            to={`../answers/${row.promptId}?answer=${cell.answerId ?? ""}`}
          />
        </td>
      ))}
      <td className="py-1.5 pl-4 text-right">{row.mean === undefined ? "–" : fixed(row.mean, 0)}</td>
      <td className="py-1.5 pl-4 text-right">{row.spread === undefined ? "–" : fixed(row.spread, 0)}</td>
    </tr>
  );
}

type HeadProps = { by: string; order: Order; onSort: (by: string) => void; right?: boolean; children: React.ReactNode };

function Head({ by, order, onSort, right = false, children }: HeadProps) {
  const own = (order.candidateId ?? order.by.toLowerCase()) === by;
  return (
    <th
      scope="col"
      className={classes("py-1.5 pl-4 text-sm font-medium text-ink-soft first:pl-0", right && "text-right")}
      aria-sort={own ? (order.down ? "descending" : "ascending") : undefined}
    >
      <button
        type="button"
        className="underline decoration-dotted underline-offset-4 hover:text-ink"
        onClick={() => onSort(by)}
      >
        {children}
        {own && <span aria-hidden="true"> {order.down ? "↓" : "↑"}</span>}
      </button>
    </th>
  );
}
