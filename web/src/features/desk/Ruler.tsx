import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { concerns, optionsOf, proposalFor, type Row, rowName } from "./rows";
import { WorksByTrial } from "./WorksByTrial";
import type { Desk } from "./useDesk";

type Sheet = Schemas["SheetView"];

type RulerProps = {
  row: Row | undefined;
  answer: Sheet["answers"][number] | undefined;
  sheet: Sheet;
  desk: Desk;
  locked: boolean;
  /** Whether a guess can be set all the same. */
  guessing: boolean;
};

const QUESTIONS: Record<"works" | "order" | "guess", string> = {
  works: "Does its code work, as far as you tried it?",
  order: "Which would you take? 1 is the best; the same number is a tie. You may leave it out.",
  guess: "Who do you think wrote it? It changes nothing; it shows how well the masking holds.",
};

function question(row: Row): string {
  switch (row.kind) {
    case "criterion":
      return row.criterion.question;
    case "point":
      return row.point.stance === "MUST_NOT"
        ? "A right answer does not do this: covered if it keeps to that, contradicted if it does it."
        : "A right answer contains this.";
    default:
      return QUESTIONS[row.kind];
  }
}

/** What can be given in the cell in focus: for a criterion its levels with their anchors for this kind of prompt. */
export function Ruler({ row, answer, sheet, desk, locked, guessing }: RulerProps) {
  if (!row || !answer) {
    return null;
  }
  const options = concerns(row, answer) ? optionsOf(row, answer, sheet, desk) : [];
  const proposal = row.kind === "criterion" ? proposalFor(row.criterion, answer, sheet, desk) : undefined;
  const isLocked = locked && !(guessing && row.kind === "guess");
  return (
    <section aria-label={`Choices for ${rowName(row)}`} className="ruler shrink-0 bg-vellum px-4 pt-1 pb-1.5">
      <p className="text-sm">
        <strong>{rowName(row)}</strong>, answer {answer.number}. <span className="text-ink-soft">{question(row)}</span>{" "}
        {proposal && <span className="border-b border-ochre">{proposal.how}</span>}
        {row.kind === "works" && sheet.tried && answer.hasCode && (
          <WorksByTrial sheetId={sheet.id} answer={answer} desk={desk} locked={locked} />
        )}
      </p>
      <ol className="mt-0.5 grid" style={{ gridTemplateColumns: `repeat(${options.length}, minmax(0, 1fr))` }}>
        {options.map((option) => (
          <li key={option.digit} className="border-t border-edge">
            <span
              aria-hidden="true"
              className={classes(
                "block w-px bg-edge",
                option.chosen ? "h-2.5 w-1 bg-moss" : "h-1.5",
                row.kind === "criterion" && proposal?.level === option.digit && !option.chosen && "h-2.5 w-1 bg-ochre",
              )}
            />
            <button
              type="button"
              tabIndex={-1}
              disabled={isLocked}
              aria-pressed={option.chosen}
              onClick={() => desk.set(option.value)}
              className={classes(
                "block w-full rounded-leaf pr-3 pb-0.5 pl-1 text-left text-sm leading-snug hover:bg-heather-wash",
                option.chosen && "bg-lichen-wash",
              )}
            >
              <strong className="tabular-nums">{option.digit}</strong>{" "}
              <span className="font-medium">{option.name}</span>
              {option.text !== undefined && <span className="block">{option.text}</span>}
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
