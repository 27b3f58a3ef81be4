import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { count, fixed } from "../../ui/format";
import { plainMarkdown } from "../../ui/plainMarkdown";
import { Trouble } from "../../ui/Trouble";
import { addToMemo, memosOfStudy } from "../memo";
import { useStudy } from "../study";
import type { Explored, TurnedRule } from "./address";
import type { Names } from "./Turned";

type KeepProps = {
  rule: TurnedRule;
  names: Names;
  explored: Explored;
  found: Schemas["WhatIfView"];
};

/** Keeps what was explored as a note in the memo, marked as what it is. */
export function KeepInMemo({ rule, names, explored, found }: KeepProps) {
  const study = useStudy();
  const client = useQueryClient();
  const keep = useMutation({
    mutationFn: () => addToMemo(study.id, "ROBUSTNESS", noteOf(rule, names, explored, found)),
    // A page that was open before must not go on from words without the note.
    onSuccess: () => client.removeQueries({ queryKey: memosOfStudy(study.id).queryKey }),
  });
  if (study.role !== "LEAD") {
    return null;
  }
  return (
    <div className="mt-5">
      <Button disabled={keep.isPending} onClick={() => keep.mutate()}>
        Keep it as a note in the memo
      </Button>
      <span role="status" className="ml-3">
        {keep.isSuccess && (
          <>
            It stands in{" "}
            <Link to={`../recommendation/memo/${keep.data}#part-robustness`}>version {keep.data} of the memo</Link>,
            marked as exploring.
          </>
        )}
      </span>
      <Trouble error={keep.error} className="mt-2" />
    </div>
  );
}

/** In words, with its mark first. */
export function noteOf(
  rule: TurnedRule,
  names: Names,
  { weights, margin, without, use }: Explored,
  found: Pick<Schemas["WhatIfView"], "headline">,
): string {
  const changed = rule.weights.flatMap((w) => {
    const weight = weights[w.key];
    return weight === undefined ? [] : [`${w.name} weighing ${fixed(weight, 2)} instead of ${fixed(w.weight, 2)}`];
  });
  const out = [...names.rater, ...names.prompt, ...names.kind]
    .filter(({ id }) => [...without.rater, ...without.prompt, ...without.kind].includes(id))
    .map(({ name }) => `without “${name}”`);
  const all = [
    ...changed,
    ...(margin === undefined ? [] : [`a margin of ${fixed(margin, 1)} points`]),
    ...out,
    ...wordsOfUse(use),
  ];
  return `> **Exploring, not the rule.** With ${plainMarkdown(all.join(", "))}: ${plainMarkdown(found.headline)}`;
}

function wordsOfUse(use: Explored["use"]): string[] {
  return use === undefined
    ? []
    : [
        `a month of ${count(use.people, "person", "people")} at ${use.tasksPerDay} tasks a day on ${use.daysPerMonth} days`,
      ];
}
