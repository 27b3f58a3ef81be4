import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { count } from "../../../ui/format";
import { CandidateName, candidatesOfStudy } from "../../candidate";
import { splitsOfStudy, SplitStateWords } from "../../reconciliation";
import { LevelMark } from "../../rubric";
import { useStudy } from "../../study";
import { LEAST_APART } from "../narrowed";
import { twoLevels } from "../useFilter";
import { Panel } from "./Panel";
import type { ViewProps } from "./Workbench";

/** The answers that what is looked at is about, widest first. */
export function Splits({ criterion, narrowed, filter }: ViewProps) {
  const study = useStudy();
  const taken = useQuery(splitsOfStudy(study.id));
  const candidates = useQuery(candidatesOfStudy(study.id));
  const levels = twoLevels(filter);
  return (
    <Panel
      title={levels ? "Answers that got both levels" : "Widest splits"}
      aside={count(narrowed.splitCount, "answer", "answers")}
      how={<How />}
    >
      <ul>
        {narrowed.splits.map((split) => {
          const talk = taken.data?.find((t) => t.answerId === split.answerId && t.criterionId === split.criterionId);
          const index = candidates.data?.findIndex((c) => c.id === split.candidateId) ?? -1;
          return (
            <li key={split.answerId} className="border-t border-rule py-1 first:border-t-0">
              <span className="flex items-baseline gap-2">
                <Link
                  className="min-w-0 flex-1 truncate"
                  title={split.promptTitle}
                  to={talk ? `/splits/${talk.id}` : `../answers/${split.promptId}?answer=${split.answerId}`}
                >
                  {split.promptTitle}
                </Link>
                <span className="shrink-0 text-xs">
                  {talk !== undefined || split.distance >= LEAST_APART ? (
                    <SplitStateWords split={talk} />
                  ) : (
                    <span className="text-ink-soft">a level apart, no split</span>
                  )}
                </span>
              </span>
              <span className="flex flex-wrap items-baseline gap-x-2">
                {index >= 0 && <CandidateName name={candidates.data?.[index]?.content.name ?? ""} index={index} />}
                <Given grades={split.grades} highest={criterion.highestLevel} />
              </span>
            </li>
          );
        })}
      </ul>
      {narrowed.splits.length === 0 && (
        <p>{levels ? "No answer here got both." : "No two raters lie two levels or more apart here."}</p>
      )}
      {narrowed.splitCount > narrowed.splits.length && (
        <p className="mt-1 text-ink-soft">
          The widest {narrowed.splits.length} stand here. Narrow them down for others.
        </p>
      )}
    </Panel>
  );
}

/** Who gave what, those of one level together. */
function Given({ grades, highest }: { grades: Schemas["SplitGrade"][]; highest: number }) {
  const levels = [...new Set(grades.map((g) => g.level))].sort((a, b) => a - b);
  return levels.map((level) => (
    <span key={level} className="whitespace-nowrap">
      <LevelMark level={level} highest={highest} />{" "}
      <span className="text-xs whitespace-normal">
        {grades
          .filter((g) => g.level === level)
          .map((g) => g.name.split(/\s+/)[0])
          .join(", ")}
      </span>
    </span>
  ));
}

function How() {
  return (
    <>
      <p>
        An answer is a split where two raters lie two levels or more apart; of those looked at, the rater, kind, prompt
        and levels that are pressed. Widest first. Each leads to its talk, or to the answer if nobody has taken it up.
      </p>
      <p>
        <a href="#splits-table">The same as a table, to take them up and to save</a>
      </p>
    </>
  );
}
