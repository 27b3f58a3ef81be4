import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { DiffLines } from "../../ui/DiffText";
import { count } from "../../ui/format";
import { Limits } from "../../ui/Limits";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { useStudy } from "../study";
import { changesOfAnswer } from "./api";

type Change = Schemas["FileChangeView"];

const SORTS: Record<Change["sort"], string> = {
  CHANGED: "changed",
  ADDED: "new",
  REMOVED: "removed",
  MOVED: "moved",
};

/** What an answer does to the starting code, file by file. */
export function Changes({ answerId }: { answerId: string }) {
  const study = useStudy();
  const changes = useQuery(changesOfAnswer(study.id, answerId));
  return (
    <Query of={changes} what="the differences">
      {({ changes: files, limits }) => (
        <>
          <Limits limits={limits} />
          {files.length === 0 ? (
            <p className="mt-4 text-ink-soft">
              Nothing in it is a difference, or prints a file of the starting code again; so there is nothing to
              compare.
            </p>
          ) : (
            <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-5">
              {files.map((file, i) => (
                <FileChange key={i} file={file} />
              ))}
            </div>
          )}
        </>
      )}
    </Query>
  );
}

function FileChange({ file }: { file: Change }) {
  return (
    <div>
      <h3 className="font-mono text-sm [overflow-wrap:anywhere]">{file.path}</h3>
      <p className="mb-1 text-sm text-ink-soft">
        {SORTS[file.sort]}
        {file.from !== file.path && ` from ${file.from}`} · {count(file.added, "line", "lines")} added, {file.removed}{" "}
        removed
      </p>
      {file.coarse && (
        <Note tone="info" className="mb-2">
          Too much to compare line by line: all of it is shown as replaced.
        </Note>
      )}
      {file.misfit !== undefined && (
        <Note tone="caution" className="mb-2">
          It does not fit: {file.misfit}.
        </Note>
      )}
      {file.hunks.length > 0 && (
        <pre tabIndex={0} className="overflow-x-auto border-y border-rule bg-vellum font-mono text-sm leading-snug">
          {file.hunks.map((hunk, i) => (
            <code key={i} className="block">
              <DiffLines
                lines={[
                  { kind: "HEAD", text: hunk.before > 0 ? `from line ${hunk.before}` : "from the start" },
                  ...hunk.lines,
                ]}
              />
            </code>
          ))}
        </pre>
      )}
    </div>
  );
}
