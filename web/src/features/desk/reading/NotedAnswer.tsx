import { memo, useMemo } from "react";
import type { PlacedRemark } from "../remarks";
import { AnswerText } from "./AnswerText";
import { NotesContext } from "./notes";

type NotedAnswerProps = { text: string; remarks: PlacedRemark[] };

const STAY = () => undefined;

/** An answer to read with several people's remarks below the lines they are about. */
export const NotedAnswer = memo(function NotedAnswer({ text, remarks }: NotedAnswerProps) {
  const notes = useMemo(() => ({ remarks, onOpen: STAY }), [remarks]);
  return (
    <NotesContext value={notes}>
      <AnswerText text={text} />
    </NotesContext>
  );
});
