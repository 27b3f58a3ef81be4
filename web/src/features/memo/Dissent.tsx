import { useState } from "react";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Area } from "../../ui/Field";
import { Trouble } from "../../ui/Trouble";
import { useDissent, type Which } from "./api";

/** A rater says in the memo where they see it otherwise, while it is written. */
export function Dissent({ which, said }: { which: Which; said: string | undefined }) {
  const [words, setWords] = useState(said ?? "");
  const dissent = useDissent(which);
  const changed = words.trim() !== (said ?? "");
  return (
    <section className="mt-10 border-t border-rule pt-5 print:hidden">
      <h2>If you see it otherwise</h2>
      <Area
        label="What you hold against it"
        hint="It stands in the memo in your own words. How raters are called, the lead chooses. Emptied, it is taken back."
        className="mt-2 max-w-2xl"
        maxLength={LIMITS.SayDissent.words}
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <Trouble error={dissent.error} className="mt-2" />
      <Button className="mt-2" disabled={!changed || dissent.isPending} onClick={() => dissent.mutate(words.trim())}>
        {words.trim() === "" && said ? "Take it back" : "Have it said"}
      </Button>
      <span role="status" className="ml-3 text-sm text-ink-soft">
        {dissent.isSuccess && !changed && (words.trim() === "" ? "Taken back." : "It is in the memo.")}
      </span>
    </section>
  );
}
