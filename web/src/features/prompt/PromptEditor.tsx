import { useQueries, useQueryClient } from "@tanstack/react-query";
import { currentOf, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { DraftHead } from "../../ui/DraftHead";
import { Area, Choice, Field } from "../../ui/Field";
import { Lines } from "../../ui/Lines";
import { type DraftInHand, useDraft } from "../../ui/useDraft";
import { peopleOfStudy, studyKeys, useStepsChanged, useStudy } from "../study";
import { kindsOfStudy, promptsOfStudy, putPrompt } from "./api";
import { KeyPointsEditor } from "./KeyPointsEditor";
import { PromptSide } from "./PromptSide";
import { StartingCode } from "./StartingCode";

type PromptView = Schemas["PromptView"];
type Content = Schemas["PromptContent"];

export type PromptDraft = {
  kindId: string;
  authorId: string | undefined;
  wording: PromptView["wording"];
  content: Content;
};

const draftOf = (view: PromptView) => ({
  value: { kindId: view.kind.id, authorId: view.authorId, wording: view.wording, content: view.content },
  version: view.version,
});

/** What the server would refuse and nobody means: lines that are still empty. */
function cleaned(content: Content): Content {
  const filled = (texts: string[]) => texts.filter((t) => t.trim() !== "");
  return {
    ...content,
    areas: filled(content.areas),
    constraints: filled(content.constraints),
    followUps: filled(content.followUps),
    keyPoints: content.keyPoints.filter((p) => p.text.trim() !== ""),
    startingFiles: content.startingFiles.filter((f) => f.path.trim() !== ""),
  };
}

const SIZES: { value: "" | NonNullable<Content["size"]>; label: string }[] = [
  { value: "", label: "not said" },
  { value: "SMALL", label: "one place" },
  { value: "MEDIUM", label: "one file, or a few places" },
  { value: "LARGE", label: "several files" },
];

/** A prompt while it is written: saved as it is typed, with what usually goes wrong beside it. */
/** A prompt as it is being written. */
function usePromptDraft(prompt: PromptView): DraftInHand<PromptDraft> {
  const study = useStudy();
  const client = useQueryClient();
  const stepsChanged = useStepsChanged(study.id);
  return useDraft<PromptDraft>({
    name: `prompt.${prompt.id}`,
    ...draftOf(prompt),
    save: async ({ kindId, authorId, wording, content }, version) => {
      const saved = await putPrompt(study.id, prompt.id, {
        version,
        kindId,
        content: cleaned(content),
        ...(authorId ? { authorId } : {}),
        ...(wording ? { wording } : {}),
      });
      client.setQueryData(promptsOfStudy(study.id).queryKey, (old) => old?.map((p) => (p.id === saved.id ? saved : p)));
      void client.invalidateQueries({ queryKey: studyKeys.part(study.id, "prompts", "warnings") });
      stepsChanged();
      return draftOf(saved);
    },
    current: (problem) => draftOf(currentOf<PromptView>(problem)),
  });
}

export function PromptEditor({ prompt, all }: { prompt: PromptView; all: PromptView[] }) {
  const draft = usePromptDraft(prompt);
  const { content } = draft.value;
  return (
    <>
      <DraftHead draft={draft} title={content.title || "New prompt"} what="The prompt" />
      <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_18rem]">
        <PromptFields draft={draft} prompt={prompt} />
        <PromptSide prompt={prompt} all={all} settle={draft.flush} />
      </div>
    </>
  );
}

type PromptFactsProps = { draft: DraftInHand<PromptDraft>; prompt: PromptView };

/** What kind of prompt it is, and whose. */
function PromptFacts({ draft, prompt }: PromptFactsProps) {
  const study = useStudy();
  const [kinds, people] = useQueries({ queries: [kindsOfStudy(study.id), peopleOfStudy(study.id)] });
  const { content } = draft.value;
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <Choice
        label="Kind"
        value={draft.value.kindId}
        options={(kinds.data ?? [prompt.kind]).map((k) => ({ value: k.id, label: k.name }))}
        onValue={(kindId) => draft.change({ ...draft.value, kindId })}
      />
      <Field
        label="Language and its version"
        placeholder="Java 17"
        maxLength={LIMITS.PromptContent.language}
        value={content.language}
        onChange={(e) =>
          draft.change({ ...draft.value, content: { ...content, language: e.target.value } }, "language")
        }
      />
      <Choice
        label="Size of the task"
        value={content.size ?? ""}
        options={SIZES}
        onValue={(size) => {
          const { size: _, ...rest } = content;
          draft.change({ ...draft.value, content: size === "" ? rest : { ...rest, size } });
        }}
      />
      <Choice
        label="Written by"
        hint="Whoever wrote it does not grade answers to it."
        value={draft.value.authorId ?? ""}
        options={[
          { value: "", label: "nobody of this study" },
          ...(people.data ?? []).map((p) => ({ value: p.accountId, label: p.name })),
        ]}
        onValue={(id) => draft.change({ ...draft.value, authorId: id === "" ? undefined : id })}
      />
      {prompt.variantOf && (
        <Choice
          label="Wording"
          value={draft.value.wording ?? "OTHER"}
          options={[
            { value: "VAGUE", label: "vague" },
            { value: "EXACT", label: "exact" },
            { value: "OTHER", label: "other" },
          ]}
          onValue={(wording) => draft.change({ ...draft.value, wording })}
        />
      )}
    </div>
  );
}

type PromptFieldsProps = { draft: DraftInHand<PromptDraft>; prompt: PromptView };

function PromptFields({ draft, prompt }: PromptFieldsProps) {
  const { content } = draft.value;
  const write = (change: Partial<Content>, group?: string) =>
    draft.change({ ...draft.value, content: { ...content, ...change } }, group);
  return (
    <div className="grid gap-5">
      <Field
        label="Title"
        maxLength={LIMITS.PromptContent.title}
        value={content.title}
        onChange={(e) => write({ title: e.target.value }, "title")}
      />
      <PromptFacts draft={draft} prompt={prompt} />
      <Area
        label="Request"
        hint="Word for word what every candidate is asked. Markdown."
        value={content.request}
        onChange={(e) => write({ request: e.target.value }, "request")}
      />
      <StartingCode
        files={content.startingFiles}
        origin={content.origin}
        onChange={(startingFiles, origin, group) => {
          const { origin: _, ...rest } = content;
          const next = { ...rest, startingFiles, ...(origin ? { origin } : {}) };
          draft.change({ ...draft.value, content: next }, group);
        }}
      />
      <Lines
        legend="Constraints"
        hint="What an answer must keep to; raters see them."
        one="Constraint"
        values={content.constraints}
        onChange={(constraints, group) => write({ constraints }, group)}
      />
      <WhatRightAnswersHold content={content} write={write} />
      <Area
        label="Reference answer"
        hint="For you; raters see it only once their own sheet is in, and only if the brief says so. Markdown."
        value={content.referenceAnswer}
        onChange={(e) => write({ referenceAnswer: e.target.value }, "reference")}
      />
    </div>
  );
}

type WhatRightAnswersHoldProps = { content: Content; write: (change: Partial<Content>, group?: string) => void };

function WhatRightAnswersHold({ content, write }: WhatRightAnswersHoldProps) {
  return (
    <>
      <KeyPointsEditor
        points={content.keyPoints}
        files={content.startingFiles}
        onChange={(keyPoints, group) => write({ keyPoints }, group)}
      />
      <Lines
        legend="Follow-ups"
        hint="What every candidate is told next if its first answer does not do, the same for all, in order."
        one="Follow-up"
        values={content.followUps}
        onChange={(followUps, group) => write({ followUps }, group)}
      />
      <Lines
        legend="Areas"
        hint="Such as back end, front end, database."
        one="Area"
        values={content.areas}
        onChange={(areas, group) => write({ areas }, group)}
      />
    </>
  );
}
