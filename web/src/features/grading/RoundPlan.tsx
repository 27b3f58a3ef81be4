import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { Area, Choice, Tick } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Table } from "../../ui/Table";
import { useKept } from "../../ui/useKept";
import { CalibrateFirst } from "../calibration";
import { peopleOfStudy, useStudy } from "../study";
import { planOf, useOpenRound } from "./api";
import { PairGrid } from "./PairGrid";
import { RatersOfStudy } from "./RatersOfStudy";

const ALL = "all";
const SHARES = [0, 0.1, 0.2, 0.3];

/** Before the round: who grades, by which plan, and what keeps it from being opened. */
export function RoundPlan() {
  const study = useStudy();
  const [people] = useQueries({ queries: [peopleOfStudy(study.id)] });
  if (study.role !== "LEAD") {
    return <p>The round is not open yet.</p>;
  }
  return (
    <div className="max-w-5xl">
      <h1>Open a round</h1>
      <p className="mt-1 mb-5 max-w-3xl text-ink-soft">
        Say who grades and how the work is shared out; the plan shows how even it is and what can be computed from it
        before anybody gets a sheet.
      </p>
      {people.data && <RatersOfStudy people={people.data} />}
      <CalibrateFirst studyId={study.id} />
      <Plan raters={people.data?.filter((p) => p.role === "RATER").length ?? 0} />
    </div>
  );
}

type Choices = { each: string; repeatShare: number; leadGrades: boolean };

function Plan({ raters }: { raters: number }) {
  const study = useStudy();
  const { chosen, choose } = useKept<Choices>(`plan.${study.id}`);
  const { each = ALL, repeatShare = 0, leadGrades = false } = chosen;
  const request: Schemas["PlanRequest"] = {
    repeatShare,
    leadGrades,
    ...(each === ALL ? {} : { ratersAnAnswer: Number(each) }),
  };
  const plan = useQuery({ ...planOf(study.id, request), placeholderData: keepPreviousData });
  const graders = raters + (leadGrades ? 1 : 0);
  return (
    <section className="mt-8">
      <h2 className="mb-2">The plan</h2>
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <Choice
          label="Each answer is graded by"
          className="w-64"
          value={each}
          options={[
            { value: ALL, label: "every rater" },
            ...Array.from({ length: Math.max(0, graders - 2) }, (_, i) => ({
              value: String(i + 2),
              label: `${i + 2} raters, in balance`,
            })),
          ]}
          onValue={(each) => choose({ each })}
        />
        <Choice
          label="Sheets that come twice"
          hint="Unannounced, later and in another order: do raters agree with themselves?"
          className="w-64"
          value={String(repeatShare)}
          options={SHARES.map((s) => ({ value: String(s), label: s === 0 ? "none" : `${s * 100} % of them` }))}
          onValue={(s) => choose({ repeatShare: Number(s) })}
        />
        <Tick
          className="mt-7 max-w-sm"
          checked={leadGrades}
          label="I grade too"
          hint="From the opening to the close of the round you then see no more than any rater."
          onTick={(leadGrades) => choose({ leadGrades })}
        />
      </div>
      {plan.isError && (
        <Note tone="trouble" role="alert" className="mt-3">
          {plan.error.message}
        </Note>
      )}
      {plan.data && <PlanPreview plan={plan.data} request={request} />}
    </section>
  );
}

function PlanPreview({ plan, request }: { plan: Schemas["PlanView"]; request: Schemas["PlanRequest"] }) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      {plan.answers > 0 && plan.raters.length > 0 && (
        <div className="mt-5 grid gap-x-10 gap-y-5 lg:grid-cols-2">
          <div>
            <Table
              caption="Sheets by rater"
              rows={plan.raters}
              rowKey={(r) => r.raterId}
              columns={[
                { key: "name", head: "Rater", rowHeader: true, sortBy: (r) => r.name, cell: (r) => r.name },
                { key: "sheets", head: "Sheets", align: "right", sortBy: (r) => r.sheets, cell: (r) => r.sheets },
                { key: "repeats", head: "Of them twice", align: "right", cell: (r) => r.repeats || "–" },
              ]}
            />
            <Computable plan={plan} />
          </div>
          <PairGrid plan={plan} />
        </div>
      )}
      {plan.notes.length > 0 && (
        <Note tone="caution" className="mt-5">
          <h3 className="mb-1">Before you open it</h3>
          <ul className="grid gap-1">
            {plan.notes.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </Note>
      )}
      <Unmet unmet={plan.unmet} />
      {plan.missing.length > 0 ? (
        <Note tone="info" className="mt-5">
          <h3 className="mb-1">What is missing</h3>
          <ul className="grid gap-1">
            {plan.missing.map((m) => (
              <li key={m}>
                {m} <StepLink missing={m} />
              </li>
            ))}
          </ul>
        </Note>
      ) : (
        <Button tone="primary" className="mt-5" onClick={() => setAsking(true)}>
          Open the round …
        </Button>
      )}
      <OpenRound plan={plan} request={request} asking={asking} onAsking={setAsking} />
    </>
  );
}

/** What the round should wait for. */
function Unmet({ unmet }: { unmet: string[] }) {
  return unmet.length === 0 ? null : (
    <Note tone="caution" className="mt-5">
      <h3 className="mb-1">Calibration</h3>
      {unmet.map((u) => (
        <p key={u}>{u}</p>
      ))}
      <p>The round opens all the same with a reason, which stays on record.</p>
    </Note>
  );
}

const STEPS = ["Brief", "Prompts", "Candidates", "Answers", "Rubric"];

/** What is missing says first which step it is of. */
function StepLink({ missing }: { missing: string }) {
  const step = STEPS.find((s) => missing.startsWith(`${s}:`) || missing.includes(s.toLowerCase()));
  return step ? <Link to={`../${step.toLowerCase()}`}>Go there</Link> : null;
}

/** What agreement can be computed from the plan. */
function Computable({ plan }: { plan: Schemas["PlanView"] }) {
  const each =
    plan.fewestRaters === plan.mostRaters
      ? count(plan.fewestRaters, "rater", "raters")
      : `${plan.fewestRaters} to ${plan.mostRaters} raters`;
  const fewest = Math.min(...plan.pairs.map((p) => p.answers));
  return (
    <ul className="mt-3 grid gap-1 text-sm">
      <li>Each answer gets {each}.</li>
      <li>
        α and AC2 rest on {count(plan.paired, "answer", "answers")} with two raters or more, of {plan.answers}.
      </li>
      {plan.pairs.length > 0 && (
        <li>
          κ of each pair of raters rests on {fewest} answers at least
          {fewest < 20 && ", which is few for a pair"}.
        </li>
      )}
      <li>
        {plan.complete === 0
          ? "No answer is graded by all, so there is no ICC and no Kendall’s W."
          : `ICC and Kendall’s W rest on ${count(plan.complete, "answer", "answers")} that all grade.`}
      </li>
      <li>
        {plan.repeated === 0
          ? "Nothing comes twice: nothing is learned of raters’ agreement with themselves."
          : `${count(plan.repeated, "answer comes", "answers come")} to a rater twice.`}
      </li>
      <li>
        {plan.exposure === 0
          ? "Every rater sees every candidate equally often."
          : `A rater sees candidates up to ${count(plan.exposure, "time", "times")} unequally often.`}
      </li>
    </ul>
  );
}

type OpenRoundProps = {
  plan: Schemas["PlanView"];
  request: Schemas["PlanRequest"];
  asking: boolean;
  onAsking: (asking: boolean) => void;
};

function OpenRound({ plan, request, asking, onAsking }: OpenRoundProps) {
  const study = useStudy();
  const open = useOpenRound(study.id);
  const [despite, setDespite] = useState("");
  const sheets = plan.raters.reduce((sum, r) => sum + r.sheets, 0);
  return (
    <Confirm
      title="Open the round?"
      open={asking}
      onOpenChange={onAsking}
      action="Open it"
      busy={open.isPending}
      onConfirm={() =>
        open.mutate(plan.unmet.length === 0 ? request : { ...request, despite }, { onSuccess: () => onAsking(false) })
      }
    >
      <p>
        {count(plan.raters.length, "rater gets", "raters get")} {count(sheets, "sheet", "sheets")} with{" "}
        {count(plan.answers, "answer", "answers")}. From then on prompts, candidates, answers and rubric stay as they
        are.
      </p>
      {request.leadGrades && <p>You will not see names, answers, measures or results until the round is closed.</p>}
      {plan.unmet.length > 0 && (
        <>
          {plan.unmet.map((u) => (
            <p key={u}>{u}</p>
          ))}
          <Area
            label="Why it opens all the same"
            hint="It stays on record, with your name."
            required
            maxLength={LIMITS.PlanRequest.despite}
            value={despite}
            onChange={(e) => setDespite(e.target.value)}
          />
        </>
      )}
      {open.isError && <Note tone="trouble">{open.error.message}</Note>}
    </Confirm>
  );
}
