import type { Schemas } from "../../api/client";
import { fixed } from "../../ui/format";

type Terms = Schemas["RuleTerms"];

export const COEFFICIENTS: Record<Terms["coefficient"], string> = {
  ALPHA_ORDINAL: "Krippendorff’s α (ordinal)",
  AC2_ORDINAL: "Gwet’s AC2 (ordinal)",
};

const REACHES: Record<Terms["floorOn"], string> = {
  ESTIMATE: "The estimate must reach it. Below it the recommendation is withheld.",
  LOWER_LIMIT: "The lower limit of the interval must reach it. Below it the recommendation is withheld.",
  UPPER_LIMIT:
    "The recommendation is withheld when agreement is too low beyond doubt: when even the upper limit of the interval lies below it, or the lower one is not above 0.",
};

export const TIE_BREAKS: Record<Terms["tieBreak"], string> = {
  COST: "the one that costs least a prompt, over prompts that all answered",
  TIME: "the one with the shortest median time",
  NONE: "nothing: the rule prefers none",
};

type RuleTermsListProps = {
  terms: Terms;
  weights: { key: string; name: string; weight: number; floor?: number | undefined }[];
};

/** The decision rule in words, the same on the brief and with the recommendation. */
export function RuleTermsList({ terms, weights }: RuleTermsListProps) {
  const total = weights.reduce((sum, w) => sum + w.weight, 0);
  const own = weights.filter((w) => w.floor !== undefined && w.floor !== terms.agreementFloor);
  const gate = terms.gate;
  return (
    <dl className="grid grid-cols-[max-content_1fr] gap-x-6 gap-y-2">
      <dt className="font-medium">Agreement floor</dt>
      <dd>
        {COEFFICIENTS[terms.coefficient]} of at least {fixed(terms.agreementFloor, 2)} on every criterion with weight
        {own.map((w) => `, ${fixed(w.floor ?? 0, 2)} on ${w.name.toLowerCase()}`).join("")}. {REACHES[terms.floorOn]}
      </dd>
      <dt className="font-medium">Margin</dt>
      <dd>Differences of less than {fixed(terms.margin, 1)} points of 100 do not matter to the team.</dd>
      <dt className="font-medium">Weights</dt>
      <dd>
        {total === 0
          ? "none yet"
          : weights.map((w) => `${w.name} ${Math.round((100 * w.weight) / total)} %`).join(", ")}
        .
      </dd>
      {gate && (
        <>
          <dt className="font-medium">Gate</dt>
          <dd>
            An answer at level {gate.level} or below on{" "}
            {weights.find((w) => w.key === gate.criterion)?.name.toLowerCase() ?? gate.criterion} scores{" "}
            {fixed(gate.cap, 0)} at most.
          </dd>
        </>
      )}
      <dt className="font-medium">Raters an answer</dt>
      <dd>At least {terms.minimumRaters}.</dd>
      <Outcomes terms={terms} />
      <dt className="font-medium">Also withheld</dt>
      <dd>
        {terms.strictOnMasking || terms.strictOnSplits
          ? [
              terms.strictOnMasking && "while an answer names a candidate",
              terms.strictOnSplits && "while a split has no settled grade",
            ]
              .filter(Boolean)
              .join(", and ")
          : "for nothing else"}
        .
      </dd>
    </dl>
  );
}

/** What the rule lets be said, and of what. */
function Outcomes({ terms }: { terms: Terms }) {
  return (
    <>
      <dt className="font-medium">Who is recommended</dt>
      <dd>
        A candidate that stands above every other beyond doubt. Where there is none, those are safe choices that are at
        worst less than the margin below the best.
      </dd>
      {terms.byKind && (
        <>
          <dt className="font-medium">By kind</dt>
          <dd>
            Where nothing holds over all kinds, a best or a safe choice within kinds, with a fifth of the allowance.
          </dd>
        </>
      )}
      <dt className="font-medium">Standings are seen</dt>
      <dd>
        {terms.looks === 1
          ? "once, when grading has ended"
          : `${terms.looks} times at most, the last when grading has ended; each look spends its part of the allowance`}
        .
      </dd>
      <dt className="font-medium">Answers without text</dt>
      <dd>
        {terms.failedAnswers === "LOWEST"
          ? "get the lowest level on every criterion"
          : "count nowhere, which rewards failing on hard prompts"}
        .
      </dd>
      <dt className="font-medium">Among safe choices</dt>
      <dd>{TIE_BREAKS[terms.tieBreak]}.</dd>
    </>
  );
}
