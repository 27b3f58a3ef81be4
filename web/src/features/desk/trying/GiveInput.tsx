import { type FormEvent, useState } from "react";
import { LIMITS } from "../../../api/limits";
import { Button } from "../../../ui/Button";
import { Area, Field } from "../../../ui/Field";
import { count } from "../../../ui/format";
import { Trouble } from "../../../ui/Trouble";
import { useGiveInput } from "./api";

type GiveInputProps = {
  sheetId: string;
  /** Those whose trials are seen. */
  answerIds: string[];
  left: number;
};

/** Words of a line; what stands in double quotes is one. */
export const wordsOf = (line: string): string[] =>
  [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((m) => m[1] ?? m[2] ?? "");

/** An input of one's own for all answers, to see side by side what each does with it. */
export function GiveInput({ sheetId, answerIds, left }: GiveInputProps) {
  const [line, setLine] = useState("");
  const [input, setInput] = useState("");
  const giving = useGiveInput(sheetId, answerIds);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    giving.mutate({ arguments: wordsOf(line), input });
  };
  return (
    <form onSubmit={submit} className="mx-3 mt-4 max-w-4xl pt-1">
      <h3 className="mb-1 text-base">An input of your own, for all of them</h3>
      <div className="grid gap-3 sm:grid-cols-2">
        <Field
          label="Arguments"
          hint="Words after the command; one with spaces in double quotes."
          value={line}
          maxLength={2000}
          onChange={(e) => setLine(e.target.value)}
        />
        <Area
          label="Standard input"
          code
          rows={2}
          maxLength={LIMITS.GiveInput.input}
          value={input}
          onChange={(e) => setInput(e.target.value)}
        />
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button type="submit" disabled={giving.isPending || left === 0}>
          {giving.isPending ? "Running …" : `Give it to ${count(answerIds.length, "answer", "answers")}`}
        </Button>
        <span className="text-sm text-ink-soft">
          {left === 0 ? "This sheet takes no more." : `${left} more on this sheet. It is counted that you did.`}
        </span>
      </div>
      <Trouble error={giving.error} className="mt-2" />
    </form>
  );
}
