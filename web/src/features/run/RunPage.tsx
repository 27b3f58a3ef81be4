import { useQueries, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm, Dialog } from "../../ui/Dialog";
import { NumberField } from "../../ui/Field";
import { clock, count, duration, moment, money } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure, Query } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { SecretsFound } from "../secret";
import { useStudy, useStudyChanged } from "../study";
import { lateReplyOf, oneRun, useLiveRun, useRunStep } from "./api";
import { isGoing, outcomeWord, type RunCell, runLine, type RunView } from "./words";

/** A run's board: every cell, while it goes and afterwards. */
export function RunPage() {
  const study = useStudy();
  const runId = useParams()["runId"] ?? "";
  const changed = useStudyChanged(study.id);
  const [prompts, candidates, run] = useQueries({
    queries: [promptsOfStudy(study.id), candidatesOfStudy(study.id), oneRun(study.id, runId)],
  });
  const going = run.data !== undefined && isGoing(run.data);
  const done = run.data?.cells.filter((c) => c.state === "DONE").length;
  useLiveRun(study.id, runId, going);
  useTitle(run.data && `Run, ${runLine(run.data)} · ${study.title}`);
  useEffect(() => {
    // Answers that have come belong to the rail and the grid as well.
    if (done !== undefined && !going) {
      void changed();
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when the run comes to rest
  }, [going]);
  const failed = prompts.error ?? candidates.error ?? run.error;
  if (failed) {
    return <Failure error={failed} what="the run" onRetry={() => void run.refetch()} />;
  }
  if (!prompts.data || !candidates.data || !run.data) {
    return <p role="status">Fetching the run …</p>;
  }
  const board = run.data;
  const groups = [...Map.groupBy(board.cells, (c) => `${c.promptId} ${c.attempt}`).values()];
  const asked = candidates.data
    .map((c, index) => ({ ...c, index }))
    .filter((c) => board.cells.some((cell) => cell.candidateId === c.id));
  return (
    <div>
      <p className="text-sm">
        <Link to="../answers">All answers</Link>
      </p>
      <h1 className="mt-1">Run of {moment(board.startedAt)}</h1>
      <RunState board={board} />
      <p role="status" className="my-3 text-lg">
        {runLine(board)}.
      </p>
      {board.reason !== undefined && (
        <Note tone="caution" className="mb-3">
          {board.reason}
        </Note>
      )}
      {board.state === "PAUSED" && <SecretsFound />}
      <Steps run={board} />
      <Table
        caption="What is asked, by prompt and candidate"
        rows={groups}
        rowKey={(g) => `${g[0]?.promptId} ${g[0]?.attempt}`}
        columns={runColumns((id) => prompts.data.find((p) => p.id === id)?.content.title || "Without a title", asked)}
      />
    </div>
  );
}

function spentLine(run: RunView): string {
  const spent =
    run.currency === undefined
      ? `${run.spentTokens.toLocaleString("en")} tokens so far`
      : `${money(run.spentCost, run.currency)} and ${run.spentTokens.toLocaleString("en")} tokens so far`;
  const limits = [
    run.budgetCost !== undefined && run.currency !== undefined && money(run.budgetCost, run.currency),
    run.budgetTokens !== undefined && `${run.budgetTokens.toLocaleString("en")} tokens`,
  ].filter((l) => l !== false);
  return limits.length > 0 ? `${spent}, of at most ${limits.join(" and ")}.` : `${spent}, without a limit.`;
}

type FailedAgainProps = { run: RunView; step: ReturnType<typeof useRunStep> };

/** Takes failed answers out together, and asks for them once more. */
function FailedAgain({ run, step }: FailedAgainProps) {
  const [asking, setAsking] = useState(false);
  const failed = run.cells.filter((c) => c.state === "DONE" && c.turn === 0 && c.outcome === "FAILED").length;
  if (failed === 0) {
    return null;
  }
  return (
    <>
      <Button disabled={step.isPending} onClick={() => setAsking(true)}>
        Ask {count(failed, "failed one", "failed ones")} again …
      </Button>
      <Confirm
        title="Ask again what failed?"
        open={asking}
        onOpenChange={setAsking}
        action="Take out and ask again"
        busy={step.isPending}
        onConfirm={() => step.mutate({ step: "failed-again" }, { onSuccess: () => setAsking(false) })}
      >
        The answers that failed are taken out of the study. What they cost, and that they failed, stays with the run,
        and the new answers say how many tries they took.
      </Confirm>
    </>
  );
}

function Steps({ run }: { run: RunView }) {
  const study = useStudy();
  const step = useRunStep(study.id, run.id);
  const away = run.cells.filter((c) => c.state === "TURNED_AWAY").length;
  if (study.stage !== "PREPARING") {
    return null;
  }
  return (
    <div className="mb-5">
      <p className="flex flex-wrap gap-2">
        {run.state === "RUNNING" && (
          <>
            <Button disabled={step.isPending} onClick={() => step.mutate({ stop: { cutOff: false } })}>
              Pause
            </Button>
            <Button disabled={step.isPending} onClick={() => step.mutate({ stop: { cutOff: true } })}>
              Stop at once
            </Button>
          </>
        )}
        {run.state === "PAUSED" && (
          <Button tone="primary" disabled={step.isPending} onClick={() => step.mutate({ step: "resume" })}>
            Go on
          </Button>
        )}
        {run.state !== "RUNNING" && away > 0 && (
          <Button disabled={step.isPending} onClick={() => step.mutate({ step: "again" })}>
            Ask again what was turned away
          </Button>
        )}
        {run.state !== "RUNNING" && <FailedAgain run={run} step={step} />}
      </p>
      {run.state === "RUNNING" && (
        <p className="mt-1 text-sm text-ink-soft">
          Pausing lets what is under way come to its end. Stopping at once keeps what came as incomplete.
        </p>
      )}
      {run.state === "PAUSED" && (
        <BudgetFields run={run} busy={step.isPending} onBudget={(budget) => step.mutate({ budget })} />
      )}
      {step.isError && (
        <Note tone="trouble" role="alert" className="mt-2">
          {step.error.message}
        </Note>
      )}
    </div>
  );
}

type BudgetFieldsProps = { run: RunView; busy: boolean; onBudget: (budget: Schemas["Budget"]) => void };

function BudgetFields({ run, busy, onBudget }: BudgetFieldsProps) {
  const [cost, setCost] = useState(run.budgetCost);
  const [tokens, setTokens] = useState(run.budgetTokens);
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      {run.currency !== undefined && (
        <NumberField label={`Spend at most, ${run.currency}`} className="w-44" value={cost} onNumber={setCost} />
      )}
      <NumberField label="Tokens at most" className="w-44" value={tokens} onNumber={setTokens} />
      <Button
        disabled={busy}
        onClick={() =>
          onBudget({
            ...(cost === undefined ? {} : { cost }),
            ...(tokens === undefined ? {} : { tokens: Math.round(tokens) }),
          })
        }
      >
        Set this budget
      </Button>
    </div>
  );
}

function Cell({ cell }: { cell: RunCell }) {
  const note = cell.notes?.split("\n").at(-1);
  switch (cell.state) {
    case "ASKING":
      return <Asking cell={cell} />;
    case "WAITING":
      return (
        <div className="text-ink-soft">
          waiting
          {cell.notBefore !== undefined && ` until ${clock(cell.notBefore)}`}
          {note !== undefined && <span className="block text-sm">{note}</span>}
        </div>
      );
    case "DONE":
      return (
        <div>
          {cell.answerId === undefined ? (
            "removed since"
          ) : (
            <Link to={`../answers/${cell.promptId}?answer=${cell.answerId}`}>
              {cell.outcome === undefined ? "kept" : outcomeWord(cell.outcome)}
            </Link>
          )}
          {note !== undefined && (
            <span className="block text-sm text-ink-soft">
              {cell.outcome === "COMPLETE" && "on the way: "}
              {note}
            </span>
          )}
          {cell.late && <LateReply place={cell.place} />}
        </div>
      );
    case "TURNED_AWAY":
      return (
        <div className="text-clay">
          turned away
          {note !== undefined && <span className="block text-sm">{note}</span>}
        </div>
      );
  }
}

/** What came when the cell was written down already: kept, and shown to whoever asks. */
function LateReply({ place }: { place: number }) {
  const study = useStudy();
  const { runId = "" } = useParams();
  const [open, setOpen] = useState(false);
  const late = useQuery({ ...lateReplyOf(study.id, runId, place), enabled: open });
  return (
    <>
      <Button className="mt-1" onClick={() => setOpen(true)}>
        Show the late reply
      </Button>
      <Dialog title="A reply that came late" open={open} onOpenChange={setOpen}>
        <p>It came when the cell had been written down already. It was paid for, and counts for nothing else.</p>
        <Query of={late} what="the reply">
          {({ text }) => (
            <pre tabIndex={0} className="mt-3 max-h-96 overflow-auto border-y border-rule p-2 whitespace-pre-wrap">
              {text}
            </pre>
          )}
        </Query>
      </Dialog>
    </>
  );
}

/** Counts on by itself between what the server tells. */
function Asking({ cell }: { cell: RunCell }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  const since = cell.askedAt === undefined ? 0 : Math.max(0, now - new Date(cell.askedAt).getTime());
  return (
    <div className="border-l-4 border-moss pl-2">
      {cell.turn > 0 ? `follow-up ${cell.turn}` : "asking"}, {duration(since)}
      <span className="block text-sm text-ink-soft">
        {cell.firstOutputMs === undefined
          ? "nothing came yet"
          : `first after ${duration(cell.firstOutputMs)}, about ${cell.tokensSoFar ?? 0} tokens`}
        {cell.tries > 1 && `, try ${cell.tries}`}
      </span>
    </div>
  );
}

type Asked = Schemas["CandidateView"] & { index: number };

function runColumns(titleOf: (promptId: string | undefined) => string, asked: Asked[]): Column<RunCell[]>[] {
  return [
    {
      key: "prompt",
      head: "Prompt",
      rowHeader: true,
      cell: (g) => (
        <>
          <Link to={`../answers/${g[0]?.promptId}`}>{titleOf(g[0]?.promptId)}</Link>
          {(g[0]?.attempt ?? 1) > 1 && <span className="block text-sm text-ink-soft">attempt {g[0]?.attempt}</span>}
        </>
      ),
    },
    ...asked.map((c) => ({
      key: c.id,
      head: <CandidateName name={c.content.name} index={c.index} />,
      cell: (g: RunCell[]) =>
        g.filter((cell) => cell.candidateId === c.id).map((cell) => <Cell key={cell.place} cell={cell} />),
    })),
  ];
}

type RunStateProps = { board: Schemas["RunView"] };

function RunState({ board }: RunStateProps) {
  return (
    <p className="mt-1 text-ink-soft">
      Started by {board.startedBy}. {spentLine(board)} Where no count was told, this is the most that it can have been.
    </p>
  );
}
