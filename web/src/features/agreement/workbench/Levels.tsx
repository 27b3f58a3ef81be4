import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { count, fixed, percent } from "../../../ui/format";
import { LevelMark, rubricOfStudy } from "../../rubric";
import { useStudy } from "../../study";
import { twoLevels } from "../useFilter";
import { Chosen, Panel } from "./Panel";
import type { ViewProps } from "./Workbench";

/** Which levels are mixed up, with their anchors when they are looked at. */
export function Levels({ criterion, narrowed, whole, filter, narrow }: ViewProps) {
  const looked = twoLevels(filter);
  const pairs = narrowed.levelPairs.filter((p) => p.lower < p.higher);
  return (
    <Panel title="Levels" aside="of what parts raters" how={<How />}>
      <ul>
        {pairs.map((pair) => {
          const chosen = looked?.lower === pair.lower && looked.higher === pair.higher;
          const merged =
            pair.higher === pair.lower + 1 ? whole?.merged.find((m) => m.lower === pair.lower)?.alpha.value : undefined;
          return (
            <li key={`${String(pair.lower)} ${String(pair.higher)}`} className="border-t border-rule first:border-t-0">
              <Chosen
                chosen={chosen}
                onChoose={(on) => narrow({ levels: on ? `${String(pair.lower)}.${String(pair.higher)}` : undefined })}
                className="flex w-full items-baseline gap-1.5 px-1 py-0.5"
              >
                <LevelMark level={pair.lower} highest={criterion.highestLevel} />
                <LevelMark level={pair.higher} highest={criterion.highestLevel} />
                <span className="font-medium tabular-nums">{percent(pair.share)}</span>
                <span className="text-xs text-ink-soft">{count(pair.pairs, "pair", "pairs")}</span>
                {merged !== undefined && (
                  <span className="ml-auto text-xs text-ink-soft">as one α {fixed(merged, 2)}</span>
                )}
              </Chosen>
              {chosen && <Anchors criterion={criterion} kind={filter.kind} levels={[pair.lower, pair.higher]} />}
            </li>
          );
        })}
      </ul>
      {pairs.length === 0 && <p>No two levels are mixed up here.</p>}
    </Panel>
  );
}

type AnchorsProps = { criterion: ViewProps["criterion"]; kind: string | undefined; levels: number[] };

/** What is to be told apart: in answers of the kind that is looked at, or of each. */
function Anchors({ criterion, kind, levels }: AnchorsProps) {
  const rubric = useQuery(rubricOfStudy(useStudy().id));
  const all = rubric.data?.criteria.find((c) => c.id === criterion.criterionId)?.levels ?? [];
  const kinds = criterion.byKind.filter((k) => kind === undefined || k.kindId === kind);
  return (
    <div className="mb-1 border-l-2 border-heather pl-2">
      {levels.map((level) => {
        const found = all.find((l) => l.level === level);
        const anchors = kinds.flatMap((k) => found?.anchors.filter((a) => a.kindId === k.kindId) ?? []);
        return (
          <div key={level} className="mt-0.5 break-words">
            <strong className="font-semibold">
              {level}
              {found && found.name !== String(level) && `, ${found.name}`}
            </strong>
            {anchors.length === 0 && ": no anchor"}
            {anchors.map((a) => (
              <p key={a.kindId}>
                {kinds.length > 1 && (
                  <span className="text-ink-soft">{kinds.find((k) => k.kindId === a.kindId)?.name}: </span>
                )}
                {a.text}
              </p>
            ))}
          </div>
        );
      })}
      <Link to="../rubric">Sharpen them</Link>
    </div>
  );
}

function How() {
  return (
    <>
      <p>
        Each two levels by what of the disagreement of ordinal α lies between them: pairs of grades of one answer, by
        the square of how many grades lie between the two levels, each weighing one by the answer’s grades less one
        (Krippendorff, 2011). Pairs of grades are counted beside.
      </p>
      <p>
        “As one” is what α over all grades would be if the two were one level: a diagnosis, never a change of figures.
      </p>
      <p>
        Two levels that are pressed list every answer that got both. <a href="#splits-table">The answers as a table</a>
      </p>
    </>
  );
}
