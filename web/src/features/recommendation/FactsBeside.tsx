import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Note } from "../../ui/Note";
import { FigureText } from "../../ui/IntervalRow";
import { Table } from "../../ui/Table";
import { candidatesOfStudy, DECIDERS, DECIDERS_IN_ORDER } from "../candidate";
import { useStudy } from "../study";
import { CandidateOf } from "./CandidateOf";

type Report = Schemas["RecommendationReport"];
type Candidate = Schemas["CandidateView"];
type Sign = Schemas["Consideration"]["sign"];
type Decider = NonNullable<Schemas["Consideration"]["about"]>;

const factsOf = (candidate: Candidate, sign: Sign) =>
  candidate.content.considerations.filter((c) => c.sign === sign).map((c) => c.text);

/** Whom the outcome names, where it names any over all kinds. */
const named = (report: Report): string[] =>
  report.outcome === "RECOMMENDED" || report.outcome === "SAFE_CHOICES"
    ? report.field.filter((f) => f.place === "BEST" || f.place === "SAFE").map((f) => f.candidateId)
    : [];

const scoreOf = (report: Report, id: string): number =>
  report.overall.find((s) => s.candidateId === id)?.adjusted.value ?? -Infinity;

/** What holds against what is recommended, whatever its grades: beside the outcome, not below it. */
export function SpeaksAgainst({ report }: { report: Report }) {
  const study = useStudy();
  const candidates = useQuery(candidatesOfStudy(study.id));
  const ids = named(report);
  const against = (candidates.data ?? [])
    .filter((c) => ids.includes(c.id))
    .flatMap((c) => factsOf(c, "AGAINST").map((text) => ({ id: c.id, text })));
  const higher = report.candidates.filter(
    (c) => c.baseline && ids.some((id) => scoreOf(report, c.id) > scoreOf(report, id)),
  );
  if (against.length + higher.length === 0) {
    return null;
  }
  return (
    <Note tone="caution">
      <h2 className="text-base">What speaks against it</h2>
      <ul className="mt-1 grid gap-1 [overflow-wrap:anywhere]">
        {against.map((fact) => (
          <li key={fact.id + fact.text}>
            <CandidateOf report={report} id={fact.id} />: {fact.text}
          </li>
        ))}
        {higher.map((c) => (
          <li key={c.id}>
            <CandidateOf report={report} id={c.id} />, a person’s own answers, stands higher.
          </li>
        ))}
      </ul>
    </Note>
  );
}

const SIGNS: { sign: Sign; head: string }[] = [
  { sign: "FOR", head: "For it" },
  { sign: "AGAINST", head: "Against it" },
  { sign: "RULES_OUT", head: "Rules it out" },
];

/** Facts that no grade covers, beside the scores; a blank is seen as one. */
export function FactsSection({ report }: { report: Report }) {
  const study = useStudy();
  const candidates = useQuery(candidatesOfStudy(study.id));
  if (!candidates.data?.some((c) => c.content.considerations.length > 0)) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2 className="mb-1">Facts that no grade covers</h2>
      <Table
        caption="Facts by candidate"
        rows={candidates.data}
        rowKey={(c) => c.id}
        saveAs="facts"
        columns={[
          { key: "name", head: "Candidate", rowHeader: true, cell: (c) => <CandidateOf report={report} id={c.id} /> },
          {
            key: "score",
            head: "Score, interval",
            sortBy: (c) => scoreOf(report, c.id),
            cell: (c) => {
              const standing = report.overall.find((s) => s.candidateId === c.id);
              return standing ? <FigureText figure={standing.adjusted} decimals={1} /> : "–";
            },
          },
          ...SIGNS.map(({ sign, head }) => ({
            key: sign,
            head,
            cell: (c: Candidate) => <Facts texts={factsOf(c, sign)} />,
          })),
        ]}
      />
      <Deciders report={report} candidates={candidates.data} />
    </section>
  );
}

/** What is asked of all candidates once it is known of one, so that a blank is seen as one. */
function Deciders({ report, candidates }: { report: Report; candidates: Candidate[] }) {
  const models = candidates.filter((c) => !c.content.baseline);
  const answers = (c: Candidate, about: Decider) => c.content.considerations.filter((f) => f.about === about);
  const asked = DECIDERS_IN_ORDER.filter((about) => models.some((c) => answers(c, about).length > 0));
  if (asked.length === 0) {
    return null;
  }
  return (
    <div className="mt-4">
      <Table
        caption="What is asked of all candidates"
        rows={asked.map((about) => ({ about }))}
        rowKey={(r) => r.about}
        saveAs="asked-of-all"
        columns={[
          { key: "about", head: "Asked of all", rowHeader: true, cell: (r) => DECIDERS[r.about] },
          ...models.map((c) => ({
            key: c.id,
            head: <CandidateOf report={report} id={c.id} />,
            cell: (r: { about: Decider }) => {
              const facts = answers(c, r.about);
              return facts.length === 0 ? (
                <span className="border-b-2 border-ochre">blank: nobody found out</span>
              ) : (
                <Facts texts={facts.map((f) => f.text)} />
              );
            },
          })),
        ]}
      />
    </div>
  );
}

function Facts({ texts }: { texts: string[] }) {
  return texts.length === 0 ? (
    <span className="text-ink-soft">none on record</span>
  ) : (
    <ul className="grid gap-1 [overflow-wrap:anywhere]">
      {texts.map((text) => (
        <li key={text}>{text}</li>
      ))}
    </ul>
  );
}
