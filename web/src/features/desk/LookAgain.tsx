import type { Schemas } from "../../api/client";
import { contradictions } from "./warnings";
import type { Desk } from "./useDesk";

type LookAgainProps = { sheet: Schemas["SheetView"]; desk: Desk };

/** Where grades and what stands beside them say different things: a hint, no more. */
export function LookAgain({ sheet, desk }: LookAgainProps) {
  const found = sheet.answers.flatMap((answer) =>
    contradictions(sheet, {
      markOn: (criterionId) => desk.markAt(answer.id, criterionId),
      verdicts: sheet.prompt.keyPoints.map((_, i) => desk.verdictAt(answer.id, i)),
      remarks: desk.remarksOf(answer.id).map((r) => r.remark),
    }).map((words) => `Answer ${answer.number}: ${words}`),
  );
  return (
    <p role="status" className={found.length === 0 ? "sr-only" : "shrink-0 border-t border-rule px-4 py-0.5 text-sm"}>
      {found.length > 0 && (
        <>
          <span className="border-b-2 border-ochre">Look again</span> {found.join(". ")}.
        </>
      )}
    </p>
  );
}
