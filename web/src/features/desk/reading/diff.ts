import type { Schemas } from "../../../api/client";

type Change = Schemas["FileChangeView"];
type Line = Schemas["ChangedLine"];

/** A line of a difference with its numbers on both sides. */
export type NumberedLine = Line & { before?: number; after?: number };

/** What is shown of a file: lines, and between them stretches that nothing changes. */
export type Stretch =
  | { sort: "lines"; lines: NumberedLine[] }
  | { sort: "kept"; before: number; after: number; lines: string[]; count?: number };

/**
 * A file's difference from top to bottom. Between the changed stretches stand the kept lines, as far as the starting code is
 * there to take them from.
 *
 * @param start the file as it was; absent if it is not known or the difference does not fit it
 */
export function stretchesOf(change: Change, start: string | undefined): Stretch[] {
  const lines = start?.replace(/\n$/, "").split("\n");
  const all: Stretch[] = [];
  let before = 1;
  let after = 1;
  for (const hunk of change.hunks) {
    const hasBefore = hunk.lines.some((l) => l.kind !== "ADDED");
    // A hunk that only adds names the line it comes after.
    const from = hasBefore ? hunk.before : hunk.before + 1;
    if (lines && from > before && change.sort !== "ADDED") {
      all.push({ sort: "kept", before, after, lines: lines.slice(before - 1, from - 1) });
    } else if (!lines && from > before && change.sort === "CHANGED") {
      all.push({ sort: "kept", before, after, lines: [], count: from - before });
    }
    after += change.sort === "ADDED" ? 0 : from - before;
    before = change.sort === "ADDED" ? before : from;
    const numbered = hunk.lines.map((line): NumberedLine => {
      switch (line.kind) {
        case "KEPT":
          return { ...line, before: before++, after: after++ };
        case "ADDED":
          return { ...line, after: after++ };
        case "REMOVED":
          return { ...line, before: before++ };
      }
    });
    all.push({ sort: "lines", lines: numbered });
  }
  if (lines && change.sort !== "ADDED" && change.sort !== "REMOVED" && before <= lines.length) {
    all.push({ sort: "kept", before, after, lines: lines.slice(before - 1) });
  }
  return all;
}

export type Pair = { left?: NumberedLine; right?: NumberedLine };

/** Lines for two columns: what was removed stands beside what was added in its place. */
export function pairsOf(lines: NumberedLine[]): Pair[] {
  const pairs: Pair[] = [];
  let removed: NumberedLine[] = [];
  let added: NumberedLine[] = [];
  const settle = () => {
    for (let i = 0; i < Math.max(removed.length, added.length); i++) {
      const left = removed[i];
      const right = added[i];
      pairs.push({ ...(left && { left }), ...(right && { right }) });
    }
    removed = [];
    added = [];
  };
  for (const line of lines) {
    if (line.kind === "REMOVED") {
      if (added.length > 0) {
        settle();
      }
      removed.push(line);
    } else if (line.kind === "ADDED") {
      added.push(line);
    } else {
      settle();
      pairs.push({ left: line, right: line });
    }
  }
  settle();
  return pairs;
}

/** Lines that say something else, not only moved or spaced otherwise. */
export function plainCounts(change: Change): { added: number; removed: number; moved: number; spacing: number } {
  const counts = { added: 0, removed: 0, moved: 0, spacing: 0 };
  for (const line of change.hunks.flatMap((h) => h.lines)) {
    if (line.kind === "KEPT") {
      continue;
    }
    if (line.nature === "MOVED") {
      counts.moved += line.kind === "ADDED" ? 1 : 0;
    } else if (line.nature === "SPACING") {
      counts.spacing += line.kind === "ADDED" ? 1 : 0;
    } else if (line.kind === "ADDED") {
      counts.added++;
    } else {
      counts.removed++;
    }
  }
  return counts;
}
