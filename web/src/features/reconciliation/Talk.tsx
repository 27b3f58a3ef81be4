import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { useSay } from "./api";
import { SayForm } from "./SayForm";
import { type Entry, TalkList } from "./TalkList";

type Split = Schemas["SplitPage"];

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

type TalkProps = {
  split: Split;
  /** What else can be done from here. */
  children?: ReactNode;
};

/** What those concerned have said about a split, and saying more. */
export function Talk({ split, children }: TalkProps) {
  const say = useSay(split.id);
  const open = split.talking && split.state === "OPEN";
  return (
    <section id="talk" className="scroll-mt-4">
      <h2>The talk</h2>
      <TalkList entries={entriesOf(split)} nothing={open ? "Nobody has said anything yet." : "Nothing was said."} />
      {open && (
        <SayForm
          keptAs={`split.${split.id}`}
          hint="Those who graded this answer read it, and the lead. Ctrl and Enter says it."
          maxLength={LIMITS.Say.words}
          busy={say.isPending}
          error={say.error}
          onSay={(id, words, done) => say.mutate({ id, words }, { onSuccess: done })}
        />
      )}
      {children}
    </section>
  );
}
