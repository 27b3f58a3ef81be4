import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { currentOf, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { DraftSign, DraftTrouble } from "../../ui/DraftSign";
import { count } from "../../ui/format";
import { Lines } from "../../ui/Lines";
import { Note } from "../../ui/Note";
import { Failure, Query } from "../../ui/Query";
import { useDraft } from "../../ui/useDraft";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { useStepsChanged, useStudy } from "../study";
import { maskingOfStudy, putWords, useDecide } from "./api";
import { StretchRow } from "./StretchRow";

type View = Schemas["MaskingView"];
type Sort = Schemas["StretchView"]["sort"];
type Found = Schemas["AnswerInMasking"];

const SORTS: Record<Sort, string> = {
  NAME: "names",
  VENDOR: "listed words",
  VERSION: "versions",
  SIGNATURE: "signatures",
  SELF_INTRODUCTION: "introductions",
};

/** What gives candidates away in their answers, in its lines, to be masked or left before raters see it. */
export function MaskingPage() {
  const study = useStudy();
  const masking = useQuery(maskingOfStudy(study.id));
  useTitle(`Masking · ${study.title}`);
  return (
    <Query of={masking} what="the masking">
      {(view) => (
        <div className="max-w-5xl">
          <p className="text-sm">
            <Link to="../answers">All answers</Link>
          </p>
          <h1 className="mt-1">{headline(view)}</h1>
          <p className="mt-1 max-w-3xl text-ink-soft">
            Answers are searched for names, versions and listed words, for phrases in which a model introduces itself,
            and for signatures. Raters read the masked text only; the original is kept.
          </p>
          {study.stage === "PREPARING" && <Words key={study.id} view={view} />}
          <Stretches view={view} mayDecide={study.stage === "PREPARING"} />
        </div>
      )}
    </Query>
  );
}

function headline(view: View): string {
  if (view.answers.length === 0) {
    return "Nothing gives a candidate away";
  }
  return view.undecided === 0
    ? "Everything that was found is decided"
    : `${count(view.undecided, "stretch", "stretches")} to decide on`;
}

function Words({ view }: { view: View }) {
  const study = useStudy();
  const client = useQueryClient();
  const stepsChanged = useStepsChanged(study.id);
  const draft = useDraft<string[]>({
    name: `masking.${study.id}`,
    value: view.words,
    version: view.version,
    save: async (words, version) => {
      const saved = await putWords(study.id, { version, words: words.filter((w) => w.trim() !== "") });
      client.setQueryData(maskingOfStudy(study.id).queryKey, saved);
      stepsChanged();
      // A line that is still empty is not sent, and stays here to be filled.
      return { value: words, version: saved.version };
    },
    current: (problem) => {
      const now = currentOf<View>(problem);
      return { value: now.words, version: now.version };
    },
  });
  return (
    <section className="mt-6 max-w-2xl">
      <div className="mb-2 flex items-baseline gap-4">
        <h2>Words to look for</h2>
        <span className="ml-auto" />
        <DraftSign draft={draft} />
      </div>
      <DraftTrouble draft={draft} what="The list" />
      <Lines
        legend="Makers, families of models, tools, nicknames"
        hint="Names and versions of the candidates are looked for anyway."
        one="Word"
        values={draft.value}
        onChange={draft.change}
      />
    </section>
  );
}

function Stretches({ view, mayDecide }: { view: View; mayDecide: boolean }) {
  const study = useStudy();
  const [sort, setSort] = useState<Sort>();
  const decide = useDecide(study.id);
  const shown = view.answers
    .map((a) => ({ ...a, stretches: a.stretches.filter((s) => sort === undefined || s.sort === sort) }))
    .filter((a) => a.stretches.length > 0);
  const open = shown.flatMap((a) =>
    a.stretches.filter((s) => s.accepted === undefined).map((s) => ({ answerId: a.answerId, from: s.from })),
  );
  if (view.answers.length === 0) {
    return null;
  }
  return (
    <section className="mt-8">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-2">
        <h2 className="mr-3">In the answers</h2>
        <SortChoice view={view} sort={sort} onSort={setSort} />
        <span className="ml-auto" />
        {mayDecide && open.length > 1 && (
          <>
            <Button
              tone="primary"
              disabled={decide.isPending}
              onClick={() => decide.mutate(open.map((o) => ({ ...o, accept: true })))}
            >
              Mask all {open.length}
            </Button>
            <Button
              disabled={decide.isPending}
              onClick={() => decide.mutate(open.map((o) => ({ ...o, accept: false })))}
            >
              Leave all {open.length}
            </Button>
          </>
        )}
      </div>
      {decide.isError && (
        <Note tone="trouble" role="alert" className="mt-3">
          {decide.error.message}
        </Note>
      )}
      {shown.map((a) => (
        <AnswerFound
          key={a.answerId}
          found={a}
          mayDecide={mayDecide}
          onDecide={(decision) => decide.mutate([{ answerId: a.answerId, ...decision }])}
        />
      ))}
    </section>
  );
}

type SortChoiceProps = { view: View; sort: Sort | undefined; onSort: (sort: Sort | undefined) => void };

function SortChoice({ view, sort, onSort }: SortChoiceProps) {
  const counts = Map.groupBy(
    view.answers.flatMap((a) => a.stretches),
    (s) => s.sort,
  );
  const choices: [Sort | undefined, string][] = [
    [undefined, "all"],
    ...(["NAME", "VENDOR", "VERSION", "SIGNATURE", "SELF_INTRODUCTION"] as const)
      .filter((s) => counts.has(s))
      .map((s): [Sort, string] => [s, `${SORTS[s]} ${counts.get(s)?.length ?? 0}`]),
  ];
  return (
    <div role="group" aria-label="What gives away" className="flex flex-wrap gap-1">
      {choices.map(([value, words]) => (
        <button
          key={words}
          type="button"
          aria-pressed={sort === value}
          onClick={() => onSort(value)}
          className={classes(
            "border-b-2 px-2 py-0.5",
            sort === value ? "border-heather font-semibold" : "border-transparent text-ink-soft",
          )}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

type AnswerFoundProps = {
  found: Found;
  mayDecide: boolean;
  onDecide: (decision: Omit<Schemas["Decision"], "answerId">) => void;
};

function AnswerFound({ found, mayDecide, onDecide }: AnswerFoundProps) {
  const study = useStudy();
  const prompts = useQuery(promptsOfStudy(study.id));
  const candidates = useQuery(candidatesOfStudy(study.id));
  const failed = prompts.error ?? candidates.error;
  if (failed) {
    return <Failure error={failed} what="whose answer it is" onRetry={() => void candidates.refetch()} />;
  }
  const index = candidates.data?.findIndex((c) => c.id === found.candidateId) ?? -1;
  return (
    <section className="mt-5 border-t border-edge pt-3">
      <h3 className="flex flex-wrap items-baseline gap-x-4">
        <Link
          to={`../answers/${found.promptId}?answer=${found.answerId}`}
          className="text-tarn underline underline-offset-4"
        >
          {prompts.data?.find((p) => p.id === found.promptId)?.content.title || "Without a title"}
        </Link>
        {index >= 0 && <CandidateName name={candidates.data?.[index]?.content.name ?? ""} index={index} />}
        {found.attempt > 1 && <span className="font-sans text-sm font-normal">attempt {found.attempt}</span>}
      </h3>
      <ul className="mt-2">
        {found.stretches.map((s) => (
          <StretchRow key={s.from} stretch={s} mayDecide={mayDecide} onDecide={onDecide} />
        ))}
      </ul>
      {found.more > 0 && (
        <p className="mt-2 text-ink-soft">
          {count(found.more, "more stretch", "more stretches")} in this answer: they come as these are decided.
        </p>
      )}
      {!found.complete && (
        <Note tone="trouble" className="mt-2">
          This answer gives its candidate away in more places than anybody can decide on, and is not searched to its
          end. Shorten it, or leave it out; the round does not open before.
        </Note>
      )}
    </section>
  );
}
