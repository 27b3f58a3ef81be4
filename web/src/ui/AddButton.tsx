import { type ComponentProps, useEffect, useRef } from "react";
import { Button } from "./Button";

const FIELDS = "input:not([type=checkbox], [type=radio], [type=file]), textarea";

/** Within this time what was asked for is there, in milliseconds. */
const SOON = 500;

type AddButtonProps = Omit<ComponentProps<typeof Button>, "onClick"> & { onAdd: () => void };

/** Adds a row to the form it stands in; whoever adds one writes in it next, so the focus goes there. */
export function AddButton({ onAdd, ...rest }: AddButtonProps) {
  const place = useRef<HTMLSpanElement>(null);
  const before = useRef<Set<Element>>(undefined);
  const fields = () => [...(place.current?.closest("fieldset, form, main, body")?.querySelectorAll(FIELDS) ?? [])];
  // What comes much later was added by somebody else.
  useEffect(() => {
    const known = before.current;
    if (known === undefined) {
      return;
    }
    const added = fields().find((field) => !known.has(field));
    if (added instanceof HTMLElement) {
      before.current = undefined;
      added.focus();
    }
  });
  return (
    <span ref={place} className="contents">
      <Button
        {...rest}
        onClick={() => {
          before.current = new Set(fields());
          setTimeout(() => (before.current = undefined), SOON);
          onAdd();
        }}
      />
    </span>
  );
}
