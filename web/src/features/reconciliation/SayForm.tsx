import { type FormEvent, type KeyboardEvent, type ReactNode } from "react";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { useKept } from "../../ui/useKept";

type Written = { words: string; id: string };

type SayFormProps = {
  /** The name under which it stays in this window until it was said. */
  keptAs: string;
  hint: string;
  maxLength: number;
  busy: boolean;
  error: Error | null;
  onSay: (id: string, words: string, done: () => void) => void;
  /** What it is about, where that can be chosen. */
  children?: ReactNode;
};

/** What is being written stays in this window until it was said, under one id: it is said once, however often it is sent. */
export function SayForm({ keptAs, hint, maxLength, busy, error, onSay, children }: SayFormProps) {
  const { chosen, choose } = useKept<Written>(keptAs);
  const words = chosen.words ?? "";
  const send = () => {
    const id = chosen.id ?? crypto.randomUUID();
    choose({ id });
    onSay(id, words, () => choose({ words: "", id: crypto.randomUUID() }));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    send();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter" && (event.ctrlKey || event.metaKey) && words.trim() !== "") {
      event.preventDefault();
      send();
    }
  };
  return (
    <form onSubmit={submit} className="mt-2 border-t border-rule pt-2">
      {children}
      <Area
        label="What you saw"
        hint={hint}
        rows={3}
        maxLength={maxLength}
        value={words}
        onKeyDown={onKeyDown}
        onChange={(e) => choose({ words: e.target.value, id: chosen.id ?? crypto.randomUUID() })}
      />
      <Trouble error={error} className="mt-2" />
      <Button type="submit" className="mt-2" disabled={busy || words.trim() === ""}>
        Say it
      </Button>
    </form>
  );
}
