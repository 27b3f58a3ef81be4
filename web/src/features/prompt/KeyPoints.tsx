import type { Schemas } from "../../api/client";

/** What a right answer contains, and what it must not do; words and signs, not colour alone. */
export function KeyPoints({ points }: { points: Schemas["KeyPoint"][] }) {
  return (
    <ul className="grid gap-1.5">
      {points.map((point, i) => (
        <li key={i} className="flex gap-2">
          {point.stance === "MUST_CONTAIN" ? (
            <span className="mt-0.5 h-fit rounded-leaf border border-lichen px-1 text-xs text-ink">must</span>
          ) : (
            <span className="mt-0.5 h-fit rounded-leaf border border-clay px-1 text-xs whitespace-nowrap text-ink">
              must not
            </span>
          )}
          <span>{point.text}</span>
        </li>
      ))}
    </ul>
  );
}
