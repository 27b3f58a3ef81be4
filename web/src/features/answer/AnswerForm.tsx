import { type FormEvent, useState } from "react";
import { useSearchParams } from "react-router";
import { ApiProblem, type Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm, Dialog } from "../../ui/Dialog";
import { Area, Choice, Field, NumberField, Tick } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Trouble } from "../../ui/Trouble";
import { AskFollowUp, OUTCOMES } from "../run";
import { useStudy } from "../study";
import { FollowUpFields } from "./FollowUpFields";
import { Stopwatch } from "./Stopwatch";
import { useAddAnswer, useRemoveAnswer, useWriteAnswer } from "./api";

type Written = Pick<Schemas["AnswerView"], "outcome" | "text" | "followUps" | "measures">;

const BLANK: Written = { outcome: "COMPLETE", text: "", followUps: [], measures: { estimated: false } };

type PasteAnswerProps = {
  prompt: Schemas["PromptView"];
  candidates: Schemas["CandidateView"][];
  answers: Schemas["AnswerView"][];
};

/** Pastes what a candidate gave, as its next attempt. */
export function PasteAnswer({ prompt, candidates, answers }: PasteAnswerProps) {
  const study = useStudy();
  const [search, setSearch] = useSearchParams();
  const asked = search.get("paste");
  const first =
    candidates.find((c) => c.id === asked) ?? candidates.find((c) => !answers.some((a) => a.candidateId === c.id));
  const [open, setOpen] = useState(asked !== null);
  const [candidateId, setCandidateId] = useState(first?.id ?? candidates[0]?.id ?? "");
  const add = useAddAnswer(study.id);
  const close = () => {
    setOpen(false);
    setSearch({}, { replace: true });
  };
  const attempt = 1 + answers.filter((a) => a.candidateId === candidateId).length;
  return (
    <>
      <Button tone="primary" className="mb-4" onClick={() => setOpen(true)}>
        Paste an answer
      </Button>
      <Dialog title="Paste an answer" open={open} onOpenChange={(next) => (next ? setOpen(true) : close())}>
        <Choice
          label="Candidate"
          hint={attempt > 1 ? `This will be its attempt ${attempt}.` : undefined}
          className="mb-3"
          value={candidateId}
          options={candidates.map((c) => ({ value: c.id, label: c.content.name || "Not named yet" }))}
          onValue={setCandidateId}
        />
        <AnswerFields
          name={`${prompt.id}.${candidateId}`}
          start={BLANK}
          prepared={prompt.content.followUps}
          action="Keep it"
          busy={add.isPending}
          failure={add.error}
          onCancel={close}
          onWrite={(written) => add.mutate({ promptId: prompt.id, candidateId, ...written }, { onSuccess: close })}
        />
      </Dialog>
    </>
  );
}

/** Corrects or removes an answer while nothing is graded. */
export function AnswerTools({ answer, prepared }: { answer: Schemas["AnswerView"]; prepared: string[] }) {
  const study = useStudy();
  const [writing, setWriting] = useState(false);
  const [removing, setRemoving] = useState(false);
  const write = useWriteAnswer(study.id, answer.id);
  const remove = useRemoveAnswer(study.id);
  return (
    <p className="flex gap-2 border-y border-rule py-2">
      <Button onClick={() => setWriting(true)}>Correct it</Button>
      <AskFollowUp answer={answer} prepared={prepared} />
      <Button onClick={() => setRemoving(true)}>Remove it …</Button>
      <Dialog title="Correct the answer" open={writing} onOpenChange={setWriting}>
        <AnswerFields
          name={answer.id}
          start={answer}
          prepared={prepared}
          action="Keep it so"
          busy={write.isPending}
          failure={write.error}
          onCancel={() => setWriting(false)}
          onWrite={(written) =>
            write.mutate({ version: answer.version, ...written }, { onSuccess: () => setWriting(false) })
          }
        />
      </Dialog>
      <Confirm
        title="Remove the answer?"
        open={removing}
        onOpenChange={setRemoving}
        action="Remove it"
        busy={remove.isPending}
        onConfirm={() => remove.mutate(answer.id, { onSuccess: () => setRemoving(false) })}
      >
        <p>Its text, outcome and measures are gone then. A run that failed is a result too and is better kept.</p>
        {remove.isError && <Note tone="trouble">{remove.error.message}</Note>}
      </Confirm>
    </p>
  );
}

type AnswerFieldsProps = {
  name: string;
  start: Written;
  /** What every candidate is told next. */
  prepared: string[];
  action: string;
  busy: boolean;
  failure: Error | null;
  onCancel: () => void;
  onWrite: (written: Written) => void;
};

function AnswerFields({ name, start, prepared, action, busy, failure, onCancel, onWrite }: AnswerFieldsProps) {
  const [written, setWritten] = useState<Written>({
    outcome: start.outcome,
    text: start.text,
    followUps: start.followUps,
    measures: start.measures,
  });
  const { measures } = written;
  const errorOf = (field: string) => (failure instanceof ApiProblem ? failure.errorOf(field) : undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onWrite(written);
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      <Choice
        label="How it ended"
        value={written.outcome}
        options={(["COMPLETE", "INCOMPLETE", "REFUSED", "FAILED", "TIMED_OUT"] as const).map((o) => ({
          value: o,
          label: OUTCOMES[o],
        }))}
        onValue={(outcome) => setWritten({ ...written, outcome })}
      />
      <Area
        label="Answer"
        hint="Markdown, as the candidate gave it."
        className="[&_textarea]:max-h-72"
        value={written.text}
        error={errorOf("text")}
        onChange={(e) => setWritten({ ...written, text: e.target.value })}
      />
      <FollowUpFields
        turns={written.followUps}
        prepared={prepared}
        error={errorOf("followUps")}
        onTurns={(followUps) => setWritten({ ...written, followUps })}
      />
      <MeasureFields
        name={name}
        measures={measures}
        onMeasures={(now) => setWritten({ ...written, measures: now })}
        errorOf={errorOf}
      />
      <Tick
        checked={measures.estimated}
        label="Tokens and cost are estimates"
        onTick={(estimated) => setWritten({ ...written, measures: { ...measures, estimated } })}
      />
      <Trouble error={failure} />
      <div className="flex justify-end gap-2">
        <Button onClick={onCancel}>Leave it</Button>
        <Button type="submit" tone="primary" disabled={busy}>
          {action}
        </Button>
      </div>
    </form>
  );
}

type MeasureFieldsProps = {
  /** Under which a stopwatch goes on. */
  name: string;
  measures: Schemas["Measures"];
  onMeasures: (measures: Schemas["Measures"]) => void;
  errorOf: (field: string) => string | undefined;
};

/** What an answer took, as far as somebody measured it. */
function MeasureFields({ name, measures, onMeasures, errorOf }: MeasureFieldsProps) {
  const measure = (field: Exclude<keyof Schemas["Measures"], "estimated">, value: number | string | undefined) => {
    const { [field]: _, ...rest } = measures;
    onMeasures(value === undefined ? rest : { ...rest, [field]: value });
  };
  return (
    <div className="grid grid-cols-3 gap-3">
      <div className="col-span-3">
        <Stopwatch name={name} onMeasured={(ms) => measure("totalMs", ms)} />
      </div>
      <NumberField
        label="Seconds to first output"
        value={measures.firstOutputMs === undefined ? undefined : measures.firstOutputMs / 1000}
        onNumber={(s) => measure("firstOutputMs", s === undefined ? undefined : Math.round(s * 1000))}
      />
      <NumberField
        label="Seconds in all"
        value={measures.totalMs === undefined ? undefined : measures.totalMs / 1000}
        onNumber={(s) => measure("totalMs", s === undefined ? undefined : Math.round(s * 1000))}
      />
      <NumberField
        label="Tokens in"
        value={measures.inputTokens}
        onNumber={(n) => measure("inputTokens", n === undefined ? undefined : Math.round(n))}
      />
      <NumberField
        label="Tokens out"
        value={measures.outputTokens}
        onNumber={(n) => measure("outputTokens", n === undefined ? undefined : Math.round(n))}
      />
      <NumberField
        label="Cost"
        value={measures.cost}
        error={errorOf("measures.currencyWithCost")}
        onNumber={(cost) => measure("cost", cost)}
      />
      <Field
        label="Currency"
        placeholder="EUR"
        maxLength={3}
        value={measures.currency ?? ""}
        error={errorOf("measures.currency")}
        onChange={(e) => measure("currency", e.target.value.toUpperCase() || undefined)}
      />
    </div>
  );
}
