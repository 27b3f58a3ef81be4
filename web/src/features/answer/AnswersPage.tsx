import type { ReactNode } from "react";
import { useQueries, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button, buttonLook } from "../../ui/Button";
import { Failure } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { MaskingLine } from "../masking";
import { promptsOfStudy } from "../prompt";
import { outcomeWord, RunLines, runsOfStudy, whyNotThere } from "../run";
import { useStudy } from "../study";
import { WhereNeeded } from "../turn";
import { Filters, rowsOf, useAnswerFilter } from "./AnswerFilters";
import { answersOfStudy } from "./api";
import { FollowUpRuleLine } from "./FollowUpRuleLine";
import { changeLine, followUpLine, measuresLine, ofSeveralModels } from "./measures";

export function AnswersPage() {
  const study = useStudy();
  const [prompts, candidates, answers] = useQueries({
    queries: [promptsOfStudy(study.id), candidatesOfStudy(study.id), answersOfStudy(study.id)],
  });
  const runs = useQuery({ ...runsOfStudy(study.id), enabled: study.role === "LEAD", retry: false });
  const [filter, setFilter] = useAnswerFilter();
  useTitle(`Answers · ${study.title}`);
  const failed = prompts.error ?? candidates.error ?? answers.error;
  if (failed) {
    return <Failure error={failed} what="the answers" onRetry={() => void answers.refetch()} />;
  }
  if (!prompts.data || !candidates.data || !answers.data) {
    return <p role="status">Fetching the answers …</p>;
  }
  const mayWrite = study.role === "LEAD" && study.stage === "PREPARING";
  if (prompts.data.length === 0 || candidates.data.length === 0) {
    return <NothingToAnswer />;
  }
  const shown = rowsOf(prompts.data, answers.data, filter);
  const severalModels = ofSeveralModels(answers.data);
  const byCell = Map.groupBy(answers.data, (a) => cellOf(a.promptId, a.candidateId));
  return (
    <div>
      <AnswersHead mayWrite={mayWrite} />
      <p className="mt-1 mb-5 text-ink-soft">
        Each prompt with what each candidate gave, how it ended and what it took.
      </p>
      <RunLines />
      <MaskingLine />
      <Filters prompts={prompts.data} answers={answers.data} filter={filter} onFilter={setFilter} />
      {shown.length === 0 ? (
        <p>
          No prompt has such an answer.{" "}
          <Button onClick={() => setFilter({ kind: "", area: "", outcome: "" })}>Show all prompts</Button>
        </p>
      ) : (
        <Table
          caption="Answers by prompt and candidate"
          rows={shown}
          rowKey={(p) => p.id}
          columns={answerColumns(candidates.data, (p, c) => (
            <Cell
              answers={byCell.get(cellOf(p.id, c.id)) ?? []}
              outcome={filter.outcome}
              namesModel={severalModels.has(c.id)}
              missing={whyMissing(p, study.stage, whyNotThere(runs.data ?? [], p.id, c.id))}
              paste={mayWrite && p.fault === undefined ? `${p.id}?paste=${c.id}` : undefined}
            />
          ))}
        />
      )}
      <FollowUpRuleLine mayWrite={mayWrite} />
      {mayWrite && <WhereNeeded />}
    </div>
  );
}

const cellOf = (promptId: string, candidateId: string) => `${promptId} ${candidateId}`;

function whyMissing(
  prompt: Schemas["PromptView"],
  stage: Schemas["StudySummary"]["stage"],
  ofRun: string | undefined,
): string {
  if (prompt.fault !== undefined) {
    return "not asked: the prompt is set aside";
  }
  if (ofRun !== undefined) {
    return ofRun;
  }
  return stage === "PREPARING" ? "not collected yet" : "not asked before the round";
}

type CellProps = {
  answers: Schemas["AnswerSummary"][];
  outcome: string;
  /** Whether more than one model answered for the candidate. */
  namesModel: boolean;
  missing: string;
  paste: string | undefined;
};

function Cell({ answers, outcome, namesModel, missing, paste }: CellProps) {
  if (answers.length === 0) {
    return (
      <>
        <span className="block text-sm text-ink-soft">{missing}</span>
        {paste && <Link to={paste}>Paste one</Link>}
      </>
    );
  }
  return answers.map((answer) => (
    <div key={answer.id} className={outcome !== "" && answer.outcome !== outcome ? "text-ink-soft" : undefined}>
      {answers.length > 1 && <span className="text-sm">attempt {answer.attempt}: </span>}
      {outcomeWord(answer.outcome)}
      <span className="block text-sm text-ink-soft">{measuresLine(answer.measures)}</span>
      {namesModel && answer.measures.model !== undefined && (
        <span className="block text-sm font-medium">{answer.measures.model}</span>
      )}
      {[followUpLine(answer.followUps, answer.unequal), changeLine(answer.changed)]
        .filter((line) => line !== undefined)
        .map((line) => (
          <span key={line} className="block text-sm text-ink-soft">
            {line}
          </span>
        ))}
    </div>
  ));
}

type Candidate = Schemas["CandidateView"];

function answerColumns(
  candidates: Candidate[],
  cell: (prompt: Schemas["PromptView"], candidate: Candidate) => ReactNode,
): Column<Schemas["PromptView"]>[] {
  return [
    {
      key: "prompt",
      head: "Prompt",
      rowHeader: true,
      sortBy: (p) => p.content.title,
      cell: (p) => (
        <>
          <Link to={p.id}>{p.content.title || "Without a title"}</Link>
          <span className="block text-sm text-ink-soft">
            {p.kind.name}
            {p.fault && ", set aside"}
          </span>
        </>
      ),
    },
    ...candidates.map((c, i) => ({
      key: c.id,
      head: <CandidateName name={c.content.name} index={i} />,
      cell: (p: Schemas["PromptView"]) => cell(p, c),
    })),
  ];
}

type AnswersHeadProps = { mayWrite: boolean };

function AnswersHead({ mayWrite }: AnswersHeadProps) {
  return (
    <div className="flex flex-wrap items-baseline gap-4">
      <h1>Answers</h1>
      {mayWrite && (
        <span className="ml-auto flex gap-2">
          <Link to="trials" className={buttonLook("quiet")}>
            Trials
          </Link>
          <Link to="files" className={buttonLook("quiet")}>
            Bring answers in
          </Link>
          <Link to="collect" className={buttonLook("primary")}>
            Collect from sources
          </Link>
        </span>
      )}
    </div>
  );
}

function NothingToAnswer() {
  return (
    <div>
      <h1>Answers</h1>
      <p className="mt-2">
        Answers stand where a prompt meets a candidate. Write <Link to="../prompts">prompts</Link> and name{" "}
        <Link to="../candidates">candidates</Link> first.
      </p>
    </div>
  );
}
