import { useState } from "react";
import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { Button } from "../../ui/Button";
import { Area, Choice, Field } from "../../ui/Field";
import { moment } from "../../ui/format";
import { ProofOrTrouble } from "../account";
import { useAddEntry, type Which } from "./api";

type Memo = Schemas["MemoView"];
type Sort = Schemas["AddEntry"]["sort"];

const NAMES: Record<Sort, string> = {
  COUNTERSIGNED: "Countersigned",
  DECIDED: "Decided",
  NOTE: "A note",
};

/** What was added since it was signed, and a way to add to it. */
export function Afterwards({ which, memo, lead }: { which: Which; memo: Memo; lead: boolean }) {
  const [adding, setAdding] = useState(false);
  const sorts: Sort[] = [
    ...(memo.mayCountersign ? ["COUNTERSIGNED" as const] : []),
    ...(lead ? ["DECIDED" as const, "NOTE" as const] : []),
  ];
  return (
    <section className="mt-4">
      {memo.entries.length > 0 && (
        <>
          <h2 className="mb-1">Added since it was signed</h2>
          <ul className="grid gap-2">
            {memo.entries.map((entry) => (
              <li key={entry.at + entry.by} className="[overflow-wrap:anywhere]">
                <strong className="font-semibold">{NAMES[entry.sort]}</strong>
                {entry.decidedBy && ` by ${entry.decidedBy}`}
                <span className="text-sm text-ink-soft">
                  , {entry.by}, {moment(entry.at)}
                </span>
                {entry.words && <p className="whitespace-pre-line">{entry.words}</p>}
              </li>
            ))}
          </ul>
        </>
      )}
      {sorts.length > 0 &&
        (adding ? (
          <AddEntry which={which} sorts={sorts} onClose={() => setAdding(false)} />
        ) : (
          <Button className="mt-3 print:hidden" onClick={() => setAdding(true)}>
            {lead ? "Add to it …" : "Countersign it …"}
          </Button>
        ))}
    </section>
  );
}

type AddEntryProps = { which: Which; sorts: Sort[]; onClose: () => void };

const LABELS: Record<Sort, string> = {
  COUNTERSIGNED: "I put my name to it as well",
  DECIDED: "What was decided in the end",
  NOTE: "What turned out later",
};

function AddEntry({ which, sorts, onClose }: AddEntryProps) {
  const [sort, setSort] = useState<Sort>(sorts[0] ?? "NOTE");
  const [words, setWords] = useState("");
  const [decidedBy, setDecidedBy] = useState("");
  const add = useAddEntry(which);
  const addIt = () =>
    add.mutate({ sort, words, decidedBy: sort === "DECIDED" ? decidedBy : "" }, { onSuccess: onClose });
  const ready = sort === "COUNTERSIGNED" || (words.trim() !== "" && (sort !== "DECIDED" || decidedBy.trim() !== ""));
  return (
    <form
      className="mt-3 grid max-w-2xl gap-3 border-l-4 border-heather pl-4 print:hidden"
      onSubmit={(e) => {
        e.preventDefault();
        addIt();
      }}
    >
      <Choice
        label="What is added"
        value={sort}
        options={sorts.map((s) => ({ value: s, label: LABELS[s] }))}
        onValue={setSort}
      />
      {sort === "DECIDED" && (
        <Field
          label="Who decided"
          maxLength={LIMITS.AddEntry.decidedBy}
          value={decidedBy}
          onChange={(e) => setDecidedBy(e.target.value)}
        />
      )}
      <Area
        label={sort === "COUNTERSIGNED" ? "Words to it, if any" : "In words"}
        hint="It stays with the memo, with your name, and cannot be taken back."
        maxLength={LIMITS.AddEntry.words}
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <ProofOrTrouble error={add.error} onProved={addIt} onClose={() => add.reset()} />
      <div className="flex gap-2">
        <Button type="submit" tone="primary" disabled={!ready || add.isPending}>
          Add it
        </Button>
        <Button onClick={onClose}>Leave it as it is</Button>
      </div>
    </form>
  );
}
