import type { Schemas } from "../../api/client";

type Split = Pick<Schemas["TakenUp"], "state" | "how" | "level" | "words" | "standing">;

const HOW: Record<NonNullable<Split["how"]>, string> = {
  CONSENT: "by consent",
  LEAD: "by the lead",
  THIRD_LOOK: "by a blind look",
};

/** How far a split has got; one that was never taken up is open. */
export function SplitStateWords({ split }: { split: Split | undefined }) {
  if (!split) {
    return <span className="text-ink-soft">open</span>;
  }
  switch (split.state) {
    case "SETTLED":
      return (
        <span className="border-b-2 border-lichen whitespace-nowrap">
          settled at {split.level} {split.how && HOW[split.how]}
        </span>
      );
    case "LEFT_OPEN":
      return <span className="border-b-2 border-ochre">left open</span>;
    case "OPEN":
      return split.words + split.standing > 0 ? (
        <span className="border-b-2 border-tarn">in talk</span>
      ) : (
        <span>taken up</span>
      );
  }
}
