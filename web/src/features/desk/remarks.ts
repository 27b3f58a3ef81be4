import type { RemarkContent } from "./cells";

/** @property by whose it is, where several people’s stand together */
export type PlacedRemark = { id: string; remark: RemarkContent; by?: string };

/** Whether two lists of remarks say the same; they are made anew with every change on the sheet. */
export function areSame(some: PlacedRemark[], others: PlacedRemark[]): boolean {
  return (
    some === others ||
    (some.length === others.length &&
      some.every((one, i) => one.id === others[i]?.id && saysTheSame(one.remark, others[i].remark)))
  );
}

function saysTheSame(one: RemarkContent, other: RemarkContent): boolean {
  return (
    one === other ||
    (one.stance === other.stance &&
      one.trait === other.trait &&
      one.words === other.words &&
      one.lines?.part === other.lines?.part &&
      one.lines?.path === other.lines?.path &&
      one.lines?.from === other.lines?.from &&
      one.lines?.to === other.lines?.to &&
      one.lines?.quote === other.lines?.quote)
  );
}
