import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import type { Conflict } from "./outbox";
import type { Desk } from "./useDesk";

type ConflictsProps = { desk: Desk; sheet: Schemas["SheetView"] };

function markWords(mark: { level?: number; notApplicable: boolean }): string {
  return mark.notApplicable ? "not applicable" : mark.level === undefined ? "nothing" : String(mark.level);
}

function mineWords({ mine }: Conflict): string {
  return mine.kind === "grade" ? markWords(mine.mark) : `“${mine.text}”`;
}

function theirWords({ theirs }: Conflict): string {
  return "mark" in theirs ? markWords(theirs.mark) : `“${theirs.text}”`;
}

/** Cells that were changed in another window meanwhile: the rater says which one stands. */
export function Conflicts({ desk, sheet }: ConflictsProps) {
  if (desk.outbox.conflicts.size === 0) {
    return null;
  }
  return (
    <Note tone="caution" role="alert" className="mx-4 mt-1.5">
      {[...desk.outbox.conflicts].map(([cell, conflict]) => {
        const { mine } = conflict;
        const number = sheet.answers.find((a) => a.id === mine.answerId)?.number;
        const what =
          mine.kind === "grade" ? (sheet.criteria.find((c) => c.id === mine.criterionId)?.name ?? "") : "the reason";
        return (
          <p key={cell} className="flex flex-wrap items-center gap-2 py-0.5">
            <span>
              Answer {number}, {what}: another window says {theirWords(conflict)}, here it is {mineWords(conflict)}.
            </span>
            <Button onClick={() => desk.settle(cell, "mine")}>Keep this one</Button>
            <Button onClick={() => desk.settle(cell, "theirs")}>Take the other</Button>
          </p>
        );
      })}
    </Note>
  );
}
