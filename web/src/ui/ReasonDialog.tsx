import { type ReactNode, useState } from "react";
import { Button } from "./Button";
import { Dialog } from "./Dialog";
import { Area } from "./Field";
import { Note } from "./Note";

type ReasonDialogProps = {
  title: string;
  /** What the reason is asked for, as the field's label. */
  label?: string;
  hint?: string;
  maxLength: number;
  action: string;
  /** Whether it may be done without a word. */
  optional?: boolean;
  busy: boolean;
  error: string | undefined;
  onReason: (reason: string) => void;
  onClose: () => void;
  children: ReactNode;
};

/** Asks why before a step that may change the outcome: the reason stays on record. */
export function ReasonDialog(props: ReasonDialogProps) {
  const { title, label = "Why", hint = "It stays on record, with your name.", optional = false, onClose } = props;
  const [reason, setReason] = useState("");
  return (
    <Dialog title={title} open onOpenChange={(open) => !open && onClose()}>
      <div className="prose">{props.children}</div>
      <Area
        label={label}
        hint={hint}
        className="mt-3"
        required={!optional}
        maxLength={props.maxLength}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      {props.error !== undefined && <Note tone="trouble">{props.error}</Note>}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it as it is</Button>
        <Button
          tone="danger"
          disabled={props.busy || (!optional && reason.trim() === "")}
          onClick={() => props.onReason(reason.trim())}
        >
          {props.action}
        </Button>
      </div>
    </Dialog>
  );
}
