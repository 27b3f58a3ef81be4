import { type FormEvent, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Field, Tick } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { useStudy } from "../study";
import { useListGit, useReadGit } from "./api";

const SHOWN = 300;

/** Takes files at a commit from a git repository that the server's administrator allows. */
export function GitPicker({ onTaken }: { onTaken: (code: Schemas["GitCode"]) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>From git</Button>
      <Dialog title="Starting code from git" open={open} onOpenChange={setOpen}>
        <Picker
          onTaken={(code) => {
            onTaken(code);
            setOpen(false);
          }}
        />
      </Dialog>
    </>
  );
}

function Picker({ onTaken }: { onTaken: (code: Schemas["GitCode"]) => void }) {
  const study = useStudy();
  const list = useListGit(study.id);
  const read = useReadGit(study.id);
  const [repository, setRepository] = useState("");
  const [commit, setCommit] = useState("HEAD");
  const problem = list.error ?? read.error;
  const errorOf = (field: string) => (problem instanceof ApiProblem ? problem.errorOf(field) : undefined);
  const look = (event: FormEvent) => {
    event.preventDefault();
    list.mutate({ repository, commit });
  };
  return (
    <>
      <form onSubmit={look} className="grid gap-3">
        <Field
          label="Repository"
          hint="Its folder on the server; only below folders that the administrator allows."
          required
          value={repository}
          error={errorOf("repository")}
          onChange={(e) => setRepository(e.target.value)}
        />
        <Field
          label="Commit, branch or tag"
          required
          value={commit}
          error={errorOf("commit")}
          onChange={(e) => setCommit(e.target.value)}
        />
        <Button type="submit" className="w-fit" disabled={list.isPending}>
          Look
        </Button>
      </form>
      {problem && !(problem instanceof ApiProblem && problem.errors.length > 0) && (
        <Note tone="trouble" role="alert" className="mt-3">
          {problem.message}
        </Note>
      )}
      {list.data && (
        <FilesAtCommit
          key={list.submittedAt}
          listing={list.data}
          error={errorOf("paths")}
          busy={read.isPending}
          onTake={(paths) => read.mutate({ repository, commit: list.data.commit, paths }, { onSuccess: onTaken })}
        />
      )}
    </>
  );
}

type FilesAtCommitProps = {
  listing: Schemas["GitListing"];
  error: string | undefined;
  busy: boolean;
  onTake: (paths: string[]) => void;
};

/** The files of a commit, to choose from; made anew for each listing. */
function FilesAtCommit({ listing, error, busy, onTake }: FilesAtCommitProps) {
  const [filter, setFilter] = useState("");
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const matching = listing.files.filter((f) => f.path.toLowerCase().includes(filter.toLowerCase()));
  const toggle = (path: string, on: boolean) => {
    const next = new Set(ticked);
    if (on) {
      next.add(path);
    } else {
      next.delete(path);
    }
    setTicked(next);
  };
  return (
    <div className="mt-4">
      <p className="mb-2 text-sm text-ink-soft">
        {count(listing.files.length, "file", "files")} at {listing.commit.slice(0, 12)}.
      </p>
      <Field label="Paths with" type="search" value={filter} onChange={(e) => setFilter(e.target.value)} />
      <ul className="mt-2 max-h-56 overflow-y-auto" tabIndex={0} aria-label="Files at this commit">
        {matching.slice(0, SHOWN).map((f) => (
          <li key={f.path}>
            <Tick
              checked={ticked.has(f.path)}
              label={<code className="font-mono text-sm break-all">{f.path}</code>}
              onTick={(on) => toggle(f.path, on)}
            />
          </li>
        ))}
      </ul>
      {matching.length > SHOWN && <p className="text-sm text-ink-soft">and {matching.length - SHOWN} more</p>}
      {error && <p className="mt-1 text-sm text-clay">{error}</p>}
      <Button tone="primary" className="mt-3" disabled={ticked.size === 0 || busy} onClick={() => onTake([...ticked])}>
        Take {count(ticked.size, "file", "files")}
      </Button>
    </div>
  );
}
