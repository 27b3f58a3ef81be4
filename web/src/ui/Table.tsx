import { type ReactNode, useRef, useState } from "react";
import { classes } from "./classes";
import { saveCsv } from "./csv";

export type Column<Row> = {
  key: string;
  head: ReactNode;
  cell: (row: Row) => ReactNode;
  /** What rows are sorted by; without it the column does not sort. */
  sortBy?: (row: Row) => string | number;
  align?: "left" | "right";
  rowHeader?: boolean;
};

type TableProps<Row> = {
  caption: string;
  columns: Column<Row>[];
  rows: Row[];
  rowKey: (row: Row) => string;
  /** Whether each row is one line with buttons in it, which stand higher than words. */
  onOneLine?: boolean;
  rowClass?: (row: Row) => string | undefined;
  /** The name under which it can be saved as CSV, without the ending; absent for what is no table of figures. */
  saveAs?: string;
};

/** A table with a caption for readers aloud, sortable by its heads. */
export function Table<Row>({ caption, columns, rows, rowKey, onOneLine = false, rowClass, saveAs }: TableProps<Row>) {
  const [sort, setSort] = useState<Sort | null>(null);
  const by = columns.find((c) => c.key === sort?.key)?.sortBy;
  const sorted = by
    ? [...rows].sort((a, b) => {
        const [x, y] = [by(a), by(b)];
        const order = typeof x === "number" && typeof y === "number" ? x - y : String(x).localeCompare(String(y), "en");
        return sort?.down ? -order : order;
      })
    : rows;
  const table = useRef<HTMLTableElement>(null);
  return (
    <>
      <div className="relative overflow-x-auto" role="region" aria-label={caption} tabIndex={0}>
        <table ref={table} className="w-full border-collapse text-left">
          <caption className="sr-only">{caption}</caption>
          <thead>
            <tr className="border-b border-edge align-bottom">
              {columns.map((column) => (
                <Head key={column.key} column={column} sort={sort} onSort={setSort} />
              ))}
            </tr>
          </thead>
          <tbody>
            {sorted.map((row) => (
              <tr
                key={rowKey(row)}
                className={classes("border-b border-rule", onOneLine ? "align-middle" : "align-top", rowClass?.(row))}
              >
                {columns.map((column) =>
                  column.rowHeader ? (
                    <th key={column.key} scope="row" className="py-1.5 pr-4 font-normal">
                      {column.cell(row)}
                    </th>
                  ) : (
                    <td key={column.key} className={classes("py-1.5 pr-4", column.align === "right" && "text-right")}>
                      {column.cell(row)}
                    </td>
                  ),
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {saveAs !== undefined && (
        <p className="mt-0.5 text-right text-sm print:hidden">
          <button
            type="button"
            aria-label={`Save as CSV: ${caption}`}
            className="text-tarn underline underline-offset-4"
            onClick={() => table.current && saveCsv(table.current, saveAs)}
          >
            Save as CSV
          </button>
        </p>
      )}
    </>
  );
}

type Sort = { key: string; down: boolean };

type HeadProps<Row> = { column: Column<Row>; sort: Sort | null; onSort: (sort: Sort) => void };

function Head<Row>({ column, sort, onSort }: HeadProps<Row>) {
  return (
    <th
      scope="col"
      className={classes("py-1.5 pr-4 text-sm font-medium text-ink-soft", column.align === "right" && "text-right")}
      aria-sort={sort?.key === column.key ? (sort.down ? "descending" : "ascending") : undefined}
    >
      {column.sortBy ? (
        <button
          type="button"
          className="underline decoration-dotted underline-offset-4 hover:text-ink"
          onClick={() => onSort({ key: column.key, down: sort?.key === column.key && !sort.down })}
        >
          {column.head}
          {sort?.key === column.key && <span aria-hidden="true"> {sort.down ? "↓" : "↑"}</span>}
        </button>
      ) : (
        column.head
      )}
    </th>
  );
}
