import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { AuditTable } from "./AuditTable";

/** What was done in one study, for those who lead it. */
export function StudyRecordPage() {
  const study = useStudy();
  useTitle(`What was done: ${study.title}`);
  return (
    <>
      <h1>What was done</h1>
      <p className="mt-1 max-w-prose text-ink-soft">
        Who did what in this study, when and from where. It is only ever added to. Times are in your own zone.
      </p>
      <AuditTable studyId={study.id} />
    </>
  );
}
