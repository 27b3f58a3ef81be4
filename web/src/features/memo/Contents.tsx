import type { Schemas } from "../../api/client";
import { anchorOf } from "./Part";

/** The parts of a memo beside it, to go to. */
export function Contents({ document }: { document: Schemas["MemoDocument"] }) {
  return (
    <nav aria-label="Parts of the memo" className="text-sm max-lg:hidden print:hidden">
      <ol className="sticky top-4 grid gap-1">
        {document.parts.map((part) => (
          <li key={part.section}>
            <a href={`#${anchorOf(part)}`}>{part.title}</a>
          </li>
        ))}
      </ol>
    </nav>
  );
}
