import type { Schemas } from "../../../api/client";
import { count } from "../../../ui/format";
import { changePlace, itemWords, outcomeWords } from "../../evidence";
import type { TriedAnswer } from "./TriedTable";

/**
 * @param text    what came in full, where there is something to see
 * @param against what was expected instead
 */
type Cell = { words: string; good?: boolean; text?: string; against?: string };

export type TriedRow = { key: string; name: string; expected?: string; cells: (Cell | undefined)[] };

/** A test without where it stands, which all of them share. */
const bare = (name: string) => name.replace(/^.*: /, "").replace(/\(\)$/, "");

const NAMES: Record<Schemas["CheckItem"]["sort"], (name: string) => string> = {
  BUILD: () => "It builds",
  RUN: (name) => name,
  TEST: bare,
  PAGE: (name) => name,
};

/** There is one build, whatever kept it from being one. */
const keyOf = (item: Schemas["CheckItem"]) => (item.sort === "BUILD" ? "BUILD" : `${item.sort} ${item.name}`);

/** A browser that was ended is told by an item that is of no step. */
const isStep = (item: Schemas["CheckItem"]) => item.sort === "PAGE" && item.name !== "page";

/** What was asked of all answers, in the order of the one of which most was asked. */
export function itemRows(answers: Pick<TriedAnswer, "trial">[]): TriedRow[] {
  // Steps of a page have rows with pictures of their own.
  const items = answers.map(({ trial }) => (trial.result?.items ?? []).filter((i) => !isStep(i)));
  const longest = [...items].sort((a, b) => b.length - a.length);
  const all = [...new Set(longest.flatMap((of) => of.map(keyOf)))];
  const same = new Set(all.filter((key) => items.every((own) => isAsBefore(own.find((i) => keyOf(i) === key)))));
  const rows = all
    .filter((key) => !same.has(key))
    .toSorted((a, b) => worst(a, items) - worst(b, items))
    .map((key) => itemRow(key, items));
  return [...rows, ...(same.size > 0 ? [asBeforeRow(same.size, items)] : []), ...repositoryRows(answers)];
}

/** A test of a repository that passed before and does now, or was not run for an answer that could not be tried. */
const isAsBefore = (item: Schemas["CheckItem"] | undefined) => item === undefined || item.change === "STILL_PASSES";

/** Where a test of a repository stands among others, by the answer that it ended worst for; all else comes before. */
const worst = (key: string, items: Schemas["CheckItem"][][]): number => {
  const changes = items.flatMap((own) => own.filter((i) => keyOf(i) === key).flatMap((i) => i.change ?? []));
  return changes.length === 0 ? -1 : Math.min(...changes.map(changePlace));
};

/** What is as it was for every answer, in one row: a repository has hundreds of such tests. */
function asBeforeRow(tests: number, items: Schemas["CheckItem"][][]): TriedRow {
  return {
    key: "as before",
    name: `${count(tests, "other test", "other tests")}`,
    cells: items.map((own): Cell | undefined =>
      own.some((i) => i.change !== undefined) ? { words: "still pass", good: true } : undefined,
    ),
  };
}

/** What an answer changed that the prompt does not show, and where its changes did not fit exactly. */
function repositoryRows(answers: Pick<TriedAnswer, "trial">[]): TriedRow[] {
  const row = (key: "outside" | "fits", name: string): TriedRow => ({
    key,
    name,
    cells: answers.map(({ trial }): Cell | undefined => {
      const lines = trial.result?.repository?.[key] ?? [];
      return lines.length === 0 ? undefined : { words: lines.join(" "), text: lines.join("\n") };
    }),
  });
  return [row("outside", "Changed, though not shown"), row("fits", "How it fits")].filter((r) =>
    r.cells.some((c) => c !== undefined),
  );
}

function itemRow(key: string, items: Schemas["CheckItem"][][]): TriedRow {
  const of = items.map((own) => own.find((i) => keyOf(i) === key));
  const first = of.find((i) => i !== undefined);
  const expected = of.find((i) => i && i.expected !== "")?.expected;
  return {
    key,
    name: first ? NAMES[first.sort](first.name) : key,
    ...(expected !== undefined && { expected }),
    cells: of.map((item): Cell | undefined => item && cellOf(item)),
  };
}

function cellOf(item: Schemas["CheckItem"]): Cell {
  const words = itemWords(item);
  const text = item.came === "" ? item.why : item.came;
  return {
    words: item.why === "" ? words : `${words}, ${item.why}`,
    ...(item.change !== "MAY_FAIL" && { good: item.outcome === "PASSED" }),
    ...(text !== "" && { text }),
    ...(item.came !== "" && { against: item.expected }),
  };
}

const ENDS: Record<NonNullable<Schemas["InputEnd"]["end"]>, string | undefined> = {
  BY_ITSELF: undefined,
  TIMED_OUT: "timed out",
  OUT_OF_MEMORY: "out of memory",
  WROTE_TOO_MUCH: "wrote too much",
  BROKE_ITS_BOX: "was stopped",
};

/** What each program did with an input of one's own. */
export function inputRow(input: Schemas["InputOnSheet"], number: number, answers: TriedAnswer[]): TriedRow {
  const given = [...input.arguments, input.input.trim().split("\n")[0] ?? ""].filter(Boolean).join(" ");
  return {
    key: input.id,
    name: `Your input ${number}${given === "" ? "" : `: ${given.slice(0, 60)}`}`,
    cells: answers.map(({ answer }): Cell | undefined => {
      const end = input.ends.find((e) => e.answerId === answer.id)?.end;
      return end && endCell(end);
    }),
  };
}

function endCell(end: Schemas["InputEnd"]): Cell {
  if (end.notBuilt !== undefined) {
    return { words: outcomeWords(end.notBuilt), good: false, text: end.errors };
  }
  const first = end.output.split("\n")[0] ?? "";
  const how = (end.end && ENDS[end.end]) ?? (end.status === 0 ? undefined : `ended with ${end.status}`);
  const text = [end.output, end.errors].filter(Boolean).join("\n");
  return {
    words: [first === "" ? "wrote nothing" : first.slice(0, 120), how].filter(Boolean).join(" · "),
    ...(how !== undefined && { good: false }),
    ...(text !== "" && { text }),
  };
}
