import type { ReactNode } from "react";
import { moment } from "../../ui/format";

/** @property head what is said of it beside who said it */
export type Entry = { key: string; at: string; by: string; own: boolean; head: ReactNode; text: string };

/** What was said, oldest first; what comes is read aloud. */
export function TalkList({ entries, nothing }: { entries: Entry[]; nothing: string }) {
  return (
    <>
      {entries.length === 0 && <p className="text-ink-soft">{nothing}</p>}
      <ol aria-label="The talk" aria-live="polite">
        {entries.map((entry) => (
          <li key={entry.key} className="border-t border-rule py-1.5 [overflow-wrap:anywhere]">
            <p className="text-sm text-ink-soft">
              <strong className="text-ink">{entry.by}</strong>
              {entry.own && " (you)"} {entry.head && <span className="text-ink">{entry.head}</span>}{" "}
              <time dateTime={entry.at}>{moment(entry.at)}</time>
            </p>
            <p className="whitespace-pre-line">{entry.text}</p>
          </li>
        ))}
      </ol>
    </>
  );
}
