import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import type { Mark } from "./outbox";

type AnchorRulerProps = {
  criterion: Schemas["CriterionOnSheet"] | undefined;
  answerNumber: number;
  mark: Mark;
  locked: boolean;
  onLevel: (level: number) => void;
};

/** The anchors of the cell in focus on a ruler: what each level looks like for this kind of prompt. */
export function AnchorRuler({ criterion, answerNumber, mark, locked, onLevel }: AnchorRulerProps) {
  if (!criterion) {
    return null;
  }
  return (
    <section aria-label={`Levels of ${criterion.name}`} className="shrink-0 bg-vellum px-4 pt-1.5 pb-2">
      <p className="text-sm">
        <strong>{criterion.name}</strong>, answer {answerNumber}.{" "}
        <span className="text-ink-soft">{criterion.question}</span>
      </p>
      <ol className="mt-1 grid" style={{ gridTemplateColumns: `repeat(${criterion.levels.length}, minmax(0, 1fr))` }}>
        {criterion.levels.map((level) => {
          const chosen = mark.level === level.level;
          return (
            <li key={level.level} className="border-t border-edge">
              <span aria-hidden="true" className={classes("block w-px bg-edge", chosen ? "h-3 w-1 bg-moss" : "h-2")} />
              <button
                type="button"
                tabIndex={-1}
                disabled={locked}
                aria-pressed={chosen}
                onClick={() => onLevel(level.level)}
                className={classes(
                  "block w-full rounded-leaf pr-3 pb-0.5 pl-1 text-left text-sm leading-snug hover:bg-heather-wash",
                  chosen && "bg-lichen-wash",
                )}
              >
                <strong className="tabular-nums">{level.level}</strong>{" "}
                <span className="font-medium">{level.name}</span>
                <span className="block">{level.anchor ?? ""}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
