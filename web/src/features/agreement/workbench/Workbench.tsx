import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { Query, WORKED_OUT } from "../../../ui/Query";
import { useStudy } from "../../study";
import { diagnosisOfStudy } from "../diagnosis";
import { narrowedOf } from "../narrowed";
import { type Filter, type Narrow, twoLevels, useFilter } from "../useFilter";
import { CriteriaAndKinds } from "./CriteriaAndKinds";
import { Levels } from "./Levels";
import { PairsOfRaters } from "./PairsOfRaters";
import { Prompts } from "./Prompts";
import { Raters } from "./Raters";
import { Splits } from "./Splits";

type Report = Schemas["AgreementReport"];

export type ViewProps = {
  report: Report;
  criterion: Report["criteria"][number];
  /** What of it is looked at. */
  narrowed: Schemas["NarrowedReport"];
  /** All of it, with what takes longer to work out. */
  whole: Schemas["OnCriterion"] | undefined;
  filter: Filter;
  narrow: Narrow;
};

type WorkbenchProps = { report: Report; criterion: Report["criteria"][number] };

/** Where raters part, as six views on one screen; what is pressed in one narrows the others. */
export function Workbench({ report, criterion }: WorkbenchProps) {
  const study = useStudy();
  const { filter, narrow } = useFilter();
  const narrowed = useQuery(narrowedOf(study.id, criterion.criterionId, filter));
  const diagnosis = useQuery(diagnosisOfStudy(study.id));
  return (
    <section aria-label="Where raters part" className="mt-3">
      <h2 className="sr-only">Where raters part</h2>
      <LookedAt report={report} criterion={criterion} filter={filter} narrow={narrow} />
      <Query of={narrowed} what="what parts raters" long={WORKED_OUT}>
        {(found) => {
          const whole = diagnosis.data?.criteria.find((c) => c.criterionId === criterion.criterionId);
          const view: ViewProps = { report, criterion, narrowed: found, whole, filter, narrow };
          return (
            <div
              aria-busy={narrowed.isPlaceholderData}
              className="grid gap-2 sm:grid-cols-2 lg:h-[max(30rem,calc(100vh-17.5rem))] lg:grid-cols-[1.3fr_1fr_0.95fr] lg:grid-rows-2"
            >
              <CriteriaAndKinds {...view} />
              <Raters {...view} />
              <PairsOfRaters {...view} />
              <Splits {...view} />
              <Levels {...view} />
              <Prompts {...view} />
            </div>
          );
        }}
      </Query>
    </section>
  );
}

/** What the views are narrowed down to, in words, and the way back. */
function LookedAt({ report, criterion, filter, narrow }: Omit<ViewProps, "narrowed" | "whole">) {
  const study = useStudy();
  const diagnosis = useQuery(diagnosisOfStudy(study.id));
  const promptTitle = diagnosis.data?.criteria
    .flatMap((c) => c.prompts)
    .find((p) => p.promptId === filter.prompt)?.title;
  const levels = twoLevels(filter);
  const parts: { name: keyof Filter; words: string }[] = [];
  if (filter.kind !== undefined) {
    const kind = criterion.byKind.find((k) => k.kindId === filter.kind)?.name;
    parts.push({ name: "kind", words: kind?.toLowerCase() ?? "another kind" });
  }
  if (filter.rater !== undefined) {
    const rater = report.raters.find((r) => r.raterId === filter.rater)?.name;
    parts.push({ name: "rater", words: `with ${rater ?? "somebody else"}` });
  }
  if (filter.prompt !== undefined) {
    parts.push({ name: "prompt", words: promptTitle ?? "one prompt" });
  }
  if (levels) {
    parts.push({ name: "levels", words: `between ${levels.lower} and ${levels.higher}` });
  }
  return (
    <div className="mb-1.5 flex min-h-8 flex-wrap items-center gap-x-2 gap-y-1 text-sm" role="status">
      <span>
        On <strong className="font-semibold">{criterion.name.toLowerCase()}</strong>
        {parts.length === 0 && <span className="text-ink-soft">; press what you want to look into</span>}
      </span>
      {parts.map(({ name, words }) => (
        <span key={name} className="inline-flex max-w-64 items-center gap-1 bg-heather-wash pl-2">
          <span className="truncate" title={words}>
            {words}
          </span>
          <button
            type="button"
            className="px-1.5"
            aria-label={`Let go: ${words}`}
            onClick={() => narrow({ [name]: undefined })}
          >
            ×
          </button>
        </span>
      ))}
      {parts.length > 0 && (
        <Button onClick={() => narrow({ kind: undefined, rater: undefined, prompt: undefined, levels: undefined })}>
          All of it
        </Button>
      )}
    </div>
  );
}
