import { type FormEvent, type KeyboardEvent } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";
import { moment } from "../../ui/format";
import { Trouble } from "../../ui/Trouble";
import { useKept } from "../../ui/useKept";
import { useSay } from "./api";

type Split = Schemas["SplitPage"];

type Entry = { key: string; at: string; by: string; own: boolean; head: string; text: string };

/** Notes and stances in the order of time. */
function entriesOf(split: Split): Entry[] {
  const notes = split.words.map((w) => ({ key: w.id, at: w.at, by: w.by, own: w.own, head: "", text: w.words }));
  const stances = split.raters.flatMap((r) =>
    r.stances.map((s, i) => ({
      key: `${r.name} ${i}`,
      at: s.at,
      by: r.name,
      own: r.own,
      head: s.kept ? `keeps ${s.level}` : `stands at ${s.level} now`,
      text: s.reason,
    })),
  );
  return [...notes, ...stances].sort((a, b) => a.at.localeCompare(b.at));
}

/** What those concerned have said about a split, and saying more. */
export function Talk({ split }: { split: Split }) {
  const entries = entriesOf(split);
  const open = split.talking && split.state === "OPEN";
  return (
    <section id="talk" className="scroll-mt-4">
      <h2>The talk</h2>
      {entries.length === 0 && (
        <p className="text-ink-soft">{open ? "Nobody has said anything yet." : "Nothing was said."}</p>
      )}
      <ol aria-label="The talk" aria-live="polite">
        {entries.map((entry) => (
          <li key={entry.key} className="border-t border-rule py-1.5 [overflow-wrap:anywhere]">
            <p className="text-sm text-ink-soft">
              <strong className="text-ink">{entry.by}</strong>
              {entry.own && " (you)"} {entry.head && <span className="text-ink">{entry.head}</span>}{" "}
              <time dateTime={entry.at}>{moment(entry.at)}</time>
            </p>
            <p className="whitespace-pre-line">{entry.text}</p>
          </li>
        ))}
      </ol>
      {open && <SayForm splitId={split.id} />}
    </section>
  );
}

type Written = { words: string; id: string };

/** What is being written stays in this window until it was said, under one id: it is said once, however often it is sent. */
function SayForm({ splitId }: { splitId: string }) {
  const say = useSay(splitId);
  const { chosen, choose } = useKept<Written>(`split.${splitId}`);
  const words = chosen.words ?? "";
  const send = () => {
    const id = chosen.id ?? crypto.randomUUID();
    choose({ id });
    say.mutate({ id, words }, { onSuccess: () => choose({ words: "", id: crypto.randomUUID() }) });
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
      <Area
        label="What you saw"
        hint="Those who graded this answer read it, and the lead. Ctrl and Enter says it."
        rows={3}
        maxLength={LIMITS.Say.words}
        value={words}
        onKeyDown={onKeyDown}
        onChange={(e) => choose({ words: e.target.value, id: chosen.id ?? crypto.randomUUID() })}
      />
      <Trouble error={say.error} className="mt-2" />
      <Button type="submit" className="mt-2" disabled={say.isPending || words.trim() === ""}>
        Say it
      </Button>
    </form>
  );
}
