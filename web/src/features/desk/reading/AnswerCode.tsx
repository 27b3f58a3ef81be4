import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import type { Schemas } from "../../../api/client";
import { count } from "../../../ui/format";
import { Limits } from "../../../ui/Limits";
import { languageOf } from "../../../ui/pieces";
import { Query } from "../../../ui/Query";
import { codeOfAnswer } from "../api";
import { spelledOut } from "../../../ui/spelledOut";
import { ChangedFiles, type DiffLayout } from "./ChangedFiles";
import { PlainLines } from "./PlainLines";

type StartingFile = Schemas["StartingFile"];
type CodeFile = Schemas["CodeFile"];

type Code = Schemas["CodeView"];

type AnswerChangesProps = { sheetId: string; answerId: string; start: StartingFile[]; layout: DiffLayout };

/** What an answer on a sheet does to the starting code. */
export function AnswerChanges({ sheetId, answerId, start, layout }: AnswerChangesProps) {
  const code = useQuery(codeOfAnswer(sheetId, answerId));
  return (
    <Query of={code} what="the changes">
      {(found) => <Changes code={found} start={start} layout={layout} />}
    </Query>
  );
}

type ChangesProps = { code: Code; start: StartingFile[]; layout: DiffLayout };

/** In all, then file by file. */
export function Changes({ code, start, layout }: ChangesProps) {
  const { changes, outside, namesFiles, limits } = code;
  const byPath = useMemo(() => new Map(start.map((f) => [f.path, f.text])), [start]);
  if (changes.length === 0) {
    return (
      <>
        <Limits limits={limits} />
        <p className="mt-1 text-ink-soft">
          Nothing in it is a difference, or prints a file of the starting code again; so there is nothing to compare.
        </p>
      </>
    );
  }
  return (
    <>
      <Limits limits={limits} />
      <p className="mt-1 mb-2 text-sm text-ink-soft">
        {count(new Set(changes.map((c) => c.path)).size, "file", "files")},{" "}
        {count(
          changes.reduce((sum, c) => sum + c.added, 0),
          "line",
          "lines",
        )}{" "}
        added, {changes.reduce((sum, c) => sum + c.removed, 0)} removed.{" "}
        {outside.length > 0
          ? `Outside what the prompt speaks of: ${outside.join(", ")}.`
          : namesFiles
            ? "All in files that the prompt speaks of, or new."
            : "The prompt speaks of no file by name."}
      </p>
      <ChangedFiles files={changes} start={byPath} layout={layout} outside={outside} />
    </>
  );
}

const SORTS: Record<CodeFile["sort"], string> = { CHANGED: "changed", ADDED: "new", REMOVED: "removed", BLOCK: "" };

const languageOfBlock = (name: string) => /, (\S+)$/.exec(name)?.[1];

/** The code that an answer on a sheet ends in. */
export function AnswerFiles({ sheetId, answerId }: { sheetId: string; answerId: string }) {
  const code = useQuery(codeOfAnswer(sheetId, answerId));
  return (
    <Query of={code} what="the code">
      {({ files }) => <Files files={files} />}
    </Query>
  );
}

/** One of them at a time, whole. */
export function Files({ files }: { files: CodeFile[] }) {
  const [at, setAt] = useState(0);
  const file = files[at] ?? files[0];
  if (!file) {
    return <p className="mt-1 text-ink-soft">There is no code in it that could be shown as a file.</p>;
  }
  return (
    <>
      <label className="mt-1 block text-sm">
        <span className="sr-only">File</span>
        <select
          value={files.indexOf(file)}
          onChange={(e) => setAt(Number(e.target.value))}
          className="w-full rounded-leaf border border-edge bg-vellum px-2 py-0.5 font-mono"
        >
          {files.map((f, i) => (
            <option key={i} value={i}>
              {[spelledOut(f.path), SORTS[f.sort]].filter(Boolean).join(", ")}
            </option>
          ))}
        </select>
      </label>
      {file.sort === "REMOVED" ? (
        <p className="mt-1 text-ink-soft">The answer removes this file.</p>
      ) : (
        <PlainLines
          key={file.path}
          text={file.text}
          ground={{ part: "FILE", path: file.path }}
          {...languageProp(file)}
        />
      )}
    </>
  );
}

function languageProp(file: CodeFile): { language?: string } {
  const language = file.sort === "BLOCK" ? languageOfBlock(file.path) : languageOf(file.path);
  return language === undefined ? {} : { language };
}
