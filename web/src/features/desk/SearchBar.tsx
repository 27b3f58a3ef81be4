import { useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { count } from "../../ui/format";
import { goToLine } from "./reading/pointing";
import { matchesIn } from "./search";

type SearchBarProps = {
  answers: Schemas["SheetView"]["answers"];
  /** Brings an answer into view, with its text. */
  onShow: (column: number) => void;
  onClose: () => void;
};

const HIGHLIGHT = "found";

/** Marks what was found in the texts that are laid out. A browser without the means shows the lines alone. */
function mark(words: string): void {
  if (!("highlights" in CSS)) {
    return;
  }
  CSS.highlights.delete(HIGHLIGHT);
  const wanted = words.toLocaleLowerCase();
  if (wanted === "") {
    return;
  }
  const ranges: Range[] = [];
  for (const column of document.querySelectorAll("[data-column]")) {
    const walker = document.createTreeWalker(column, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const text = node.nodeValue?.toLocaleLowerCase() ?? "";
      for (let at = text.indexOf(wanted); at >= 0; at = text.indexOf(wanted, at + wanted.length)) {
        const range = document.createRange();
        range.setStart(node, at);
        range.setEnd(node, at + wanted.length);
        ranges.push(range);
      }
    }
  }
  CSS.highlights.set(HIGHLIGHT, new Highlight(...ranges));
}

/** Looks for words in all answers of the sheet. */
/** Goes to a line and marks the words in it, once its column is shown, which may be only now. */
function showLine({ column, line }: ReturnType<typeof matchesIn>[number], words: string): void {
  requestAnimationFrame(() => {
    const place = document.querySelector<HTMLElement>(`[data-column="${column}"]`);
    if (place) {
      goToLine(place, line);
      mark(words);
    }
  });
}

export function SearchBar({ answers, onShow, onClose }: SearchBarProps) {
  const [words, setWords] = useState("");
  const [at, setAt] = useState(-1);
  const field = useRef<HTMLInputElement>(null);
  const matches = useMemo(
    () =>
      matchesIn(
        answers.map((a) => a.text),
        words,
      ),
    [answers, words],
  );
  useEffect(() => field.current?.focus(), []);
  useEffect(() => {
    mark(words);
    return () => mark("");
  }, [words]);

  const go = (by: number) => {
    const next = (at + by + matches.length) % Math.max(matches.length, 1);
    const match = matches[next];
    if (match) {
      setAt(next);
      onShow(match.column);
      showLine(match, words);
    }
  };
  return (
    <div role="search" className="mx-4 mt-1 flex items-center gap-2 text-sm">
      <label className="flex items-center gap-2">
        Search all answers
        <input
          ref={field}
          value={words}
          onChange={(e) => {
            setWords(e.target.value);
            setAt(-1);
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              e.preventDefault();
              go(e.shiftKey ? -1 : 1);
            } else if (e.key === "Escape") {
              e.preventDefault();
              onClose();
            }
          }}
          className="w-64 rounded-leaf border border-edge bg-vellum px-2 py-0.5"
        />
      </label>
      <Found words={words} matches={matches} at={at} answers={answers} />
      <button type="button" className="ml-auto text-tarn underline underline-offset-4" onClick={onClose}>
        End the search
      </button>
    </div>
  );
}

type FoundProps = {
  words: string;
  matches: ReturnType<typeof matchesIn>;
  at: number;
  answers: SearchBarProps["answers"];
};

function Found({ words, matches, at, answers }: FoundProps) {
  const here = matches[at];
  return (
    <span role="status" className="text-ink-soft">
      {words === ""
        ? ""
        : matches.length === 0
          ? "nowhere"
          : here
            ? `${at + 1} of ${count(matches.length, "line", "lines")}: answer ${answers[here.column]?.number ?? 0}, line ${here.line}`
            : `in ${count(matches.length, "line", "lines")}; Enter goes there`}
    </span>
  );
}
