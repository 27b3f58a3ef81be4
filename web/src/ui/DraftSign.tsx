import { Button } from "./Button";
import type { DraftInHand } from "./useDraft";
import { Note } from "./Note";

const WORDS = {
  saved: "All saved",
  waiting: "Saving …",
  saving: "Saving …",
  unreachable: "No connection: kept in this browser, sent when it is back",
  conflict: "Not saved: changed elsewhere",
  refused: "Not saved",
};

/** A quiet sign of what is saved, with undo and redo. */
export function DraftSign<T>({ draft }: { draft: DraftInHand<T> }) {
  const loud = draft.status === "unreachable" || draft.status === "conflict" || draft.status === "refused";
  return (
    <span className="inline-flex items-baseline gap-3 text-sm">
      <span role="status" className={loud ? "border-b-2 border-ochre" : "text-ink-soft"}>
        {WORDS[draft.status]}
      </span>
      <button
        type="button"
        disabled={!draft.canUndo}
        className="text-tarn underline underline-offset-4 disabled:text-ink-soft disabled:no-underline"
        onClick={draft.undo}
      >
        Undo
      </button>
      <button
        type="button"
        disabled={!draft.canRedo}
        className="text-tarn underline underline-offset-4 disabled:text-ink-soft disabled:no-underline"
        onClick={draft.redo}
      >
        Redo
      </button>
    </span>
  );
}

/** Says why a draft is not saved, and lets the writer settle it. */
export function DraftTrouble<T>({ draft, what }: { draft: DraftInHand<T>; what: string }) {
  if (draft.status === "conflict") {
    return (
      <Note tone="caution" role="alert" className="mb-4 flex flex-wrap items-center gap-3">
        <span>{what} was changed in another window since this one read it.</span>
        <Button onClick={() => draft.settle("mine")}>Keep what is here</Button>
        <Button onClick={() => draft.settle("theirs")}>Take what is there</Button>
      </Note>
    );
  }
  if (draft.status === "refused") {
    return (
      <Note tone="trouble" role="alert" className="mb-4">
        <p>{draft.message}</p>
        {draft.errors.length > 0 && (
          <ul className="mt-1">
            {draft.errors.map((e) => (
              <li key={e.field + e.message}>
                <code className="font-mono text-sm">{e.field}</code> {e.message}
              </li>
            ))}
          </ul>
        )}
      </Note>
    );
  }
  return null;
}
