import { useId } from "react";
import type { Schemas } from "../../api/client";

type LevelChoiceProps = {
  legend: string;
  levels: Schemas["SplitCriterion"]["levels"];
  value: number | undefined;
  /** What stands with a level, such as "what you gave". */
  noteOf?: (level: number) => string | undefined;
  onLevel: (level: number) => void;
};

/** One level of a scale: arrows move, as among any choices. */
export function LevelChoice({ legend, levels, value, noteOf, onLevel }: LevelChoiceProps) {
  const name = useId();
  return (
    <fieldset>
      <legend className="mb-1 font-medium">{legend}</legend>
      <div className="flex flex-wrap gap-1.5">
        {levels.map((level) => (
          <label
            key={level.level}
            title={level.anchor || level.name}
            className="flex cursor-pointer items-center gap-1.5 rounded-leaf border border-edge bg-vellum px-2 py-1 has-checked:border-moss has-checked:font-semibold"
          >
            <input
              type="radio"
              name={name}
              checked={value === level.level}
              onChange={() => onLevel(level.level)}
              className="accent-moss"
            />
            {level.level}
            {noteOf?.(level.level) && <span className="text-sm text-ink-soft">{noteOf(level.level)}</span>}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
