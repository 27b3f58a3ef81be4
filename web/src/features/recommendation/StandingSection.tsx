import type { Schemas } from "../../api/client";
import { chance, fixed } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow, sign } from "../../ui/IntervalRow";
import { Table } from "../../ui/Table";
import { CandidateOf } from "./CandidateOf";

type Report = Schemas["RecommendationReport"];

/** A candidate's place in the study's list decides its sign, whatever its standing. */
const SCORE: Axis = { from: 0, to: 100, decimals: 0, marks: [] };

/** Where each candidate stands, overall and on each criterion. */
export function StandingSection({ report }: { report: Report }) {
  return (
    <section className="mt-7">
      <h2>Standings</h2>
      <p className="mb-1 text-sm text-ink-soft">
        Scores of 100, adjusted for hard prompts and strict raters, with 95 % intervals over other prompts and raters of
        the same sort.
        {report.outcome === "WITHHELD" && " They are shown as they stand; the rule does not let them decide yet."}
      </p>
      <StandingTable caption="Standings overall" report={report} standings={report.overall} overall="told" />
      <div className="mt-5 grid grid-cols-1 gap-x-10 gap-y-5 2xl:grid-cols-2">
        {report.byCriterion.map((c) => (
          <section key={c.criterionId}>
            <h3>{c.name}</h3>
            <StandingTable caption={`Standings on ${c.name}`} report={report} standings={c.standings} overall={false} />
          </section>
        ))}
        {report.rule.terms.byKind &&
          report.byKind.map((k) => (
            <section key={k.kindKey}>
              <h3>{k.name}</h3>
              <StandingTable
                caption={`Standings for ${k.name}`}
                report={report}
                standings={k.standings}
                overall={false}
              />
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

type StandingTableProps = {
  caption: string;
  report: Report;
  standings: Report["overall"];
  /** Whether they are over all kinds and criteria, and then what is told of them beside the score. */
  overall: "told" | "compared" | false;
};

export function StandingTable({ caption, report, standings, overall }: StandingTableProps) {
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
              ...(overall === "compared"
                ? []
                : [
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
                      cell: (s: Report["overall"][number]) =>
                        s.plain.value === undefined ? "–" : fixed(s.plain.value, 1),
                    },
                  ]),
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
