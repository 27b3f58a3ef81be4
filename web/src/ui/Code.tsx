import { Fragment, memo } from "react";
import { type Piece, usePieces } from "./pieces";
import { spelledOut } from "./spelledOut";

/** One line's pieces. Builds elements, never markup from text, so nothing in the code can become a tag. */
export function Pieces({ line }: { line: Piece[] }) {
  return line.map((piece, i) =>
    piece.look ? (
      <span key={i} className={piece.look}>
        {piece.text}
      </span>
    ) : (
      <Fragment key={i}>{piece.text}</Fragment>
    ),
  );
}

type CodeProps = { language: string | undefined; text: string };

/** Code in the colours of the theme. */
export const Code = memo(function Code({ language, text }: CodeProps) {
  const lines = usePieces(language, spelledOut(text));
  return (
    <>
      {lines.map((line, i) => (
        <Fragment key={i}>
          {i > 0 && "\n"}
          <Pieces line={line} />
        </Fragment>
      ))}
    </>
  );
});
