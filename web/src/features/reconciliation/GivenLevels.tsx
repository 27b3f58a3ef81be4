import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { LevelMark } from "../rubric";

type Split = Schemas["SplitPage"];

/** What a rater gave, and where they stand since. */
export type Given = { name: string; own: boolean; level?: number | undefined; now?: number | undefined };

/** Where a rater stands after the talk; absent until they say. */
export const standsAt = (rater: Split["raters"][number]): number | undefined => rater.stances.at(-1)?.level;

const named = (raters: Given[]) => raters.map((r) => (r.own ? `${r.name} (you)` : r.name)).join(", ");

type GivenLevelsProps = {
  question: string;
  levels: Schemas["AnchoredLevel"][];
  raters: Given[];
  /** What is said of those who stand at a level now. */
  nowWords: string;
  /** What else stands with a level. */
  noteOf?: (level: number) => ReactNode;
};

/** The scale from the top, each level with its anchor, who gave it and who stands there now. */
export function GivenLevels({ question, levels, raters, nowWords, noteOf }: GivenLevelsProps) {
  const without = raters.filter((r) => r.level === undefined);
  return (
    <>
      <p className="mb-2 text-sm text-ink-soft">{question}</p>
      <ol aria-label="Levels from the highest">
        {levels.toReversed().map((level) => {
          const gave = raters.filter((r) => r.level === level.level);
          const stand = raters.filter((r) => r.now === level.level);
          return (
            <li key={level.level} className="flex gap-2 border-t border-rule py-1.5 last:border-b">
              <LevelMark level={level.level} highest={levels.length - 1} title={level.name} />
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
                    <span className="text-ink-soft">{nowWords}</span> <strong>{named(stand)}</strong>
                  </p>
                )}
                {noteOf?.(level.level)}
              </div>
            </li>
          );
        })}
      </ol>
      {without.length > 0 && <p className="mt-1 text-sm">Not applicable, said {named(without)}.</p>}
    </>
  );
}

export function Looks({ split }: { split: Split }) {
  return split.looks.map((look) => (
    <p key={look.name} className="mt-1 text-sm">
      {look.level === undefined
        ? `${look.name} was asked to look blind.`
        : `${look.name}, looking blind: ${look.level}. ${look.reason}`}
    </p>
  ));
}
