import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Field";
import { count } from "../../ui/format";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { splitsOfStudy, SplitStateWords, TakeUpWidest, useTakeUp } from "../reconciliation";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { LevelMark } from "../rubric";
import { useStudy } from "../study";
import { LEAST_APART, narrowedOf } from "./narrowed";
import { type Filter, type Narrow, useFilter } from "./useFilter";

type Report = Schemas["AgreementReport"];
type SplitView = Report["splits"][number];

/** As many as are looked through without scrolling for long; the rest come when they are asked for. */
const FIRST = 12;
const ALL = "";

type SplitSectionProps = { report: Report; criterion: Report["criteria"][number] | undefined };

/** Splits, widest first, of what is looked at; the address keeps it. */
export function SplitSection({ report, criterion }: SplitSectionProps) {
  return useStudy().role === "LEAD" && criterion ? (
    <LookedAtSplits report={report} criterion={criterion} />
  ) : (
    <OwnSplits report={report} />
  );
}

/** For the lead: those of the criterion that is looked at, narrowed down as the workbench is. */
function LookedAtSplits({ report, criterion }: { report: Report; criterion: Report["criteria"][number] }) {
  const study = useStudy();
  const { filter, narrow } = useFilter();
  const narrowed = useQuery(narrowedOf(study.id, criterion.criterionId, filter));
  const { data: taken } = useQuery(splitsOfStudy(study.id));
  return (
    <section id="splits-table" className="mt-8 scroll-mt-4">
      <h2>Widest splits</h2>
      <p className="mt-1 mb-2 text-ink-soft">
        {count(report.splitCount, "answer and criterion", "answers and criteria")} in all on which raters lie two levels
        or more apart.
        {filter.levels !== undefined && " Where two levels are looked at, every answer that got both stands here."}
      </p>
      <SplitFilters report={report} filter={{ ...filter, criterion: criterion.criterionId }} onNarrow={narrow} />
      {study.stage === "GRADING" && (
        <div className="mb-3">
          <TakeUpWidest studyId={study.id} />
        </div>
      )}
      <Query of={narrowed} what="the splits">
        {({ splits, splitCount }) => (
          <>
            {splitCount > splits.length && (
              <p className="mb-2 text-ink-soft">
                The widest {splits.length} of {splitCount} stand here; narrow them down for others.
              </p>
            )}
            <Shown
              report={report}
              found={splits.filter((s) => filter.state === undefined || stateOf(s, taken) === filter.state)}
              takenUp={taken}
            />
          </>
        )}
      </Query>
    </section>
  );
}

/** For a rater: those that they are part of. */
function OwnSplits({ report }: { report: Report }) {
  const { filter, narrow } = useFilter();
  const found = report.splits.filter(
    (s) =>
      (filter.criterion === undefined || s.criterionId === filter.criterion) &&
      (filter.prompt === undefined || s.promptId === filter.prompt) &&
      (filter.rater === undefined || isAtAnEnd(s, filter.rater)),
  );
  return (
    <section className="mt-8">
      <h2>Widest splits</h2>
      {report.splits.length === 0 ? (
        <p className="mt-1">No two raters lie two levels or more apart.</p>
      ) : (
        <>
          <p className="mt-1 mb-2 text-ink-soft">
            {count(report.splitCount, "answer and criterion", "answers and criteria")} on which raters lie two levels or
            more apart
            {report.splitCount > report.splits.length && `; ${report.splits.length} of them are known here`}.
          </p>
          <SplitFilters report={report} filter={filter} onNarrow={narrow} />
          <Shown report={report} found={found} takenUp={undefined} />
        </>
      )}
    </section>
  );
}

type ShownProps = { report: Report; found: SplitView[]; takenUp: Schemas["TakenUp"][] | undefined };

function Shown({ report, found, takenUp }: ShownProps) {
  const [whole, setWhole] = useState(false);
  const shown = whole ? found : found.slice(0, FIRST);
  return (
    <>
      {found.length === 0 ? <p>None of these.</p> : <SplitTable report={report} splits={shown} takenUp={takenUp} />}
      {found.length > shown.length && (
        <Button className="mt-2" onClick={() => setWhole(true)}>
          Show all {found.length}
        </Button>
      )}
    </>
  );
}

/** How far a split has got; the words of a choice. */
const STATES = {
  open: "open",
  talk: "taken up or in talk",
  settled: "settled",
  left: "left open",
};

function stateOf(split: SplitView, taken: Schemas["TakenUp"][] | undefined): keyof typeof STATES | undefined {
  const found = taken?.find((t) => t.answerId === split.answerId && t.criterionId === split.criterionId);
  switch (found?.state) {
    case undefined:
      return split.distance < LEAST_APART ? undefined : "open";
    case "OPEN":
      return "talk";
    case "SETTLED":
      return "settled";
    case "LEFT_OPEN":
      return "left";
  }
}

type SplitFiltersProps = { report: Report; filter: Filter; onNarrow: Narrow };

function SplitFilters({ report, filter, onNarrow }: SplitFiltersProps) {
  const leads = useStudy().role === "LEAD";
  const criteria = report.criteria.map((c) => ({ value: c.criterionId, label: c.name }));
  return (
    <div className="mb-2 flex flex-wrap gap-4">
      <Choice
        label="On"
        className="w-56"
        value={filter.criterion ?? ALL}
        options={leads ? criteria : [{ value: ALL, label: "every criterion" }, ...criteria]}
        onValue={(criterion) => onNarrow({ criterion, levels: undefined })}
      />
      <Choice
        label={leads ? "Two levels from others" : "Lowest or highest by"}
        className="w-56"
        value={filter.rater ?? ALL}
        options={[{ value: ALL, label: "anybody" }, ...report.raters.map((r) => ({ value: r.raterId, label: r.name }))]}
        onValue={(rater) => onNarrow({ rater })}
      />
      <PromptChoice report={report} filter={filter} onNarrow={onNarrow} />
      {leads && (
        <Choice
          label="State"
          className="w-48"
          value={filter.state ?? ALL}
          options={[
            { value: ALL, label: "every state" },
            ...Object.entries(STATES).map(([value, label]) => ({ value, label })),
          ]}
          onValue={(state) => onNarrow({ state })}
        />
      )}
    </div>
  );
}

/** Prompts of which splits are known, and the one that is looked at. */
function PromptChoice({ report, filter, onNarrow }: SplitFiltersProps) {
  const prompts = new Map(report.splits.map((s) => [s.promptId, s.promptTitle]));
  if (filter.prompt !== undefined && !prompts.has(filter.prompt)) {
    prompts.set(filter.prompt, "the one looked at");
  }
  return (
    <Choice
      label="Prompt"
      className="w-72"
      value={filter.prompt ?? ALL}
      options={[{ value: ALL, label: "every prompt" }, ...[...prompts].map(([value, label]) => ({ value, label }))]}
      onValue={(prompt) => onNarrow({ prompt })}
    />
  );
}

/** Whether a rater gave the lowest or the highest level of it. */
function isAtAnEnd(split: SplitView, rater: string): boolean {
  const levels = split.grades.map((g) => g.level);
  const own = split.grades.find((g) => g.raterId === rater)?.level;
  return own !== undefined && (own === Math.min(...levels) || own === Math.max(...levels));
}

type SplitTableProps = { report: Report; splits: SplitView[]; takenUp: Schemas["TakenUp"][] | undefined };

function SplitTable({ report, splits, takenUp }: SplitTableProps) {
  const candidates = useQuery(candidatesOfStudy(useStudy().id));
  const nameOf = new Map(candidates.data?.map((c) => [c.id, c.content.name]));
  const byPlace = new Map(takenUp?.map((t) => [`${t.answerId} ${t.criterionId}`, t]));
  const highest = new Map(report.criteria.map((c) => [c.criterionId, c.highestLevel]));
  return (
    <Table
      caption="Splits, widest first"
      saveAs="splits"
      rows={splits}
      rowKey={(s) => `${s.answerId} ${s.criterionId}`}
      columns={[
        { key: "distance", head: "Apart", align: "right", sortBy: (s) => s.distance, cell: (s) => s.distance },
        {
          key: "prompt",
          head: "What was graded",
          rowHeader: true,
          sortBy: (s) => s.promptTitle,
          cell: (s) => (
            <Link to={`../answers/${s.promptId}?answer=${s.answerId}`}>
              {s.promptTitle}, {s.criterionName.toLowerCase()}
            </Link>
          ),
        },
        {
          key: "whose",
          head: "Whose",
          sortBy: (s) => nameOf.get(s.candidateId) ?? "",
          cell: (s) => {
            const index = candidates.data?.findIndex((c) => c.id === s.candidateId) ?? -1;
            return index < 0 ? null : <CandidateName name={nameOf.get(s.candidateId) ?? ""} index={index} />;
          },
        },
        {
          key: "grades",
          head: "Grades",
          cell: (s) => (
            <span className="flex flex-wrap gap-x-4 gap-y-1">
              {s.grades.map((g) => (
                <span key={g.raterId} className="whitespace-nowrap">
                  <LevelMark level={g.level} highest={highest.get(s.criterionId) ?? g.level} title={g.levelName} />{" "}
                  {g.name}
                </span>
              ))}
            </span>
          ),
        },
        ...(takenUp
          ? [
              {
                key: "state",
                head: "State",
                cell: (s: SplitView) => <State split={s} takenUp={byPlace.get(`${s.answerId} ${s.criterionId}`)} />,
              },
            ]
          : []),
      ]}
    />
  );
}

/** How far it has got, and the way to its talk. */
function State({ split, takenUp }: { split: SplitView; takenUp: Schemas["TakenUp"] | undefined }) {
  const study = useStudy();
  const takeUp = useTakeUp(study.id);
  if (takenUp) {
    return (
      <Link to={`/splits/${takenUp.id}`}>
        <SplitStateWords split={takenUp} />
      </Link>
    );
  }
  if (split.distance < LEAST_APART) {
    return <span className="text-ink-soft">no split</span>;
  }
  return study.stage === "GRADING" ? (
    <>
      <Button
        aria-label={`Take up: ${split.promptTitle}, ${split.criterionName.toLowerCase()}`}
        disabled={takeUp.isPending}
        onClick={() => takeUp.mutate([{ answerId: split.answerId, criterionId: split.criterionId }])}
      >
        Take up
      </Button>
      <Trouble error={takeUp.error} />
    </>
  ) : (
    <SplitStateWords split={undefined} />
  );
}
