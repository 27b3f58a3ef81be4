import { Popover } from "radix-ui";
import type { ReactNode } from "react";

type ExplainedProps = {
  /** What is explained, for those who hear the page. */
  of: string;
  children: ReactNode;
};

/** How figures are made, one press away from them. */
export function Explained({ of, children }: ExplainedProps) {
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`How it is made: ${of}`}
        className="shrink-0 text-sm text-tarn underline underline-offset-4"
      >
        how
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          collisionPadding={12}
          aria-label={`How it is made: ${of}`}
          className="z-30 grid max-h-96 w-96 max-w-[90vw] gap-2 overflow-auto border border-edge bg-vellum p-3 text-sm text-ink shadow-md"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
