import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Field";
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
              className="w-52"
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
  const field = (label: string, value: number | undefined, change: (line: number) => AtLines) => (
    <label className="text-sm">
      {label}
      <input
        type="number"
        min={1}
        max={last}
        value={value ?? ""}
        className="ml-1 w-20 rounded-leaf border border-edge bg-vellum px-1.5 py-0.5"
        onChange={(e) => onLines(e.target.value === "" ? undefined : change(Number(e.target.value)))}
      />
    </label>
  );
  return (
    <>
      {field("from line", lines?.from, (from) => ({ from, to: Math.max(from, lines?.to ?? from) }))}
      {field("to line", lines?.to, (to) => ({ from: Math.min(to, lines?.from ?? to), to }))}
      {lines && <Button onClick={() => onLines(undefined)}>No lines</Button>}
    </>
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
