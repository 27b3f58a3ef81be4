import type { Schemas } from "../../api/client";
import { count, fixed } from "../../ui/format";

type Progress = Schemas["GradingProgress"];

const SORTS: Record<Schemas["OddityView"]["sort"], string> = {
  TOO_FAST: "too fast to have read",
  SAME_LEVEL: "one level nearly everywhere",
  NO_REASONS: "no reasons",
  DRIFT: "drifted",
};

type OversightProps = { oversight: Schemas["OversightView"]; raters: Progress["raters"] };

/** Grading that does not look like judging, each with what shows it; and how well the masking holds. */
export function Oversight({ oversight, raters }: OversightProps) {
  const odd = oversight.raters.filter((r) => r.oddities.length > 0);
  const nameOf = (raterId: string) => raters.find((r) => r.raterId === raterId)?.name ?? "somebody";
  const { guesses } = oversight;
  return (
    <section className="mt-8">
      <h2 className="mb-1">To look at</h2>
      {odd.length === 0 ? (
        <p className="text-ink-soft">
          Nothing unusual: nobody was faster than the answers can be read, gave one level everywhere, left out every
          reason, or changed their yardstick.
        </p>
      ) : (
        <>
          <p className="mb-2 max-w-3xl text-ink-soft">
            What follows proves nothing by itself. Talk to the person first; then leave the sheets, or withdraw them.
          </p>
          <dl className="grid max-w-4xl grid-cols-[10rem_1fr] gap-x-4 gap-y-1.5">
            {odd.flatMap((r) =>
              r.oddities.map((oddity) => (
                <div key={r.raterId + oddity.sort} className="contents">
                  <dt>
                    {nameOf(r.raterId)}
                    <span className="block text-sm text-ink-soft">{SORTS[oddity.sort]}</span>
                  </dt>
                  <dd className="border-l-2 border-ochre pl-3">{oddity.evidence}</dd>
                </div>
              )),
            )}
          </dl>
        </>
      )}
      {guesses && (
        <p className="mt-3 max-w-3xl">
          <strong className="font-medium">Who wrote it?</strong> Of {count(guesses.asked, "answer", "answers")}, raters
          named the right candidate for {guesses.right}; by chance it would be {fixed(guesses.byChance, 1)}. For{" "}
          {guesses.noIdea} they had no idea.
        </p>
      )}
    </section>
  );
}
