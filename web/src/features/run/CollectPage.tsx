import { useQueries, useQuery, type UseQueryResult } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice, NumberField, Tick } from "../../ui/Field";
import { count, money } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { promptsOfStudy } from "../prompt";
import { SecretsFound } from "../secret";
import { sourcesOfStudy } from "../source";
import { useStudy } from "../study";
import { runForecast, useStartRun } from "./api";
import { RunLines } from "./RunLines";

/** What to ask of whom, and what it would cost at most. */
export function CollectPage() {
  const study = useStudy();
  const [prompts, candidates, sources] = useQueries({
    queries: [promptsOfStudy(study.id), candidatesOfStudy(study.id), sourcesOfStudy(study.id)],
  });
  useTitle(`Collect answers · ${study.title}`);
  const failed = prompts.error ?? candidates.error ?? sources.error;
  if (failed) {
    return <Failure error={failed} what="what can be asked" onRetry={() => void sources.refetch()} />;
  }
  if (!prompts.data || !candidates.data || !sources.data) {
    return <p role="status">Fetching what can be asked …</p>;
  }
  const sound = prompts.data.filter((p) => p.fault === undefined);
  const askable = candidates.data.filter((c) => sources.data.sources.some((s) => s.candidateId === c.id));
  return (
    <div className="max-w-5xl">
      <p className="text-sm">
        <Link to="../answers">All answers</Link>
      </p>
      <h1 className="mt-1">Collect from sources</h1>
      {study.stage !== "PREPARING" ? (
        <p className="mt-2">The round is open; no more answers come in.</p>
      ) : sound.length === 0 || askable.length === 0 ? (
        <p className="mt-2">
          {sound.length === 0 ? (
            <>
              Write <Link to="../prompts">prompts</Link> first.
            </>
          ) : (
            <>
              No candidate has a source yet. Name one on the page of a <Link to="../candidates">candidate</Link>; until
              then answers are pasted or come from files.
            </>
          )}
        </p>
      ) : (
        <Choosing prompts={sound} candidates={candidates.data} askable={askable} />
      )}
    </div>
  );
}

type ChoosingProps = {
  prompts: Schemas["PromptView"][];
  candidates: Schemas["CandidateView"][];
  askable: Schemas["CandidateView"][];
};

function Choosing({ prompts, candidates, askable }: ChoosingProps) {
  const study = useStudy();
  const navigate = useNavigate();
  const [what, setWhat] = useState<Schemas["StartRun"]>({
    promptIds: prompts.map((p) => p.id),
    candidateIds: askable.map((c) => c.id),
    attempts: 1,
    onlyMissing: true,
    followUps: 0,
  });
  const start = useStartRun(study.id);
  const forecast = useQuery(runForecast(study.id, what));
  const set = (change: Partial<Schemas["StartRun"]>) => setWhat({ ...what, ...change });
  const ready = forecast.data !== undefined && forecast.data.cells > 0 && !forecast.isError;
  return (
    <>
      <p className="mt-2 mb-5 max-w-2xl">
        All candidates are asked for the same prompt close together in time. Whatever comes is kept as an answer, also
        when it fails; only what was turned away before anything came is tried again.
      </p>
      <RunLines />
      <SecretsFound onDecided={() => start.reset()} />
      <div className="grid gap-6 md:grid-cols-[1fr_22rem]">
        <PromptTicks prompts={prompts} chosen={what.promptIds} onChosen={(promptIds) => set({ promptIds })} />
        <div className="grid content-start gap-4">
          <CandidateTicks
            candidates={candidates}
            askable={askable}
            chosen={what.candidateIds}
            onChosen={(candidateIds) => set({ candidateIds })}
          />
          <HowOften what={what} most={Math.max(...prompts.map((p) => p.content.followUps.length))} onChange={set} />
          <Tick
            checked={what.onlyMissing}
            label="Only attempts that are not there yet"
            onTick={(onlyMissing) => set({ onlyMissing })}
          />
          <Budget what={what} currency={forecast.data?.currency} onWhat={setWhat} />
          <p className="-mt-2 text-sm text-ink-soft">The run stops before either would be exceeded.</p>
        </div>
      </div>
      <div className="mt-5 border-t border-rule pt-4">
        <ForecastWords forecast={forecast} nothing={what.promptIds.length === 0 || what.candidateIds.length === 0} />
        {start.isError && (
          <Note tone="trouble" role="alert" className="mb-3">
            {start.error.message}
          </Note>
        )}
        <Button
          tone="primary"
          disabled={!ready || start.isPending}
          onClick={() => start.mutate(what, { onSuccess: (run) => void navigate(`../answers/runs/${run.id}`) })}
        >
          Start
        </Button>
      </div>
    </>
  );
}

const toggled = (ids: string[], id: string, on: boolean) => (on ? [...ids, id] : ids.filter((i) => i !== id));

function forecastLine(f: Schemas["RunForecast"]): string {
  if (f.cells === 0) {
    return "Every such attempt is there already.";
  }
  const cost =
    f.cost === undefined || f.currency === undefined
      ? "No candidate has a price for tokens, so the cost is not known"
      : `It costs at most ${money(f.cost, f.currency)}, and usually much less`;
  return `${count(f.cells, "answer", "answers")} in ${count(f.requests, "request", "requests")}. ${cost}: at most ${f.inputTokens.toLocaleString("en")} tokens in and ${f.outputTokens.toLocaleString("en")} out.`;
}

type PromptTicksProps = { prompts: Schemas["PromptView"][]; chosen: string[]; onChosen: (ids: string[]) => void };

function PromptTicks({ prompts, chosen, onChosen }: PromptTicksProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Prompts</legend>
      <p className="mb-2 flex gap-2">
        <Button onClick={() => onChosen(prompts.map((p) => p.id))}>All</Button>
        <Button onClick={() => onChosen([])}>None</Button>
      </p>
      <div className="max-h-96 overflow-y-auto border-y border-rule py-2">
        {prompts.map((p) => (
          <Tick
            key={p.id}
            className="mb-1"
            checked={chosen.includes(p.id)}
            label={p.content.title || "Without a title"}
            onTick={(on) => onChosen(toggled(chosen, p.id, on))}
          />
        ))}
      </div>
    </fieldset>
  );
}

type CandidateTicksProps = {
  candidates: Schemas["CandidateView"][];
  askable: Schemas["CandidateView"][];
  chosen: string[];
  onChosen: (ids: string[]) => void;
};

function CandidateTicks({ candidates, askable, chosen, onChosen }: CandidateTicksProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Candidates</legend>
      {candidates.map((c, i) => {
        const can = askable.some((a) => a.id === c.id);
        return (
          <Tick
            key={c.id}
            className="mb-1"
            disabled={!can}
            checked={chosen.includes(c.id)}
            label={<CandidateName name={c.content.name} index={i} />}
            {...(can ? {} : { hint: c.content.baseline ? "a person’s answers" : "has no source" })}
            onTick={(on) => onChosen(toggled(chosen, c.id, on))}
          />
        );
      })}
    </fieldset>
  );
}

type BudgetProps = {
  what: Schemas["StartRun"];
  currency: string | undefined;
  onWhat: (what: Schemas["StartRun"]) => void;
};

function Budget({ what, currency, onWhat }: BudgetProps) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <NumberField
        label={`Spend at most${currency ? `, ${currency}` : ""}`}
        value={what.budgetCost}
        onNumber={(budgetCost) => {
          const { budgetCost: _, ...rest } = what;
          onWhat(budgetCost === undefined ? rest : { ...rest, budgetCost });
        }}
      />
      <NumberField
        label="Tokens at most"
        value={what.budgetTokens}
        onNumber={(budgetTokens) => {
          const { budgetTokens: _, ...rest } = what;
          onWhat(budgetTokens === undefined ? rest : { ...rest, budgetTokens: Math.round(budgetTokens) });
        }}
      />
    </div>
  );
}

type HowOftenProps = {
  what: Schemas["StartRun"];
  most: number;
  onChange: (change: Partial<Schemas["StartRun"]>) => void;
};

function HowOften({ what, most, onChange }: HowOftenProps) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <NumberField
        label="Attempts"
        value={what.attempts}
        onNumber={(n) => onChange({ attempts: Math.round(n ?? 1) })}
      />
      {most > 0 && (
        <Choice
          label="Prepared follow-ups"
          value={String(what.followUps)}
          options={Array.from({ length: most + 1 }, (_, n) => ({
            value: String(n),
            label: n === 0 ? "none" : `at most ${n}`,
          }))}
          onValue={(n) => onChange({ followUps: Number(n) })}
        />
      )}
    </div>
  );
}

type ForecastWordsProps = { forecast: UseQueryResult<Schemas["RunForecast"]>; nothing: boolean };

function ForecastWords({ forecast, nothing }: ForecastWordsProps) {
  return (
    <p role="status" className="mb-3">
      {forecast.isError
        ? forecast.error.message
        : forecast.data
          ? forecastLine(forecast.data)
          : nothing
            ? "Choose at least one prompt and one candidate."
            : "Reckoning what it costs …"}
    </p>
  );
}
