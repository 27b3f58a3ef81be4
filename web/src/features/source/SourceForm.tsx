import { type FormEvent, useState } from "react";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Area, Choice, Field, NumberField } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { useStudy } from "../study";
import { useWriteSource } from "./api";

type Content = Schemas["SourceContent"];

const BLANK: Content = {
  url: "",
  method: "POST",
  headers: [],
  body: '{\n  "text": "[[prompt]]",\n  "most": "[[output-tokens]]"\n}',
  turnAsked: "",
  turnReplied: "",
  shape: "WHOLE",
  textPointer: "",
  inputTokensPointer: "",
  outputTokensPointer: "",
  finishPointer: "",
  modelPointer: "",
  completeWords: [],
  refusedWords: [],
  endMark: "",
  mostOutputTokens: 4000,
  timeLimitMs: 300_000,
  mostTries: 3,
  mostAtOnce: 2,
};

const words = (text: string) =>
  text
    .split(",")
    .map((w) => w.trim())
    .filter((w) => w !== "");

type SourceFormProps = {
  candidateId: string;
  all: Schemas["SourcesView"];
  own: Schemas["SourceView"] | undefined;
  onDone: () => void;
};

/** What to send, what to read, and the limits. */
type SourceFields = ReturnType<typeof fieldsOf>;

/** What the fields of a source have in common: what stands in them, what is wrong with it, and how it changes. */
function fieldsOf(
  content: Content,
  set: (change: Partial<Content>) => void,
  errorOf: (field: string) => string | undefined,
) {
  const text = (
    field:
      | "url"
      | "textPointer"
      | "inputTokensPointer"
      | "outputTokensPointer"
      | "finishPointer"
      | "modelPointer"
      | "endMark",
  ) => ({
    value: content[field],
    error: errorOf(field),
    spellCheck: false,
    onChange: (e: { target: { value: string } }) => set({ [field]: e.target.value }),
  });
  const amount = (field: "mostOutputTokens" | "mostTries" | "mostAtOnce") => ({
    value: content[field],
    error: errorOf(field),
    onNumber: (n: number | undefined) => set({ [field]: Math.round(n ?? 0) }),
  });
  return { content, set, errorOf, text, amount };
}

export function SourceForm({ candidateId, all, own, onDone }: SourceFormProps) {
  const study = useStudy();
  const [content, setContent] = useState<Content>(own?.content ?? BLANK);
  const write = useWriteSource(study.id, candidateId);
  const set = (change: Partial<Content>) => setContent({ ...content, ...change });
  const failure = write.error;
  const errorOf = (field: string) => (failure instanceof ApiProblem ? failure.errorOf(`content.${field}`) : undefined);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    write.mutate({ version: own?.version ?? -1, content }, { onSuccess: onDone });
  };
  const form = fieldsOf(content, set, errorOf);
  return (
    <form onSubmit={submit} className="grid gap-4">
      <AddressFields form={form} allowed={all.allowed} />
      <Headers content={content} names={all.secretNames} errorOf={errorOf} onHeaders={(headers) => set({ headers })} />
      <Area
        code
        label="Request body"
        hint="JSON. Placeholders in it: “[[prompt]]” is the prompt with its code; “[[turns]]” is all turns so far; “[[attempt]]” and “[[output-tokens]]” are numbers. docs/formats/sources.md lists them all."
        value={content.body}
        error={errorOf("body")}
        onChange={(e) => set({ body: e.target.value })}
      />
      {content.body.includes("[[turns]]") && <TurnFields form={form} />}
      <Choice
        label="Response"
        className="w-72"
        value={content.shape}
        options={[
          { value: "WHOLE", label: "in one JSON document" },
          { value: "EVENTS", label: "in server-sent events" },
        ]}
        onValue={(shape) => set({ shape })}
      />
      <ReadFields form={form} />
      <BoundFields form={form} />
      {failure && (
        <Note tone="trouble" role="alert">
          {failure.message}
        </Note>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onDone}>Leave it</Button>
        <Button type="submit" tone="primary" disabled={write.isPending}>
          Keep it
        </Button>
      </div>
    </form>
  );
}

type HeadersProps = {
  content: Content;
  names: string[];
  errorOf: (field: string) => string | undefined;
  onHeaders: (headers: Content["headers"]) => void;
};

function Headers({ content: { headers }, names, errorOf, onHeaders }: HeadersProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Headers</legend>
      <p className="mb-1.5 text-sm text-ink-soft">
        A secret stands as <code className="font-mono">[[secret NAME]]</code>; its value stays in the server’s
        environment. {names.length === 0 ? "There are none yet." : `There are: ${names.join(", ")}.`}
      </p>
      {headers.map((header, i) => (
        <div key={i} className="mb-1.5 grid grid-cols-[12rem_1fr_auto] gap-2">
          <Field
            label={`Name of header ${i + 1}`}
            labelHidden
            maxLength={LIMITS.Header.name}
            value={header.name}
            error={errorOf(`headers[${i}].name`)}
            onChange={(e) => onHeaders(headers.with(i, { ...header, name: e.target.value }))}
          />
          <Field
            label={`Value of header ${i + 1}`}
            labelHidden
            maxLength={LIMITS.Header.value}
            value={header.value}
            error={errorOf(`headers[${i}].value`)}
            onChange={(e) => onHeaders(headers.with(i, { ...header, value: e.target.value }))}
          />
          <Button aria-label={`Take out header ${i + 1}`} onClick={() => onHeaders(headers.toSpliced(i, 1))}>
            Take out
          </Button>
        </div>
      ))}
      <AddButton onAdd={() => onHeaders([...headers, { name: "", value: "" }])}>Add a header</AddButton>
    </fieldset>
  );
}

type AddressFieldsProps = { form: SourceFields; allowed: string[] };

function AddressFields({ form, allowed }: AddressFieldsProps) {
  const { content, set, text } = form;
  return (
    <div className="grid grid-cols-[7rem_1fr] gap-3">
      <Choice
        label="Method"
        value={content.method}
        options={[
          { value: "POST", label: "POST" },
          { value: "PUT", label: "PUT" },
        ]}
        onValue={(method) => set({ method })}
      />
      <Field label="Address" hint={`This server may reach: ${allowed.join(", ")}`} {...text("url")} />
    </div>
  );
}

type TurnFieldsProps = { form: SourceFields };

function TurnFields({ form }: TurnFieldsProps) {
  const { content, set, errorOf } = form;
  return (
    <div className="grid grid-cols-2 gap-3">
      <Area
        code
        label="Template of our turn"
        hint="JSON with “[[text]]”."
        value={content.turnAsked}
        error={errorOf("turnAsked")}
        onChange={(e) => set({ turnAsked: e.target.value })}
      />
      <Area
        code
        label="Template of the candidate’s turn"
        hint="JSON with “[[text]]”."
        value={content.turnReplied}
        error={errorOf("turnReplied")}
        onChange={(e) => set({ turnReplied: e.target.value })}
      />
    </div>
  );
}

type ReadFieldsProps = { form: SourceFields };

/** Where in an answer the service says what. */
function ReadFields({ form }: ReadFieldsProps) {
  const { content, set, errorOf, text } = form;
  return (
    <div className="grid grid-cols-2 gap-3">
      <Field
        label="Pointer to the text"
        hint="JSON Pointer (RFC 6901) into its answer, such as /reply/text."
        {...text("textPointer")}
      />
      <Field
        label="Pointer to the finish reason"
        hint="Such as /reply/stopped; empty if it tells none."
        {...text("finishPointer")}
      />
      <Field
        label="Pointer to input tokens"
        hint="Empty if none are told: then they are estimated."
        {...text("inputTokensPointer")}
      />
      <Field label="Pointer to output tokens" {...text("outputTokensPointer")} />
      <Field
        label="Finish reasons of a complete answer"
        hint="With commas between them. Any other is incomplete."
        value={content.completeWords.join(", ")}
        error={errorOf("completeWords")}
        onChange={(e) => set({ completeWords: words(e.target.value) })}
      />
      <Field
        label="Finish reasons of a refusal"
        value={content.refusedWords.join(", ")}
        onChange={(e) => set({ refusedWords: words(e.target.value) })}
      />
      <Field
        label="Pointer to the model’s version"
        hint="What it says has answered. If that changes, collecting pauses."
        {...text("modelPointer")}
      />
      {content.shape === "EVENTS" && (
        <Field label="Data of the last event" hint="Empty if the stream just ends." {...text("endMark")} />
      )}
    </div>
  );
}

type BoundFieldsProps = { form: SourceFields };

function BoundFields({ form }: BoundFieldsProps) {
  const { content, set, errorOf, amount } = form;
  return (
    <div className="grid grid-cols-4 gap-3">
      <NumberField label="Most output tokens" {...amount("mostOutputTokens")} />
      <NumberField
        label="Time limit, seconds"
        value={content.timeLimitMs / 1000}
        error={errorOf("timeLimitMs")}
        onNumber={(s) => set({ timeLimitMs: Math.round((s ?? 0) * 1000) })}
      />
      <NumberField label="Tries" {...amount("mostTries")} />
      <NumberField label="Requests at once" {...amount("mostAtOnce")} />
    </div>
  );
}
