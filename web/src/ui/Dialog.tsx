import { Dialog as Radix } from "radix-ui";
import { type ReactNode, useRef } from "react";
import { Button } from "./Button";

type DialogProps = {
  title: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
};

/** A window over the page; Escape closes it and the focus goes back to where it came from. */
export function Dialog({ title, open, onOpenChange, children }: DialogProps) {
  const opener = useRef<Element>(null);
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/40 dark:bg-paper/70" />
        <Radix.Content
          aria-describedby={undefined}
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
          className="fixed top-[12vh] left-1/2 z-50 max-h-[76vh] w-[min(34rem,92vw)] -translate-x-1/2 overflow-y-auto rounded-leaf border border-edge bg-vellum p-5 shadow-lg"
        >
          <Radix.Title className="mb-3 font-serif text-xl font-semibold">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
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
