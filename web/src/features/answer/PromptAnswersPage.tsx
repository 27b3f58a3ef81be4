import { useQueries } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { Choice } from "../../ui/Field";
import { lineSpan } from "../../ui/format";
import { Markdown } from "../../ui/Markdown";
import { Failure } from "../../ui/Query";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { AnswerTools, PasteAnswer } from "./AnswerForm";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { answersOfPrompt, KeyPoints, promptsOfStudy } from "../prompt";
import { LevelMark, rubricOfStudy } from "../rubric";
import { useStudy } from "../study";
import { outcomeWord } from "../run";
import { gradesOfPrompt } from "./api";
import { Changes } from "./Changes";
import { changeLine, followUpLine, measuresInFull } from "./measures";

/** All answers to one prompt with every grade and reason; where links from splits lead. */
export function PromptAnswersPage() {
  const study = useStudy();
  const promptId = useParams()["promptId"] ?? "";
  const [search, setSearch] = useSearchParams();
  const [prompts, candidates, rubric, answers, grades] = useQueries({
    queries: [
      promptsOfStudy(study.id),
      candidatesOfStudy(study.id),
      rubricOfStudy(study.id),
      answersOfPrompt(study.id, promptId),
      gradesOfPrompt(study.id, promptId),
    ],
  });
  const prompt = prompts.data?.find((p) => p.id === promptId);
  const wanted = search.get("answer");
  const differences = search.get("code") === "differences";
  const ready = answers.data !== undefined && grades.data !== undefined;
  useTitle(prompt && `${prompt.content.title} · ${study.title}`);
  useEffect(() => {
    if (wanted && ready) {
      document.getElementById(`answer-${wanted}`)?.scrollIntoView({ inline: "start", block: "nearest" });
    }
  }, [wanted, ready]);
  const failed = prompts.error ?? candidates.error ?? rubric.error ?? answers.error ?? grades.error;
  if (failed) {
    return <Failure error={failed} what="the answers" onRetry={() => void answers.refetch()} />;
  }
  if (!prompts.data || !candidates.data || !rubric.data || !answers.data || !grades.data) {
    return <p role="status">Fetching the answers …</p>;
  }
  if (!prompt) {
    return <p>This prompt is not in the study.</p>;
  }
  const names = candidates.data;
  const mayWrite = study.role === "LEAD" && study.stage === "PREPARING";
  const criteria = rubric.data.criteria.filter((c) => c.kindIds.length === 0 || c.kindIds.includes(prompt.kind.id));
  const placeOf = (answer: Schemas["AnswerView"]) => names.findIndex((c) => c.id === answer.candidateId);
  const inOrder = [...answers.data].sort((a, b) => placeOf(a) - placeOf(b) || a.attempt - b.attempt);
  return (
    <div>
      <p className="text-sm">
        <Link to="../answers">All answers</Link>
      </p>
      <h1 className="mt-1">{prompt.content.title || "Without a title"}</h1>
      <p className="text-sm text-ink-soft">
        {prompt.kind.name} · {prompt.content.language}
      </p>
      <details className="my-4 border-y border-rule py-2">
        <summary className="font-medium">The prompt, and what a right answer contains</summary>
        <div className="mt-3 grid gap-6 lg:grid-cols-[minmax(0,1fr)_18rem]">
          <Markdown text={prompt.content.request} />
          <KeyPoints points={prompt.content.keyPoints} />
        </div>
      </details>
      {prompt.fault && (
        <Note tone="caution" className="mb-4">
          This prompt was set aside: {prompt.fault.reason} What is graded here counts nowhere.
        </Note>
      )}
      {inOrder.some((a) => a.changed.files > 0) && (
        <Choice
          label="Code"
          className="mb-4 w-96"
          value={differences ? "differences" : "whole"}
          options={[
            { value: "whole", label: "as the answers give it" },
            { value: "differences", label: "as differences against the starting code" },
          ]}
          onValue={(shown) => {
            const next = new URLSearchParams(search);
            if (shown === "differences") {
              next.set("code", shown);
            } else {
              next.delete("code");
            }
            setSearch(next, { replace: true });
          }}
        />
      )}
      {mayWrite && (
        <PasteAnswer key={search.get("paste") ?? "none"} prompt={prompt} candidates={names} answers={inOrder} />
      )}
      <div
        tabIndex={0}
        role="region"
        aria-label="Answers side by side"
        className="flex snap-x gap-6 overflow-x-auto pb-4"
      >
        {inOrder.map((answer) => (
          <section
            key={answer.id}
            id={`answer-${answer.id}`}
            aria-labelledby={`name-${answer.id}`}
            className={classes(
              "w-[min(32rem,80vw)] shrink-0 snap-start border-t-4 pt-2",
              wanted === answer.id ? "border-heather" : "border-rule",
            )}
          >
            <h2 id={`name-${answer.id}`} className="text-lg">
              <CandidateName
                name={names.find((c) => c.id === answer.candidateId)?.content.name ?? ""}
                index={placeOf(answer)}
              />
              {answer.attempt > 1 && <span className="font-sans text-sm font-normal"> attempt {answer.attempt}</span>}
            </h2>
            <p className="mb-3 text-sm text-ink-soft">
              {outcomeWord(answer.outcome)} ·{" "}
              {[
                measuresInFull(answer.measures, names[placeOf(answer)]?.content.contextWindow),
                changeLine(answer.changed),
                followUpLine(answer.followUps.length, 0),
              ]
                .filter((part) => part !== undefined)
                .join(" · ")}
            </p>
            {mayWrite ? (
              <AnswerTools answer={answer} prepared={prompt.content.followUps} />
            ) : (
              <AnswerGrades answerId={answer.id} grades={grades.data} criteria={criteria} />
            )}
            <AnswerBody answer={answer} prepared={prompt.content.followUps} differences={differences} />
          </section>
        ))}
      </div>
    </div>
  );
}

type AnswerBodyProps = { answer: Schemas["AnswerView"]; prepared: string[]; differences: boolean };

/** The first reply, then each follow-up with its own. */
function AnswerBody({ answer, prepared, differences }: AnswerBodyProps) {
  if (differences) {
    return <Changes answerId={answer.id} />;
  }
  return (
    <>
      {answer.text.trim() === "" ? (
        <p className="mt-4 text-ink-soft">Nothing came.</p>
      ) : (
        <Markdown text={answer.text} className="mt-4" />
      )}
      {answer.followUps.map((turn, i) => (
        <div key={i} className="mt-5 border-t border-rule pt-3">
          <h3 className="font-sans text-sm font-medium">
            Follow-up {i + 1}
            {!prepared.some((p) => p.trim() === turn.asked.trim()) && (
              <span className="font-normal text-ochre"> written for this answer alone</span>
            )}
          </h3>
          <Markdown text={turn.asked} className="mb-3 border-l-2 border-tarn pl-3" />
          {turn.reply.trim() === "" ? <p className="text-ink-soft">Nothing came.</p> : <Markdown text={turn.reply} />}
        </div>
      ))}
    </>
  );
}

function remarksOn(answerId: string, grades: Schemas["PromptGrades"]) {
  return grades.raters.flatMap((r) =>
    r.answers
      .filter((a) => a.answerId === answerId)
      .flatMap((a) => a.remarks.map((remark) => ({ name: r.name, remark }))),
  );
}

function linesInWords(lines: NonNullable<Schemas["RemarkContent"]["lines"]>): string {
  const span = lineSpan(lines.from, lines.to);
  return lines.path === undefined ? span : `${span} of ${lines.path}`;
}

type AnswerGradesProps = {
  answerId: string;
  grades: Schemas["PromptGrades"];
  criteria: Schemas["CriterionView"][];
};

function AnswerGrades({ answerId, grades, criteria }: AnswerGradesProps) {
  if (grades.raters.length === 0) {
    return (
      <p className="border-y border-rule py-2 text-ink-soft">No rater has sent in a sheet with this answer yet.</p>
    );
  }
  return (
    <table className="w-full border-collapse border-y border-rule text-left">
      <caption className="sr-only">Grades and reasons by rater</caption>
      <thead>
        <tr className="text-sm text-ink-soft">
          <th scope="col" className="py-1 pr-2 font-medium">
            Rater
          </th>
          {criteria.map((c) => (
            <th key={c.id} scope="col" className="py-1 pr-2 font-medium">
              {c.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {grades.raters.map((rater) => {
          const own = rater.answers.find((a) => a.answerId === answerId);
          return (
            <tr key={rater.raterId} className="border-t border-rule align-top">
              <th scope="row" className="py-1 pr-2 font-normal">
                {rater.name}
                <span className="block text-sm text-ink-soft">place {own?.number}</span>
              </th>
              {criteria.map((c) => {
                const grade = own?.grades.find((g) => g.criterionId === c.id);
                const level = c.levels.find((l) => l.level === grade?.level);
                return (
                  <td key={c.id} className="py-1 pr-2">
                    <LevelMark
                      level={grade?.level}
                      notApplicable={grade?.notApplicable ?? false}
                      highest={c.levels.length - 1}
                      title={level?.name}
                    />
                  </td>
                );
              })}
            </tr>
          );
        })}
        {grades.raters
          .flatMap((r) =>
            r.answers.filter((a) => a.answerId === answerId && a.reason).map((a) => ({ name: r.name, text: a.reason })),
          )
          .map((reason) => (
            <tr key={reason.name} className="border-t border-rule">
              <td colSpan={criteria.length + 1} className="py-1 text-sm">
                <span className="text-ink-soft">{reason.name}:</span> {reason.text}
              </td>
            </tr>
          ))}
        {remarksOn(answerId, grades).map(({ name, remark }, i) => (
          <tr key={i} className="border-t border-rule">
            <td colSpan={criteria.length + 1} className="py-1 text-sm">
              <span className="text-ink-soft">
                {name}, {remark.stance === "CREDIT" ? "a credit" : "a fault"}
                {remark.lines && ` on ${linesInWords(remark.lines)}`}:
              </span>{" "}
              {remark.trait && <em className="mr-1">{remark.trait}.</em>}
              {remark.words}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
