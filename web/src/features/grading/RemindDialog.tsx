import { type FormEvent, useState } from "react";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Area } from "../../ui/Field";
import { count } from "../../ui/format";
import { useRemind } from "./api";

type RemindDialogProps = { studyId: string; raterId: string; name: string; left: number; onClose: () => void };

/** A word to a rater; it stands on their first page until they put it away. */
export function RemindDialog({ studyId, raterId, name, left, onClose }: RemindDialogProps) {
  const remind = useRemind(studyId);
  const [words, setWords] = useState(
    `${count(left, "sheet is", "sheets are")} still with you. Could you send ${left === 1 ? "it" : "them"} in this week?`,
  );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    remind.mutate({ raterId, words }, { onSuccess: onClose });
  };
  return (
    <Dialog title={`Remind ${name}`} open onOpenChange={(open) => !open && onClose()}>
      <form onSubmit={submit}>
        <Area
          label="Message"
          hint="It stands on their first page when they sign in, until they put it away."
          required
          maxLength={LIMITS.Remind.words}
          value={words}
          error={remind.error?.message}
          onChange={(e) => setWords(e.target.value)}
        />
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button type="submit" tone="primary" disabled={remind.isPending || words.trim() === ""}>
            Send
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
