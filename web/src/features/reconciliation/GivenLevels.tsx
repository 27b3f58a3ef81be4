import type { Schemas } from "../../api/client";
import { LevelMark } from "../rubric";

type Split = Schemas["SplitPage"];
type Rater = Split["raters"][number];

/** Where a rater stands after the talk; absent until they say. */
export const standsAt = (rater: Rater): number | undefined => rater.stances.at(-1)?.level;

const named = (raters: Rater[]) => raters.map((r) => (r.own ? `${r.name} (you)` : r.name)).join(", ");

/** The scale from the top, each level with its anchor, who gave it and who stands there now. */
export function GivenLevels({ split }: { split: Split }) {
  const highest = split.criterion.levels.length - 1;
  const without = split.raters.filter((r) => r.level === undefined);
  return (
    <section>
      <h2>What raters gave</h2>
      <p className="mb-2 text-sm text-ink-soft">{split.criterion.question}</p>
      <ol aria-label="Levels from the highest">
        {split.criterion.levels.toReversed().map((level) => {
          const gave = split.raters.filter((r) => r.level === level.level);
          const stand = split.raters.filter((r) => standsAt(r) === level.level);
          return (
            <li key={level.level} className="flex gap-2 border-t border-rule py-1.5 last:border-b">
              <LevelMark level={level.level} highest={highest} title={level.name} />
              <div className="min-w-0 flex-1 text-sm">
                <p className={gave.length + stand.length > 0 ? undefined : "text-ink-soft"}>
                  {level.anchor || level.name}
                </p>
                {gave.length > 0 && (
                  <p>
                    <span className="text-ink-soft">Gave it:</span> <strong>{named(gave)}</strong>
                  </p>
                )}
                {stand.length > 0 && (
                  <p>
                    <span className="text-ink-soft">Stand here now:</span> <strong>{named(stand)}</strong>
                  </p>
                )}
              </div>
            </li>
          );
        })}
      </ol>
      {without.length > 0 && <p className="mt-1 text-sm">Not applicable, said {named(without)}.</p>}
      <Looks split={split} />
    </section>
  );
}

function Looks({ split }: { split: Split }) {
  return split.looks.map((look) => (
    <p key={look.name} className="mt-1 text-sm">
      {look.level === undefined
        ? `${look.name} was asked to look blind.`
        : `${look.name}, looking blind: ${look.level}. ${look.reason}`}
    </p>
  ));
}
