import { diffLines } from "diff";
import { memo } from "react";
import { classes } from "./classes";

export type DiffLine = { kind: "KEPT" | "ADDED" | "REMOVED" | "HEAD"; text: string };

const LOOKS: Record<DiffLine["kind"], string | undefined> = {
  KEPT: undefined,
  ADDED: "line-added",
  REMOVED: "line-removed",
  HEAD: "text-ink-soft",
};

const SIGNS: Record<DiffLine["kind"], string> = { KEPT: " ", ADDED: "+", REMOVED: "−", HEAD: "" };

type DiffLinesProps = { lines: DiffLine[]; className?: string };

/** Lines of a difference: a bar beside what was added, a hatch behind what was removed, and the sign to both. */
export const DiffLines = memo(function DiffLines({ lines, className }: DiffLinesProps) {
  return (
    <span className={classes("block min-w-max", className)}>
      {lines.map((line, i) => (
        <span key={i} className={classes("block px-1.5", LOOKS[line.kind])}>
          {line.kind === "HEAD" ? "" : `${SIGNS[line.kind]} `}
          {line.text || " "}
        </span>
      ))}
    </span>
  );
});

/** How long two texts are compared while somebody waits. */
const LONGEST_MS = 100;

/** What is there against what was expected, line by line; nothing where they are too much to compare. */
export function linesAgainst(expected: string, there: string): DiffLine[] | undefined {
  return diffLines(expected, there, { timeout: LONGEST_MS, ignoreNewlineAtEof: true })?.flatMap(
    ({ added, removed, value }) =>
      value
        .replace(/\n$/, "")
        .split("\n")
        .map((text): DiffLine => ({ kind: added ? "ADDED" : removed ? "REMOVED" : "KEPT", text })),
  );
}

const HEADS = /^(?:diff |index |--- |\+\+\+ |@@|new file |deleted file |rename |similarity |old mode |new mode |\\ )/;

/** A unified diff as lines. Whatever is no diff comes as it is. */
export function linesOfDiff(text: string): DiffLine[] {
  return text.split("\n").map((line): DiffLine => {
    if (HEADS.test(line)) {
      return { kind: "HEAD", text: line };
    }
    switch (line[0]) {
      case "+":
        return { kind: "ADDED", text: line.slice(1) };
      case "-":
        return { kind: "REMOVED", text: line.slice(1) };
      default:
        return { kind: "KEPT", text: line.startsWith(" ") ? line.slice(1) : line };
    }
  });
}
