import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { classes } from "../../ui/classes";
import { Dialog } from "../../ui/Dialog";
import { Choice, NumberField } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure, Query } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { useStudy } from "../study";
import { answersOfStudy } from "../answer";
import { checksOf, pictureAt, trialOf, trialsOf, useMoveTrials, useLiveTrials } from "./api";
import { LeadRepairs } from "./LeadRepairs";
import { TrialItems, WorksByTrial, together, trialWords } from "../evidence";

type Trial = Schemas["TrialOfBoard"];

/** All trials of a study: which answer's code does what its prompt's check asks. */
export function TrialsPage() {
  const study = useStudy();
  const [prompts, candidates, answers, checks, board] = useQueries({
    queries: [
      promptsOfStudy(study.id),
      candidatesOfStudy(study.id),
      answersOfStudy(study.id),
      checksOf(study.id),
      trialsOf(study.id),
    ],
  });
  useTitle(`Trials · ${study.title}`);
  useLiveTrials(study.id, board.data?.trials.some((t) => t.state === "WAITING" || t.state === "RUNNING") ?? false);
  const failed = prompts.error ?? candidates.error ?? answers.error ?? checks.error ?? board.error;
  if (failed) {
    return <Failure error={failed} what="the trials" onRetry={() => void board.refetch()} />;
  }
  if (!prompts.data || !candidates.data || !answers.data || !checks.data || !board.data) {
    return <p role="status">Fetching the trials …</p>;
  }
  const checked = prompts.data.filter((p) => checks.data.some((c) => c.promptId === p.id));
  return (
    <div className="max-w-6xl">
      <p className="text-sm">
        <Link to="../answers">All answers</Link>
      </p>
      <h1 className="mt-1">Trials</h1>
      <p className="mt-2 mb-4 max-w-3xl">
        Each answer’s code is built, run and tested by its prompt’s check, all alike and shut in. What comes out is
        evidence for a grade, not a grade.
      </p>
      {board.data.missing !== undefined && (
        <Note tone="caution" className="mb-4">
          No code is tried on this server, as {board.data.missing}.
        </Note>
      )}
      <Going board={board.data} prompts={checked} />
      <BoardTable prompts={checked} candidates={candidates.data} answers={answers.data} trials={board.data.trials} />
      <WorksByTrial key={board.data.trials.filter((t) => t.state === "ENDED").length} />
    </div>
  );
}

/** How far trials are, and what can be done about it. */
function Going({ board, prompts }: { board: Schemas["TrialBoard"]; prompts: Schemas["PromptView"][] }) {
  const study = useStudy();
  const move = useMoveTrials(study.id);
  const [repetitions, setRepetitions] = useState<number | undefined>(1);
  const [which, setWhich] = useState("");
  const options = whichPrompts(prompts);
  const promptIds = options.find((o) => o.value === which)?.promptIds ?? [];
  const of = (state: Trial["state"]) => board.trials.filter((t) => t.state === state).length;
  const moving = of("WAITING") + of("RUNNING");
  if (prompts.length === 0) {
    return (
      <p>
        No prompt has a check yet. Write one on the page of a <Link to="../prompts">prompt</Link>.
      </p>
    );
  }
  return (
    <>
      <div className="mb-4 flex flex-wrap items-end gap-3">
        {study.stage === "PREPARING" && (
          <>
            <Choice label="Which prompts" className="w-64" value={which} options={options} onValue={setWhich} />
            <NumberField
              label="Times each"
              className="w-28"
              value={repetitions}
              onNumber={setRepetitions}
              error={repetitions !== undefined && (repetitions < 1 || repetitions > 10) ? "1 to 10" : undefined}
            />
            <Button
              tone="primary"
              disabled={move.isPending || repetitions === undefined || board.missing !== undefined}
              onClick={() => move.mutate({ go: "start", body: { promptIds, repetitions: repetitions ?? 1 } })}
            >
              Try what was not tried yet
            </Button>
            {moving > 0 && <Button onClick={() => move.mutate({ go: "stop" })}>Stop</Button>}
            {moving === 0 && of("STOPPED") > 0 && <Button onClick={() => move.mutate({ go: "on" })}>Go on</Button>}
          </>
        )}
        <p role="status" className="pb-1.5 text-ink-soft">
          {board.trials.length === 0
            ? `${count(prompts.length, "prompt has", "prompts have")} a check.`
            : `${of("ENDED")} of ${count(board.trials.length, "trial", "trials")} ended${moving > 0 ? `, ${of("RUNNING")} running` : ""}.`}
        </p>
      </div>
      <Trouble error={move.error} className="mb-3" />
    </>
  );
}

/** All of them, those of one kind where there are several, or one. */
function whichPrompts(prompts: Schemas["PromptView"][]) {
  const kinds = [...Map.groupBy(prompts, (p) => p.kind.id).entries()];
  return [
    { value: "", label: "all with a check", promptIds: [] },
    ...(kinds.length > 1
      ? kinds.map(([id, of]) => ({
          value: id,
          label: `all of kind ${of[0]?.kind.name ?? ""}`,
          promptIds: of.map((p) => p.id),
        }))
      : []),
    ...prompts.map((p) => ({ value: p.id, label: p.content.title || "Without a title", promptIds: [p.id] })),
  ];
}

/** What a trial is of: one answer up to one turn. */
const codeOf = (trial: Trial) => `${trial.answerId} ${trial.turn}`;

type BoardTableProps = {
  prompts: Schemas["PromptView"][];
  candidates: Schemas["CandidateView"][];
  answers: Schemas["AnswerSummary"][];
  trials: Trial[];
};

function BoardTable({ prompts, candidates, answers, trials }: BoardTableProps) {
  const [params, setParams] = useSearchParams();
  const current = trials.filter((t) => t.isCurrent);
  if (current.length === 0) {
    return null;
  }
  const open = current.find((t) => t.id === params.get("trial"));
  const candidateOf = new Map(answers.map((a) => [a.id, a.candidateId]));
  const byCode = Map.groupBy(current, codeOf);
  const byCell = Map.groupBy(byCode.values(), ([t]) => `${t?.promptId} ${t && candidateOf.get(t.answerId)}`);
  const cellsOf = (promptId: string, candidateId: string) => byCell.get(`${promptId} ${candidateId}`) ?? [];
  const show = (trial: Trial) => setParams({ trial: trial.id }, { replace: true });
  const columns: Column<Schemas["PromptView"]>[] = [
    {
      key: "prompt",
      head: "Prompt",
      rowHeader: true,
      sortBy: (p) => p.content.title,
      cell: (p) => <Link to={`../prompts/${p.id}/check`}>{p.content.title}</Link>,
    },
    ...candidates.map((c, index) => ({
      key: c.id,
      head: <CandidateName name={c.content.name} index={index} />,
      sortBy: (p: Schemas["PromptView"]) =>
        cellsOf(p.id, c.id).filter((cell) => cell.every((t) => t.outcome === "PASSED")).length,
      cell: (p: Schemas["PromptView"]) => <Cells cells={cellsOf(p.id, c.id)} onOpen={show} />,
    })),
  ];
  return (
    <>
      <Table caption="Trials" columns={columns} rows={prompts} rowKey={(p) => p.id} saveAs="trials" />
      {open && (
        <TrialDialog
          trial={open}
          alike={byCode.get(codeOf(open)) ?? [open]}
          onOpen={show}
          onClose={() => setParams({}, { replace: true })}
        />
      )}
    </>
  );
}

/** One candidate's trials at one prompt: a line for each turn of each attempt. */
function Cells({ cells, onOpen }: { cells: Trial[][]; onOpen: (trial: Trial) => void }) {
  return (
    <ul className="grid gap-1">
      {cells.map((cell) => {
        const { words, flaky } = together(cell);
        const first = cell.find((t) => t.outcome !== undefined) ?? cell[0];
        return (
          first && (
            <li key={codeOf(first)} className="text-sm">
              <button
                type="button"
                disabled={first.outcome === undefined}
                className={classes(
                  "text-left underline decoration-dotted underline-offset-4 disabled:no-underline",
                  flaky && "text-ochre",
                )}
                onClick={() => onOpen(first)}
              >
                {first.turn > 0 && `follow-up ${first.turn}: `}
                {words}
              </button>
              {first.broken > 0 && (
                <span className="text-clay"> · {count(first.broken, "test broken", "tests broken")}</span>
              )}
              {first.warnings > 0 && (
                <span className="text-ink-soft"> · {count(first.warnings, "warning", "warnings")}</span>
              )}
            </li>
          )
        );
      })}
    </ul>
  );
}

type TrialDialogProps = { trial: Trial; alike: Trial[]; onOpen: (trial: Trial) => void; onClose: () => void };

/** One trial, with the others of the same code a choice away: none of them is hidden behind another. */
function TrialDialog({ trial, alike, onOpen, onClose }: TrialDialogProps) {
  const study = useStudy();
  const result = useQuery(trialOf(study.id, trial.id));
  return (
    <Dialog title={`A trial: ${trialWords(trial)}`} open wide onOpenChange={onClose}>
      {alike.length > 1 && (
        <Choice
          label="Which time"
          className="mb-3 w-72"
          value={trial.id}
          options={alike
            .filter((t) => t.outcome !== undefined)
            .map((t) => ({ value: t.id, label: `${t.repetition}: ${trialWords(t)}` }))}
          onValue={(id) => {
            const chosen = alike.find((t) => t.id === id);
            if (chosen) {
              onOpen(chosen);
            }
          }}
        />
      )}
      <Query of={result} what="the trial">
        {(found) => <TrialItems result={found} pictureAt={pictureAt(study.id, trial.id)} />}
      </Query>
      <LeadRepairs answerId={trial.answerId} />
    </Dialog>
  );
}
