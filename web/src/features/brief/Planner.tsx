import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import type { Schemas } from "../../api/client";
import { Dial } from "../../ui/Dial";
import { Choice } from "../../ui/Field";
import { useStudy } from "../study";
import { forecastOf, usesOf, withholdingOf } from "./api";
import { FloorTable, Outlook, UsesTable } from "./Outlook";
import { type GradedBy, MOST, type Plan, sizeOf } from "./plan";

const RATERS: { value: GradedBy; label: string }[] = [
  { value: "MIDDLING", label: "as raters usually do: α about 0.58" },
  { value: "GOOD", label: "as raters do who know the rubric well: α about 0.73" },
  { value: "GUESSING", label: "by guessing" },
];

type PlannerProps = { rule: Schemas["RuleTerms"]; plan: Plan; onChange: (change: Partial<Plan>) => void };

/** How much is enough: what a study of some size could show, and what grading it would cost. */
export function Planner({ rule, plan, onChange }: PlannerProps) {
  return (
    <section className="mt-10 border-t border-rule pt-5">
      <h2>How much is enough?</h2>
      <p className="mt-1 mb-4 max-w-3xl text-ink-soft">
        Studies of this size are made up, graded, and decided by the rule above, one candidate truly ahead of the
        others. It is a forecast, not a promise. The dials begin where this study stands; what they show when the brief
        is closed is kept with it.
      </p>
      <Dials rule={rule} plan={plan} onChange={onChange} />
    </section>
  );
}

/** First figures at once, then those that are surer; what else could be done with the hours comes last. */
function useForecast(asked: Omit<Schemas["PlannedSize"], "effort">) {
  const study = useStudy();
  const first = useQuery({
    ...forecastOf(study.id, { ...asked, effort: "FIRST" }),
    placeholderData: keepPreviousData,
  });
  const ready = first.isSuccess && !first.isPlaceholderData;
  const full = useQuery({ ...forecastOf(study.id, { ...asked, effort: "FULL" }), enabled: ready });
  const after = { placeholderData: keepPreviousData, enabled: full.isSuccess };
  const withholding = useQuery({ ...withholdingOf(study.id, { ...asked, effort: "FULL" }), ...after });
  const uses = useQuery({ ...usesOf(study.id, { ...asked, effort: "FULL" }), ...after });
  return { error: first.error, forecast: full.data ?? first.data, stale: first.isPlaceholderData, withholding, uses };
}

function Dials({ rule, plan, onChange }: PlannerProps) {
  const settled = useDeferredValue(plan);
  const { error, forecast, stale, withholding, uses } = useForecast(sizeOf(settled, rule));
  const dial = (label: string, field: keyof typeof MOST, from: number, to = MOST[field]) => (
    <Dial label={label} value={plan[field]} from={from} to={to} onValue={(value) => onChange({ [field]: value })} />
  );
  return (
    <>
      <div className="mb-5 grid items-center gap-x-10 gap-y-2 lg:grid-cols-2">
        {dial("Kinds of prompts", "kinds", 1)}
        {dial("Raters", "raters", 2)}
        {dial("Prompts of each kind", "promptsAKind", 1)}
        {dial("Raters an answer", "ratersAnAnswer", 1, plan.raters)}
        {dial("Candidates", "candidates", 2)}
        {dial("Minutes an answer", "minutes", 1)}
        {dial("Attempts of each", "attempts", 1)}
      </div>
      <div className="mb-5 max-w-md">
        <Choice
          label="Raters grade"
          value={plan.gradedBy}
          options={RATERS}
          onValue={(gradedBy) => onChange({ gradedBy })}
        />
      </div>
      {error && <p role="alert">{error.message}</p>}
      {forecast && <Outlook forecast={forecast} rule={rule} stale={stale} />}
      {uses.data && forecast && (
        <UsesTable
          leastRaters={rule.minimumRaters}
          uses={uses.data}
          planned={{ ...settled, hours: forecast.hours }}
          stale={uses.isPlaceholderData}
        />
      )}
      {withholding.data && <FloorTable readings={withholding.data} chosen={rule.floorOn} />}
    </>
  );
}
