import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Field";
import { count, fixed } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow, sign } from "../../ui/IntervalRow";
import { Query, WORKED_OUT } from "../../ui/Query";
import { type Column, Table } from "../../ui/Table";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { groupsOfStudy } from "./api";
import { CandidateOf } from "./CandidateOf";
import { DifferenceSection } from "./DifferenceSection";
import { HiddenStandings } from "./HiddenStandings";
import { useReport, useRobustness } from "./shown";
import { StandingPicture } from "./StandingPicture";
import { StandingSection } from "./StandingSection";
import { Views } from "./Views";

type Report = Schemas["RecommendationReport"];
type Groups = Schemas["GroupingReport"];
type By = Groups["groupings"][number]["by"];

/** Where candidates stand: over all, by criterion, among some of the prompts, and asked again. */
export function StandingsPage() {
  const study = useStudy();
  const { hidden, query } = useReport();
  const groups = useQuery({ ...groupsOfStudy(study.id), enabled: !hidden });
  useTitle(`Standings · ${study.title}`);
  if (hidden) {
    return <HiddenStandings />;
  }
  return (
    <Query of={query} what="the standings" long={WORKED_OUT}>
      {(report) => (
        <div className="max-w-5xl">
          <Views />
          <h1>Standings</h1>
          <StandingSection report={report} />
          <details className="mt-3">
            <summary className="text-tarn underline underline-offset-4">As a picture to take along</summary>
            <StandingPicture report={report} />
          </details>
          <Query of={groups} what="standings group by group" long={WORKED_OUT}>
            {(found) => <Grouped report={report} groups={found} />}
          </Query>
          <Attempts report={report} />
          <DifferenceSection report={report} />
        </div>
      )}
    </Query>
  );
}

const BY: Record<By, string> = {
  KIND: "kind",
  SIZE: "size of the task",
  AREA: "area",
  LANGUAGE: "language",
  WORDING: "wording",
};

const SCORE: Axis = { from: 0, to: 100, decimals: 0, marks: [] };

function Grouped({ report, groups }: { report: Report; groups: Groups }) {
  const [address, setAddress] = useSearchParams();
  const shown = groups.groupings.find((g) => g.by === address.get("by")) ?? groups.groupings[0];
  if (shown === undefined) {
    return null;
  }
  const rows = shown.groups.flatMap((group) => group.standings.map((standing) => ({ group, standing })));
  return (
    <section className="mt-8">
      <h2>Among some of the prompts</h2>
      <p className="mb-2 max-w-3xl text-sm text-ink-soft">
        It decides nothing: the fewer the prompts, the more of it is chance, and the more groups one looks at, the
        likelier one of them misleads.
      </p>
      <Choice
        label="Prompts by"
        className="w-60"
        value={shown.by}
        options={groups.groupings.map((g) => ({ value: g.by, label: BY[g.by] }))}
        onValue={(by) => setAddress({ by }, { replace: true, preventScrollReset: true })}
      />
      <div className="mt-2">
        <Table
          caption={`Standings by ${BY[shown.by]}`}
          rows={rows}
          rowKey={({ group, standing }) => `${group.name} ${standing.candidateId}`}
          saveAs={`standings-by-${shown.by.toLowerCase()}`}
          columns={groupColumns(report, shown.by)}
        />
      </div>
    </section>
  );
}

type GroupRow = {
  group: Groups["groupings"][number]["groups"][number];
  standing: Groups["groupings"][number]["groups"][number]["standings"][number];
};

function groupColumns(report: Report, by: By): Column<GroupRow>[] {
  return [
    {
      key: "group",
      head: BY[by].replace(/^./, (c) => c.toUpperCase()),
      rowHeader: true,
      sortBy: (r) => r.group.name,
      cell: (r) => (
        <>
          {r.group.name}
          <span className="block text-sm text-ink-soft">{count(r.group.prompts, "prompt", "prompts")}</span>
        </>
      ),
    },
    {
      key: "name",
      head: "Candidate",
      cell: (r) => <CandidateOf report={report} id={r.standing.candidateId} />,
    },
    {
      key: "picture",
      head: <IntervalAxis axis={SCORE} />,
      cell: (r) => (
        <IntervalRow
          figure={r.standing.adjusted}
          axis={SCORE}
          {...sign(report.candidates.findIndex((c) => c.id === r.standing.candidateId))}
        />
      ),
    },
    {
      key: "score",
      head: "Score, interval",
      sortBy: (r) => r.standing.adjusted.value ?? -1,
      cell: (r) => <FigureText figure={r.standing.adjusted} decimals={1} />,
    },
  ];
}

/** How steady candidates are when asked the same again. */
function Attempts({ report }: { report: Report }) {
  const robustness = useRobustness();
  const attempts = (robustness.data?.attempts ?? []).filter((a) => a.prompts > 0);
  if (attempts.length === 0) {
    return null;
  }
  const points = (figure: Schemas["Figure"]) => (figure.value === undefined ? "–" : fixed(figure.value, 1));
  return (
    <section className="mt-8">
      <h2>Asked again</h2>
      <p className="mb-1 text-sm text-ink-soft">
        Over prompts that were asked more than once.
        {robustness.data?.betweenCandidates?.value !== undefined &&
          ` Between candidates the spread is ${fixed(robustness.data.betweenCandidates.value, 1)} points.`}
      </p>
      <Table
        caption="How steady candidates are when asked again"
        rows={attempts}
        rowKey={(a) => a.candidateId}
        saveAs="asked-again"
        columns={[
          {
            key: "name",
            head: "Candidate",
            rowHeader: true,
            cell: (a) => <CandidateOf report={report} id={a.candidateId} />,
          },
          { key: "prompts", head: "Prompts", align: "right", cell: (a) => a.prompts },
          { key: "mean", head: "Mean", align: "right", sortBy: (a) => a.mean.value ?? -1, cell: (a) => points(a.mean) },
          {
            key: "worst",
            head: "Worst of each",
            align: "right",
            sortBy: (a) => a.worst.value ?? -1,
            cell: (a) => points(a.worst),
          },
          {
            key: "within",
            head: "Spread from answer to answer",
            align: "right",
            sortBy: (a) => a.within.value ?? -1,
            cell: (a) => points(a.within),
          },
        ]}
      />
    </section>
  );
}
