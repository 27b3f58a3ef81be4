import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Choice } from "../../ui/Field";
import { Markdown } from "../../ui/Markdown";
import { answersOfPrompt, promptsOfStudy } from "../prompt";
import { useStudy } from "../study";
import type { CriterionDraft } from "./api";

/** The rubric as a rater would have it, on a real answer. */
export function RubricPreview({ criteria }: { criteria: CriterionDraft[] }) {
  const study = useStudy();
  const prompts = useQuery(promptsOfStudy(study.id));
  const [chosen, setChosen] = useState<string>();
  const prompt = prompts.data?.find((p) => p.id === chosen) ?? prompts.data?.[0];
  const answers = useQuery({ ...answersOfPrompt(study.id, prompt?.id ?? ""), enabled: prompt !== undefined });
  if (!prompt) {
    return <p>There is no prompt yet to try it on.</p>;
  }
  const answer = answers.data?.find((a) => a.text !== "");
  const applicable = criteria.filter((c) => c.kindIds.length === 0 || c.kindIds.includes(prompt.kind.id));
  return (
    <>
      <Choice
        label="Prompt"
        value={prompt.id}
        options={(prompts.data ?? []).map((p) => ({ value: p.id, label: `${p.kind.name}: ${p.content.title}` }))}
        onValue={setChosen}
      />
      {answer ? (
        <div
          className="mt-3 max-h-56 overflow-y-auto border-y border-rule py-2"
          tabIndex={0}
          role="region"
          aria-label="An answer"
        >
          <Markdown text={answer.text} />
        </div>
      ) : (
        <p className="mt-3 text-ink-soft">Nobody has answered this prompt yet; its levels are below.</p>
      )}
      {applicable.map((c) => (
        <section key={c.key ?? c.name} className="mt-4">
          <h3>{c.name}</h3>
          <p className="text-sm text-ink-soft">{c.question}</p>
          <ol className="mt-1 grid gap-1 text-sm">
            {c.levels.map((level, i) => (
              <li key={i} className="grid grid-cols-[7rem_1fr] gap-2">
                <span>
                  <strong>{i}</strong> {level.name}
                </span>
                <span>{level.anchors.find((a) => a.kindId === prompt.kind.id)?.text ?? "no anchor for this kind"}</span>
              </li>
            ))}
          </ol>
        </section>
      ))}
    </>
  );
}
