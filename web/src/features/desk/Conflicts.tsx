import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { type CellValue, cellWords, valueWords } from "./cells";
import type { Desk } from "./useDesk";

type ConflictsProps = { desk: Desk; sheet: Schemas["SheetView"] };

/**
 * Cells that need a word from the rater: changed in another window meanwhile, both are kept until they say which one stands;
 * not taken by the server, kept until they send it again or let it go; overtaken, told once.
 */
export function Conflicts({ desk, sheet }: ConflictsProps) {
  const { conflicts, refusals, overtaken } = desk.outbox;
  if (conflicts.size + refusals.size + overtaken.size === 0) {
    return null;
  }
  const place = (value: CellValue) =>
    `Answer ${sheet.answers.find((a) => a.id === value.answerId)?.number ?? "?"}, ${cellWords(value, sheet)}`;
  return (
    <Note tone="caution" role="alert" className="mx-4 mt-1.5">
      {[...refusals].map(([cell, { mine, message }]) => (
        <p key={cell} className="flex flex-wrap items-center gap-2 py-0.5">
          <span>
            {place(mine)}: {valueWords(mine)} was not taken. {message}
          </span>
          <Button onClick={() => desk.answerRefusal(cell, "again")}>Send it again</Button>
          <Button onClick={() => desk.answerRefusal(cell, "let-go")}>Let it go</Button>
        </p>
      ))}
      {[...overtaken].map(([cell, now]) => (
        <p key={cell} className="flex flex-wrap items-center gap-2 py-0.5">
          <span>
            {place(now.value)}: what you gave here was saved, and another window has since changed it to{" "}
            {valueWords(now.value)}.
          </span>
          <Button onClick={() => desk.noted(cell)}>Good</Button>
        </p>
      ))}
      {[...conflicts].map(([cell, { mine, theirs }]) => (
        <p key={cell} className="flex flex-wrap items-center gap-2 py-0.5">
          <span>
            {place(mine)}: another window says {valueWords(theirs.value)}, here it is {valueWords(mine)}.
          </span>
          <Button onClick={() => desk.settle(cell, "mine")}>Keep this one</Button>
          <Button onClick={() => desk.settle(cell, "theirs")}>Take the other</Button>
        </p>
      ))}
    </Note>
  );
}
