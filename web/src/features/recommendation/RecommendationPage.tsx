import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { at } from "../../api/base";
import type { Schemas } from "../../api/client";
import { count, fixed, moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Query, WORKED_OUT } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { ForecastWords, Reopenings, RuleTermsList, SetAsideNote, useStudy } from "../study";
import { ActsSection } from "./ActsSection";
import { looksAtStudy } from "./api";
import { CandidateOf } from "./CandidateOf";
import { Conditions } from "./Conditions";
import { DifferenceSection } from "./DifferenceSection";
import { FactsSection, SpeaksAgainst } from "./FactsBeside";
import { HiddenStandings, LooksTable } from "./HiddenStandings";
import { useReport, useRobustness } from "./shown";
import { StandingTable } from "./StandingSection";
import { Views } from "./Views";

type Report = Schemas["RecommendationReport"];

const TONES: Record<Report["outcome"], "good" | "info" | "caution"> = {
  RECOMMENDED: "good",
  SAFE_CHOICES: "good",
  BY_KIND: "info",
  UNDECIDED: "info",
  WITHHELD: "caution",
};

export function RecommendationPage() {
  const study = useStudy();
  const { look, hidden, query } = useReport();
  useTitle(`Recommendation · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <Query of={query} what={look > 0 ? "what was seen" : "the recommendation"} long={WORKED_OUT}>
      {(report) => (
        <div className="max-w-5xl">
          {look === 0 && <Views />}
          {look > 0 && <LookNote look={look} report={report} />}
          <Head report={report} look={look} />
          <div className="grid gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
            <div className="grid content-start gap-3">
              <Outcome report={report} look={look} />
              <SetAsideNote setAside={report.setAside} />
              <UnequalFollowUps report={report} />
              <SeveralModels report={report} />
            </div>
            <div className="grid content-start gap-3">
              <Conditions report={report} />
              <SpeaksAgainst report={report} />
              <RuledOut report={report} />
              <FailedAnswers report={report} />
              <Settled report={report} />
            </div>
          </div>
          <section className="mt-5">
            <h2>Standings</h2>
            <p className="mb-1 text-sm text-ink-soft">
              Scores of 100, with 95 % intervals over other prompts and raters of the same sort.
              {report.outcome === "WITHHELD" && " They are shown as they stand; the rule does not let them decide yet."}
            </p>
            <StandingTable caption="Standings overall" report={report} standings={report.overall} overall="told" />
            {look > 0 && <DifferenceSection report={report} />}
          </section>
          <FactsSection report={report} />
          <BlindingSection report={report} />
          <RuleSection report={report} />
          {report.forecast && <ForecastWords forecast={report.forecast} />}
          {look === 0 && <EarlierLooks taken={report.looking.taken} />}
          {look === 0 && <ActsSection />}
        </div>
      )}
    </Query>
  );
}

function EarlierLooks({ taken }: { taken: Report["looking"]["taken"] }) {
  if (taken.length === 0) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2 className="mb-1">Looks before grading had ended</h2>
      <LooksTable taken={taken} />
    </section>
  );
}

/** Says that it is not the last word. */
function LookNote({ look, report }: { look: number; report: Report }) {
  const study = useStudy();
  const looks = useQuery(looksAtStudy(study.id));
  const taken = looks.data?.taken.find((l) => l.number === look);
  return (
    <Note tone="info" className="mb-4">
      As it stood at look {look} of {report.looking.allowed}
      {taken && `, ${moment(taken.at)}, with ${taken.counted} of ${count(taken.planned, "prompt", "prompts")}`}. Grades
      that came later are not in it. <Link to="?">As it stands now</Link>
    </Note>
  );
}

type OutcomeProps = { report: Report; look: number };

function Head({ report, look }: OutcomeProps) {
  const { basis } = report;
  return (
    <>
      <h1>{report.headline}</h1>
      <p className="mt-1 mb-3 text-ink-soft">
        {look === 0 && `From ${basis.sentSheets} of ${count(basis.sheets, "sheet", "sheets")}: `}
        {count(basis.answers, "answer", "answers")} to {count(basis.prompts, "prompt", "prompts")},{" "}
        {count(basis.raters, "rater", "raters")}.
        {(basis.withdrawn ?? 0) > 0 &&
          ` ${count(basis.withdrawn ?? 0, "more sheet was", "more sheets were")} withdrawn and ${basis.withdrawn === 1 ? "counts" : "count"} nowhere.`}
      </p>
    </>
  );
}

function Outcome({ report, look }: OutcomeProps) {
  return (
    <Note tone={TONES[report.outcome]}>
      <h2 className="text-base">{report.outcome === "WITHHELD" ? "What is missing" : "Why"}</h2>
      <ul className="mt-1 grid gap-1">
        {report.findings.map((finding) => (
          <li key={finding.sentence}>{finding.sentence}</li>
        ))}
      </ul>
      {report.outcome !== "WITHHELD" && report.outcome !== "BY_KIND" && <HangsOnLine />}
      {look > 0 ? (
        <p className="mt-2">
          <Link to={`how?look=${look}`}>How the outcome comes about</Link>
        </p>
      ) : (
        <GoOn />
      )}
    </Note>
  );
}

/** What a lead does next with it. */
function GoOn() {
  const study = useStudy();
  return study.role === "LEAD" ? (
    <p className="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-sm">
      <a href={at(`/api/studies/${study.id}/grades`)} download>
        All grades as a table (CSV)
      </a>
      <Link to="next">Begin the next study from this one</Link>
    </p>
  ) : null;
}

/** What the outcome hangs on, in a sentence; it comes a little later than the rest. */
function HangsOnLine() {
  const robustness = useRobustness();
  return robustness.data?.sentence ? <p className="mt-2">{robustness.data.sentence}</p> : null;
}

function FailedAnswers({ report }: { report: Report }) {
  const { answers, otherwise } = report.failed;
  if (answers === 0) {
    return null;
  }
  const lowest = report.rule.terms.failedAnswers === "LOWEST";
  return (
    <Note tone={otherwise === undefined ? "info" : "caution"} className="text-sm">
      {count(answers, "answer", "answers")} left nothing to grade and{" "}
      {lowest ? "got the lowest levels" : "count nowhere"}, by the rule.{" "}
      {otherwise === undefined
        ? `The outcome would be the same if they ${lowest ? "counted nowhere" : "got the lowest levels"}.`
        : `If they ${lowest ? "counted nowhere" : "got the lowest levels"}, it would be: ${otherwise}`}
    </Note>
  );
}

/** What raters settled on stands beside what decides. */
function Settled({ report }: { report: Report }) {
  const { splits, open, standings, otherwise } = report.settled;
  if (splits === 0) {
    return null;
  }
  return (
    <Note tone={otherwise === undefined ? "info" : "caution"} className="text-sm">
      <p>
        {count(splits, "split has", "splits have")} a settled grade{open > 0 && `, ${open} have none`}. Everything here
        rests on the grades as they were given, before anybody saw another’s.{" "}
        {otherwise === undefined
          ? "With settled grades the outcome would be the same."
          : `With settled grades it would be: ${otherwise}`}
      </p>
      <details>
        <summary className="text-tarn underline underline-offset-4">Scores with settled grades</summary>
        <p>
          With settled grades, in points:{" "}
          {standings.map((s, i) => (
            <span key={s.candidateId}>
              {i > 0 && ", "}
              <CandidateOf report={report} id={s.candidateId} />{" "}
              {s.adjusted.value === undefined ? "–" : fixed(s.adjusted.value, 1)}
            </span>
          ))}
          . They are not independent, so they have no interval.
        </p>
      </details>
    </Note>
  );
}

function RuledOut({ report }: { report: Report }) {
  if (report.ruledOut.length === 0) {
    return null;
  }
  return (
    <Note tone="caution">
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
        {blinding.sentKnowing > 0 &&
          ` The round was opened again after it had been closed: ${count(blinding.sentKnowing, "sheet was", "sheets were")} sent in by people who could have seen the names.`}
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

/** A service that put another version in place while answers were collected: both stand as one candidate. */
function SeveralModels({ report }: { report: Report }) {
  if (report.severalModels.length === 0) {
    return null;
  }
  return (
    <Note tone="caution">
      <ul>
        {report.severalModels.map((s) => (
          <li key={s.candidateId}>
            More than one model answered for {report.candidates.find((c) => c.id === s.candidateId)?.name}, by its
            service’s own word:{" "}
            {s.answered.map((a) => `${a.model} (${count(a.answers, "answer", "answers")})`).join(", ")}. They count as
            one candidate.
          </li>
        ))}
      </ul>
    </Note>
  );
}

/** Says where one candidate got a kinder follow-up than another, so that nobody finds it out later. */
function UnequalFollowUps({ report }: { report: Report }) {
  if (report.unequalFollowUps.length === 0) {
    return null;
  }
  return (
    <Note tone="caution">
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
