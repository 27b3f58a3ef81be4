import { at } from "../../api/base";
import type { Which } from "./api";

/** The forms in which a memo can be handed out. */
export function HandOut({ which, signed, lead }: { which: Which; signed: boolean; lead: boolean }) {
  const base = at(`/api/studies/${which.studyId}/memos/${which.number}`);
  return (
    <p className="flex flex-wrap gap-x-5 gap-y-1 print:hidden">
      <a href={`${base}/page`} target="_blank" rel="noreferrer">
        As a page, to read or print
      </a>
      <a href={`${base}/page`} download={`memo-${which.number}.html`}>
        Save as HTML
      </a>
      <a href={`${base}/markdown`} download>
        Save as Markdown
      </a>
      {signed && lead && (
        <a href={`${base}/package`} download>
          Save all, with the archive it rests on
        </a>
      )}
    </p>
  );
}
