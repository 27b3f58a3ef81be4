import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Markdown } from "../../ui/Markdown";
import { Note } from "../../ui/Note";
import { Query } from "../../ui/Query";
import { moment } from "../../ui/format";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { promptsOfStudy } from "./api";
import { KeyPoints } from "./KeyPoints";
import { PromptEditor } from "./PromptEditor";
import { SetAside } from "./PromptSide";
import { StartingFiles } from "./StartingFiles";

export function PromptPage() {
  const study = useStudy();
  const promptId = useParams()["promptId"] ?? "";
  const prompts = useQuery(promptsOfStudy(study.id));
  const found = prompts.data?.find((p) => p.id === promptId);
  useTitle(found && `${found.content.title || "Prompt"} · ${study.title}`);
  const mayWrite = study.role === "LEAD" && study.stage === "PREPARING";
  return (
    <Query of={prompts} what="the prompt">
      {(all) => {
        const prompt = all.find((p) => p.id === promptId);
        if (!prompt) {
          return (
            <p>
              This prompt is not in the study. <Link to="../prompts">All prompts</Link>
            </p>
          );
        }
        return (
          <div className="max-w-6xl">
            <p className="mb-1 text-sm">
              <Link to="../prompts">All prompts</Link>
            </p>
            {mayWrite ? <PromptEditor key={prompt.id} prompt={prompt} all={all} /> : <ReadPrompt prompt={prompt} />}
          </div>
        );
      }}
    </Query>
  );
}

const SIZES: Record<NonNullable<Schemas["PromptContent"]["size"]>, string> = {
  SMALL: "one place",
  MEDIUM: "one file, or a few places",
  LARGE: "several files",
};

function ReadPrompt({ prompt }: { prompt: Schemas["PromptView"] }) {
  const study = useStudy();
  const { content } = prompt;
  return (
    <>
      <h1>{content.title}</h1>
      <p className="text-sm text-ink-soft">
        {[prompt.kind.name, content.language, ...content.areas, content.size && SIZES[content.size]]
          .filter(Boolean)
          .join(" · ")}
      </p>
      {prompt.fault && (
        <Note tone="caution" className="mt-3">
          Set aside {moment(prompt.fault.at)} by {prompt.fault.by}: {prompt.fault.reason} It counts nowhere.
        </Note>
      )}
      <div className="mt-4 grid grid-cols-1 gap-8 lg:grid-cols-[minmax(0,1fr)_18rem]">
        <PromptTexts content={content} />
        <div>
          <h2 className="mb-2 text-base">A right answer</h2>
          {content.keyPoints.length > 0 ? (
            <KeyPoints points={content.keyPoints} />
          ) : (
            <p>No key points were written down.</p>
          )}
          <p className="mt-4">
            <Link to={`../answers/${prompt.id}`}>Answers and grades</Link>
          </p>
          {study.role === "LEAD" && <SetAside prompt={prompt} />}
        </div>
      </div>
    </>
  );
}

type PromptTextsProps = { content: Schemas["PromptContent"] };

function PromptTexts({ content }: PromptTextsProps) {
  return (
    <div>
      <Markdown text={content.request} below="page" />
      {content.constraints.length > 0 && (
        <>
          <h2 className="mt-5 mb-1">Constraints</h2>
          <ul className="list-disc pl-5">
            {content.constraints.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </>
      )}
      {content.startingFiles.length > 0 && (
        <>
          <h2 className="mt-5 mb-1">Starting code</h2>
          <StartingFiles files={content.startingFiles} />
        </>
      )}
      {content.referenceAnswer && (
        <>
          <h2 className="mt-5 mb-1">Reference answer</h2>
          <Markdown text={content.referenceAnswer} />
        </>
      )}
      {content.followUps.length > 0 && (
        <>
          <h2 className="mt-5 mb-1">Follow-ups, the same for all</h2>
          <ol className="grid list-decimal gap-1 pl-5">
            {content.followUps.map((f) => (
              <li key={f}>{f}</li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}
