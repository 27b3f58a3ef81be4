import type { ReactNode } from "react";
import { DraftSign, DraftTrouble } from "./DraftSign";
import type { DraftInHand } from "./useDraft";

type DraftHeadProps<T> = {
  title: ReactNode;
  draft: DraftInHand<T>;
  /** What is written, at the beginning of a sentence. */
  what: string;
};

/** The head of a page on which something is written: what it is, whether it is saved, and what stands in the way. */
export function DraftHead<T>({ title, draft, what }: DraftHeadProps<T>) {
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline gap-4">
        <h1>{title}</h1>
        <span className="ml-auto" />
        <DraftSign draft={draft} />
      </div>
      <DraftTrouble draft={draft} what={what} />
    </>
  );
}
