import type { Schemas } from "../../api/client";

/** What a rater sets on a sheet by itself, each with a revision of its own. */

export type Confidence = NonNullable<Schemas["GradeOnSheet"]["confidence"]>;
export type Works = NonNullable<Schemas["WorksOnSheet"]["works"]>;
export type Verdict = NonNullable<Schemas["CoverageOnSheet"]["verdict"]>;
export type RemarkContent = Schemas["RemarkContent"];

export type Mark = { level?: number; notApplicable: boolean; confidence?: Confidence };

export type CellValue = { answerId: string } & (
  | { kind: "grade"; criterionId: string; mark: Mark }
  | { kind: "reason"; text: string }
  | { kind: "works"; works?: Works; why?: string }
  | { kind: "preference"; place?: number }
  | { kind: "coverage"; point: number; verdict?: Verdict }
  | { kind: "remark"; remarkId: string; remark?: RemarkContent }
  | { kind: "guess"; choice?: number; noIdea: boolean }
);

export type Saved = { value: CellValue; revision: number };

type Sheet = Schemas["SheetView"];
type Answer = Sheet["answers"][number];

function item(value: CellValue): string {
  switch (value.kind) {
    case "grade":
      return value.criterionId;
    case "coverage":
      return String(value.point);
    case "remark":
      return value.remarkId;
    default:
      return "";
  }
}

/** Names the cell that a value is of. */
export const cellOf = (value: CellValue): string => `${value.answerId}/${value.kind}/${item(value)}`;

export function markOf(grade: Schemas["GradeOnSheet"]): Mark {
  return {
    notApplicable: grade.notApplicable,
    ...(grade.level === undefined ? {} : { level: grade.level }),
    ...(grade.confidence === undefined ? {} : { confidence: grade.confidence }),
  };
}

export const isMade = (mark: Mark): boolean => mark.level !== undefined || mark.notApplicable;

/** What the server holds in the cell of a value; a cell that nobody has set is at revision 0. */
export function savedIn(answer: Answer, like: CellValue): Saved {
  const answerId = answer.id;
  switch (like.kind) {
    case "grade": {
      const { criterionId } = like;
      const grade = answer.grades.find((g) => g.criterionId === criterionId);
      const mark = grade ? markOf(grade) : { notApplicable: false };
      return { value: { kind: "grade", answerId, criterionId, mark }, revision: grade?.revision ?? 0 };
    }
    case "reason":
      return { value: { kind: "reason", answerId, text: answer.reason }, revision: answer.reasonRevision };
    case "works": {
      const { works, why, revision } = answer.works;
      return { value: { kind: "works", answerId, ...(works && { works }), ...(why && { why }) }, revision };
    }
    case "preference": {
      const { place, revision } = answer.preference;
      return { value: { kind: "preference", answerId, ...(place !== undefined && { place }) }, revision };
    }
    case "coverage": {
      const { point } = like;
      const found = answer.coverage.find((c) => c.point === point);
      return {
        value: { kind: "coverage", answerId, point, ...(found?.verdict && { verdict: found.verdict }) },
        revision: found?.revision ?? 0,
      };
    }
    case "remark": {
      const { remarkId } = like;
      const found = answer.remarks.find((r) => r.id === remarkId);
      return {
        value: { kind: "remark", answerId, remarkId, ...(found?.remark && { remark: found.remark }) },
        revision: found?.revision ?? 0,
      };
    }
    case "guess": {
      const guess = answer.guess;
      return {
        value: {
          kind: "guess",
          answerId,
          noIdea: guess?.noIdea ?? false,
          ...(guess?.choice !== undefined && { choice: guess.choice }),
        },
        revision: guess?.revision ?? 0,
      };
    }
  }
}

function put<T>(list: T[], isSame: (one: T) => boolean, fresh: T): T[] {
  const at = list.findIndex(isSame);
  return at < 0 ? [...list, fresh] : list.with(at, fresh);
}

function answerWith(answer: Answer, value: CellValue, revision: number): Answer {
  switch (value.kind) {
    case "grade": {
      const grade = { criterionId: value.criterionId, revision, ...value.mark };
      return { ...answer, grades: put(answer.grades, (g) => g.criterionId === value.criterionId, grade) };
    }
    case "reason":
      return { ...answer, reason: value.text, reasonRevision: revision };
    case "works":
      return { ...answer, works: { revision, why: value.why ?? "", ...(value.works && { works: value.works }) } };
    case "preference":
      return { ...answer, preference: { revision, ...(value.place !== undefined && { place: value.place }) } };
    case "coverage": {
      const covered = { point: value.point, revision, ...(value.verdict && { verdict: value.verdict }) };
      return { ...answer, coverage: put(answer.coverage, (c) => c.point === value.point, covered) };
    }
    case "remark": {
      const remark = { id: value.remarkId, revision, ...(value.remark && { remark: value.remark }) };
      return { ...answer, remarks: put(answer.remarks, (r) => r.id === value.remarkId, remark) };
    }
    case "guess":
      return {
        ...answer,
        guess: { revision, noIdea: value.noIdea, ...(value.choice !== undefined && { choice: value.choice }) },
      };
  }
}

/** The sheet with a value in it, as the server will show it from now on. */
export function sheetWith(sheet: Sheet, value: CellValue, revision: number): Sheet {
  return {
    ...sheet,
    answers: sheet.answers.map((a) => (a.id === value.answerId ? answerWith(a, value, revision) : a)),
  };
}

const CONFIDENCE: Record<Confidence, string> = { SURE: "sure", FAIRLY: "fairly sure", UNSURE: "unsure" };
export const WORKS: Record<Works, string> = {
  AS_IS: "works as is",
  AFTER_REPAIR: "after a trivial repair",
  NOT: "does not work",
  GAVE_UP: "does not work, and says so itself",
  SAID_DONE: "does not work, and says it is done",
  NOT_TRIED: "not tried",
};
export const VERDICTS: Record<Verdict, string> = {
  COVERED: "covered",
  PARTLY: "partly",
  MISSED: "missed",
  CONTRADICTED: "contradicted",
};
export const WORKS_IN_ORDER: Works[] = ["AS_IS", "AFTER_REPAIR", "NOT", "GAVE_UP", "SAID_DONE", "NOT_TRIED"];
export const VERDICTS_IN_ORDER: Verdict[] = ["COVERED", "PARTLY", "MISSED", "CONTRADICTED"];

export const confidenceWords = (confidence: Confidence | undefined): string =>
  confidence ? CONFIDENCE[confidence] : "";

/** A value in words, for telling two of them apart. */
export function valueWords(value: CellValue): string {
  switch (value.kind) {
    case "grade": {
      const grade = value.mark.notApplicable ? "not applicable" : (value.mark.level?.toString() ?? "nothing");
      return [grade, confidenceWords(value.mark.confidence)].filter(Boolean).join(", ");
    }
    case "reason":
      return value.text ? `“${value.text}”` : "nothing";
    case "works":
      return [value.works ? WORKS[value.works] : "nothing", value.why && `“${value.why}”`].filter(Boolean).join(", ");
    case "preference":
      return value.place === undefined ? "no preference" : `preference ${value.place}`;
    case "coverage":
      return value.verdict ? VERDICTS[value.verdict] : "nothing";
    case "remark":
      return value.remark ? `“${[value.remark.trait, value.remark.words].filter(Boolean).join(": ")}”` : "removed";
    case "guess":
      return value.choice === undefined ? (value.noIdea ? "no idea" : "no guess") : `choice ${value.choice + 1}`;
  }
}

/** What a value is of, within its answer. */
export function cellWords(value: CellValue, sheet: Pick<Sheet, "criteria">): string {
  switch (value.kind) {
    case "grade":
      return sheet.criteria.find((c) => c.id === value.criterionId)?.name ?? "a grade";
    case "reason":
      return "the reason";
    case "works":
      return "whether it works";
    case "preference":
      return "the order of preference";
    case "coverage":
      return `key point ${value.point + 1}`;
    case "remark":
      return "a remark";
    case "guess":
      return "the guess";
  }
}
