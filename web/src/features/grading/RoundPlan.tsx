import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { Choice, Field, Tick } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Table } from "../../ui/Table";
import { InvitationList } from "../account";
import { peopleOfStudy, useAddRater, useRemoveRater, useStudy } from "../study";
import { planOf, useInvite, useOpenRound } from "./api";
import { PairGrid } from "./PairGrid";

type Person = Schemas["PersonView"];

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
      {people.data && <Raters people={people.data} />}
      <Plan raters={people.data?.filter((p) => p.role === "RATER").length ?? 0} />
    </div>
  );
}

function Raters({ people }: { people: Person[] }) {
  const study = useStudy();
  const add = useAddRater(study.id);
  const remove = useRemoveRater(study.id);
  const invite = useInvite(study.id);
  const [name, setName] = useState("");
  const [signInName, setSignInName] = useState("");
  const [invitations, setInvitations] = useState<Schemas["Invitation"][]>([]);
  const raters = people.filter((p) => p.role === "RATER");
  const show = (i: Schemas["Invitation"]) =>
    setInvitations((old) => [...old.filter((o) => o.accountId !== i.accountId), i]);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate(
      { name, signInName },
      {
        onSuccess: ({ invitation }) => {
          // Whoever types the next one already keeps what they typed.
          setName((now) => (now === name ? "" : now));
          setSignInName((now) => (now === signInName ? "" : now));
          if (invitation) {
            show(invitation);
          }
        },
      },
    );
  };
  const errorOf = (field: string) => (add.error instanceof ApiProblem ? add.error.errorOf(field) : undefined);
  return (
    <section>
      <h2 className="mb-2">Raters</h2>
      {raters.length > 0 && (
        <Table
          caption="Raters of the study"
          onOneLine
          rows={raters}
          rowKey={(p) => p.accountId}
          columns={[
            { key: "name", head: "Name", rowHeader: true, sortBy: (p) => p.name, cell: (p) => p.name },
            { key: "sign-in", head: "Signs in as", cell: (p) => p.signInName },
            {
              key: "state",
              head: "Account",
              cell: (p) =>
                p.accepted ? (
                  <span className="inline-flex items-center gap-2">
                    {p.hasPassword ? "has a password" : "has not signed in yet"}
                    <Button
                      disabled={invite.isPending}
                      aria-label={`New link for ${p.name}`}
                      onClick={() => invite.mutate(p.accountId, { onSuccess: show })}
                    >
                      New link
                    </Button>
                  </span>
                ) : (
                  "was asked, has not accepted yet"
                ),
            },
            { key: "declared", head: "Expectation", cell: (p) => (p.declared ? "said" : "not said yet") },
            {
              key: "remove",
              head: <span className="sr-only">Take out</span>,
              align: "right",
              cell: (p) => (
                <Button
                  disabled={remove.isPending}
                  aria-label={`Take out ${p.name}`}
                  onClick={() => remove.mutate(p.accountId)}
                >
                  Take out
                </Button>
              ),
            },
          ]}
        />
      )}
      <form onSubmit={submit} className="mt-3 flex flex-wrap items-start gap-3">
        <Field
          label="Name"
          className="w-56"
          required
          maxLength={LIMITS.AddRater.name}
          value={name}
          error={errorOf("name")}
          onChange={(e) => {
            setName(e.target.value);
            // A sign-in name is made from the name until somebody writes one of their own.
            if (signInName === proposed(name)) {
              setSignInName(proposed(e.target.value));
            }
          }}
        />
        <Field
          label="Signs in as"
          className="w-48"
          required
          value={signInName}
          error={errorOf("signInName")}
          onChange={(e) => setSignInName(e.target.value)}
        />
        <Button type="submit" className="mt-7" disabled={add.isPending}>
          Add a rater
        </Button>
      </form>
      {add.isError && !(add.error instanceof ApiProblem && add.error.errors.length > 0) && (
        <Note tone="trouble" role="alert" className="mt-2">
          {add.error.message}
        </Note>
      )}
      {add.data?.asked && (
        <Note tone="info" role="status" className="mt-2">
          Whoever signs in by this name has an account of their own. They are asked, and belong to the study once they
          accept.
        </Note>
      )}
      {invite.isError && (
        <Note tone="trouble" role="alert" className="mt-2">
          {invite.error.message}
        </Note>
      )}
      {remove.isError && (
        <Note tone="trouble" role="alert" className="mt-2">
          {remove.error.message}
        </Note>
      )}
      {invitations.length > 0 && (
        <div className="mt-3">
          <InvitationList invitations={invitations} />
        </div>
      )}
    </section>
  );
}

function proposed(name: string): string {
  const first = name.trim().split(/\s+/)[0] ?? "";
  return first
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9._-]/g, "");
}

function Plan({ raters }: { raters: number }) {
  const study = useStudy();
  const [each, setEach] = useState(ALL);
  const [repeatShare, setRepeatShare] = useState(0);
  const [leadGrades, setLeadGrades] = useState(false);
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
          onValue={setEach}
        />
        <Choice
          label="Sheets that come twice"
          hint="Unannounced, later and in another order: do raters agree with themselves?"
          className="w-64"
          value={String(repeatShare)}
          options={SHARES.map((s) => ({ value: String(s), label: s === 0 ? "none" : `${s * 100} % of them` }))}
          onValue={(s) => setRepeatShare(Number(s))}
        />
        <Tick
          className="mt-7 max-w-sm"
          checked={leadGrades}
          label="I grade too"
          hint="From the opening to the close of the round you then see no more than any rater."
          onTick={setLeadGrades}
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
  const study = useStudy();
  const open = useOpenRound(study.id);
  const [asking, setAsking] = useState(false);
  const sheets = plan.raters.reduce((sum, r) => sum + r.sheets, 0);
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
      <Confirm
        title="Open the round?"
        open={asking}
        onOpenChange={setAsking}
        action="Open it"
        busy={open.isPending}
        onConfirm={() => open.mutate(request, { onSuccess: () => setAsking(false) })}
      >
        <p>
          {count(plan.raters.length, "rater gets", "raters get")} {count(sheets, "sheet", "sheets")} with{" "}
          {count(plan.answers, "answer", "answers")}. From then on prompts, candidates, answers and rubric stay as they
          are.
        </p>
        {request.leadGrades && <p>You will not see names, answers, measures or results until the round is closed.</p>}
        {open.isError && <Note tone="trouble">{open.error.message}</Note>}
      </Confirm>
    </>
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
