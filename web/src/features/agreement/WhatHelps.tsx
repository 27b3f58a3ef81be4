import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { count, fixed, percent } from "../../ui/format";
import { rubricOfStudy } from "../rubric";
import { useStudy } from "../study";
import { diagnosisOfStudy } from "./diagnosis";

type Report = Schemas["AgreementReport"];
type Criterion = Report["criteria"][number];
type Diagnosis = Schemas["OnCriterion"];

/** One thing that could be done, and what alpha would be without what it mends. */
type Help = { key: string; alpha: number; words: ReactNode };

/** Below this a change of alpha is not worth a step. */
const WORTH = 0.005;

/** On the criterion that is nearest to its floor, or farthest below: what parts raters, what would help most first. */
export function WhatHelps({ report, on }: { report: Report; on: Criterion | undefined }) {
  const study = useStudy();
  const diagnosis = useQuery({ ...diagnosisOfStudy(study.id), enabled: on !== undefined });
  const rubric = useQuery({ ...rubricOfStudy(study.id), enabled: on !== undefined });
  const found = diagnosis.data?.criteria.find((c) => c.criterionId === on?.criterionId);
  if (on === undefined || found?.alpha.value === undefined) {
    return null;
  }
  const levels = rubric.data?.criteria.find((c) => c.id === on.criterionId)?.levels ?? [];
  const now = found.alpha.value;
  const name = (level: number) => {
    const own = levels.find((l) => l.level === level)?.name;
    return own === undefined || own === String(level) ? String(level) : `${String(level)} (${own})`;
  };
  const all = [
    ...ofLevels(found, now, name),
    ...ofPrompts(found),
    ...ofRaters(found, report),
    ...ofMoreGrades(report, on),
  ]
    .filter((h) => h.key === "levels" || h.key === "grades" || h.alpha - now > WORTH)
    .sort((a, b) => b.alpha - a.alpha);
  if (all.length === 0) {
    return null;
  }
  const [first, ...others] = all;
  return (
    <section className="mt-2 border-l-4 border-tarn bg-tarn-wash px-3 py-1.5 text-sm" aria-label="What would help">
      <h2 className="inline font-sans text-sm font-semibold">
        What parts raters on {on.name.toLowerCase()}, where α is {fixed(now, 2)} and the floor {fixed(on.floor, 2)}
      </h2>
      <p>{first?.words}</p>
      {others.length > 0 && (
        <details>
          <summary className="w-fit cursor-pointer text-tarn underline underline-offset-4">
            {count(others.length, "more thing", "more things")} that would help
          </summary>
          <ul className="mt-0.5 grid gap-0.5">
            {others.map((h) => (
              <li key={h.key}>{h.words}</li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

/** The two neighbouring levels between which most of the disagreement lies: their anchors are told apart least well. */
function ofLevels(found: Diagnosis, now: number, name: (level: number) => string): Help[] {
  const pair = [...found.levelPairs].sort((a, b) => b.share - a.share).find((p) => p.higher === p.lower + 1);
  if (pair === undefined) {
    return [];
  }
  const alpha = found.merged.find((m) => m.lower === pair.lower)?.alpha.value ?? now;
  return [
    {
      key: "levels",
      alpha,
      words: (
        <>
          Sharpen the anchors of levels {name(pair.lower)} and {name(pair.higher)}: {percent(pair.share)} of what parts
          raters lies between them{alpha - now > WORTH && `, and if the two were one, α would be ${fixed(alpha, 2)}`}.{" "}
          <Link to="../rubric">See the anchors</Link>
        </>
      ),
    },
  ];
}

function ofPrompts(found: Diagnosis): Help[] {
  const without = found.withoutPrompt[0];
  const alpha = without?.alpha.value;
  if (without === undefined || alpha === undefined) {
    return [];
  }
  const share = found.prompts.find((p) => p.promptId === without.promptId)?.share ?? 0;
  return [
    {
      key: "prompt",
      alpha,
      words: (
        <>
          Look at <Link to={`../prompts/${without.promptId}`}>{without.title}</Link>: it holds {percent(share)} of what
          parts raters, and without it α would be {fixed(alpha, 2)}.
        </>
      ),
    },
  ];
}

/** Whom the others agree without. */
function ofRaters(found: Diagnosis, report: Report): Help[] {
  const best = [...found.withoutRater].sort((a, b) => (b.alpha.value ?? -1) - (a.alpha.value ?? -1))[0];
  const alpha = best?.alpha.value;
  if (best === undefined || alpha === undefined || report.raters.length < 3) {
    return [];
  }
  const who = report.raters.find((r) => r.raterId === best.raterId)?.name ?? "one rater";
  return [
    {
      key: "rater",
      alpha,
      words: `Talk with ${who}: among the others alone α would be ${fixed(alpha, 2)}.`,
    },
  ];
}

/**
 * Where α lies above the floor and its interval straddles it: from how many prompts on it would not, the interval shrinking as
 * one over the root of their number. The dearest of all, so the last.
 */
function ofMoreGrades(report: Report, { overall: figures, floor }: Criterion): Help[] {
  const { value, low } = figures.alpha;
  const other = report.coefficient === "AC2_ORDINAL";
  if (
    other ||
    figures.verdict !== "UNCERTAIN" ||
    value === undefined ||
    low === undefined ||
    value <= floor ||
    low >= floor
  ) {
    return [];
  }
  const needed = Math.ceil(figures.prompts * ((value - low) / (value - floor)) ** 2);
  return [
    {
      key: "grades",
      alpha: -1,
      words:
        needed > MOST_PROMPTS
          ? "More grades alone would hardly do: α lies too near to the floor to be told from it."
          : `Grade more: if α stays where it is, its interval would clear the floor from about ${String(needed)} prompts on; it rests on ${String(figures.prompts)}.`,
    },
  ];
}

/** More than a study has, as a rule. */
const MOST_PROMPTS = 500;
