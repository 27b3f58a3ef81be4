import type { Schemas } from "../../api/client";
import { Table } from "../../ui/Table";

type Row = { cells: string[]; number: number };

/** A table as the memo has it. */
export function MemoTable({ table }: { table: Schemas["MemoTable"] }) {
  return (
    <div className="my-4">
      <p className="text-sm text-ink-soft" aria-hidden="true">
        {table.caption}
      </p>
      <Table<Row>
        caption={table.caption}
        rows={table.rows.map((cells, i) => ({ cells, number: i }))}
        rowKey={(row) => String(row.number)}
        saveAs={table.caption.toLowerCase().replace(/[^a-z0-9]+/g, "-")}
        columns={table.heads.map((head, i) => ({
          key: head.text,
          head: head.text,
          rowHeader: i === 0,
          align: head.figures ? ("right" as const) : ("left" as const),
          cell: (row) => <span className="[overflow-wrap:anywhere]">{row.cells[i]}</span>,
        }))}
      />
    </div>
  );
}
