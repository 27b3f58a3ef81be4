import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Field } from "../../ui/Field";
import { ProofOrTrouble } from "../account";
import { deleteStudy, studyKeys } from "./api";

type DeleteStudyProps = { study: { id: string; title: string }; onClose: () => void };

/** Deletes a study, once its title was written to show that it is meant. */
export function DeleteStudy({ study, onClose }: DeleteStudyProps) {
  const client = useQueryClient();
  const [title, setTitle] = useState("");
  const remove = useMutation({
    mutationFn: () => deleteStudy(study.id, title),
    onSuccess: async () => {
      client.removeQueries({ queryKey: studyKeys.one(study.id) });
      await client.invalidateQueries();
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    remove.mutate();
  };
  return (
    <Dialog title="Delete a study" open onOpenChange={(open) => !open && onClose()}>
      <form onSubmit={submit} className="grid gap-3 text-left">
        <div className="prose">
          <p>
            From now on nobody sees it: not you, not its raters, nobody who holds a link to its memo. What is being
            asked or tried for it ends.
          </p>
          <p>
            For thirty days whoever led it can bring it back on this page, as it was. Then all of it is gone for good,
            but for a line that says which study, when, and that you did it. Backups hold it for a while longer; until
            when is said beside it.
          </p>
        </div>
        <p className="border-l-4 border-clay pl-3 font-serif [overflow-wrap:anywhere]">{study.title}</p>
        <Field
          label="Its title, to show that you mean this one"
          required
          autoComplete="off"
          maxLength={LIMITS.DeleteStudy.title}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <ProofOrTrouble error={remove.error} onProved={() => remove.mutate()} onClose={() => remove.reset()} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it as it is</Button>
          <Button type="submit" tone="danger" disabled={title.trim() !== study.title.trim() || remove.isPending}>
            Delete it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
