import { useQueries, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { currentOf, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { DraftHead } from "../../ui/DraftHead";
import { Area, Choice, Field, NumberField, Tick } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Failure } from "../../ui/Query";
import { useDraft } from "../../ui/useDraft";
import { useTitle } from "../../ui/useTitle";
import { SourcePart } from "../source";
import { peopleOfStudy, studyKeys, useStepsChanged, useStudy } from "../study";
import { candidatesOfStudy, putCandidate, useRemoveCandidate } from "./api";
import { CapFields, withCap } from "./CapFields";
import { Considerations } from "./Considerations";
import { ConsiderationsOnRecord } from "./ConsiderationsOnRecord";

type Candidate = Schemas["CandidateView"];
type Content = Schemas["CandidateContent"];

export function CandidatePage() {
  const study = useStudy();
  const candidateId = useParams()["candidateId"] ?? "";
  const [candidates] = useQueries({ queries: [candidatesOfStudy(study.id)] });
  const candidate = candidates.data?.find((c) => c.id === candidateId);
  useTitle(candidate && `${candidate.content.name || "Candidate"} · ${study.title}`);
  if (candidates.error) {
    return <Failure error={candidates.error} what="the candidate" onRetry={() => void candidates.refetch()} />;
  }
  if (!candidates.data) {
    return <p role="status">Fetching the candidate …</p>;
  }
  return (
    <div className="max-w-4xl">
      <p className="mb-1 text-sm">
        <Link to="../candidates">All candidates</Link>
      </p>
      {candidate ? <CandidateEditor key={candidate.id} candidate={candidate} /> : <p>It is not in the study.</p>}
    </div>
  );
}

/** What the server would refuse and nobody means: lines that are still empty. */
function cleaned(content: Content): Content {
  return {
    ...content,
    settings: content.settings.filter((s) => s.name.trim() !== ""),
    considerations: content.considerations.filter((c) => c.text.trim() !== ""),
  };
}

const draftOf = (view: Candidate) => ({ value: view.content, version: view.version });

/** A candidate as it is being written. */
function useCandidateDraft(candidate: Candidate) {
  const study = useStudy();
  const client = useQueryClient();
  const stepsChanged = useStepsChanged(study.id);
  return useDraft<Content>({
    name: `candidate.${candidate.id}`,
    ...draftOf(candidate),
    save: async (value, version) => {
      const saved = await putCandidate(study.id, candidate.id, { version, content: cleaned(value) });
      client.setQueryData(candidatesOfStudy(study.id).queryKey, (old) =>
        old?.map((c) => (c.id === saved.id ? saved : c)),
      );
      void client.invalidateQueries({ queryKey: studyKeys.part(study.id, "candidates", "unlike") });
      stepsChanged();
      return draftOf(saved);
    },
    current: (problem) => draftOf(currentOf<Candidate>(problem)),
  });
}

function CandidateEditor({ candidate }: { candidate: Candidate }) {
  const preparing = useStudy().stage === "PREPARING";
  const draft = useCandidateDraft(candidate);
  const content = draft.value;
  const write = (change: Partial<Content>, group?: string) => draft.change({ ...content, ...change }, group);
  return (
    <>
      <DraftHead
        draft={draft}
        title={content.name || (content.baseline ? "New baseline" : "New candidate")}
        what="The candidate"
      />
      {!preparing && (
        <Note tone="info" className="mb-4">
          The round has been opened: settings and prices stay as they are. Facts that no grade covers can still be added
          while raters grade, with a reason.
        </Note>
      )}
      <fieldset disabled={!preparing} className="grid gap-5">
        <legend className="sr-only">What it is</legend>
        <WhatItIs content={content} onChange={(next, group) => draft.change(next, group)} />
        <Baseline content={content} onChange={(next) => draft.change(next)} />
        {!content.baseline && <Settings content={content} onChange={write} />}
        {!content.baseline && <Prices content={content} onChange={(next, group) => draft.change(next, group)} />}
      </fieldset>
      {preparing ? (
        <Considerations
          considerations={content.considerations}
          onChange={(considerations, group) => write({ considerations }, group)}
        />
      ) : (
        <ConsiderationsOnRecord candidate={candidate} />
      )}
      <fieldset disabled={!preparing} className="mt-5">
        <legend className="sr-only">Notes</legend>
        <Area
          label="Notes"
          hint="Anything else. Markdown."
          maxLength={LIMITS.CandidateContent.note}
          value={content.note}
          onChange={(e) => write({ note: e.target.value }, "note")}
        />
      </fieldset>
      {!content.baseline && <SourcePart candidateId={candidate.id} />}
      {preparing && <Remove candidate={candidate} />}
    </>
  );
}

function Baseline({ content, onChange }: { content: Content; onChange: (next: Content) => void }) {
  const study = useStudy();
  const [people] = useQueries({ queries: [peopleOfStudy(study.id)] });
  const { personId: _, ...nobody } = content;
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <Tick
        checked={content.baseline}
        label="A baseline: a person’s own answers"
        hint="Graded blind among the rest, never recommended."
        onTick={(baseline) => onChange({ ...nobody, baseline })}
      />
      {content.baseline && (
        <Choice
          label="Whose"
          hint="They do not grade their own."
          value={content.personId ?? ""}
          options={[
            { value: "", label: "nobody of this study" },
            ...(people.data ?? []).map((p) => ({ value: p.accountId, label: p.name })),
          ]}
          onValue={(id) => onChange(id === "" ? nobody : { ...nobody, personId: id })}
        />
      )}
    </div>
  );
}

type PartProps = { content: Content; onChange: (change: Partial<Content>, group?: string) => void };

function Settings({ content, onChange }: PartProps) {
  const { settings } = content;
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Settings</legend>
      <p className="mb-1.5 text-sm text-ink-soft">
        Whatever could change an answer: effort, temperature, tools allowed, how it sits in the editor.
      </p>
      <ol className="grid gap-1.5">
        {settings.map((setting, i) => (
          <li key={i} className="grid grid-cols-[12rem_1fr_auto] gap-2">
            <Field
              label={`Name of setting ${i + 1}`}
              labelHidden
              placeholder="effort"
              maxLength={LIMITS.Setting.name}
              value={setting.name}
              onChange={(e) =>
                onChange({ settings: settings.with(i, { ...setting, name: e.target.value }) }, `setting ${i}`)
              }
            />
            <Field
              label={`Value of setting ${i + 1}`}
              labelHidden
              placeholder="high"
              maxLength={LIMITS.Setting.value}
              value={setting.value}
              onChange={(e) =>
                onChange({ settings: settings.with(i, { ...setting, value: e.target.value }) }, `value ${i}`)
              }
            />
            <Button
              aria-label={`Take out setting ${i + 1}`}
              onClick={() => onChange({ settings: settings.toSpliced(i, 1) })}
            >
              Take out
            </Button>
          </li>
        ))}
      </ol>
      <AddButton className="mt-1.5" onAdd={() => onChange({ settings: [...settings, { name: "", value: "" }] })}>
        Add a setting
      </AddButton>
    </fieldset>
  );
}

type Amount = "inputPerMillion" | "outputPerMillion" | "monthly";

function Prices({ content, onChange }: { content: Content; onChange: (next: Content, group?: string) => void }) {
  const { price } = content;
  const set = (field: Amount) => (value: number | undefined) => {
    const { [field]: _, ...rest } = price;
    const next: Content["price"] = value === undefined ? rest : { ...rest, [field]: value };
    const { currency, ...amounts } = next;
    const known = amounts.inputPerMillion ?? amounts.outputPerMillion ?? amounts.monthly;
    // A currency belongs to an amount, and one is taken for granted until it is named.
    onChange({ ...content, price: known === undefined ? amounts : { ...amounts, currency: currency ?? "EUR" } }, field);
  };
  const { contextWindow: _, ...withoutWindow } = content;
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Price and size</legend>
      <div className="grid gap-4 sm:grid-cols-3">
        <NumberField label="A million tokens in" value={price.inputPerMillion} onNumber={set("inputPerMillion")} />
        <NumberField label="A million tokens out" value={price.outputPerMillion} onNumber={set("outputPerMillion")} />
        <NumberField label="A plan, a month and person" value={price.monthly} onNumber={set("monthly")} />
        <Field
          label="Currency"
          placeholder="EUR"
          maxLength={3}
          value={price.currency ?? ""}
          onChange={(e) => {
            const { currency: _c, ...rest } = price;
            const currency = e.target.value.toUpperCase();
            onChange({ ...content, price: currency ? { ...rest, currency } : rest }, "currency");
          }}
        />
        <Field
          label="Caps of the plan, in words"
          maxLength={LIMITS.Price.caps}
          value={price.caps}
          onChange={(e) => onChange({ ...content, price: { ...price, caps: e.target.value } }, "caps")}
        />
        <CapFields cap={price.cap} onCap={(cap) => onChange({ ...content, price: withCap(price, cap) }, "cap")} />
        <NumberField
          label="Context window, in tokens"
          value={content.contextWindow}
          onNumber={(size) =>
            onChange(
              size !== undefined && Number.isInteger(size) && size > 0
                ? { ...withoutWindow, contextWindow: size }
                : withoutWindow,
              "context",
            )
          }
        />
      </div>
    </fieldset>
  );
}

function Remove({ candidate }: { candidate: Candidate }) {
  const study = useStudy();
  const remove = useRemoveCandidate(study.id);
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button tone="danger" className="mt-8" onClick={() => setAsking(true)}>
        Remove it …
      </Button>
      <Confirm
        title="Remove the candidate?"
        open={asking}
        onOpenChange={setAsking}
        action="Remove it"
        busy={remove.isPending}
        onConfirm={() => remove.mutate(candidate.id, { onSuccess: () => void navigate("../candidates") })}
      >
        <p>Its settings, prices and considerations are gone then.</p>
        {remove.isError && <Note tone="trouble">{remove.error.message}</Note>}
      </Confirm>
    </>
  );
}

type WhatItIsProps = { content: Content; onChange: (next: Content, group: string) => void };

function WhatItIs({ content, onChange }: WhatItIsProps) {
  return (
    <div className="grid gap-4 sm:grid-cols-3">
      <Field
        label="Name"
        maxLength={LIMITS.CandidateContent.name}
        value={content.name}
        onChange={(e) => onChange({ ...content, name: e.target.value }, "name")}
      />
      <Field
        label="Version"
        maxLength={LIMITS.CandidateContent.version}
        value={content.version}
        onChange={(e) => onChange({ ...content, version: e.target.value }, "version")}
      />
      <Field
        label="As of"
        type="date"
        value={content.asOf ?? ""}
        onChange={(e) => {
          const { asOf: _, ...rest } = content;
          onChange(e.target.value ? { ...rest, asOf: e.target.value } : rest, "asOf");
        }}
      />
    </div>
  );
}
