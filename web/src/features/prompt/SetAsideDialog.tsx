import type { ReactNode } from "react";
import { LIMITS } from "../../api/limits";
import { ReasonDialog } from "../../ui/ReasonDialog";
import { useStudy } from "../study";
import { useSetAside } from "./api";

type SetAsideDialogProps = { promptId: string; onClose: () => void; children?: ReactNode };

/** Asks what is wrong with a prompt before it counts nowhere. */
export function SetAsideDialog({ promptId, onClose, children }: SetAsideDialogProps) {
  const setAside = useSetAside(useStudy().id, promptId);
  return (
    <ReasonDialog
      title="Set the prompt aside?"
      label="What is wrong with it"
      maxLength={LIMITS.FaultReason.reason}
      action="Set it aside"
      busy={setAside.isPending}
      error={setAside.error?.message}
      onReason={(reason) => setAside.mutate(reason, { onSuccess: onClose })}
      onClose={onClose}
    >
      <p>
        Answers and grades stay on record and count nowhere; every figure says so. Raters who have not graded it yet
        need not.
      </p>
      {children}
    </ReasonDialog>
  );
}
