import { useMutation, useQueries, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { currentOf, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { DraftHead } from "../../ui/DraftHead";
import { Choice } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { Trouble } from "../../ui/Trouble";
import { type DraftInHand, useDraft } from "../../ui/useDraft";
import { useTitle } from "../../ui/useTitle";
import { promptsOfStudy } from "../prompt";
import { useStudy } from "../study";
import { checksOf, putCheck, toolchainsOf, useRemoveCheck } from "./api";
import { CheckFields } from "./CheckFields";
import { FRESH_PAGE } from "./PageFields";
import { TryCheck } from "./TryCheck";

export type Content = Schemas["CheckContent"];
type Check = Schemas["CheckOfPrompt"];
type Toolchain = Schemas["ToolchainView"];

/** What a prompt asks of an answer's code. */
export function CheckPage() {
  const study = useStudy();
  const promptId = useParams()["promptId"] ?? "";
  const [prompts, checks, toolchains] = useQueries({
    queries: [promptsOfStudy(study.id), checksOf(study.id), toolchainsOf(study.id)],
  });
  const prompt = prompts.data?.find((p) => p.id === promptId);
  useTitle(prompt && `Check: ${prompt.content.title} · ${study.title}`);
  const failed = prompts.error ?? checks.error ?? toolchains.error;
  if (failed) {
    return <Failure error={failed} what="the check" onRetry={() => void checks.refetch()} />;
  }
  if (!prompts.data || !checks.data || !toolchains.data) {
    return <p role="status">Fetching the check …</p>;
  }
  if (prompt === undefined) {
    return (
      <p>
        This prompt is not in the study. <Link to="../prompts">All prompts</Link>
      </p>
    );
  }
  const check = checks.data.find((c) => c.promptId === promptId);
  return (
    <div className="max-w-5xl">
      <p className="mb-1 text-sm">
        <Link to={`../prompts/${promptId}`}>{prompt.content.title}</Link>
      </p>
      {toolchains.data.missing !== undefined && (
        <Note tone="caution" className="mb-4">
          No code is tried on this server, as {toolchains.data.missing}.
        </Note>
      )}
      {check === undefined ? (
        <Begin promptId={promptId} toolchains={toolchains.data.toolchains} language={prompt.content.language} />
      ) : (
        <Editing key={promptId} prompt={prompt} check={check} toolchains={toolchains.data.toolchains} />
      )}
    </div>
  );
}

const AS_IT_IS: Schemas["RunOfCheck"] = {
  name: "As it is",
  arguments: [],
  input: "",
  before: [],
  status: 0,
  after: [],
  elsewhere: "ALLOWED",
};

/** A check as one by a toolchain begins. */
const begun = (toolchain: Toolchain): Content => ({
  toolchain: toolchain.key,
  loose: toolchain.loose,
  files: [],
  build: toolchain.build,
  run: toolchain.run,
  // What is not run is a page, and is opened.
  ...(toolchain.run === "" ? { runs: [], page: FRESH_PAGE } : { runs: [AS_IT_IS] }),
  limits: { seconds: 20, memoryMb: 768, processes: 128, outputKb: 256 },
  withoutCode: "FAILS",
});

/** The one that a prompt's language names; of names that begin alike, the longest; else one that speaks of it. */
export function likely(toolchains: Toolchain[], language: string): Toolchain | undefined {
  const asked = language.toLowerCase();
  const named = toolchains.filter((t) => asked.startsWith(t.title.toLowerCase()));
  const first = asked.split(/\W/)[0] ?? "";
  const speaking = toolchains.find((t) => first !== "" && t.title.toLowerCase().split(/\W+/).includes(first));
  return named.toSorted((a, b) => b.title.length - a.title.length)[0] ?? speaking ?? toolchains[0];
}

type BeginProps = { promptId: string; toolchains: Toolchain[]; language: string };

function Begin({ promptId, toolchains, language }: BeginProps) {
  const study = useStudy();
  const client = useQueryClient();
  const [key, setKey] = useState(likely(toolchains, language)?.key ?? "");
  const chosen = toolchains.find((t) => t.key === key);
  const write = useMutation({
    mutationFn: (content: Content) => putCheck(study.id, promptId, { revision: 0, content }),
    onSuccess: (check) => client.setQueryData(checksOf(study.id).queryKey, (all) => [...(all ?? []), check]),
  });
  return (
    <>
      <h1>Check of answers’ code</h1>
      <p className="mt-2 mb-4 max-w-2xl">
        There is none yet. A check says how an answer’s code is put together, built and run, and what must come out.
        Answers and candidates never see it.
      </p>
      {study.stage !== "PREPARING" ? (
        <p>The round is open; no check is written any more.</p>
      ) : (
        <div className="flex flex-wrap items-end gap-3">
          <Choice
            label="By which toolchain"
            value={key}
            options={toolchains.map((t) => ({ value: t.key, label: `${t.title} (${t.version})` }))}
            onValue={setKey}
          />
          <Button
            tone="primary"
            disabled={chosen === undefined || write.isPending}
            onClick={() => chosen && write.mutate(begun(chosen))}
          >
            Begin the check
          </Button>
        </div>
      )}
      <Trouble error={write.error} className="mt-3" />
    </>
  );
}

type EditingProps = { prompt: Schemas["PromptView"]; check: Check; toolchains: Toolchain[] };

function useCheckDraft(check: Check): DraftInHand<Content> {
  const study = useStudy();
  const client = useQueryClient();
  const of = (view: Check) => ({ value: view.content, version: view.revision });
  return useDraft<Content>({
    name: `check.${check.promptId}`,
    ...of(check),
    save: async (content, revision) => {
      const saved = await putCheck(study.id, check.promptId, { revision, content });
      client.setQueryData(checksOf(study.id).queryKey, (all) =>
        all?.map((c) => (c.promptId === saved.promptId ? saved : c)),
      );
      return of(saved);
    },
    current: (problem) => of(currentOf<Check>(problem)),
  });
}

function Editing({ prompt, check, toolchains }: EditingProps) {
  const study = useStudy();
  const draft = useCheckDraft(check);
  const toolchain = toolchains.find((t) => t.key === draft.value.toolchain);
  const mayWrite = study.stage === "PREPARING";
  return (
    <>
      <DraftHead draft={draft} title="Check of answers’ code" what="The check" />
      <p className="mb-4">
        {toolchain === undefined
          ? `By ${draft.value.toolchain}, which this server does not offer.`
          : `By ${toolchain.title}: ${toolchain.version}.`}{" "}
        <Link to="../answers/trials">All trials</Link>
      </p>
      <fieldset disabled={!mayWrite}>
        <legend className="sr-only">What the check asks</legend>
        <CheckFields draft={draft} isSql={draft.value.toolchain === "sql"} />
      </fieldset>
      <TryCheck prompt={prompt} content={draft.value} />
      {mayWrite && <Remove promptId={prompt.id} />}
    </>
  );
}

function Remove({ promptId }: { promptId: string }) {
  const study = useStudy();
  const navigate = useNavigate();
  const [asked, setAsked] = useState(false);
  const remove = useRemoveCheck(study.id, promptId);
  return (
    <div className="mt-8">
      <Button onClick={() => setAsked(true)}>Take the check away …</Button>
      <Confirm
        title="Take the check away"
        open={asked}
        onOpenChange={setAsked}
        action="Take it away"
        busy={remove.isPending}
        onConfirm={() => remove.mutate(undefined, { onSuccess: () => void navigate(`../prompts/${promptId}`) })}
      >
        <p>The check and all trials by it are deleted. This cannot be undone.</p>
        <Trouble error={remove.error} className="mt-2" />
      </Confirm>
    </div>
  );
}
