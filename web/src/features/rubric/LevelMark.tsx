import type { CSSProperties } from "react";
import { classes } from "../../ui/classes";

type LevelMarkProps = {
  level: number | undefined;
  notApplicable?: boolean;
  highest: number;
  title?: string | undefined;
};

/** A level as a number on the scale's one hue; the number carries it. */
export function LevelMark({ level, notApplicable = false, highest, title }: LevelMarkProps) {
  const share: CSSProperties & Record<"--share", number> = { "--share": level === undefined ? 0 : level / highest };
  return (
    <span
      title={title}
      style={share}
      className={classes(
        "inline-block min-w-7 rounded-leaf border border-rule px-1 text-center font-medium tabular-nums",
        level !== undefined && "level-ramp",
      )}
    >
      {notApplicable ? "n/a" : (level ?? "–")}
    </span>
  );
}
