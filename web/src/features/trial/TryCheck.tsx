import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Trouble } from "../../ui/Trouble";
import { answersOfStudy } from "../answer";
import { useStudy } from "../study";
import { useTryCheck } from "./api";
import { TrialItems } from "../evidence";

type Subject = Schemas["TryCheck"]["subject"];

type TryCheckProps = { prompt: Schemas["PromptView"]; content: Schemas["CheckContent"] };

/** Tries a check before it is trusted: on the starting code, on the reference answer, on any answer. */
export function TryCheck({ prompt, content }: TryCheckProps) {
  const study = useStudy();
  const answers = useQuery(answersOfStudy(study.id));
  const own = answers.data?.filter((a) => a.promptId === prompt.id) ?? [];
  const [on, setOn] = useState("STARTING_CODE");
  const isRepository = content.repository !== undefined;
  const attempt = useTryCheck(study.id, prompt.id);
  const options = [
    {
      value: "STARTING_CODE",
      label: isRepository ? "the repository as it is" : "the starting code: it must fail",
    },
    ...(prompt.content.referenceAnswer.trim() === ""
      ? []
      : [{ value: "REFERENCE_ANSWER", label: "the reference answer: it must pass" }]),
    ...own.map((a) => ({ value: a.id, label: `answer ${a.key}` })),
  ];
  const subject: Subject = on === "STARTING_CODE" || on === "REFERENCE_ANSWER" ? on : "ANSWER";
  return (
    <section aria-label="Try the check" className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-2">Try the check</h2>
      <div className="flex flex-wrap items-end gap-3">
        <Choice label="On" value={on} options={options} onValue={setOn} />
        <Button
          tone="primary"
          disabled={attempt.isPending}
          onClick={() => attempt.mutate({ subject, content, ...(subject === "ANSWER" ? { answerId: on } : {}) })}
        >
          {attempt.isPending ? "Trying …" : "Try it"}
        </Button>
        <p className="pb-1.5 text-sm text-ink-soft">
          Of a saved check it is kept whether the starting code fails and the reference passes.
        </p>
      </div>
      <Trouble error={attempt.error} className="mt-3" />
      {attempt.data && !attempt.isPending && (
        <div className="mt-4" role="status">
          <Verdict
            subject={attempt.variables.subject}
            passed={attempt.data.result.summary.outcome === "PASSED"}
            isRepository={attempt.data.result.repository !== undefined}
          />
          <TrialItems
            result={attempt.data.result}
            pictureAt={(place) => `data:image/png;base64,${attempt.data.pictures[place] ?? ""}`}
          />
        </div>
      )}
    </section>
  );
}

type VerdictProps = {
  subject: Subject;
  passed: boolean;
  /** One whose tests pass may still be broken by an answer. */
  isRepository: boolean;
};

/** Whether a check can be trusted so far. */
function Verdict({ subject, passed, isRepository }: VerdictProps) {
  if (subject === "STARTING_CODE" && passed && !isRepository) {
    return (
      <Note tone="caution" className="mb-3">
        The starting code passes already: this check tells nothing about an answer.
      </Note>
    );
  }
  if (subject === "REFERENCE_ANSWER" && !passed) {
    return (
      <Note tone="caution" className="mb-3">
        The reference answer does not pass: the check asks what a right answer does not do, or the answer is not right.
      </Note>
    );
  }
  return null;
}
