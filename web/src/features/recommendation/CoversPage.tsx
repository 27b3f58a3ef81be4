import type { Schemas } from "../../api/client";
import { FigureText } from "../../ui/IntervalRow";
import { Query, WORKED_OUT } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { CandidateOf } from "./CandidateOf";
import { HiddenStandings } from "./HiddenStandings";
import { useReport, useRobustness } from "./shown";
import { Views } from "./Views";

type Report = Schemas["RecommendationReport"];
type Robustness = Schemas["RobustnessReport"];

/** What using more than one candidate would gain: each for what it is best at, or two for a second opinion. */
export function CoversPage() {
  const study = useStudy();
  const { hidden, query } = useReport();
  const robustness = useRobustness();
  useTitle(`Who covers what · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <Query of={query} what="who covers what" long={WORKED_OUT}>
      {(report) => (
        <div className="max-w-5xl">
          <Views />
          <h1>Who covers what</h1>
          <Single report={report} />
          <Query of={robustness} what="what more than one would gain" long={WORKED_OUT}>
            {(found) => <Several report={report} robustness={found} />}
          </Query>
        </div>
      )}
    </Query>
  );
}

function Single({ report }: { report: Report }) {
  const [best] = report.overall.filter((s) => report.candidates.some((c) => c.id === s.candidateId && !c.baseline));
  if (best === undefined) {
    return <p className="mt-3">Nothing is graded.</p>;
  }
  return (
    <p className="mt-3 max-w-3xl">
      One alone: <CandidateOf report={report} id={best.candidateId} />, at{" "}
      <FigureText figure={best.adjusted} decimals={1} /> of 100. What more than one would gain is told against it.
    </p>
  );
}

type SeveralProps = { report: Report; robustness: Robustness };

function Several({ report, robustness }: SeveralProps) {
  return (
    <>
      <section className="mt-6">
        <h2>Chosen beforehand, by kind</h2>
        <p className="mb-1 max-w-3xl text-sm text-ink-soft">
          For each prompt the candidate that is best on the <em>other</em> prompts of its kind: what one could know
          before asking.
        </p>
        {robustness.mix === undefined ? (
          <p>There is one kind alone, or too little to choose by.</p>
        ) : (
          <>
            <Table
              caption="The best for each kind"
              rows={robustness.mix.kinds.map((kind, i) => ({ kind, id: robustness.mix?.candidateIds[i] ?? "" }))}
              rowKey={(r) => r.kind}
              saveAs="by-kind"
              columns={[
                { key: "kind", head: "Kind", rowHeader: true, sortBy: (r) => r.kind, cell: (r) => r.kind },
                { key: "name", head: "Best on it", cell: (r) => <CandidateOf report={report} id={r.id} /> },
              ]}
            />
            <Gain mix={robustness.mix} />
          </>
        )}
      </section>
      <section className="mt-6">
        <h2>A second opinion</h2>
        <p className="mb-1 max-w-3xl text-sm text-ink-soft">
          Two are asked, and somebody takes the better answer: what costs twice, and time to compare. Which is the
          better is told by other raters’ grades than the one it is counted by, so that nobody’s own noise is rewarded.
        </p>
        {robustness.bestPair === undefined ? (
          <p>It takes three candidates, and more than one rater to an answer.</p>
        ) : (
          <>
            <p>
              The pair that gains most:{" "}
              {robustness.bestPair.candidateIds.map((id, i) => (
                <span key={id}>
                  {i > 0 && " with "}
                  <CandidateOf report={report} id={id} />
                </span>
              ))}
              .
            </p>
            <Gain mix={robustness.bestPair} />
          </>
        )}
      </section>
    </>
  );
}

/** Whether it is worth it, with how sure that is. */
function Gain({ mix }: { mix: NonNullable<Robustness["mix"]> }) {
  const { gain } = mix;
  const sure = gain.low === undefined || gain.high === undefined ? "" : gain.low > 0 ? "" : " It may gain nothing.";
  return (
    <p className="mt-1">
      Over the best one alone it gains <FigureText figure={gain} decimals={1} /> points.{sure}
    </p>
  );
}
