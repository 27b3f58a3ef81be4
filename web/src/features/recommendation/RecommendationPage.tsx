import { queryOptions, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Schemas, unwrap } from "../../api/client";
import { chance, count, duration, fixed, moment, money } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow, sign } from "../../ui/IntervalRow";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { Reopenings, RuleTermsList, SetAsideNote, studyKeys, useStudy } from "../study";
import { CandidateOf } from "./CandidateOf";
import { DifferenceSection } from "./DifferenceSection";

type Report = Schemas["RecommendationReport"];

const recommendationOfStudy = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "recommendation"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/recommendation", { params: { path: { studyId } }, signal })),
  });

const TONES: Record<Report["outcome"], "good" | "info" | "caution"> = {
  RECOMMENDED: "good",
  SAFE_CHOICES: "good",
  UNDECIDED: "info",
  WITHHELD: "caution",
};

export function RecommendationPage() {
  const study = useStudy();
  const recommendation = useQuery(recommendationOfStudy(study.id));
  useTitle(`Recommendation · ${study.title}`);
  return (
    <Query of={recommendation} what="the recommendation">
      {(report) => (
        <div className="max-w-5xl">
          <Outcome report={report} />
          <SetAsideNote setAside={report.setAside} />
          <UnequalFollowUps report={report} />
          <RuledOut report={report} />
          <StandingSection report={report} />
          <DifferenceSection report={report} />
          <MeasureSection report={report} />
          <ExpectationSection report={report} />
          <BlindingSection report={report} />
          <RuleSection report={report} />
        </div>
      )}
    </Query>
  );
}

function Outcome({ report }: { report: Report }) {
  const { basis } = report;
  return (
    <>
      <h1>{report.headline}</h1>
      <p className="mt-1 mb-4 text-ink-soft">
        From {basis.sentSheets} of {count(basis.sheets, "sheet", "sheets")}: {count(basis.answers, "answer", "answers")}{" "}
        to {count(basis.prompts, "prompt", "prompts")}, {count(basis.raters, "rater", "raters")}.
      </p>
      <Note tone={TONES[report.outcome]}>
        <h2 className="text-base">{report.outcome === "WITHHELD" ? "What is missing" : "Why"}</h2>
        <ul className="mt-1 grid gap-1">
          {report.findings.map((finding) => (
            <li key={finding.sentence}>{finding.sentence}</li>
          ))}
        </ul>
      </Note>
    </>
  );
}

/** A candidate's place in the study's list decides its sign, whatever its standing. */
const SCORE: Axis = { from: 0, to: 100, decimals: 0, marks: [] };

function StandingSection({ report }: { report: Report }) {
  return (
    <section className="mt-7">
      <h2>Standings</h2>
      <p className="mb-1 text-sm text-ink-soft">
        Scores of 100, adjusted for hard prompts and strict raters, with 95 % intervals over other prompts and raters of
        the same sort.
        {report.outcome === "WITHHELD" && " They are shown as they stand; the rule does not let them decide yet."}
      </p>
      <StandingTable caption="Standings overall" report={report} standings={report.overall} overall />
      <div className="mt-5 grid gap-x-10 gap-y-5 2xl:grid-cols-2">
        {report.byCriterion.map((c) => (
          <section key={c.criterionId}>
            <h3>{c.name}</h3>
            <StandingTable caption={`Standings on ${c.name}`} report={report} standings={c.standings} overall={false} />
          </section>
        ))}
      </div>
      <details className="mt-2 text-sm">
        <summary className="text-tarn underline underline-offset-4">How this is made</summary>
        <p className="mt-1 max-w-3xl">
          Least squares of score = mean + candidate + prompt + rater over all sheets sent in. Intervals count how much
          scores vary from prompt to prompt of a kind, from rater to rater, and what is left; limits are cut at 0 and
          100. “Against the best” compares each candidate with the best of the others: the best is above every other
          beyond doubt, a safe choice is at worst less than the margin below the best, and who is out is below some
          other beyond doubt. All this draws nothing at random. The chance of standing highest comes from{" "}
          {report.basis.resamples} resamples of prompts and raters and decides nothing. “Plain” is the mean without
          adjustment.
        </p>
      </details>
    </section>
  );
}

type StandingTableProps = { caption: string; report: Report; standings: Report["overall"]; overall: boolean };

function StandingTable({ caption, report, standings, overall }: StandingTableProps) {
  if (standings.length === 0) {
    return <p>No sheet is sent in yet.</p>;
  }
  const look = (id: string) => sign(report.candidates.findIndex((c) => c.id === id));
  return (
    <Table
      caption={caption}
      rows={standings}
      rowKey={(s) => s.candidateId}
      columns={[
        {
          key: "name",
          head: "Candidate",
          rowHeader: true,
          cell: (s) => <CandidateOf report={report} id={s.candidateId} />,
        },
        {
          key: "picture",
          head: <IntervalAxis axis={SCORE} />,
          cell: (s) => <IntervalRow figure={s.adjusted} axis={SCORE} {...look(s.candidateId)} />,
        },
        { key: "score", head: "Score, interval", cell: (s) => <FigureText figure={s.adjusted} decimals={1} /> },
        ...(overall
          ? [
              ...(report.field.length === 0
                ? []
                : [
                    {
                      key: "field",
                      head: "Against the best",
                      cell: (s: Report["overall"][number]) => <AgainstBest report={report} id={s.candidateId} />,
                    },
                  ]),
              {
                key: "best",
                head: "Chance of standing highest",
                align: "right" as const,
                cell: (s: Report["overall"][number]) =>
                  s.chanceOfBest.value === undefined ? "–" : chance(s.chanceOfBest.value),
              },
              {
                key: "plain",
                head: "Plain",
                align: "right" as const,
                cell: (s: Report["overall"][number]) => (s.plain.value === undefined ? "–" : fixed(s.plain.value, 1)),
              },
            ]
          : []),
      ]}
    />
  );
}

const PLACES: Record<Report["field"][number]["place"], string> = {
  BEST: "the best",
  SAFE: "safe",
  OPEN: "open",
  OUT: "out",
};

/** What is said of a candidate, and how far below the best it may lie. */
function AgainstBest({ report, id }: { report: Report; id: string }) {
  const own = report.field.find((f) => f.candidateId === id);
  if (own === undefined) {
    return <span className="text-ink-soft">not compared</span>;
  }
  return (
    <>
      {PLACES[own.place]}
      {own.shortfall !== undefined && own.place !== "BEST" && (
        <span className="block text-sm text-ink-soft">at worst {fixed(Math.max(0, own.shortfall), 1)} below</span>
      )}
    </>
  );
}

function MeasureSection({ report }: { report: Report }) {
  return (
    <section className="mt-8">
      <h2>What the answers took</h2>
      <Table
        caption="Time and cost by candidate"
        rows={report.measures}
        rowKey={(m) => m.candidateId}
        columns={[
          {
            key: "name",
            head: "Candidate",
            rowHeader: true,
            cell: (m) => <CandidateOf report={report} id={m.candidateId} />,
          },
          { key: "complete", head: "Complete answers", align: "right", cell: (m) => `${m.complete} of ${m.answers}` },
          {
            key: "time",
            head: "Median time",
            align: "right",
            sortBy: (m) => m.medianTotalMs ?? 0,
            cell: (m) => (m.medianTotalMs === undefined ? "not measured" : duration(m.medianTotalMs)),
          },
          {
            key: "tokens",
            head: "Median tokens out",
            align: "right",
            sortBy: (m) => m.medianOutputTokens ?? 0,
            cell: (m) => m.medianOutputTokens ?? "not measured",
          },
          {
            key: "cost",
            head: "Cost of all",
            align: "right",
            sortBy: (m) => m.totalCost ?? 0,
            cell: (m) =>
              m.totalCost === undefined || m.currency === undefined ? "not known" : money(m.totalCost, m.currency),
          },
        ]}
      />
    </section>
  );
}

function RuledOut({ report }: { report: Report }) {
  if (report.ruledOut.length === 0) {
    return null;
  }
  return (
    <Note tone="caution" className="mt-3">
      <ul>
        {report.ruledOut.map((r) => (
          <li key={r.candidateId}>
            <CandidateOf report={report} id={r.candidateId} /> is ruled out whatever its grades: {r.reasons.join("; ")}
          </li>
        ))}
      </ul>
    </Note>
  );
}

/** What people expected before they saw anything, beside what came out. */
function ExpectationSection({ report }: { report: Report }) {
  if (report.expectations.length === 0) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2>What was expected</h2>
      <p className="mb-1 text-sm text-ink-soft">
        Said before anybody saw an answer; raters did not know the candidates.
      </p>
      <Table
        caption="What people expected"
        rows={report.expectations}
        rowKey={(e) => e.name}
        columns={[
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
          { key: "at", head: "Said", cell: (e) => moment(e.declaredAt) },
        ]}
      />
    </section>
  );
}

function BlindingSection({ report }: { report: Report }) {
  const { blinding } = report;
  return (
    <section className="mt-8">
      <h2>Who was blind</h2>
      <p className="mt-1 max-w-3xl">
        {count(blinding.raters, "person", "people")} graded without names, measures or a stable order before them.{" "}
        {blinding.lead
          ? "The lead was one of them, and saw no more than any rater from the opening of the round to its close."
          : "The lead saw names and did not grade."}{" "}
        {blinding.giveAways === 0
          ? "No answer names a candidate."
          : `${count(blinding.giveAways, "answer names", "answers name")} a candidate in what raters read.`}
      </p>
    </section>
  );
}

function RuleSection({ report }: { report: Report }) {
  const { rule } = report;
  return (
    <section className="mt-8 max-w-3xl">
      <h2 className="mb-2">The rule, as closed with the brief</h2>
      <RuleTermsList terms={rule.terms} weights={rule.weights} />
      <Reopenings reopenings={report.reopenings} />
    </section>
  );
}

/** Says where one candidate got a kinder follow-up than another, so that nobody finds it out later. */
function UnequalFollowUps({ report }: { report: Report }) {
  if (report.unequalFollowUps.length === 0) {
    return null;
  }
  return (
    <Note tone="caution" className="mt-3">
      <ul>
        {report.unequalFollowUps.map((u) => (
          <li key={u.answerId}>
            {report.candidates.find((c) => c.id === u.candidateId)?.name} got{" "}
            {count(u.followUps, "follow-up", "follow-ups")} of its own on{" "}
            <Link to={`../answers/${u.promptId}?answer=${u.answerId}`}>{u.title}</Link>, which the others did not.
          </li>
        ))}
      </ul>
    </Note>
  );
}
