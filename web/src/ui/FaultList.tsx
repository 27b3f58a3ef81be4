import type { Fault } from "../api/client";
import { CopyButton } from "./CopyButton";
import { Table } from "./Table";

/** Everything that is wrong with a file, by place, with what was expected there. */
export function FaultList({ caption, faults }: { caption: string; faults: Fault[] }) {
  if (faults.length === 0) {
    return null;
  }
  return (
    <>
      <div className="mt-4 mb-1 flex items-baseline">
        <h2>What to mend</h2>
        <span className="ml-auto" />
        <CopyButton label="Copy the list" text={faults.map(faultLine).join("\n")} />
      </div>
      <Table
        caption={caption}
        rows={faults.map((fault, i) => ({ ...fault, i }))}
        rowKey={(f) => String(f.i)}
        columns={[
          {
            key: "file",
            head: "File",
            rowHeader: true,
            sortBy: (f) => f.file,
            cell: (f) => <code className="font-mono text-sm break-all">{f.file}</code>,
          },
          { key: "line", head: "Line", align: "right", cell: (f) => f.line ?? "" },
          { key: "field", head: "Field", cell: (f) => <code className="font-mono text-sm">{f.field}</code> },
          { key: "expected", head: "Expected", cell: (f) => f.expected },
          { key: "found", head: "Found", cell: (f) => <span className="break-all">{f.found ?? "nothing"}</span> },
        ]}
      />
    </>
  );
}

function faultLine(fault: Fault): string {
  const place = [fault.file, fault.line && `line ${fault.line}`, fault.field].filter(Boolean).join(", ");
  return `${place}: expected ${fault.expected}; found ${fault.found ?? "nothing"}`;
}
