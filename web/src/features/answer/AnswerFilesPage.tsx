import { useMutation, useQueries } from "@tanstack/react-query";
import { Link } from "react-router";
import { ApiProblem, type Schemas, upload } from "../../api/client";
import { Button, buttonLook } from "../../ui/Button";
import { FaultList } from "../../ui/FaultList";
import { FilePicker } from "../../ui/FilePicker";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { useStudy, useStudyChanged } from "../study";
import { outcomeWord } from "../run";

type Looked = { file: File; preview: Schemas["Preview"] };

/** Answers from a file: what it would bring is seen before anything is taken. */
export function AnswerFilesPage() {
  const study = useStudy();
  const changed = useStudyChanged(study.id);
  const path = `/api/studies/${study.id}/answer-files`;
  const look = useMutation({
    mutationFn: async (file: File): Promise<Looked> => ({
      file,
      preview: await upload<Schemas["Preview"]>(`${path}/preview`, file),
    }),
  });
  const take = useMutation({
    mutationFn: (file: File) => upload<Schemas["Taken"]>(path, file),
    onSuccess: changed,
  });
  useTitle(`Answers from a file · ${study.title}`);
  if (study.stage !== "PREPARING") {
    return <p>The round is open; no more answers come in.</p>;
  }
  return (
    <div className="max-w-5xl">
      <p className="text-sm">
        <Link to="../answers">All answers</Link>
      </p>
      <h1 className="mt-1">Answers from a file</h1>
      {take.data ? (
        <>
          <Note tone="good" role="status" className="my-4">
            {count(take.data.added, "answer is", "answers are")} taken
            {take.data.there > 0 && `; ${take.data.there} were there already`}.
          </Note>
          <Link to="../answers" className={buttonLook("primary")}>
            See all answers
          </Link>
        </>
      ) : (
        <>
          <p className="mt-2 mb-5 max-w-2xl">
            JSON Lines, CSV, or a zip of Markdown files and unified diffs with their measures in front. You see what the
            file would bring before anything is taken. The forms are described in{" "}
            <code className="font-mono">docs/formats/answers.md</code>, which comes with Mossbank.
          </p>
          <FilePicker
            label={look.isPending ? "Reading …" : "Drop the file here, or choose it"}
            accept=".jsonl,.ndjson,.csv,.zip"
            busy={look.isPending || take.isPending}
            onFile={(file) => {
              take.reset();
              look.mutate(file);
            }}
          />
          {look.isError && <Trouble error={look.error} />}
          {look.data && !look.isPending && (
            <WhatItBrings looked={look.data} busy={take.isPending} onTake={() => take.mutate(look.data.file)} />
          )}
          {take.isError && <Trouble error={take.error} />}
        </>
      )}
    </div>
  );
}

function Trouble({ error }: { error: Error }) {
  return (
    <section className="mt-5">
      <Note tone="trouble" role="alert">
        {error.message}
      </Note>
      <FaultList caption="Faults in the file" faults={error instanceof ApiProblem ? error.faults : []} />
    </section>
  );
}

type WhatItBringsProps = { looked: Looked; busy: boolean; onTake: () => void };

function WhatItBrings({ looked, busy, onTake }: WhatItBringsProps) {
  const { answers, faults } = looked.preview;
  const fresh = answers.filter((a) => a.match === "NEW").length;
  return (
    <section className="mt-6">
      {faults.length > 0 ? (
        <>
          <Note tone="trouble" role="alert">
            {count(faults.length, "thing is", "things are")} wrong with {looked.file.name}. Nothing is taken until it is
            mended.
          </Note>
          <FaultList caption="Faults in the file" faults={faults} />
        </>
      ) : (
        <div className="flex flex-wrap items-center gap-4">
          <p role="status">
            {looked.file.name}: {count(fresh, "new answer", "new answers")}
            {answers.length > fresh && `, ${answers.length - fresh} there already`}.
          </p>
          <Button tone="primary" disabled={busy || fresh === 0} onClick={onTake}>
            Take {count(fresh, "answer", "answers")}
          </Button>
        </div>
      )}
      {answers.length > 0 && <WhatTheFileHolds answers={answers} />}
    </section>
  );
}

type WhatTheFileHoldsProps = { answers: Schemas["Preview"]["answers"] };

function WhatTheFileHolds({ answers }: WhatTheFileHoldsProps) {
  const study = useStudy();
  const [prompts, candidates] = useQueries({
    queries: [promptsOfStudy(study.id), candidatesOfStudy(study.id)],
  });
  const titleOf = (id: string) => prompts.data?.find((p) => p.id === id)?.content.title ?? "";
  const indexOf = (id: string) => candidates.data?.findIndex((c) => c.id === id) ?? -1;
  const nameOf = (id: string) => candidates.data?.[indexOf(id)]?.content.name ?? "";
  return (
    <div className="mt-5">
      <h2 className="mb-1">What it holds</h2>
      <Table
        caption="Answers in the file"
        rows={answers.map((a, i) => ({ ...a, i }))}
        rowKey={(a) => String(a.i)}
        columns={heldColumns(titleOf, nameOf, indexOf)}
      />
    </div>
  );
}

type Held = Schemas["Preview"]["answers"][number] & { i: number };

function heldColumns(
  titleOf: (id: string) => string,
  nameOf: (id: string) => string,
  indexOf: (id: string) => number,
): Column<Held>[] {
  return [
    {
      key: "prompt",
      head: "Prompt",
      rowHeader: true,
      sortBy: (a) => titleOf(a.promptId),
      cell: (a) => titleOf(a.promptId),
    },
    {
      key: "candidate",
      head: "Candidate",
      sortBy: (a) => indexOf(a.candidateId),
      cell: (a) => <CandidateName name={nameOf(a.candidateId)} index={indexOf(a.candidateId)} />,
    },
    { key: "attempt", head: "Attempt", align: "right", cell: (a) => a.attempt },
    { key: "outcome", head: "How it ended", cell: (a) => outcomeWord(a.outcome) },
    {
      key: "length",
      head: "Characters",
      align: "right",
      sortBy: (a) => a.characters,
      cell: (a) => a.characters,
    },
    {
      key: "match",
      head: "What it is here",
      cell: (a) =>
        a.match === "THERE" ? (
          "there already"
        ) : a.misfit === undefined ? (
          "new"
        ) : (
          <>
            new; <span className="text-ochre">it does not fit: {a.misfit}</span>
          </>
        ),
    },
    {
      key: "place",
      head: "From",
      cell: (a) => (
        <span className="text-sm text-ink-soft">
          {a.file}, line {a.line}
        </span>
      ),
    },
  ];
}
