import { useQueries } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { Choice } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { peopleOfStudy, useStudy } from "../study";
import {
  promptWarnings,
  readBacksOfStudy,
  useAddVariant,
  useAskReader,
  useJudgeReading,
  useKeep,
  useRemovePrompt,
  useTakeUp,
} from "./api";
import { SetAsideDialog } from "./SetAsideDialog";
import { Specimens } from "./Specimens";

type Prompt = Schemas["PromptView"];

type PromptSideProps = { prompt: Prompt; all: Prompt[]; settle: () => Promise<void> };

/** What stands beside a prompt while it is written: what to look at, who read it back, its other wordings, the bank. */
export function PromptSide({ prompt, all, settle }: PromptSideProps) {
  return (
    <aside className="grid h-fit gap-6">
      <Warnings promptId={prompt.id} />
      <ReadBacks prompt={prompt} />
      <Variants prompt={prompt} all={all} settle={settle} />
      <Keep prompt={prompt} settle={settle} />
      <Part title="Answers">
        <Link to={`../answers/${prompt.id}`}>Answers to this prompt</Link>
        <br />
        <Link to={`../prompts/${prompt.id}/check`}>Check of answers’ code</Link>
      </Part>
      <Specimens promptId={prompt.id} />
      <SetAside prompt={prompt} />
      <Remove prompt={prompt} />
    </aside>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-1 text-base">{title}</h2>
      {children}
    </section>
  );
}

function Warnings({ promptId }: { promptId: string }) {
  const study = useStudy();
  const [warnings] = useQueries({ queries: [promptWarnings(study.id)] });
  const own = warnings.data?.find((w) => w.promptId === promptId)?.warnings ?? [];
  return (
    <Part title="To look at">
      {own.length === 0 ? (
        <p className="text-ink-soft">Nothing that usually goes wrong.</p>
      ) : (
        <ul className="grid gap-1.5">
          {own.map((w) => (
            <li key={w.type + w.words} className="border-l-4 border-ochre pl-2 text-sm">
              {w.words}
            </li>
          ))}
        </ul>
      )}
    </Part>
  );
}

function ReadBacks({ prompt }: { prompt: Prompt }) {
  const study = useStudy();
  const [readBacks, people] = useQueries({ queries: [readBacksOfStudy(study.id), peopleOfStudy(study.id)] });
  const ask = useAskReader(study.id, prompt.id);
  const judge = useJudgeReading(study.id);
  const own = readBacks.data?.filter((r) => r.promptId === prompt.id) ?? [];
  const free = people.data?.filter((p) => p.role === "RATER" && !own.some((r) => r.readerId === p.accountId)) ?? [];
  const [chosen, setChosen] = useState("");
  return (
    <Part title="Read back">
      <p className="mb-2 text-sm text-ink-soft">A second developer says what they think is asked.</p>
      <ul className="grid gap-3">
        {own.map((r) => (
          <ReadBack key={r.id} readBack={r} onJudge={(verdict) => judge.mutate({ readBackId: r.id, verdict })} />
        ))}
      </ul>
      {free.length > 0 ? (
        <div className="mt-2 flex items-end gap-2">
          <Choice
            label="Ask"
            className="flex-1"
            value={chosen}
            options={[
              { value: "", label: "choose a rater" },
              ...free.map((p) => ({ value: p.accountId, label: p.name })),
            ]}
            onValue={setChosen}
          />
          <Button
            disabled={chosen === "" || ask.isPending}
            onClick={() => ask.mutate(chosen, { onSuccess: () => setChosen("") })}
          >
            Ask
          </Button>
        </div>
      ) : (
        own.length === 0 && (
          <p className="mt-2 text-sm">
            Raters are added under <Link to="../grading">Grading</Link>.
          </p>
        )
      )}
      {ask.isError && <Note tone="trouble">{ask.error.message}</Note>}
    </Part>
  );
}

function Variants({ prompt, all, settle }: PromptSideProps) {
  const study = useStudy();
  const add = useAddVariant(study.id, prompt.id);
  const navigate = useNavigate();
  const base = prompt.variantOf ?? prompt.id;
  const family = all.filter((p) => p.id !== prompt.id && (p.id === base || p.variantOf === base));
  const addAs = (wording: "VAGUE" | "EXACT") =>
    void settle().then(() =>
      add.mutate(wording, { onSuccess: (variant) => void navigate(`../prompts/${variant.id}`) }),
    );
  return (
    <Part title="Other wordings">
      <p className="mb-2 text-sm text-ink-soft">
        Vague and exact requests behave differently. A wording is asked and graded by itself, and drawn together with
        the others when intervals are made.
      </p>
      {family.length > 0 && (
        <ul className="mb-2">
          {family.map((p) => (
            <li key={p.id}>
              <Link to={`../prompts/${p.id}`}>{p.content.title || "Without a title"}</Link>
              {p.wording && <span className="text-sm text-ink-soft">, {p.wording.toLowerCase()}</span>}
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        <Button disabled={add.isPending} onClick={() => addAs("VAGUE")}>
          Add a vague one
        </Button>
        <Button disabled={add.isPending} onClick={() => addAs("EXACT")}>
          Add an exact one
        </Button>
      </div>
      {add.isError && <Note tone="trouble">{add.error.message}</Note>}
    </Part>
  );
}

function Keep({ prompt, settle }: { prompt: Prompt; settle: () => Promise<void> }) {
  const study = useStudy();
  const keep = useKeep(study.id, prompt.id);
  return (
    <Part title="The team’s bank">
      <p className="mb-2 text-sm text-ink-soft">
        {prompt.bank
          ? `This is version ${prompt.bank.number} there, with what was written since.`
          : "Kept there, it can be asked in other studies too."}
      </p>
      <Button disabled={keep.isPending} onClick={() => void settle().then(() => keep.mutate())}>
        {prompt.bank ? "Keep it as it is now" : "Keep it"}
      </Button>
      {keep.isSuccess && (
        <span role="status" className="ml-2 text-sm">
          Kept as version {keep.data.bank?.number}.
        </span>
      )}
      {keep.isError && <Note tone="trouble">{keep.error.message}</Note>}
    </Part>
  );
}

/** A prompt that turned out faulty stays on record and counts nowhere; it can be taken up again. */
export function SetAside({ prompt }: { prompt: Prompt }) {
  const study = useStudy();
  // Which of the two is asked about: once one is done, its window does not turn into the other's.
  const [asking, setAsking] = useState<"aside" | "taken-up">();
  const done = () => setAsking(undefined);
  return (
    <Part title="Faulty?">
      {prompt.fault && (
        <p className="mb-2 text-sm">
          Set aside {moment(prompt.fault.at)}: {prompt.fault.reason}
        </p>
      )}
      {study.stage === "CLOSED" ? (
        <p className="text-sm text-ink-soft">
          The round is closed. {prompt.fault ? "It can count again" : "It can be set aside"} once the round is opened
          again.
        </p>
      ) : (
        <Button onClick={() => setAsking(prompt.fault ? "taken-up" : "aside")}>
          {prompt.fault ? "Let it count again …" : "Set it aside …"}
        </Button>
      )}
      {asking === "taken-up" && prompt.fault && <TakeUpDialog prompt={prompt} onClose={done} />}
      {asking === "aside" && !prompt.fault && <SetAsideDialog promptId={prompt.id} onClose={done} />}
    </Part>
  );
}

type TakeUpDialogProps = { prompt: Prompt; onClose: () => void };

function TakeUpDialog({ prompt, onClose }: TakeUpDialogProps) {
  const takeUp = useTakeUp(useStudy().id, prompt.id);
  return (
    <ReasonDialog
      title="Let the prompt count again?"
      label="Why it is sound after all"
      maxLength={LIMITS.FaultReason.reason}
      action="Let it count again"
      busy={takeUp.isPending}
      error={takeUp.error?.message}
      onReason={(reason) => takeUp.mutate(reason, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>Its answers and grades count again, in every figure.</p>
    </ReasonDialog>
  );
}

function Remove({ prompt }: { prompt: Prompt }) {
  const study = useStudy();
  const remove = useRemovePrompt(study.id);
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button tone="danger" className="w-fit" onClick={() => setAsking(true)}>
        Remove the prompt …
      </Button>
      <Confirm
        title="Remove the prompt?"
        open={asking}
        onOpenChange={setAsking}
        action="Remove it"
        busy={remove.isPending}
        onConfirm={() => remove.mutate(prompt.id, { onSuccess: () => void navigate("../prompts") })}
      >
        <p>
          Its request, key points, starting code and readings are gone then. A version that was kept in the bank stays
          there.
        </p>
        {remove.isError && <Note tone="trouble">{remove.error.message}</Note>}
      </Confirm>
    </>
  );
}

type ReadBackProps = { readBack: Schemas["ReadBackView"]; onJudge: (verdict: "UNDERSTOOD" | "UNCLEAR") => void };

function ReadBack({ readBack, onJudge }: ReadBackProps) {
  return (
    <li className="text-sm">
      <p>
        <strong className="font-medium">{readBack.reader}</strong>
        {readBack.answer === undefined ? " was asked and has not answered yet." : `: ${readBack.answer}`}
      </p>
      {readBack.answer !== undefined && (
        <p className="mt-1 flex flex-wrap gap-2">
          <Button aria-pressed={readBack.verdict === "UNDERSTOOD"} onClick={() => onJudge("UNDERSTOOD")}>
            {readBack.verdict === "UNDERSTOOD" && "✓ "}As I meant it
          </Button>
          <Button aria-pressed={readBack.verdict === "UNCLEAR"} onClick={() => onJudge("UNCLEAR")}>
            {readBack.verdict === "UNCLEAR" && "✓ "}Otherwise
          </Button>
        </p>
      )}
    </li>
  );
}
