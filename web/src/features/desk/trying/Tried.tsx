import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { Note } from "../../../ui/Note";
import { Query } from "../../../ui/Query";
import type { Place } from "../../evidence";
import { inputsOnSheet, trialsOnSheet } from "./api";
import { GiveInput } from "./GiveInput";
import { Repairing } from "./Repairing";
import { TriedTable } from "./TriedTable";

type Sheet = Schemas["SheetView"];

type TriedProps = {
  sheet: Sheet;
  /** Which answers are shown, from left to right. */
  columns: number[];
  locked: boolean;
  /** Which picture of the pages is enlarged. */
  enlarged: Place | undefined;
  onEnlarge: (at: Place | undefined) => void;
  onClose: () => void;
};

const SHOWN: Record<Schemas["TrialsOnSheet"]["shown"], string> = {
  FROM_THE_START: "By the brief you may look from the start.",
  AFTER_OWN_GRADE: "By the brief you see what came of an answer once you have graded it.",
  NEVER: "By the brief raters do not see trials.",
};

/** What came of trying the answers: the same rows for all of them, so that one glance shows who fails where. */
export function Tried({ onClose, ...props }: TriedProps) {
  const { sheet } = props;
  const trials = useQuery(trialsOnSheet(sheet.id));
  return (
    <section
      aria-label="What came of trying the answers"
      tabIndex={0}
      data-column="trying"
      className="min-h-0 flex-1 overflow-auto py-2"
    >
      <div className="mb-2 flex flex-wrap items-baseline gap-x-3 px-3">
        <h2 className="text-base">What came of trying the answers</h2>
        {trials.data && <p className="text-sm text-ink-soft">{SHOWN[trials.data.shown]}</p>}
        <Button className="ml-auto" onClick={onClose}>
          Back to the answers
        </Button>
      </div>
      <Query of={trials} what="what came of trying the answers">
        {(shown) => <Shown trials={shown} {...props} />}
      </Query>
    </section>
  );
}

type ShownProps = Omit<TriedProps, "onClose"> & { trials: Schemas["TrialsOnSheet"] };

function Shown({ sheet, trials, columns, locked, enlarged, onEnlarge }: ShownProps) {
  const inputs = useQuery(inputsOnSheet(sheet.id));
  const [repairing, setRepairing] = useState<string>();
  const seen = trials.answers.filter((a) => !a.awaitsGrade).map((a) => a.answerId);
  const answers = columns.flatMap((column) => {
    const answer = sheet.answers[column];
    const trial = trials.answers.find((t) => t.answerId === answer?.id);
    return answer && trial ? [{ answer, trial }] : [];
  });
  const number = sheet.answers.find((a) => a.id === repairing)?.number;
  const isOff = trials.missing !== undefined;
  return (
    <>
      <TriedTable
        answers={answers}
        inputs={inputs.data ?? []}
        onRepair={locked || isOff ? undefined : setRepairing}
        sheetId={sheet.id}
        enlarged={enlarged}
        onEnlarge={onEnlarge}
      />
      {isOff && (
        <Note tone="info" className="mx-3 mt-3">
          Nothing new can be tried on this server, as {trials.missing}.
        </Note>
      )}
      {!isOff && !locked && trials.takesInput && seen.length > 0 && (
        <GiveInput sheetId={sheet.id} answerIds={seen} left={trials.inputsLeft} />
      )}
      {repairing !== undefined && number !== undefined && (
        <Repairing sheetId={sheet.id} answerId={repairing} number={number} onClose={() => setRepairing(undefined)} />
      )}
    </>
  );
}
