import { memo, useMemo, useRef } from "react";
import { CodeLines } from "./CodeLines";
import type { Ground } from "./notes";
import { useSeen } from "./useSeen";

/** Lines that are laid out together. */
const STRETCH = 200;

/** More of a single line is not laid out: nobody reads it, and it would hold up the page. */
const LONGEST_LINE = 20_000;

const shortened = (line: string) =>
  line.length <= LONGEST_LINE ? line : `${line.slice(0, LONGEST_LINE)} ⟦${line.length - LONGEST_LINE} more characters⟧`;

/** Height of a line of code, in rem; as the styles have it. */
const LINE_HEIGHT = 1.2;

type PlainLinesProps = { text: string; ground: Ground; language?: string };

/** Any number of lines: only the stretches near what is seen are laid out, the others keep their place. */
export const PlainLines = memo(function PlainLines({ text, ground, language }: PlainLinesProps) {
  const stretches = useMemo(() => {
    const lines = text.replace(/\n$/, "").split("\n").map(shortened);
    return Array.from({ length: Math.ceil(lines.length / STRETCH) }, (_, i) =>
      lines.slice(i * STRETCH, (i + 1) * STRETCH),
    );
  }, [text]);
  return (
    <pre tabIndex={0} className="plain-lines">
      {stretches.map((lines, i) => (
        <Stretch key={i} lines={lines} first={i * STRETCH + 1} ground={ground} language={language} />
      ))}
    </pre>
  );
});

type StretchProps = { lines: string[]; first: number; ground: Ground; language: string | undefined };

function Stretch({ lines, first, ground, language }: StretchProps) {
  const place = useRef<HTMLDivElement>(null);
  const near = useSeen(place, first === 1);
  return (
    <div
      ref={place}
      data-stretch={`${first}-${first + lines.length - 1}`}
      style={near ? undefined : { height: `${lines.length * LINE_HEIGHT}rem` }}
    >
      {near && <CodeLines language={language} text={lines.join("\n")} ground={ground} first={first} numbered />}
    </div>
  );
}
