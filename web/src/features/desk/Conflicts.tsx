import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { cellWords, valueWords } from "./cells";
import type { Desk } from "./useDesk";

type ConflictsProps = { desk: Desk; sheet: Schemas["SheetView"] };

/** Cells that were changed in another window meanwhile: both are kept until the rater says which one stands. */
export function Conflicts({ desk, sheet }: ConflictsProps) {
  if (desk.outbox.conflicts.size === 0) {
    return null;
  }
  return (
    <Note tone="caution" role="alert" className="mx-4 mt-1.5">
      {[...desk.outbox.conflicts].map(([cell, { mine, theirs }]) => (
        <p key={cell} className="flex flex-wrap items-center gap-2 py-0.5">
          <span>
            Answer {sheet.answers.find((a) => a.id === mine.answerId)?.number}, {cellWords(mine, sheet)}: another window
            says {valueWords(theirs.value)}, here it is {valueWords(mine)}.
          </span>
          <Button onClick={() => desk.settle(cell, "mine")}>Keep this one</Button>
          <Button onClick={() => desk.settle(cell, "theirs")}>Take the other</Button>
        </p>
      ))}
    </Note>
  );
}
