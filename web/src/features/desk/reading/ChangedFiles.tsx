import { memo, useState } from "react";
import type { Schemas } from "../../../api/client";
import { classes } from "../../../ui/classes";
import { count } from "../../../ui/format";
import { Note } from "../../../ui/Note";
import { PathText } from "../../../ui/PathText";
import { spelledOut } from "../../../ui/spelledOut";
import { type NumberedLine, type Pair, pairsOf, plainCounts, type Stretch, stretchesOf } from "./diff";
import { useNotesAt } from "./notes";
import { RemarkNotes } from "./RemarkNote";

type Change = Schemas["FileChangeView"];

export type DiffLayout = "inline" | "beside";

const SORTS: Record<Change["sort"], string> = { CHANGED: "changed", ADDED: "new", REMOVED: "removed", MOVED: "moved" };

/** A difference that is longer is folded until somebody wants it. */
const MOST_LINES_OPEN = 1_500;

type ChangedFilesProps = {
  files: Change[];
  /** Text of the starting code by path. */
  start: ReadonlyMap<string, string>;
  layout: DiffLayout;
  /** Paths that lie outside what the prompt speaks of. */
  outside?: string[];
  /** What the two sides are called, when they are not before and after. */
  sides?: { left: string; right: string };
};

/** A difference file by file: counts first, then its lines, with unchanged stretches folded. */
export const ChangedFiles = memo(function ChangedFiles({
  files,
  start,
  layout,
  outside = [],
  sides,
}: ChangedFilesProps) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
      {files.map((file, i) => (
        <ChangedFile
          key={i}
          file={file}
          start={file.misfit === undefined && !sides ? start.get(file.from) : undefined}
          layout={layout}
          outside={outside.includes(file.from)}
          sides={sides}
        />
      ))}
    </div>
  );
});

type ChangedFileProps = {
  file: Change;
  start: string | undefined;
  layout: DiffLayout;
  outside: boolean;
  sides: ChangedFilesProps["sides"];
};

function wordsOf(file: Change, sides: ChangedFilesProps["sides"]): string {
  if (sides && file.sort !== "CHANGED") {
    return file.sort === "ADDED" ? `only in ${sides.right}` : `only in ${sides.left}`;
  }
  const counts = plainCounts(file);
  return [
    sides ? undefined : SORTS[file.sort] + (file.from === file.path ? "" : ` from ${file.from}`),
    `${count(counts.added, "line", "lines")} ${sides ? `only in ${sides.right}` : "added"}`,
    `${counts.removed} ${sides ? `only in ${sides.left}` : "removed"}`,
    counts.moved > 0 ? `${counts.moved} moved` : undefined,
    counts.spacing > 0 ? `${counts.spacing} in white space alone` : undefined,
  ]
    .filter(Boolean)
    .join(", ");
}

function ChangedFile({ file, start, layout, outside, sides }: ChangedFileProps) {
  const lines = file.hunks.reduce((sum, h) => sum + h.lines.length, 0);
  return (
    <details open={lines <= MOST_LINES_OPEN} className="fold">
      <summary>
        <span className="font-mono text-sm">
          <PathText path={file.path} />
        </span>{" "}
        <span className="text-sm text-ink-soft">{wordsOf(file, sides)}</span>
        {outside && (
          <span className="ml-2 border-b-2 border-ochre text-sm">the prompt does not speak of this file</span>
        )}
      </summary>
      {file.coarse && (
        <Note tone="info" className="my-1">
          Too much to compare line by line: all of it is shown as replaced.
        </Note>
      )}
      {file.misfit !== undefined && (
        <Note tone="caution" className="my-1">
          It does not fit: {file.misfit}.
        </Note>
      )}
      {file.hunks.length > 0 && (
        <pre
          tabIndex={0}
          className="diff overflow-x-auto border-y border-rule bg-vellum font-mono text-sm leading-snug"
        >
          {stretchesOf(file, start).map((stretch, i) => (
            <StretchLines key={i} stretch={stretch} path={file.path} layout={layout} />
          ))}
        </pre>
      )}
    </details>
  );
}

/** Kept lines that stand beside a change even when the stretch is folded are in the difference itself. */
function StretchLines({ stretch, path, layout }: { stretch: Stretch; path: string; layout: DiffLayout }) {
  const [open, setOpen] = useState(false);
  if (stretch.sort === "kept") {
    const many = stretch.count ?? stretch.lines.length;
    if (!open) {
      return (
        <button
          type="button"
          disabled={stretch.lines.length === 0}
          onClick={() => setOpen(true)}
          className="block w-full border-y border-dashed border-rule px-2 py-0.5 text-left font-sans text-sm text-ink-soft enabled:hover:bg-heather-wash"
        >
          ⋯ {count(many, "line", "lines")} as before{stretch.lines.length > 0 && ", show"}
        </button>
      );
    }
    const kept = stretch.lines.map((text, i): NumberedLine => ({
      kind: "KEPT",
      nature: "PLAIN",
      text,
      before: stretch.before + i,
      after: stretch.after + i,
    }));
    return <Lines lines={kept} path={path} layout={layout} />;
  }
  return <Lines lines={stretch.lines} path={path} layout={layout} />;
}

type LinesProps = { lines: NumberedLine[]; path: string; layout: DiffLayout };

function Lines({ lines, path, layout }: LinesProps) {
  return (
    <code className={layout === "inline" ? "block min-w-max" : "block"} dir="ltr">
      {layout === "inline"
        ? lines.map((line, i) => <InlineLine key={i} line={line} path={path} />)
        : pairsOf(lines).map((pair, i) => <BesideLine key={i} pair={pair} path={path} />)}
    </code>
  );
}

function lookOf(line: NumberedLine): string | undefined {
  if (line.kind === "KEPT") {
    return undefined;
  }
  if (line.nature === "SPACING") {
    return "line-spacing";
  }
  const moved = line.nature === "MOVED" && "line-moved";
  return classes(line.kind === "ADDED" ? "line-added" : "line-removed", moved);
}

const SIGNS: Record<NumberedLine["kind"], string> = { KEPT: " ", ADDED: "+", REMOVED: "−" };

const NATURES: Record<NumberedLine["nature"], string> = { PLAIN: "", MOVED: "moved", SPACING: "white space" };

/** Where a remark on a line is kept: removed lines are counted before the change, all others after it. */
function groundOf(line: NumberedLine, path: string) {
  return line.kind === "REMOVED"
    ? { part: "BEFORE" as const, path, number: line.before ?? 1 }
    : { part: "AFTER" as const, path, number: line.after ?? 1 };
}

function InlineLine({ line, path }: { line: NumberedLine; path: string }) {
  const { part, number } = groundOf(line, path);
  const { starting, ending, touched } = useNotesAt({ part, path }, number, number);
  return (
    <>
      <RemarkNotes notes={starting} margin="beside" />
      <span
        data-part={part}
        data-path={path}
        data-from={number}
        data-to={number}
        data-code={line.text}
        className={classes("block", lookOf(line), touched && "line-noted")}
      >
        <span className="line-number">{line.before ?? ""}</span>
        <span className="line-number">{line.after ?? ""}</span>
        {SIGNS[line.kind]} {spelledOut(line.text) || "\u200b"}
        {line.nature !== "PLAIN" && <span className="line-nature">{NATURES[line.nature]}</span>}
      </span>
      <RemarkNotes notes={ending} margin="below" />
    </>
  );
}

function BesideLine({ pair, path }: { pair: Pair; path: string }) {
  return (
    <span className="grid grid-cols-2 [overflow-wrap:anywhere] whitespace-pre-wrap">
      <Side line={pair.left} number={pair.left?.before} path={path} />
      <Side line={pair.right} number={pair.right?.after} path={path} />
    </span>
  );
}

type SideProps = { line: NumberedLine | undefined; number: number | undefined; path: string };

function Side({ line, number, path }: SideProps) {
  const part = line?.kind === "REMOVED" ? "BEFORE" : "AFTER";
  const at = number ?? 0;
  const { ending, touched } = useNotesAt({ part, path }, at, at);
  if (!line || number === undefined) {
    return <span className="border-r border-rule bg-paper" />;
  }
  // The left side of a kept line is the same line as its right side, and is pointed at there.
  const isTwin = line.kind === "KEPT" && number === line.before && number !== line.after;
  return (
    <span className="border-r border-rule">
      <span
        {...(isTwin ? {} : { "data-part": part, "data-path": path, "data-from": at, "data-to": at })}
        data-code={line.text}
        className={classes("line-hung block", lookOf(line), touched && "line-noted")}
      >
        <span className="line-number">{number}</span>
        {SIGNS[line.kind]} {spelledOut(line.text) || "\u200b"}
        {line.nature !== "PLAIN" && <span className="line-nature">{NATURES[line.nature]}</span>}
      </span>
      {!isTwin && <RemarkNotes notes={ending} />}
    </span>
  );
}
