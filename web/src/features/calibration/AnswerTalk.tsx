import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Choice, Field } from "../../ui/Field";
import { lineSpan } from "../../ui/format";
import { useKept } from "../../ui/useKept";
import { type Entry, SayForm, TalkList } from "../reconciliation";
import { useSayOfAnswer, type Which } from "./api";

type Answer = Schemas["AnswerTalk"];

/** Lines of the answer's text. */
export type AtLines = Schemas["AtLines"];

type AnswerTalkProps = {
  answer: Answer;
  criterion: Schemas["AnchoredCriterion"];
  which: Which;
  lines: AtLines | undefined;
  onLines: (lines: AtLines | undefined) => void;
  children: ReactNode;
};

const WHOLE = "the answer";

/** What is said of an answer: of a criterion, of lines, or of the whole. */
export function AnswerTalk({ answer, criterion, which, lines, onLines, children }: AnswerTalkProps) {
  const say = useSayOfAnswer(which, answer.place);
  const { chosen, choose } = useKept<{ about: string }>(`calibration.about.${which.studyId}`);
  const about = chosen.about ?? "criterion";
  return (
    <section id="talk" className="scroll-mt-4">
      <h2>The talk</h2>
      <TalkList
        entries={answer.words.map((w) => entry(w, answer))}
        nothing={answer.talking ? "Nobody has said anything yet." : "Nothing was said."}
      />
      {answer.talking && (
        <SayForm
          keptAs={`calibration.${which.studyId}.${which.number}.${answer.place}`}
          hint="Everybody who calibrates reads it, and the lead. Select lines of the answer to speak of them. Ctrl and Enter says it."
          maxLength={LIMITS.SayOfAnswer.words}
          busy={say.isPending}
          error={say.error}
          onSay={(id, words, done) =>
            say.mutate(
              {
                id,
                words,
                ...(about === "criterion" && { criterion: criterion.key }),
                ...(lines && { lines }),
              },
              {
                onSuccess: () => {
                  done();
                  onLines(undefined);
                },
              },
            )
          }
        >
          <div className="mb-2 flex flex-wrap items-end gap-3">
            <Choice
              label="About"
              className="w-44"
              value={about}
              options={[
                { value: "criterion", label: criterion.name.toLowerCase() },
                { value: "whole", label: WHOLE },
              ]}
              onValue={(about) => choose({ about })}
            />
            <LinesField lines={lines} onLines={onLines} last={answer.text.split("\n").length} />
          </div>
        </SayForm>
      )}
      {children}
    </section>
  );
}

type LinesFieldProps = { lines: AtLines | undefined; last: number; onLines: (lines: AtLines | undefined) => void };

/** Which lines are spoken of, by number, for whoever does not select them. */
function LinesField({ lines, last, onLines }: LinesFieldProps) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <LineField
        label="From line"
        last={last}
        value={lines?.from}
        onLine={(from) => onLines(from === undefined ? undefined : { from, to: Math.max(from, lines?.to ?? from) })}
      />
      <LineField
        label="To line"
        last={last}
        value={lines?.to}
        onLine={(to) => onLines(to === undefined ? undefined : { from: Math.min(to, lines?.from ?? to), to })}
      />
    </div>
  );
}

type LineFieldProps = {
  label: string;
  last: number;
  value: number | undefined;
  onLine: (line: number | undefined) => void;
};

function LineField({ label, last, value, onLine }: LineFieldProps) {
  return (
    <Field
      type="number"
      label={label}
      className="w-24"
      min={1}
      max={last}
      value={value ?? ""}
      onChange={(e) => onLine(e.target.value === "" ? undefined : Number(e.target.value))}
    />
  );
}

function entry(word: Answer["words"][number], answer: Answer): Entry {
  const criterion = answer.criteria.find((c) => c.key === word.criterion);
  const about = [
    criterion ? `on ${criterion.name.toLowerCase()}` : "",
    word.lines ? `at ${lineSpan(word.lines.from, word.lines.to)}` : "",
  ].filter(Boolean);
  return { key: word.id, at: word.at, by: word.by, own: word.own, head: about.join(", "), text: word.words };
}
