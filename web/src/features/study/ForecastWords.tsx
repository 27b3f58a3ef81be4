import type { Schemas } from "../../api/client";
import { chance, count, fixed } from "../../ui/format";

const GRADED: Record<Schemas["KeptForecast"]["gradedBy"], string> = {
  GOOD: "as raters do who know the rubric well",
  MIDDLING: "as raters usually do",
  GUESSING: "by guessing",
};

/** What the study was thought to show when its brief was closed, in words. */
export function ForecastWords({ forecast }: { forecast: Schemas["KeptForecast"] }) {
  const level = forecast.leads.find((l) => l.points === 0);
  const ahead = forecast.leads.filter((l) => l.points > 0);
  return (
    <section className="mt-8">
      <h2 className="mb-2">What was to be expected of it</h2>
      <p className="max-w-3xl">
        When the brief was closed, a study of {count(forecast.prompts, "prompt", "prompts")} and{" "}
        {count(forecast.candidates, "candidate", "candidates")}, with {forecast.ratersAnAnswer} of{" "}
        {count(forecast.raters, "rater", "raters")} an answer who grade {GRADED[forecast.gradedBy]}, was tried out{" "}
        {forecast.studies} times by this rule.{" "}
        {ahead
          .map((l, i) =>
            i === 0
              ? `A lead of ${fixed(l.points, 1)} points was recommended in ${chance(l.recommended)} of them`
              : `one of ${fixed(l.points, 1)} in ${chance(l.recommended)}`,
          )
          .join(", ")}
        .{" "}
        {level &&
          `With no lead at all, one was recommended in ${chance(level.recommended)}, and safe choices were found in ${chance(level.safeChoices)}. `}
        {forecast.smallestLead === undefined
          ? "Even a lead of 40 points would not have been found in 80 %."
          : `The smallest lead found in 80 % was ${fixed(forecast.smallestLead, 0)} points.`}
      </p>
    </section>
  );
}
