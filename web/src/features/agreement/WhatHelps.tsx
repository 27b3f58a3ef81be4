import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { fixed, percent } from "../../ui/format";
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
  const all = [...ofLevels(found, now, name), ...ofPrompts(found), ...ofRaters(found, report)]
    .filter((h) => h.key === "levels" || h.alpha - now > WORTH)
    .sort((a, b) => b.alpha - a.alpha);
  if (all.length === 0) {
    return null;
  }
  return (
    <section className="mt-4 border-l-4 border-tarn bg-tarn-wash px-4 py-3" aria-label="What would help">
      <h2 className="text-base">
        What parts raters on {on.name.toLowerCase()}, where α is {fixed(now, 2)} and the floor {fixed(on.floor, 2)}
      </h2>
      <ol className="mt-1 grid list-decimal gap-1 pl-5">
        {all.map((h) => (
          <li key={h.key}>{h.words}</li>
        ))}
      </ol>
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
