import { memo } from "react";
import type { Schemas } from "../../api/client";
import { KeyPoints } from "../prompt";

/** What a right answer holds, beside the answers while they are read. */
export const KeyPointList = memo(function KeyPointList({ points }: { points: Schemas["KeyPoint"][] }) {
  return (
    <aside
      aria-label="Key points"
      tabIndex={0}
      className="sticky left-0 z-10 overflow-y-auto border-r border-rule bg-paper px-3 py-2 text-sm"
    >
      <h2 className="mb-1.5 text-base">A right answer</h2>
      {points.length === 0 ? (
        <p className="text-ink-soft">No key points were written down.</p>
      ) : (
        <KeyPoints points={points} />
      )}
    </aside>
  );
});
