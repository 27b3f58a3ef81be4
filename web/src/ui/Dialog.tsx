import { Dialog as Radix } from "radix-ui";
import { type KeyboardEvent, type ReactNode, useRef, useState } from "react";
import { Button } from "./Button";
import { classes } from "./classes";

type DialogProps = {
  title: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** Room for two columns, where that much is read at once. */
  wide?: boolean;
  /** Room for a picture of a whole page. */
  widest?: boolean;
  /** Keys of its own, wherever the focus is in it. */
  onKeyDown?: (event: KeyboardEvent) => void;
  children: ReactNode;
};

const WRITTEN = new Set(["text", "url", "number"]);

/** Whether somebody writes here; what is only looked for is not missed. */
const isWritten = (field: EventTarget) =>
  field instanceof HTMLTextAreaElement ||
  (field instanceof HTMLInputElement && WRITTEN.has(field.type)) ||
  (field instanceof HTMLElement && field.closest("[contenteditable=true]") !== null);

/**
 * A window over the page; Escape closes it, asking first where something was written in it, and the focus goes back to where it
 * came from.
 */
export function Dialog({ title, open, onOpenChange, wide = false, widest = false, onKeyDown, children }: DialogProps) {
  const [unsaved, setUnsaved] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [wasOpen, setWasOpen] = useState(open);
  if (wasOpen !== open) {
    setWasOpen(open);
    setUnsaved(false);
    setLeaving(false);
  }
  const opener = useRef<Element>(null);
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/40 dark:bg-paper/70" />
        <Radix.Content
          aria-describedby={undefined}
          onKeyDown={onKeyDown}
          onInput={(event) => setUnsaved(unsaved || isWritten(event.target))}
          onEscapeKeyDown={(event) => {
            if (unsaved && !leaving) {
              event.preventDefault();
              setLeaving(true);
            }
          }}
          onPointerDownOutside={(event) => {
            if (unsaved) {
              event.preventDefault();
              setLeaving(true);
            }
          }}
          onOpenAutoFocus={() => {
            opener.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            // A key may have opened it, and then there is no trigger that the library could go back to.
            event.preventDefault();
            if (opener.current instanceof HTMLElement) {
              opener.current.focus();
            }
          }}
          className={classes(
            "fixed left-1/2 z-50 -translate-x-1/2 overflow-y-auto rounded-leaf border border-edge bg-vellum p-5 shadow-lg",
            widest ? "top-[2vh] max-h-[96vh] w-[96vw]" : "top-[12vh] max-h-[76vh]",
            !widest && (wide ? "w-[min(64rem,92vw)]" : "w-[min(34rem,92vw)]"),
          )}
        >
          <Radix.Title className="mb-3 font-serif text-xl font-semibold">{title}</Radix.Title>
          {children}
          {leaving && unsaved && <Leaving onLeave={() => onOpenChange(false)} onStay={() => setLeaving(false)} />}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

function Leaving({ onLeave, onStay }: { onLeave: () => void; onStay: () => void }) {
  return (
    <div role="alert" className="mt-4 flex flex-wrap items-center gap-2 border-t border-rule pt-3">
      <span className="mr-auto">What you wrote here is not kept.</span>
      <Button onClick={onStay}>Write on</Button>
      <Button tone="danger" onClick={onLeave}>
        Drop it
      </Button>
    </div>
  );
}

type ConfirmProps = DialogProps & { action: string; onConfirm: () => void; busy?: boolean };

/** Asks before a step that cannot be undone; the text says what it does. */
export function Confirm({ action, onConfirm, busy = false, children, ...dialog }: ConfirmProps) {
  return (
    <Dialog {...dialog}>
      <div className="prose">{children}</div>
      <div className="mt-5 flex justify-end gap-2">
        <Button onClick={() => dialog.onOpenChange(false)}>Leave it as it is</Button>
        <Button tone="danger" disabled={busy} onClick={onConfirm}>
          {action}
        </Button>
      </div>
    </Dialog>
  );
}
