import type { Schemas } from "../../api/client";
import {
  type CellValue,
  confidenceWords,
  isMade,
  type Mark,
  VERDICTS,
  VERDICTS_IN_ORDER,
  WORKS,
  WORKS_IN_ORDER,
  type Works,
} from "./cells";
import { proposedLevel } from "./proposal";
import type { Desk } from "./useDesk";

type Sheet = Schemas["SheetView"];
type Answer = Sheet["answers"][number];
type Criterion = Schemas["CriterionOnSheet"];

/** A row of the table at the bottom of the desk. */
export type Row =
  | { kind: "criterion"; criterion: Criterion }
  | { kind: "works" }
  | { kind: "order" }
  | { kind: "point"; index: number; point: Schemas["KeyPoint"] }
  | { kind: "guess"; choices: string[] };

/** The rows for grades, in the order in which they are given. */
export function gradeRows(sheet: Sheet, desk: Desk): Row[] {
  const graded = sheet.answers.every((a) => sheet.criteria.every((c) => isMade(desk.markAt(a.id, c.id))));
  const ordered = sheet.answers.some((a) => desk.preferenceAt(a.id) !== undefined);
  return [
    ...sheet.criteria.map((criterion): Row => ({ kind: "criterion", criterion })),
    ...(sheet.answers.some((a) => a.hasCode) ? [{ kind: "works" } as const] : []),
    // Asked for after grading, so that it does not come before the reasons for it.
    ...((graded || ordered) && sheet.answers.length > 1 ? [{ kind: "order" } as const] : []),
    ...(sheet.guessChoices ? [{ kind: "guess", choices: sheet.guessChoices } as const] : []),
  ];
}

export const pointRows = (sheet: Sheet): Row[] =>
  sheet.prompt.keyPoints.map((point, index): Row => ({ kind: "point", index, point }));

export function rowName(row: Row): string {
  switch (row.kind) {
    case "criterion":
      return row.criterion.name;
    case "works":
      return "Does it work";
    case "order":
      return "Order of preference";
    case "point":
      return `${row.point.stance === "MUST_NOT" ? "must not: " : ""}${row.point.text}`;
    case "guess":
      return "Who wrote it";
  }
}

/** Whether the row is about this answer at all. */
export const concerns = (row: Row, answer: Answer): boolean => row.kind !== "works" || answer.hasCode;

/** What stands in a cell: briefly for the table, and if there is something. */
export function cellWords(row: Row, answer: Answer, desk: Desk): { words: string; filled: boolean } {
  const of = (words: string | undefined) => ({ words: words ?? "–", filled: words !== undefined });
  switch (row.kind) {
    case "criterion":
      return of(markWords(desk.markAt(answer.id, row.criterion.id), row.criterion));
    case "works": {
      const works = desk.worksAt(answer.id);
      return answer.hasCode ? of(works && WORKS[works]) : { words: "no code", filled: true };
    }
    case "order": {
      const place = desk.preferenceAt(answer.id);
      return of(place?.toString());
    }
    case "point": {
      const verdict = desk.verdictAt(answer.id, row.index);
      return of(verdict && VERDICTS[verdict]);
    }
    case "guess": {
      const guess = desk.guessAt(answer.id);
      return of(guess.noIdea ? "no idea" : guess.choice === undefined ? undefined : row.choices[guess.choice]);
    }
  }
}

function markWords(mark: Mark, criterion: Criterion): string | undefined {
  if (!isMade(mark)) {
    return undefined;
  }
  const level = criterion.levels.find((l) => l.level === mark.level);
  return [mark.notApplicable ? "not applicable" : level?.name, confidenceWords(mark.confidence)]
    .filter(Boolean)
    .join(", ");
}

/** A cell as a screen reader says it: criterion, answer, level, anchor. */
export function cellLabel(row: Row, answer: Answer, desk: Desk): string {
  const head = `${rowName(row)}, answer ${answer.number}`;
  if (row.kind !== "criterion") {
    const { words, filled } = cellWords(row, answer, desk);
    return `${head}, ${filled ? (row.kind === "order" ? `preference ${words}` : words) : "nothing yet"}`;
  }
  const mark = desk.markAt(answer.id, row.criterion.id);
  const level = row.criterion.levels.find((l) => l.level === mark.level);
  const said = level ? `level ${level.level} ${level.name}` : mark.notApplicable ? "not applicable" : "no grade";
  // As it is seen first, so that speaking what one sees finds the cell; the anchor after it.
  return [head, said, confidenceWords(mark.confidence), level?.anchor].filter(Boolean).join(", ");
}

export type Option = { digit: number; name: string; text?: string; chosen: boolean; value: CellValue };

/** What can be chosen in a cell, each by its digit. */
export function optionsOf(row: Row, answer: Answer, sheet: Sheet, desk: Desk): Option[] {
  const answerId = answer.id;
  switch (row.kind) {
    case "criterion": {
      const mark = desk.markAt(answerId, row.criterion.id);
      return row.criterion.levels.map((level) => ({
        digit: level.level,
        name: level.name,
        ...(level.anchor === undefined ? {} : { text: level.anchor }),
        chosen: mark.level === level.level,
        value: gradeOf(row.criterion, answerId, {
          level: level.level,
          notApplicable: false,
          ...(mark.confidence && { confidence: mark.confidence }),
        }),
      }));
    }
    case "works":
      return WORKS_IN_ORDER.map((works, i) => ({
        digit: i + 1,
        name: WORKS[works],
        chosen: desk.worksAt(answerId) === works,
        value: worksOf(answerId, works, desk.worksWhyAt(answerId)),
      }));
    case "order":
      return sheet.answers.map((_, i) => ({
        digit: i + 1,
        name: i === 0 ? "the one I would take" : `preference ${i + 1}`,
        chosen: desk.preferenceAt(answerId) === i + 1,
        value: { kind: "preference", answerId, place: i + 1 },
      }));
    case "point":
      return VERDICTS_IN_ORDER.map((verdict, i) => ({
        digit: i + 1,
        name: VERDICTS[verdict],
        chosen: desk.verdictAt(answerId, row.index) === verdict,
        value: { kind: "coverage", answerId, point: row.index, verdict },
      }));
    case "guess": {
      const guess = desk.guessAt(answerId);
      return [
        { digit: 0, name: "no idea", chosen: guess.noIdea, value: { kind: "guess", answerId, noIdea: true } },
        ...row.choices.map((name, choice): Option => ({
          digit: choice + 1,
          name,
          chosen: guess.choice === choice,
          value: { kind: "guess", answerId, choice, noIdea: false },
        })),
      ];
    }
  }
}

/** Whether it works, with why it is otherwise than a trial found. */
export const worksOf = (answerId: string, works: Works | undefined, why: string): CellValue => ({
  kind: "works",
  answerId,
  ...(works && { works }),
  ...(why && { why }),
});

export function gradeOf(criterion: Criterion, answerId: string, mark: Mark): CellValue {
  return { kind: "grade", answerId, criterionId: criterion.id, mark };
}

/** The cell with nothing in it. */
export function emptied(row: Row, answerId: string): CellValue {
  switch (row.kind) {
    case "criterion":
      return gradeOf(row.criterion, answerId, { notApplicable: false });
    case "works":
      return { kind: "works", answerId };
    case "order":
      return { kind: "preference", answerId };
    case "point":
      return { kind: "coverage", answerId, point: row.index };
    case "guess":
      return { kind: "guess", answerId, noIdea: false };
  }
}

/** What key points speak for, where they speak for this criterion. */
export function proposalFor(criterion: Criterion, answer: Answer, sheet: Sheet, desk: Desk) {
  const points = sheet.prompt.keyPoints;
  return criterion.fromKeyPoints
    ? proposedLevel(
        points,
        points.map((_, i) => desk.verdictAt(answer.id, i)),
        criterion.levels.length - 1,
      )
    : undefined;
}
