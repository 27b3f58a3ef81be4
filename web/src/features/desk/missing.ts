import type { Schemas } from "../../api/client";
import { isMade, type Mark, type RemarkContent } from "./cells";

type Sheet = Schemas["SheetView"];

export type Missing = { column: number; words: string } & ({ what: "grade"; criterion: number } | { what: "reason" });

type SaidOnSheet = {
  markAt: (answerId: string, criterionId: string) => Mark;
  reasonAt: (answerId: string) => string;
  remarksOf: (answerId: string) => { remark: RemarkContent }[];
};

/** Whether a grade needs a reason in words; a scale of two levels has nothing but ends, so there none does. */
export function needsReason(mark: Mark, levels: number, rule: Sheet["reasons"]): boolean {
  if (!isMade(mark)) {
    return false;
  }
  return rule === "ALWAYS" || mark.notApplicable || (levels > 2 && (mark.level === 0 || mark.level === levels - 1));
}

/** What is missing before a sheet can be sent in, in the order of its answers. The server asks for the same. */
export function missingOn(sheet: Pick<Sheet, "answers" | "criteria" | "reasons">, said: SaidOnSheet): Missing[] {
  return sheet.answers.flatMap((answer, column): Missing[] => {
    const grades = sheet.criteria.flatMap((criterion, row): Missing[] =>
      isMade(said.markAt(answer.id, criterion.id))
        ? []
        : [{ column, what: "grade", criterion: row, words: `Answer ${answer.number}: ${criterion.name}` }],
    );
    const because = sheet.criteria.find((c) =>
      needsReason(said.markAt(answer.id, c.id), c.levels.length, sheet.reasons),
    );
    const explained =
      said.reasonAt(answer.id).trim() !== "" || said.remarksOf(answer.id).some((r) => r.remark.words.trim() !== "");
    return because && !explained
      ? [
          ...grades,
          { column, what: "reason", words: `Answer ${answer.number}: ${whyReason(sheet, because, said, answer.id)}` },
        ]
      : grades;
  });
}

function whyReason(
  sheet: Pick<Sheet, "reasons">,
  because: Sheet["criteria"][number],
  said: SaidOnSheet,
  answerId: string,
): string {
  const mark = said.markAt(answerId, because.id);
  return sheet.reasons === "ALWAYS"
    ? "a reason"
    : `a reason, as ${because.name} is ${mark.notApplicable ? "not applicable" : `${mark.level ?? ""}, an end of the scale`}`;
}
