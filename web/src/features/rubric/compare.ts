import type { Schemas } from "../../api/client";
import type { CriterionDraft } from "./api";

/** One thing that differs between two versions of a rubric, in words. */
export type Change = { where: string; before?: string; after?: string };

/** What differs from one version to the next: criteria by their keys, each field, level, anchor and trait by itself. */
export function changesBetween(
  before: CriterionDraft[],
  after: CriterionDraft[],
  kinds: Schemas["KindView"][],
): Change[] {
  const changes: Change[] = [];
  const byKey = new Map(before.map((c) => [c.key, c]));
  for (const criterion of after) {
    const old = byKey.get(criterion.key);
    if (old) {
      changes.push(...changesOf(old, criterion, kinds));
    } else {
      changes.push({ where: criterion.name, after: "new criterion" });
    }
  }
  for (const criterion of before) {
    if (!after.some((c) => c.key === criterion.key)) {
      changes.push({ where: criterion.name, before: "criterion taken out" });
    }
  }
  return changes;
}

function changesOf(before: CriterionDraft, after: CriterionDraft, kinds: Schemas["KindView"][]): Change[] {
  const kindName = (id: string) => kinds.find((k) => k.id === id)?.name ?? "a kind that is gone";
  const field = (name: string, was: string, is: string): Change[] =>
    was === is
      ? []
      : [{ where: `${after.name}, ${name}`, ...(was ? { before: was } : {}), ...(is ? { after: is } : {}) }];
  const forKinds = (c: CriterionDraft) =>
    c.kindIds.length === 0 ? "all kinds" : c.kindIds.map(kindName).sort().join(", ");
  const changes = [
    ...field("name", before.name, after.name),
    ...field("question", before.question, after.question),
    ...field("weight", String(before.weight), String(after.weight)),
    ...field("floor", before.floor?.toString() ?? "", after.floor?.toString() ?? ""),
    ...field("kinds", forKinds(before), forKinds(after)),
    ...field("levels", String(before.levels.length), String(after.levels.length)),
    ...field("traits", before.traits.join(", "), after.traits.join(", ")),
  ];
  const levels = Math.max(before.levels.length, after.levels.length);
  for (let level = 0; level < levels; level++) {
    const was = before.levels[level];
    const is = after.levels[level];
    changes.push(...field(`level ${level}`, was?.name ?? "", is?.name ?? ""));
    const anchored = new Set([...(was?.anchors ?? []), ...(is?.anchors ?? [])].map((a) => a.kindId));
    for (const kind of anchored) {
      const text = (l: typeof was) => l?.anchors.find((a) => a.kindId === kind)?.text ?? "";
      changes.push(...field(`level ${level}, ${kindName(kind).toLowerCase()}`, text(was), text(is)));
    }
  }
  return changes;
}
