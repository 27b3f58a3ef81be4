import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Field } from "../../ui/Field";
import { count } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { useTitle } from "../../ui/useTitle";
import { useStudy } from "../study";
import { BLANK_PROMPT, kindsOfStudy, promptsOfStudy, promptWarnings, useAddKind, useAddPrompt } from "./api";
import { BankPicker } from "./BankPicker";

type Prompt = Schemas["PromptView"];

const WORDINGS: Record<NonNullable<Prompt["wording"]>, string> = {
  VAGUE: "vague wording",
  EXACT: "exact wording",
  OTHER: "other wording",
};

export function PromptsPage() {
  const study = useStudy();
  const mayWrite = study.role === "LEAD" && study.stage === "PREPARING";
  const [prompts, kinds, warnings] = useQueries({
    queries: [
      promptsOfStudy(study.id),
      kindsOfStudy(study.id),
      { ...promptWarnings(study.id), enabled: study.role === "LEAD" },
    ],
  });
  useTitle(`Prompts · ${study.title}`);
  const failed = prompts.error ?? kinds.error;
  if (failed) {
    return <Failure error={failed} what="the prompts" onRetry={() => void prompts.refetch()} />;
  }
  if (!prompts.data || !kinds.data) {
    return <p role="status">Fetching the prompts …</p>;
  }
  const all = prompts.data;
  const warned = new Map(warnings.data?.map((w) => [w.promptId, w.warnings]));
  return (
    <div className="max-w-4xl">
      <h1>Prompts</h1>
      <p className="mt-1 mb-5 text-ink-soft">
        What every candidate is asked, word for word, and what a right answer contains.
      </p>
      {mayWrite && all.length === 0 && (
        <Note tone="info" className="mb-5">
          Begin with code of your own: a change that was hard to explain, a fault that was hard to find. Two or more
          prompts of each kind let the study say something about a kind.
        </Note>
      )}
      {kinds.data.map((kind) => {
        const ofKind = all.filter((p) => p.kind.id === kind.id);
        return (
          <section key={kind.id} className="mb-7">
            <div className="mb-1 flex items-baseline gap-3">
              <h2>{kind.name}</h2>
              <span className="text-sm text-ink-soft">{count(ofKind.length, "prompt", "prompts")}</span>
              {mayWrite && <AddPrompt kind={kind} />}
            </div>
            {inFamilies(ofKind, all).map((prompt) => (
              <PromptRow key={prompt.id} prompt={prompt} warnings={warned.get(prompt.id) ?? []} />
            ))}
          </section>
        );
      })}
      {mayWrite && <AddKind />}
    </div>
  );
}

/** Each prompt with its other wordings right after it. */
function inFamilies(prompts: Prompt[], all: Prompt[]): Prompt[] {
  const first = prompts.filter(
    (p) => !p.variantOf || !all.some((b) => b.id === p.variantOf && b.kind.id === p.kind.id),
  );
  return first.flatMap((p) => [p, ...prompts.filter((v) => v.variantOf === p.id)]);
}

function PromptRow({ prompt, warnings }: { prompt: Prompt; warnings: Schemas["PromptWarning"][] }) {
  const { content } = prompt;
  return (
    <div className={`border-t border-rule py-2 last:border-b ${prompt.variantOf ? "pl-6" : ""}`}>
      <div className="flex items-baseline gap-3">
        <Link to={prompt.id} className="font-medium text-tarn underline underline-offset-4">
          {content.title || "Without a title"}
        </Link>
        {prompt.variantOf && prompt.wording && (
          <span className="text-sm text-ink-soft">{WORDINGS[prompt.wording]}</span>
        )}
        {prompt.fault && <span className="border-b-2 border-clay text-sm">set aside</span>}
        <span className="ml-auto text-sm whitespace-nowrap text-ink-soft">
          {[content.language, ...content.areas].filter(Boolean).join(" · ")}
        </span>
      </div>
      <p className="text-sm text-ink-soft">
        {[
          count(content.keyPoints.length, "key point", "key points"),
          content.startingFiles.length > 0 && count(content.startingFiles.length, "starting file", "starting files"),
          content.followUps.length > 0 && count(content.followUps.length, "follow-up", "follow-ups"),
        ]
          .filter(Boolean)
          .join(", ")}
        {warnings.length > 0 && (
          <span className="ml-3 border-b border-ochre text-ink" title={warnings.map((w) => w.words).join("\n")}>
            {count(warnings.length, "thing", "things")} to look at
          </span>
        )}
      </p>
    </div>
  );
}

function AddPrompt({ kind }: { kind: Schemas["KindView"] }) {
  const study = useStudy();
  const add = useAddPrompt(study.id);
  const navigate = useNavigate();
  return (
    <span className="ml-auto flex gap-2">
      <BankPicker kind={kind} />
      <Button
        disabled={add.isPending}
        aria-label={`Write one, of kind ${kind.name}`}
        onClick={() =>
          add.mutate({ kindId: kind.id, content: BLANK_PROMPT }, { onSuccess: (prompt) => void navigate(prompt.id) })
        }
      >
        Write one
      </Button>
    </span>
  );
}

function AddKind() {
  const study = useStudy();
  const add = useAddKind(study.id);
  const [asking, setAsking] = useState(false);
  const [name, setName] = useState("");
  return (
    <>
      <Button onClick={() => setAsking(true)}>Add a kind …</Button>
      <Dialog title="Another kind of prompt" open={asking} onOpenChange={setAsking}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate(name, {
              onSuccess: () => {
                setAsking(false);
                setName("");
              },
            });
          }}
        >
          <p>Such as new code, writing tests, or advice. Its anchors are written with the rubric.</p>
          <Field
            label="Name"
            className="mt-3"
            maxLength={LIMITS.AddKind.name}
            required
            value={name}
            error={add.error?.message}
            onChange={(e) => setName(e.target.value)}
          />
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={() => setAsking(false)}>Leave it</Button>
            <Button type="submit" tone="primary" disabled={add.isPending}>
              Add it
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
}
