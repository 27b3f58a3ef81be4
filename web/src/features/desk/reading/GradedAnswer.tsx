import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import type { Schemas } from "../../../api/client";
import { classes } from "../../../ui/classes";
import { count } from "../../../ui/format";
import { Query } from "../../../ui/Query";
import type { PlacedRemark } from "../remarks";
import { NotedAnswer, Noted } from "./NotedAnswer";

// Only few answers are read as code, so what shows it is fetched when the first one is.
const Changes = lazy(async () => ({ default: (await import("./AnswerCode")).Changes }));
const Files = lazy(async () => ({ default: (await import("./AnswerCode")).Files }));

/** Where the code of an answer comes from. */
export type CodeOf = { queryKey: readonly unknown[]; queryFn: () => Promise<Schemas["GradedCode"]> };

const PARTS = { text: "Text", changes: "Changes", files: "Files" };
type Part = keyof typeof PARTS;
const SIDES: Record<Part, string[]> = { text: ["TEXT"], changes: ["BEFORE", "AFTER"], files: ["FILE"] };
const ALL: Part[] = ["text", "changes", "files"];

type GradedAnswerProps = {
  text: string;
  /** With what it is about. */
  remarks: PlacedRemark[];
  code: CodeOf;
};

/** An answer with the remarks at their lines: as it was written, what it changes, and the files it ends in. */
export function GradedAnswer({ text, remarks, code }: GradedAnswerProps) {
  const found = useQuery({ ...code, staleTime: Infinity });
  const [part, setPart] = useState<Part>("text");
  const elsewhere = remarks.some((r) => r.remark.lines && r.remark.lines.part !== "TEXT");
  // What could not be fetched is told, with another try, where somebody looks for it.
  const hasCode = elsewhere || found.isError || (found.data !== undefined && found.data.start.length > 0);
  return (
    <>
      {hasCode && (
        <div role="group" aria-label="What is shown of the answer" className="mb-2 flex gap-1">
          {ALL.map((p) => (
            <button
              key={p}
              type="button"
              aria-pressed={p === part}
              onClick={() => setPart(p)}
              className={classes(
                "border-b-2 px-2 py-0.5",
                p === part ? "border-heather font-semibold" : "border-transparent text-ink-soft",
              )}
            >
              {PARTS[p]}
              {onPart(remarks, p) > 0 && (
                <span className="text-sm font-normal text-ink-soft">
                  , {count(onPart(remarks, p), "remark", "remarks")}
                </span>
              )}
            </button>
          ))}
        </div>
      )}
      {part === "text" ? (
        <NotedAnswer text={text} remarks={remarks} />
      ) : (
        <Query of={found} what="the code">
          {(graded) => (
            <Suspense fallback={<p role="status">Fetching the code …</p>}>
              <Noted remarks={remarks}>
                {part === "changes" ? (
                  <Changes code={graded.code} start={graded.start} layout="inline" />
                ) : (
                  <Files files={graded.code.files} />
                )}
              </Noted>
            </Suspense>
          )}
        </Query>
      )}
    </>
  );
}

const onPart = (remarks: PlacedRemark[], part: Part) =>
  remarks.filter((r) => r.remark.lines && SIDES[part].includes(r.remark.lines.part)).length;
