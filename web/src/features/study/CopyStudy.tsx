import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Field, Tick } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { copyStudy, studyKeys } from "./api";

type CopyStudyProps = { study: { id: string; title: string }; onClose: () => void };

/** Makes a second study from what one was prepared with. */
export function CopyStudy({ study, onClose }: CopyStudyProps) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [title, setTitle] = useState(`${study.title}, again`.slice(0, LIMITS.CopyStudy.title));
  const [answers, setAnswers] = useState(false);
  const copy = useMutation({
    mutationFn: () => copyStudy(study.id, { title, answers }),
    onSuccess: async ({ studyId }) => {
      await client.invalidateQueries({ queryKey: studyKeys.all });
      void navigate(`/studies/${studyId}/brief`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    copy.mutate();
  };
  return (
    <Dialog title="Make a second one" open onOpenChange={(open) => !open && onClose()}>
      <form onSubmit={submit} className="grid gap-3 text-left">
        <p>
          Brief, prompts, candidates with their sources, checks and rubric come along. People, grades and whatever was
          found do not.
        </p>
        <Field
          label="Title"
          required
          maxLength={LIMITS.CopyStudy.title}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <Tick label="With its answers, and what masks them" checked={answers} onTick={setAnswers} />
        <Trouble error={copy.error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button type="submit" tone="primary" disabled={copy.isPending}>
            Make it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
