import { useQueries } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { classes } from "../../ui/classes";
import { CopyButton } from "../../ui/CopyButton";
import { Choice } from "../../ui/Field";
import { Markdown } from "../../ui/Markdown";
import { Failure } from "../../ui/Query";
import { Note } from "../../ui/Note";
import { useTitle } from "../../ui/useTitle";
import { AnswerTools, PasteAnswer } from "./AnswerForm";
import { CandidateName, candidatesOfStudy } from "../candidate";
import { answersOfPrompt, KeyPoints, promptsOfStudy } from "../prompt";
import { rubricOfStudy } from "../rubric";
import { useStudy } from "../study";
import { TurnVerdict } from "../turn";
import { outcomeWord } from "../run";
import { gradesOfPrompt } from "./api";
import { AnswerGrades } from "./AnswerGrades";
import { Changes } from "./Changes";
import { changeLine, followUpLine, measuresInFull } from "./measures";

/** Brings the answer into view that a link leads to. */
function useScrollTo(answerId: string | null, ready: boolean): void {
  useEffect(() => {
    if (answerId && ready) {
      document.getElementById(`answer-${answerId}`)?.scrollIntoView({ inline: "start", block: "nearest" });
    }
  }, [answerId, ready]);
}

const useAnswersOf = (studyId: string, promptId: string) => {
  return useQueries({
    queries: [
      promptsOfStudy(studyId),
      candidatesOfStudy(studyId),
      rubricOfStudy(studyId),
      answersOfPrompt(studyId, promptId),
      gradesOfPrompt(studyId, promptId),
    ],
  });
};

/** All answers to one prompt with every grade and reason; where links from splits lead. */
export function PromptAnswersPage() {
  const study = useStudy();
  const promptId = useParams()["promptId"] ?? "";
  const [search] = useSearchParams();
  const [prompts, candidates, rubric, answers, grades] = useAnswersOf(study.id, promptId);
  const prompt = prompts.data?.find((p) => p.id === promptId);
  const wanted = search.get("answer");
  const differences = search.get("code") === "differences";
  const ready = answers.data !== undefined && grades.data !== undefined;
  useTitle(prompt && `${prompt.content.title} · ${study.title}`);
  useScrollTo(wanted, ready);
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
      <WhatWasAsked prompt={prompt} />
      {inOrder.some((a) => a.changed.files > 0) && <CodeForm differences={differences} />}
      {mayWrite && (
        <PasteAnswer key={search.get("paste") ?? "none"} prompt={prompt} candidates={names} answers={inOrder} />
      )}
      <SideBySide>
        {inOrder.map((answer) => (
          <OneAnswer
            key={answer.id}
            answer={answer}
            candidate={names[placeOf(answer)]}
            index={placeOf(answer)}
            wanted={wanted === answer.id}
            differences={differences}
            prepared={prompt.content.followUps}
            mayWrite={mayWrite}
          >
            {mayWrite ? (
              <AnswerTools answer={answer} prepared={prompt.content.followUps} />
            ) : (
              <AnswerGrades answerId={answer.id} grades={grades.data} criteria={criteria} />
            )}
          </OneAnswer>
        ))}
      </SideBySide>
    </div>
  );
}

type AnswerBodyProps = {
  answer: Schemas["AnswerView"];
  prepared: string[];
  differences: boolean;
  /** Whether the lead may say of replies if they do what was asked. */
  mayWrite: boolean;
};

/** The first reply, then each follow-up with its own. */
function AnswerBody({ answer, prepared, differences, mayWrite }: AnswerBodyProps) {
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
      <TurnVerdict answerId={answer.id} turn={0} mayWrite={mayWrite} />
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
          <TurnVerdict answerId={answer.id} turn={i + 1} mayWrite={mayWrite} />
        </div>
      ))}
    </>
  );
}

type OneAnswerProps = {
  answer: Schemas["AnswerView"];
  candidate: Schemas["CandidateView"] | undefined;
  index: number;
  wanted: boolean;
  differences: boolean;
  prepared: string[];
  mayWrite: boolean;
  children: ReactNode;
};

function OneAnswer({ answer, candidate, index, wanted, children, ...body }: OneAnswerProps) {
  return (
    <section
      id={`answer-${answer.id}`}
      aria-labelledby={`name-${answer.id}`}
      className={classes(
        "w-[min(32rem,80vw)] shrink-0 snap-start border-t-4 pt-2 print:mb-6 print:w-auto",
        wanted ? "border-heather" : "border-rule",
      )}
    >
      <div className="flex items-start gap-2">
        <h2 id={`name-${answer.id}`} className="text-lg">
          <CandidateName name={candidate?.content.name ?? ""} index={index} />
          {answer.attempt > 1 && <span className="font-sans text-sm font-normal"> attempt {answer.attempt}</span>}
        </h2>
        <span className="ml-auto text-sm">
          <CopyButton text={`${window.location.href.replace(/[?#].*/, "")}?answer=${answer.id}`} label="Copy link" />
        </span>
      </div>
      <p className="mb-3 text-sm text-ink-soft">
        {outcomeWord(answer.outcome)} ·{" "}
        {[
          measuresInFull(answer.measures, candidate?.content.contextWindow),
          changeLine(answer.changed),
          followUpLine(answer.followUps.length, 0),
        ]
          .filter((part) => part !== undefined)
          .join(" · ")}
      </p>
      {children}
      <AnswerBody answer={answer} {...body} />
    </section>
  );
}

type CodeFormProps = { differences: boolean };

/** Whether code is read as answers give it, or as what it changes. */
function CodeForm({ differences }: CodeFormProps) {
  const [search, setSearch] = useSearchParams();
  return (
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
  );
}

type WhatWasAskedProps = { prompt: Schemas["PromptView"] };

function WhatWasAsked({ prompt }: WhatWasAskedProps) {
  return (
    <>
      <p className="text-sm">
        <Link to="../answers">All answers</Link>
      </p>
      <h1 className="mt-1">{prompt.content.title || "Without a title"}</h1>
      <p className="text-sm text-ink-soft">
        {prompt.kind.name} · {prompt.content.language}
      </p>
      <details className="my-4 border-y border-rule py-2">
        <summary className="font-medium">The prompt, and what a right answer contains</summary>
        <div className="mt-3 grid grid-cols-1 gap-6 lg:grid-cols-[minmax(0,1fr)_18rem]">
          <Markdown text={prompt.content.request} />
          <KeyPoints points={prompt.content.keyPoints} />
        </div>
      </details>
      {prompt.fault && (
        <Note tone="caution" className="mb-4">
          This prompt was set aside: {prompt.fault.reason} What is graded here counts nowhere.
        </Note>
      )}
    </>
  );
}

type SideBySideProps = { children: ReactNode };

function SideBySide({ children }: SideBySideProps) {
  return (
    <div
      tabIndex={0}
      role="region"
      aria-label="Answers side by side"
      className="relative flex snap-x gap-6 overflow-x-auto pb-4 print:block"
    >
      {children}
    </div>
  );
}
