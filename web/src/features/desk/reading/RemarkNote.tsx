import { type ReactNode, useContext } from "react";
import { classes } from "../../../ui/classes";
import { lineSpan } from "../../../ui/format";
import type { PlacedRemark } from "../remarks";
import { type Margin, MarginContext, NotesContext } from "./notes";

/** A remark at the lines it is about: a credit with a bar, a fault with a hatch, and the word to both. */
export function RemarkNote({ id, remark, by }: PlacedRemark) {
  const { onOpen } = useContext(NotesContext);
  const credit = remark.stance === "CREDIT";
  const where = remark.lines ? lineSpan(remark.lines.from, remark.lines.to) : "the whole answer";
  return (
    <button
      type="button"
      data-remark={id}
      tabIndex={-1}
      onClick={() => onOpen(id)}
      aria-label={`${by === undefined ? "" : `${by}: `}${credit ? "Credit" : "Fault"} on ${where}: ${[remark.trait, remark.words].filter(Boolean).join(". ")}`}
      className={classes(
        "remark-note my-1 block w-full rounded-leaf border border-rule px-2 py-0.5 text-left font-sans text-sm leading-snug whitespace-normal text-ink",
        credit ? "border-l-4 border-l-lichen bg-vellum" : "border-l-4 border-l-clay bg-vellum",
      )}
    >
      {by !== undefined && <span className="mr-1.5 text-ink-soft">{by}</span>}
      <span className="mr-1.5 text-xs font-semibold">{credit ? "credit" : "fault"}</span>
      {remark.trait && <span className="mr-1.5 italic">{remark.trait}</span>}
      {remark.words}
    </button>
  );
}

type RemarkNotesProps = { notes: PlacedRemark[]; margin?: Margin };

/** Remarks at one place. */
export function RemarkNotes({ notes, margin }: RemarkNotesProps) {
  if (notes.length === 0) {
    return null;
  }
  const all = notes.map((note) => <RemarkNote key={note.id} {...note} />);
  return margin ? <WithMargin margin={margin}>{all}</WithMargin> : all;
}

/** Shown only in one margin. */
function WithMargin({ margin, children }: { margin: Margin; children: ReactNode }) {
  return useContext(MarginContext) === margin ? children : null;
}
