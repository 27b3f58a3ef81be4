import { memo, type ReactNode, useMemo } from "react";
import type { PlacedRemark } from "../remarks";
import { AnswerText } from "./AnswerText";
import { NotesContext } from "./notes";

const STAY = () => undefined;

/** Lines to read with several people's remarks below those that they are about. */
export function Noted({ remarks, children }: { remarks: PlacedRemark[]; children: ReactNode }) {
  const notes = useMemo(() => ({ remarks, onOpen: STAY }), [remarks]);
  return <NotesContext value={notes}>{children}</NotesContext>;
}

type NotedAnswerProps = { text: string; remarks: PlacedRemark[] };

/** An answer as it was written. */
export const NotedAnswer = memo(function NotedAnswer({ text, remarks }: NotedAnswerProps) {
  return (
    <Noted remarks={remarks}>
      <AnswerText text={text} />
    </Noted>
  );
});
