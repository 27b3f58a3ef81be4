import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { ApiProblem, type Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Area, Tick } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { sourcesOfStudy } from "../source";
import { useStudy } from "../study";
import { useAskFollowUp } from "./api";

type AskFollowUpProps = {
  answer: Schemas["AnswerView"];
  /** What every candidate is told next. */
  prepared: string[];
};

/** Asks the candidate of an answer one thing more, where it has a source. */
export function AskFollowUp({ answer, prepared }: AskFollowUpProps) {
  const study = useStudy();
  const navigate = useNavigate();
  const sources = useQuery(sourcesOfStudy(study.id));
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState(prepared[answer.followUps.length] ?? "");
  const [mayBeSent, setMayBeSent] = useState(false);
  const ask = useAskFollowUp(study.id);
  if (!sources.data?.sources.some((s) => s.candidateId === answer.candidateId)) {
    return null;
  }
  const isPrepared = prepared.some((p) => p.trim() === asked.trim());
  return (
    <>
      <Button onClick={() => setOpen(true)}>Follow it up …</Button>
      <Dialog title="Follow the answer up" open={open} onOpenChange={setOpen}>
        <p className="mb-3">The candidate is told this with all that was said before.</p>
        <Area
          label="What it is told"
          hint={
            isPrepared
              ? "As prepared for all."
              : "For this answer alone: it is marked as followed up unequally, and the recommendation says so."
          }
          maxLength={LIMITS.AskFollowUp.asked}
          value={asked}
          onChange={(e) => {
            setAsked(e.target.value);
            // It was said of other words.
            setMayBeSent(false);
          }}
        />
        {ask.isError && (
          <Note tone="trouble" role="alert" className="mt-3">
            {ask.error.message}
          </Note>
        )}
        {ask.error instanceof ApiProblem && ask.error.type === "secrets-found" && (
          <SecretInWords mayBeSent={mayBeSent} onMayBeSent={setMayBeSent} />
        )}
        <div className="mt-3 flex justify-end gap-2">
          <Button onClick={() => setOpen(false)}>Leave it</Button>
          <Button
            tone="primary"
            disabled={ask.isPending || asked.trim() === ""}
            onClick={() =>
              ask.mutate(
                { answerId: answer.id, asked, ...(mayBeSent && { mayBeSent }) },
                { onSuccess: (run) => void navigate(`/studies/${study.id}/answers/runs/${run.id}`) },
              )
            }
          >
            Ask
          </Button>
        </div>
      </Dialog>
    </>
  );
}

type SecretInWordsProps = { mayBeSent: boolean; onMayBeSent: (mayBeSent: boolean) => void };

/** The words that are asked are decided on here, the prompt that is sent with them where answers are collected. */
function SecretInWords({ mayBeSent, onMayBeSent }: SecretInWordsProps) {
  const study = useStudy();
  return (
    <>
      <Tick checked={mayBeSent} label="What looks like a secret here may be sent" onTick={onMayBeSent} />
      <p className="mt-1 text-sm">
        What stands in the prompt itself is decided on where you{" "}
        <Link to={`/studies/${study.id}/answers/collect`}>collect from sources</Link>.
      </p>
    </>
  );
}
