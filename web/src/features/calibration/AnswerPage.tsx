import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { Query } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { SaidByRaters } from "../reconciliation";
import { ReadAnswer } from "../desk/reading";
import { LevelMark, ProposeAnchor } from "../rubric";
import { AnswerTalk, type AtLines } from "./AnswerTalk";
import { calibratedAnswer, codeOfCalibrated, type Which } from "./api";
import { useWhich } from "./CalibrationPage";
import { GivenOnCriterion } from "./GivenOnCriterion";
import { linesPicked } from "./linesPicked";

type Answer = Schemas["AnswerTalk"];

/** An answer that raters calibrated by: the text on the left; beside it what everybody gave and says. */
export function AnswerPage() {
  const which = useWhich();
  const place = Number(useParams()["place"]);
  const answer = useQuery(calibratedAnswer(which, place));
  useTitle(answer.data && `${answer.data.prompt.title}, answer ${answer.data.ofPrompt} · Calibration`);
  return (
    <main className="mx-auto w-full max-w-[100rem] px-4 py-4 sm:px-6">
      <Query of={answer} what="the answer">
        {(page) => <Opened key={page.place} answer={page} which={which} />}
      </Query>
    </main>
  );
}

/** What each rater gave on a criterion, as the list of what raters say takes it. */
function useRatersOn({ raters }: Answer, criterion: string | undefined) {
  return useMemo(
    () =>
      raters.map((r) => {
        const given = r.levels.find((l) => l.criterion === criterion);
        return {
          name: r.name,
          own: r.own,
          reason: r.reason,
          coverage: r.coverage,
          remarks: r.remarks,
          ...(r.works && { works: r.works }),
          ...(given?.level !== undefined && { level: given.level }),
          ...(given?.confidence && { confidence: given.confidence }),
        };
      }),
    [raters, criterion],
  );
}

function Opened({ answer, which }: { answer: Answer; which: Which }) {
  const [search, setSearch] = useSearchParams();
  const criterion = answer.criteria.find((c) => c.key === search.get("criterion")) ?? answer.criteria[0];
  const [lines, setLines] = useState<AtLines>();
  const text = useRef<HTMLElement>(null);
  const raters = useRatersOn(answer, criterion?.key);
  if (!criterion) {
    return null;
  }
  return (
    <>
      <Head answer={answer} which={which} />
      <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(22rem,28rem)]">
        <section
          ref={text}
          aria-label="What was graded"
          className="min-w-0"
          onMouseUp={() => setLines(linesPicked(text.current) ?? lines)}
        >
          <ReadAnswer
            prompt={answer.prompt}
            text={answer.text}
            raters={answer.raters}
            code={codeOfCalibrated(which, answer.place)}
          />
        </section>
        <div className="grid min-w-0 content-start gap-6">
          <Criteria
            answer={answer}
            chosen={criterion.key}
            onChoose={(key) => setSearch({ criterion: key }, { replace: true })}
          />
          <GivenOnCriterion answer={answer} criterion={criterion} which={which} />
          <SaidByRaters raters={raters} highest={criterion.levels.length - 1} keyPoints={answer.prompt.keyPoints} />
          <AnswerTalk answer={answer} criterion={criterion} which={which} lines={lines} onLines={setLines}>
            <ProposeAnchor
              studyId={answer.studyId}
              criterion={criterion}
              kindId={answer.prompt.kindId}
              kind={answer.prompt.kind}
            />
          </AnswerTalk>
        </div>
      </div>
    </>
  );
}

function Head({ answer, which }: { answer: Answer; which: Which }) {
  const at = (place: number) => `/calibrations/${which.studyId}/${which.number}/${place}`;
  return (
    <header>
      <p className="text-sm text-ink-soft">
        {answer.studyTitle},{" "}
        <Link to={`/calibrations/${which.studyId}/${which.number}`}>calibration {which.number}</Link>
      </p>
      <h1 className="[overflow-wrap:anywhere]">
        {answer.prompt.title}, answer {answer.ofPrompt}
      </h1>
      <nav aria-label="Answers" className="flex gap-4 text-sm">
        {answer.place > 1 && <Link to={at(answer.place - 1)}>The one before</Link>}
        {answer.place < answer.last && <Link to={at(answer.place + 1)}>The next one</Link>}
        <a href="#talk" className="lg:hidden">
          To the talk
        </a>
      </nav>
    </header>
  );
}

type CriteriaProps = { answer: Answer; chosen: string; onChoose: (key: string) => void };

/** The criteria, each with how far raters lie apart on it. */
function Criteria({ answer, chosen, onChoose }: CriteriaProps) {
  return (
    <div role="group" aria-label="Criterion" className="flex flex-wrap gap-1 border-b border-rule">
      {answer.criteria.map((c) => (
        <button
          key={c.key}
          type="button"
          aria-pressed={c.key === chosen}
          onClick={() => onChoose(c.key)}
          className={classes(
            "flex items-center gap-1.5 border-b-2 px-2 py-1",
            c.key === chosen ? "border-heather font-semibold" : "border-transparent text-ink-soft",
          )}
        >
          {c.name}
          <span className="inline-flex gap-0.5">
            {answer.raters.map((r) => {
              const level = r.levels.find((l) => l.criterion === c.key)?.level;
              return (
                <LevelMark
                  key={r.name}
                  level={level}
                  notApplicable={level === undefined}
                  highest={c.levels.length - 1}
                />
              );
            })}
          </span>
        </button>
      ))}
    </div>
  );
}
