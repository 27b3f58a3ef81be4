import { memo, useRef } from "react";
import { classes } from "../../../ui/classes";
import { Pieces } from "../../../ui/Code";
import { type Piece, usePieces } from "../../../ui/pieces";
import { spelledOut } from "../../../ui/spelledOut";
import { type Ground, useNotesAt } from "./notes";
import { useSeen } from "./useSeen";
import { RemarkNotes } from "./RemarkNote";

type CodeLinesProps = {
  language: string | undefined;
  text: string;
  ground: Ground;
  /** The number of the first line. */
  first: number;
  numbered?: boolean;
};

/** Code line by line, so that each can be pointed at, with the remarks below the lines they are about. */
export const CodeLines = memo(function CodeLines({ language, text, ground, first, numbered = false }: CodeLinesProps) {
  const place = useRef<HTMLElement>(null);
  const seen = useSeen(place);
  const lines = usePieces(seen ? language : undefined, spelledOut(text.replace(/\n$/, "")));
  const { touched } = useNotesAt(ground, first, first + lines.length - 1);
  return (
    <code ref={place} className="block min-w-max" dir="ltr">
      {lines.map((line, i) =>
        touched ? (
          <NotedLine key={i} ground={ground} number={first + i} line={line} numbered={numbered} />
        ) : (
          <Line key={i} ground={ground} number={first + i} line={line} numbered={numbered} />
        ),
      )}
    </code>
  );
});

type LineProps = { ground: Ground; number: number; line: Piece[]; numbered: boolean; marked?: boolean };

function Line({ ground, number, line, numbered, marked = false }: LineProps) {
  return (
    <span
      data-part={ground.part}
      data-path={ground.path}
      data-from={number}
      data-to={number}
      className={classes("block", marked && "line-noted")}
    >
      {numbered && <span className="line-number">{number}</span>}
      {line.length === 0 ? "\u200b" : <Pieces line={line} />}
    </span>
  );
}

function NotedLine(props: LineProps) {
  const { starting, ending, touched } = useNotesAt(props.ground, props.number, props.number);
  return (
    <>
      <RemarkNotes notes={starting} margin="beside" />
      <Line {...props} marked={touched} />
      <RemarkNotes notes={ending} margin="below" />
    </>
  );
}
