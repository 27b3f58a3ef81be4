import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { fixed, percent } from "../../ui/format";
import { Query, WORKED_OUT } from "../../ui/Query";
import { LevelMark, rubricOfStudy } from "../rubric";
import { useStudy } from "../study";
import { diagnosisOfStudy } from "./diagnosis";
import { useFilter } from "./useFilter";

type Report = Schemas["AgreementReport"];
type Diagnosis = Schemas["OnCriterion"];

/** As many as stand beside the others without scrolling for long. */
const SHOWN_PROMPTS = 8;

/** Raters, levels and prompts on one criterion, side by side; a rater or prompt narrows the splits down. */
export function OnOneCriterion({ report }: { report: Report }) {
  const study = useStudy();
  const { filter, narrow } = useFilter();
  const diagnosis = useQuery(diagnosisOfStudy(study.id));
  const chosen = filter.criterion ?? report.criteria[0]?.criterionId;
  return (
    <section className="mt-8">
      <h2>Who and what parts raters</h2>
      <div role="group" aria-label="On which criterion" className="mt-1 mb-2 flex gap-1">
        {report.criteria.map((c) => (
          <button
            key={c.criterionId}
            type="button"
            aria-pressed={c.criterionId === chosen}
            onClick={() => narrow({ criterion: c.criterionId })}
            className={classes(
              "border-b-2 px-2 py-0.5",
              c.criterionId === chosen ? "border-heather font-semibold" : "border-transparent text-ink-soft",
            )}
          >
            {c.name}
          </button>
        ))}
      </div>
      <Query of={diagnosis} what="what parts raters" long={WORKED_OUT}>
        {({ criteria }) => {
          const found = criteria.find((c) => c.criterionId === chosen);
          return found ? (
            <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[1.2fr_1fr_1fr]">
              <Raters found={found} report={report} />
              <Levels found={found} />
              <Prompts found={found} />
            </div>
          ) : (
            <p>Nothing is graded on it yet.</p>
          );
        }}
      </Query>
    </section>
  );
}

type PartProps = { title: string; hint: string; children: ReactNode };

function Part({ title, hint, children }: PartProps) {
  return (
    <section aria-label={title} className="min-w-0">
      <h3>{title}</h3>
      <p className="mb-1 text-sm text-ink-soft">{hint}</p>
      {children}
    </section>
  );
}

type ChosenProps = { chosen: boolean; onChoose: (chosen: boolean) => void; children: ReactNode };

/** Narrows the page down to what it names, and lets it go again. */
function Chosen({ chosen, onChoose, children }: ChosenProps) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={() => onChoose(!chosen)}
      className={classes(
        "text-left text-tarn underline underline-offset-4",
        chosen && "bg-heather-wash font-semibold text-ink",
      )}
    >
      {children}
    </button>
  );
}

function Raters({ found, report }: { found: Diagnosis; report: Report }) {
  const { filter, narrow } = useFilter();
  const most = Math.max(1, ...found.useOfScale.flatMap((u) => u.counts));
  const raters = [...report.raters].sort((a, b) => a.name.localeCompare(b.name, "en"));
  return (
    <Part title="Raters" hint="How they use the scale, how their grades move from sheet to sheet, and α of the others.">
      <ul>
        {raters.map((rater) => {
          const use = found.useOfScale.find((u) => u.raterId === rater.raterId);
          const drift = found.drift.find((d) => d.raterId === rater.raterId)?.slope.value;
          const without = found.withoutRater.find((w) => w.raterId === rater.raterId)?.alpha.value;
          return (
            <li key={rater.raterId} className="flex items-end gap-3 border-t border-rule py-1 last:border-b">
              <span className="min-w-0 flex-1 break-words">
                <Chosen
                  chosen={filter.rater === rater.raterId}
                  onChoose={(chosen) => narrow({ rater: chosen ? rater.raterId : undefined })}
                >
                  {rater.name}
                </Chosen>
                <span className="block text-xs text-ink-soft">
                  {drift === undefined
                    ? "no drift known"
                    : `${drift >= 0 ? "+" : "−"}${fixed(Math.abs(drift), 2)} a sheet`}
                  {without !== undefined && `, α without ${fixed(without, 2)}`}
                </span>
              </span>
              {use && <Histogram counts={use.counts} most={most} name={rater.name} />}
            </li>
          );
        })}
      </ul>
    </Part>
  );
}

type HistogramProps = { counts: number[]; most: number; name: string };

/** How often each level was given; the numbers stand in the words for readers aloud. */
function Histogram({ counts, most, name }: HistogramProps) {
  const words = counts.map((n, level) => `${n} × ${level}`).join(", ");
  return (
    <span role="img" aria-label={`${name}: ${words}`} title={words} className="flex h-8 items-end gap-px">
      {counts.map((n, level) => (
        <span key={level} className="w-4 border-b border-edge bg-tarn" style={{ height: `${(n / most) * 100}%` }} />
      ))}
    </span>
  );
}

function Levels({ found }: { found: Diagnosis }) {
  const rubric = useQuery(rubricOfStudy(useStudy().id));
  const levels = rubric.data?.criteria.find((c) => c.id === found.criterionId)?.levels ?? [];
  const neighbours = found.levelPairs.filter((p) => p.higher === p.lower + 1);
  const highest = Math.max(1, levels.length - 1);
  return (
    <Part
      title="Levels"
      hint="Neighbours by what of the disagreement lies between them; α if they were one is a diagnosis."
    >
      <ul>
        {neighbours.map((pair) => {
          const merged = found.merged.find((m) => m.lower === pair.lower)?.alpha.value;
          const anchors = [pair.lower, pair.higher].map(
            (l) => `${l}: ${levels[l]?.anchors.map((a) => a.text).join(" · ") ?? ""}`,
          );
          return (
            <li key={pair.lower} className="border-t border-rule py-1 last:border-b">
              <LevelMark level={pair.lower} highest={highest} /> <LevelMark level={pair.higher} highest={highest} />{" "}
              {percent(pair.share)}
              {merged !== undefined && <span className="text-ink-soft">, as one α {fixed(merged, 2)}</span>}
              <details className="text-sm">
                <summary className="cursor-pointer text-ink-soft">their anchors</summary>
                {anchors.map((a) => (
                  <p key={a} className="mt-0.5 break-words">
                    {a}
                  </p>
                ))}
              </details>
            </li>
          );
        })}
      </ul>
      {neighbours.length === 0 && <p>No two neighbours are mixed up.</p>}
      <Link to="../rubric" className="text-sm">
        The rubric
      </Link>
    </Part>
  );
}

function Prompts({ found }: { found: Diagnosis }) {
  const { filter, narrow } = useFilter();
  return (
    <Part
      title="Prompts"
      hint="By what of the disagreement is theirs, and α without them. A faulty one is set aside on its page."
    >
      <ul>
        {found.prompts.slice(0, SHOWN_PROMPTS).map((prompt) => {
          const without = found.withoutPrompt.find((w) => w.promptId === prompt.promptId)?.alpha.value;
          return (
            <li key={prompt.promptId} className="border-t border-rule py-1 break-words last:border-b">
              <Chosen
                chosen={filter.prompt === prompt.promptId}
                onChoose={(chosen) => narrow({ prompt: chosen ? prompt.promptId : undefined })}
              >
                {prompt.title}
              </Chosen>{" "}
              {percent(prompt.share)}
              <span className="block text-sm text-ink-soft">
                {without !== undefined && `α without it ${fixed(without, 2)} · `}
                <Link to={`../prompts/${prompt.promptId}`}>its page</Link>
              </span>
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
