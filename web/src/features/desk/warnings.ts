import type { Schemas } from "../../api/client";
import type { Mark, RemarkContent, Verdict } from "./cells";

type Sheet = Schemas["SheetView"];

/** What a rater said of one answer, as far as its parts can speak against each other. */
export type SaidOfAnswer = {
  markOn: (criterionId: string) => Mark;
  verdicts: (Verdict | undefined)[];
  remarks: RemarkContent[];
};

/**
 * Where a grade and what stands beside it say different things. Nothing is wrong for sure: the rater looks again, or leaves it.
 */
export function contradictions(sheet: Pick<Sheet, "criteria">, said: SaidOfAnswer): string[] {
  const found: string[] = [];
  for (const criterion of sheet.criteria) {
    const level = said.markOn(criterion.id).level;
    const highest = criterion.levels.length - 1;
    if (level === undefined) {
      continue;
    }
    if (criterion.fromKeyPoints && said.verdicts.length > 0) {
      if (level === 0 && said.verdicts.every((v) => v === "COVERED")) {
        found.push(`all key points are covered, and ${criterion.name} is 0`);
      }
      if (level === highest && said.verdicts.some((v) => v === "CONTRADICTED" || v === "MISSED")) {
        found.push(`a key point is missed or contradicted, and ${criterion.name} is at the top`);
      }
    }
    const own = said.remarks.filter((r) => criterion.traits.includes(r.trait));
    const fault = own.find((r) => r.stance === "FAULT");
    const credit = own.find((r) => r.stance === "CREDIT");
    if (level === highest && fault) {
      found.push(`a fault of “${fault.trait}”, and ${criterion.name} is at the top`);
    }
    if (level === 0 && credit && !fault) {
      found.push(`a credit of “${credit.trait}”, and ${criterion.name} is 0`);
    }
  }
  // An interface that is not there is bad practice as well, whichever criterion the rubric files it under.
  const invented = said.remarks.find((r) => r.stance === "FAULT" && /invent/i.test(r.trait));
  const filedUnder = sheet.criteria.find((c) => invented && c.traits.includes(invented.trait));
  for (const criterion of sheet.criteria) {
    const top = said.markOn(criterion.id).level === criterion.levels.length - 1;
    if (invented && top && criterion !== filedUnder && /practice/i.test(criterion.name)) {
      found.push(`a fault of “${invented.trait}”, and ${criterion.name} is at the top`);
    }
  }
  return found;
}
