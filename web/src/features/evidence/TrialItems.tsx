import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { DiffLines, linesAgainst } from "../../ui/DiffText";
import { count, duration } from "../../ui/format";
import { PagePictures } from "./PagePictures";
import { pageRows, type PictureAt } from "./pages";
import { changesLine, itemWords, outcomeWords, worstFirst } from "./words";

/** What came of a trial; what it took is not for everybody. */
export type Came = Pick<Schemas["TrialResult"], "summary" | "items" | "messages" | "log" | "repository"> & {
  pictures: (Pick<Schemas["PictureOfPage"], "width" | "height" | "step" | "text"> & {
    isHeld?: boolean;
    unread?: boolean;
  })[];
  millis?: number;
  memoryKb?: number;
};

type TrialItemsProps = { result: Came; pictureAt: PictureAt };

/** What came of a trial: each thing that was asked with how it ended, what was expected against what came, and the log. */
export function TrialItems({ result, pictureAt }: TrialItemsProps) {
  const { summary, millis = 0, memoryKb = 0 } = result;
  return (
    <div className="grid gap-4">
      <p>
        <strong>{outcomeWords(summary.outcome)}</strong>
        {summary.asked > 0 && ` · ${summary.passed} of ${summary.asked} as they must be`}
        {millis > 0 && ` · ${duration(millis)}`}
        {memoryKb > 0 && ` · at most ${Math.round(memoryKb / 1024)} MB`}
      </p>
      {result.repository && <Repository end={result.repository} items={result.items} />}
      <ol className="grid gap-3">
        {worstFirst(result.items).map((item, i) => (
          <Item key={i} item={item} />
        ))}
      </ol>
      {result.pictures.length > 0 && <PagePictures rows={pageRows([result], [pictureAt])} />}
      {result.messages.length > 0 && <Messages messages={result.messages} />}
      {result.log !== "" && (
        <details>
          <summary>The whole log</summary>
          <Output label="Log" text={result.log} />
        </details>
      )}
    </div>
  );
}

type RepositoryProps = { end: NonNullable<Came["repository"]>; items: Came["items"] };

/** What became of the repository's tests, and of files that nobody spoke of. */
export function Repository({ end, items }: RepositoryProps) {
  const changes = changesLine(items);
  return (
    <div className="grid gap-1">
      <p>
        In a copy of the repository at <span className="font-mono">{end.commit.slice(0, 10)}</span>
        {end.changed.length > 0 && `, ${count(end.changed.length, "file", "files")} changed`}
        {changes !== "" && `. Tests: ${changes}`}.
      </p>
      {end.outside.length > 0 && (
        <p>
          Changed, though the prompt does not show it:{" "}
          {end.outside.map((path) => (
            <span key={path} className="mr-2 font-mono wrap-anywhere">
              {path}
            </span>
          ))}
        </p>
      )}
      {end.fits.map((how) => (
        <p key={how} className="text-sm text-ink-soft">
          {how}
        </p>
      ))}
    </div>
  );
}

function Item({ item }: { item: Schemas["CheckItem"] }) {
  const passed = item.outcome === "PASSED";
  return (
    <li className={classes("border-l-2 pl-3", passed ? "border-lichen" : "border-clay")}>
      <p>
        <span className="font-medium wrap-anywhere">{item.name}</span>: {itemWords(item)}
        {item.why !== "" && `, ${item.why}`}
      </p>
      {!passed && (item.expected !== "" || item.came !== "") && (
        <div className="mt-1 grid gap-3 sm:grid-cols-2">
          <Output label="Expected" text={item.expected} />
          <Output label="Came" text={item.came} against={item.expected} />
        </div>
      )}
    </li>
  );
}

type OutputProps = {
  label: string;
  text: string;
  /** What was expected: then lines that came otherwise are told apart. */
  against?: string;
};

export function Output({ label, text, against = "" }: OutputProps) {
  const lines = useMemo(
    () => (against === "" || text === "" ? undefined : linesAgainst(against, text)),
    [against, text],
  );
  return (
    <div>
      <p className="text-sm text-ink-soft">{label}</p>
      <pre
        tabIndex={0}
        role="region"
        aria-label={label}
        className="max-h-64 overflow-auto rounded-leaf bg-paper p-2 font-mono text-sm leading-snug"
      >
        {lines ? <DiffLines lines={lines} /> : text === "" ? "nothing" : text}
      </pre>
    </div>
  );
}

export function Messages({ messages }: { messages: Came["messages"] }) {
  const deprecated = messages.filter((m) => m.message.deprecated).length;
  const warnings = messages.filter((m) => m.message.sort === "WARNING").length;
  return (
    <details>
      <summary>
        The compiler said {count(messages.length, "thing", "things")}: {count(warnings, "warning", "warnings")}
        {deprecated > 0 && `, ${deprecated} of what is not to be used any more`}
      </summary>
      <ul className="mt-1 grid gap-1 text-sm">
        {messages.map((m, i) => (
          <li key={i} className="wrap-anywhere">
            <span className="font-mono">
              {m.message.path}:{m.message.line}
            </span>
            {m.answerLine !== undefined && <span className="text-ink-soft"> (line {m.answerLine} of the answer)</span>}{" "}
            {m.message.text}
          </li>
        ))}
      </ul>
    </details>
  );
}
