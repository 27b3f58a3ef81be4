import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { count, day, fixed, moment } from "../../ui/format";
import { FigureText } from "../../ui/IntervalRow";
import { Query, WORKED_OUT } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { HiddenStandings, useRobustness, Views } from "../recommendation";
import { useStudy } from "../study";
import { expectedOfStudy, useMatchWords } from "./api";

type Report = Schemas["ExpectedReport"];
type Expecting = Report["expectations"][number];
type Candidate = Schemas["CandidateView"];

/** What people expected and what is claimed elsewhere, against what came out. */
export function ExpectedPage() {
  const study = useStudy();
  const hidden = study.stage === "GRADING";
  const expected = useQuery({ ...expectedOfStudy(study.id), enabled: !hidden });
  const candidates = useQuery({ ...candidatesOfStudy(study.id), enabled: !hidden });
  useTitle(`Expected and claimed · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <>
      <Views />
      <h1>Expected and claimed</h1>
      <Query of={expected} what="what was expected" long={WORKED_OUT}>
        {(report) => (
          <Query of={candidates} what="the candidates">
            {(all) => (
              <div className="max-w-5xl">
                <Expectations report={report} candidates={all} />
                <Guesses />
                <Claimed report={report} candidates={all} />
              </div>
            )}
          </Query>
        )}
      </Query>
    </>
  );
}

type PartProps = { report: Report; candidates: Candidate[] };

const place = (candidates: Candidate[], id: string | undefined) => candidates.findIndex((c) => c.id === id);

function Named({ candidates, id }: { candidates: Candidate[]; id: string }) {
  const index = place(candidates, id);
  return <CandidateName name={candidates[index]?.content.name ?? ""} index={index} />;
}

function Expectations({ report, candidates }: PartProps) {
  const study = useStudy();
  const match = useMatchWords(study.id);
  if (report.expectations.length === 0) {
    return <p className="mt-3">Nobody was asked, or nobody said what they expected.</p>;
  }
  return (
    <section className="mt-3">
      <h2>What was expected</h2>
      <p className="mb-1 text-sm text-ink-soft">
        Said before anybody saw an answer; raters did not know the candidates.
        {study.role === "LEAD" && " Say whom their words mean, where they are no candidate’s name."}
      </p>
      <Table
        caption="What people expected"
        rows={report.expectations}
        rowKey={(e) => e.accountId}
        saveAs="expected"
        columns={[
          ...saidColumns,
          {
            key: "taken",
            head: "Taken for",
            cell: (e) => (
              <Taken
                expecting={e}
                candidates={candidates}
                onTaken={(candidateId) => match.mutate({ accountId: e.accountId, candidateId })}
              />
            ),
          },
          {
            key: "rank",
            head: "Came as number",
            align: "right",
            sortBy: (e) => e.rank ?? Infinity,
            cell: (e) => e.rank ?? "–",
          },
          {
            key: "surprised",
            head: "Surprised",
            cell: (e) => (e.surprised === undefined ? "–" : e.surprised ? "yes" : "no"),
          },
          { key: "at", head: "Said", sortBy: (e) => e.declaredAt, cell: (e) => moment(e.declaredAt) },
        ]}
      />
      <Trouble error={match.error} className="mt-2" />
      <Favourites report={report} />
    </section>
  );
}

const saidColumns: Column<Expecting>[] = [
  {
    key: "name",
    head: "Who",
    rowHeader: true,
    sortBy: (e) => e.name,
    cell: (e) => (
      <>
        {e.name}
        {e.lead && <span className="text-ink-soft">, lead</span>}
      </>
    ),
  },
  {
    key: "expects",
    head: "Expected to do best",
    cell: (e) => e.expects || <span className="text-ink-soft">nothing in particular</span>,
  },
  {
    key: "uses",
    head: "Used at the time",
    cell: (e) => e.usesToday || <span className="text-ink-soft">not said</span>,
  },
];

type TakenProps = {
  expecting: Expecting;
  candidates: Candidate[];
  onTaken: (candidateId: string | undefined) => void;
};

function Taken({ expecting, candidates, onTaken }: TakenProps) {
  const study = useStudy();
  if (expecting.byName && expecting.candidateId !== undefined) {
    return <Named candidates={candidates} id={expecting.candidateId} />;
  }
  if (study.role !== "LEAD" || expecting.expects === "") {
    return expecting.candidateId === undefined ? <>–</> : <Named candidates={candidates} id={expecting.candidateId} />;
  }
  return (
    <Choice
      label={`Whom ${expecting.name} means`}
      labelHidden
      className="w-44"
      value={expecting.candidateId ?? ""}
      options={[
        { value: "", label: "nobody of these" },
        ...candidates.filter((c) => !c.content.baseline).map((c) => ({ value: c.id, label: c.content.name })),
      ]}
      onValue={(id) => onTaken(id === "" ? undefined : id)}
    />
  );
}

function Favourites({ report: { favourites } }: { report: Report }) {
  if (favourites === undefined) {
    return null;
  }
  const { raters, higher, p } = favourites;
  return (
    <p className="mt-3 max-w-3xl">
      {count(raters, "rater", "raters")} with a favourite gave it <FigureText figure={higher} decimals={1} /> points
      more than others did, against the rest of the sheet.{" "}
      {p.value === undefined
        ? `Whether that is chance cannot be told: ${p.undefinedReason}.`
        : `As much or more would come of chance with p = ${fixed(p.value, 3)}.`}
    </p>
  );
}

/** Whether raters could tell who wrote what: the test of the masking. */
function Guesses() {
  const robustness = useRobustness();
  const guesses = robustness.data?.guesses;
  if (guesses === undefined) {
    return null;
  }
  return (
    <section className="mt-6">
      <h2>Whether they could tell who wrote it</h2>
      <p className="mt-1 max-w-3xl">
        {guesses.hits} of {count(guesses.tries, "guess", "guesses")} were right;{" "}
        {fixed(guesses.chance * guesses.tries, 1)} would be by chance, and as many or more with p ={" "}
        {fixed(guesses.p.value ?? 1, 3)}.
      </p>
    </section>
  );
}

function Claimed({ report, candidates }: PartProps) {
  return (
    <section className="mt-6">
      <h2>What is claimed elsewhere</h2>
      {report.measures.length === 0 ? (
        <p className="mt-1">No published figure was written down with the brief.</p>
      ) : (
        report.measures.map((m) => (
          <section key={`${m.measure} ${m.higherIsBetter}`} className="mt-3">
            <h3>
              {m.measure} <span className="font-normal">({m.higherIsBetter ? "more" : "less"} is better)</span>
            </h3>
            <MeasureTable measure={m} candidates={candidates} />
            <p className="mt-1 text-sm text-ink-soft">
              {m.rho.value === undefined
                ? `No rank correlation with the scores here: ${m.rho.undefinedReason}.`
                : `Rank correlation with the scores here, over ${count(m.pairs, "candidate", "candidates")}: ρ ${fixed(m.rho.value, 2)}${m.tauB.value === undefined ? "" : `, τ ${fixed(m.tauB.value, 2)}`}. 1 is the same order, −1 the opposite; so few say little.`}
            </p>
          </section>
        ))
      )}
    </section>
  );
}

function MeasureTable({ measure, candidates }: { measure: Report["measures"][number]; candidates: Candidate[] }) {
  return (
    <Table
      caption={`Published: ${measure.measure}`}
      rows={measure.claims}
      rowKey={(c) => `${c.candidateId} ${c.value} ${c.source}`}
      saveAs="claimed"
      columns={[
        {
          key: "name",
          head: "Candidate",
          rowHeader: true,
          sortBy: (c) => candidates[place(candidates, c.candidateId)]?.content.name ?? "",
          cell: (c) => <Named candidates={candidates} id={c.candidateId} />,
        },
        { key: "value", head: "Published", align: "right", sortBy: (c) => c.value, cell: (c) => c.value },
        {
          key: "score",
          head: "Score here",
          align: "right",
          sortBy: (c) => c.score ?? -1,
          cell: (c) => (c.score === undefined ? "–" : fixed(c.score, 1)),
        },
        {
          key: "source",
          head: "Where it stands",
          cell: (c) => (
            <span className="[overflow-wrap:anywhere]">
              {c.source}
              {c.asOf !== undefined && <span className="text-ink-soft">, {day(c.asOf)}</span>}
            </span>
          ),
        },
      ]}
    />
  );
}
