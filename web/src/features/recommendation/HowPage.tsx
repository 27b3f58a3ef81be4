import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { count, fixed, money } from "../../ui/format";
import { FigureText } from "../../ui/IntervalRow";
import { Query } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { CandidateOf } from "./CandidateOf";
import { HangsOn } from "./HangsOn";
import { HiddenStandings } from "./HiddenStandings";
import { useReport } from "./shown";
import { Views } from "./Views";

type Report = Schemas["RecommendationReport"];
type Field = Report["field"][number];
type Difference = Report["differences"][number];

/** Each statement of the outcome, with the study's own figures. */
export function HowPage() {
  const study = useStudy();
  const { look, hidden, query } = useReport();
  useTitle(`How the outcome comes about · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <Query of={query} what="the recommendation">
      {(report) => (
        <div className="max-w-5xl">
          {look === 0 ? (
            <Views />
          ) : (
            <p className="mb-2">
              <Link to={`../recommendation?look=${look}`}>Recommendation at look {look}</Link>
            </p>
          )}
          <h1>How the outcome comes about</h1>
          <p className="mt-1 mb-6 font-serif text-lg">{report.headline}</p>
          <AgreementStep report={report} />
          <DifferenceStep report={report} />
          <FieldStep report={report} />
          <OutcomeStep report={report} />
          <TieStep report={report} />
          <HangsOn overall={report.outcome !== "BY_KIND"} />
        </div>
      )}
    </Query>
  );
}

const MUST: Record<Report["rule"]["terms"]["floorOn"], string> = {
  ESTIMATE: "The estimate must reach the floor.",
  LOWER_LIMIT: "The lower limit of the interval must reach the floor.",
  UPPER_LIMIT: "It is withheld only if the upper limit lies below the floor, or the lower one is not above 0.",
};

function AgreementStep({ report }: { report: Report }) {
  const { terms } = report.rule;
  return (
    <section className="mt-6">
      <h2>1. May these grades decide?</h2>
      <p className="mt-1 max-w-3xl">
        Raters must agree on each criterion that has weight, and each answer needs {terms.minimumRaters} of them.{" "}
        {MUST[terms.floorOn]} Intervals say how far agreement of these raters would vary over other prompts.
      </p>
      <Table
        caption="Agreement on each criterion with weight"
        rows={report.agreement}
        rowKey={(a) => a.criterionId}
        columns={[
          { key: "name", head: "Criterion", rowHeader: true, cell: (a) => a.name },
          { key: "value", head: "Agreement, interval", cell: (a) => <FigureText figure={a.value} decimals={2} /> },
          { key: "floor", head: "Floor", align: "right", cell: (a) => fixed(a.floor, 2) },
        ]}
      />
    </section>
  );
}

function DifferenceStep({ report }: { report: Report }) {
  if (report.differences.length === 0) {
    return null;
  }
  return (
    <section className="mt-8">
      <h2>2. How far are candidates apart, and how sure is that?</h2>
      <p className="mt-1 max-w-3xl">
        A difference is the mean of what lies between two candidates where the same rater graded both on the same
        prompt. Its standard error counts how much that varies from prompt to prompt of a kind, from rater to rater, and
        what is left: it says how far the difference might lie off with other prompts and other raters of the sort. On
        these very prompts, by these very raters, it is known much better; that is true of this study alone.
      </p>
      <Table
        caption="Differences and what they rest on"
        rows={report.differences}
        rowKey={(d) => `${d.higherId} ${d.lowerId}`}
        columns={pairColumns(report)}
      />
    </section>
  );
}

function pairColumns(report: Report): Column<Difference>[] {
  return [
    {
      key: "pair",
      head: "Higher, lower",
      rowHeader: true,
      cell: (d) => (
        <span className="inline-flex flex-wrap gap-x-2">
          <CandidateOf report={report} id={d.higherId} /> over <CandidateOf report={report} id={d.lowerId} />
        </span>
      ),
    },
    { key: "d", head: "Points", align: "right", cell: (d) => fixed(d.difference.value ?? 0, 1) },
    { key: "se", head: "Standard error", align: "right", cell: (d) => known(d.standardError.value, 1) },
    { key: "df", head: "Degrees of freedom", align: "right", cell: (d) => fixed(d.freedom, 1) },
    { key: "t", head: "t", align: "right", cell: (d) => known(tOf(d), 2) },
    { key: "p", head: "p, corrected", align: "right", cell: (d) => pOf(d) },
    { key: "here", head: "Here alone", cell: (d) => <FigureText figure={d.here} decimals={1} /> },
  ];
}

function known(value: number | undefined, decimals: number): string {
  return value === undefined ? "–" : fixed(value, decimals);
}

function tOf(d: Difference): number | undefined {
  const error = d.standardError.value;
  return error === undefined || error === 0 ? undefined : (d.difference.value ?? 0) / error;
}

function pOf(d: Difference): string {
  const p = d.p.value;
  return p === undefined ? "–" : p < 0.001 ? "< 0.001" : fixed(p, 3);
}

function FieldStep({ report }: { report: Report }) {
  if (report.field.length === 0) {
    return (
      <section className="mt-8">
        <h2>3. What may be said of each against the best?</h2>
        <p className="mt-1">Nothing is said of any candidate while these grades may not decide.</p>
      </section>
    );
  }
  const share = fixed(100 * report.allowance.overall, report.allowance.overall < 0.05 ? 1 : 0);
  return (
    <section className="mt-8">
      <h2>3. What may be said of each against the best?</h2>
      <p className="mt-1 max-w-3xl">
        In {share} of 100 studies at most anything of this may be false. <b>The best</b> is above every other beyond
        doubt. <b>Safe</b> is who lies, even at worst, less than the margin of {fixed(report.rule.terms.margin, 1)}{" "}
        points below the best of the others. <b>Out</b> is who lies below some other beyond doubt, corrected for the
        number of pairs.
        {report.looking.allowed > 1 &&
          ` The brief allows ${report.looking.allowed} looks at standings, and in 5 of 100 studies at most anything said at any of them may be false: what is left for this one is the less, the fewer prompts count at it.`}
      </p>
      <ul className="mt-2 grid max-w-3xl gap-1">
        {report.field.map((f) => (
          <li key={f.candidateId}>
            <CandidateOf report={report} id={f.candidateId} />: {fieldWords(report, f)}
          </li>
        ))}
      </ul>
    </section>
  );
}

const intervalOf = (figure: Schemas["Figure"]) => `${known(figure.low, 1)} to ${known(figure.high, 1)}`;

/** The arithmetic behind one candidate's place. */
function fieldWords(report: Report, f: Field): string {
  const pair = report.differences.find(
    (d) =>
      (d.higherId === f.candidateId && d.lowerId === f.rivalId) ||
      (d.lowerId === f.candidateId && d.higherId === f.rivalId),
  );
  const rival = report.candidates.find((c) => c.id === f.rivalId)?.name ?? "the others";
  if (pair === undefined || f.shortfall === undefined) {
    return "a difference from another is not known, so nothing can be said.";
  }
  const ahead = (pair.higherId === f.candidateId ? 1 : -1) * (pair.difference.value ?? 0);
  const worst = `against ${rival} ${fixed(ahead, 1)} points, less ${fixed(f.critical, 2)} standard errors of ${known(pair.standardError.value, 1)}, is ${fixed(-f.shortfall, 1)} at worst`;
  switch (f.place) {
    case "BEST":
      // Each by itself: what is safe, or out, is held against all at once, and is farther from the estimate.
      return `the best: above every other beyond doubt, each by itself; nearest is ${rival}, ${fixed(ahead, 1)} points (${intervalOf(pair.difference)}) below.`;
    case "SAFE":
      return `safe: ${worst}, which is less than the margin below.`;
    case "OUT":
      return `out: another is above it beyond doubt; ${worst}.`;
    case "OPEN":
      return `open: it may be the best, and ${worst}, which is the margin or more below.`;
  }
}

const ORDER: { outcome: Report["outcome"]; words: string }[] = [
  { outcome: "WITHHELD", words: "Withheld: something of step 1 is missing, or there is too little to compare." },
  { outcome: "RECOMMENDED", words: "One is recommended: it is the best, or all others are out." },
  { outcome: "SAFE_CHOICES", words: "Safe choices: nobody is shown to be the best, and one or several are safe." },
  { outcome: "BY_KIND", words: "By kind: nothing of this over all kinds, but a best or a safe choice within some." },
  { outcome: "UNDECIDED", words: "Undecided between those that are not out." },
];

function OutcomeStep({ report }: { report: Report }) {
  const possible = ORDER.filter((o) => o.outcome !== "BY_KIND" || report.rule.terms.byKind);
  return (
    <section className="mt-8">
      <h2>4. The outcome</h2>
      <p className="mt-1">The first of these that is so:</p>
      <ol className="mt-1 grid max-w-3xl list-decimal gap-1 pl-6">
        {possible.map((o) => (
          <li key={o.outcome} aria-current={o.outcome === report.outcome || undefined}>
            {o.outcome === report.outcome ? <b>{o.words} This one.</b> : o.words}
          </li>
        ))}
      </ol>
      <ul className="mt-3 grid max-w-3xl gap-1 border-l-2 border-rule pl-4">
        {report.findings.map((f) => (
          <li key={f.sentence}>{f.sentence}</li>
        ))}
      </ul>
    </section>
  );
}

function TieStep({ report }: { report: Report }) {
  const { costs } = report;
  if (report.rule.terms.tieBreak !== "COST") {
    return null;
  }
  return (
    <section className="mt-8">
      <h2>5. What a prompt costs</h2>
      {costs.why !== undefined ? (
        <p className="mt-1">Not known: {costs.why}. Costs then decide nothing.</p>
      ) : (
        <>
          <p className="mt-1 max-w-3xl">
            On average, over the {count(costs.prompts, "prompt", "prompts")} that all contenders answered; asked twice
            counts once. {costs.estimated && "Some costs are estimates."} It decides only between safe choices.
          </p>
          <Table
            caption="Mean cost of a prompt"
            rows={costs.means}
            rowKey={(m) => m.candidateId}
            columns={[
              {
                key: "name",
                head: "Candidate",
                rowHeader: true,
                cell: (m) => <CandidateOf report={report} id={m.candidateId} />,
              },
              {
                key: "mean",
                head: "A prompt",
                align: "right",
                sortBy: (m) => m.mean,
                cell: (m) => money(m.mean, costs.currency ?? ""),
              },
            ]}
          />
        </>
      )}
    </section>
  );
}
