import { useTitle } from "../../ui/useTitle";
import { AuditTable } from "../audit";

/** What was done anywhere; what is in a study stays in it. */
export function RecordPage() {
  useTitle("What was done");
  return (
    <>
      <h1>What was done</h1>
      <p className="mt-1 max-w-prose text-ink-soft">
        Who did what, when and from where. It is only ever added to. What it was done to within a study is told to its
        leads alone. Times are in your own zone.
      </p>
      <AuditTable />
    </>
  );
}
