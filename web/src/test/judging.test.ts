import { describe, expect, it } from "vitest";
import {
  cellOf,
  type CellValue,
  type Mark,
  type RemarkContent,
  savedIn,
  sheetWith,
  valueWords,
} from "../features/desk/cells";
import { type Binding, CELL_KEYS, KEY_GROUPS, SHEET_KEYS } from "../features/desk/keys";
import { missingOn, needsReason } from "../features/desk/missing";
import { proposedLevel } from "../features/desk/proposal";
import { matchesIn } from "../features/desk/search";
import { spelledOut } from "../ui/spelledOut";
import { did, NO_STEPS, redo, undo } from "../features/desk/undo";
import { columnsIn } from "../features/desk/useColumns";
import { changeView, columnsShown, firstView, isPromptOpen, type View, type ViewChange } from "../features/desk/view";
import { contradictions } from "../features/desk/warnings";
import { answerOn, aSheet } from "./sheet";

const level = (n: number): Mark => ({ level: n, notApplicable: false });

describe("what key points speak for", () => {
  const points = [{ weight: 2 }, { weight: 1 }, { weight: 1 }];

  it.each([
    // by hand: (2 + 1 + 1) / 4 of 4
    ["all covered", ["COVERED", "COVERED", "COVERED"], 4],
    // by hand: (1 + 1 + 0) / 4 of 4 = 2
    ["half of the heavy one", ["PARTLY", "COVERED", "MISSED"], 2],
    // by hand: (2 - 1 + 1) / 4 of 4 = 2
    ["one contradicted", ["COVERED", "CONTRADICTED", "COVERED"], 2],
    // by hand: (-2 + 0 + 0) is below nothing
    ["the heavy one contradicted", ["CONTRADICTED", "MISSED", "MISSED"], 0],
  ] as const)("is by weight: %s", (_, verdicts, expected) => {
    expect(proposedLevel(points, [...verdicts], 4)?.level).toBe(expected);
  });

  it("says how, and says nothing before every point is judged", () => {
    const whole = proposedLevel(points, ["COVERED", "CONTRADICTED", "PARTLY"], 4);
    expect(whole?.how).toBe(
      "Key points weigh in at 1.5 of 4 (covered whole, partly half; 1 contradicted point counts against it), so 37.5 % of 4 is nearest to 2.",
    );
    expect(proposedLevel(points, ["COVERED", undefined, "COVERED"], 4)).toBeUndefined();
    expect(proposedLevel([], [], 4)).toBeUndefined();
  });
});

describe("grades that their surroundings speak against", () => {
  const sheet = aSheet();
  const fault = (trait: string): RemarkContent => ({ stance: "FAULT", trait, words: "" });
  const said = (right: number, verdicts: ("COVERED" | "MISSED" | undefined)[], remarks: RemarkContent[] = []) => ({
    markOn: (id: string) => (id === "right" ? level(right) : { notApplicable: false }),
    verdicts,
    remarks,
  });

  it("names nothing covered and graded wrong, and the reverse", () => {
    expect(contradictions(sheet, said(0, ["COVERED", "COVERED"]))).toEqual([
      "all key points are covered, and Correctness is 0",
    ]);
    expect(contradictions(sheet, said(3, ["COVERED", "MISSED"]))).toEqual([
      "a key point is missed or contradicted, and Correctness is at the top",
    ]);
    expect(contradictions(sheet, said(2, ["COVERED", "MISSED"]))).toEqual([]);
    expect(contradictions(sheet, said(0, ["COVERED", undefined]))).toEqual([]);
  });

  it("names a fault beside the top level, and an invented interface beside the best practice", () => {
    expect(contradictions(sheet, said(3, [], [fault("missed an edge case")]))).toEqual([
      "a fault of “missed an edge case”, and Correctness is at the top",
    ]);
    const practice = aSheet({
      criteria: [
        ...sheet.criteria,
        {
          id: "good",
          name: "Best practice",
          question: "",
          levels: sheet.criteria[0]?.levels ?? [],
          traits: [],
          fromKeyPoints: false,
        },
      ],
    });
    const invented = {
      markOn: (id: string) => (id === "good" ? level(3) : level(1)),
      verdicts: [],
      remarks: [fault("invented an interface")],
    };
    expect(contradictions(practice, invented)).toContain(
      "a fault of “invented an interface”, and Best practice is at the top",
    );
  });
});

describe("what is missing", () => {
  const said = (marks: Record<string, Mark>, reasons: Record<string, string> = {}, words = "") => ({
    markAt: (answerId: string, criterionId: string) => marks[`${answerId}/${criterionId}`] ?? { notApplicable: false },
    reasonAt: (answerId: string) => reasons[answerId] ?? "",
    remarksOf: () => (words ? [{ remark: { stance: "FAULT" as const, trait: "", words } }] : []),
  });
  const sheet = aSheet({ answers: [answerOn("a", 1), answerOn("b", 2)] });

  it("is a list in the order of the answers, each with its place", () => {
    const marks = { "a/right": level(2), "a/runs": level(1), "b/runs": level(0) };
    expect(missingOn(sheet, said(marks))).toEqual([
      { column: 1, what: "grade", criterion: 0, words: "Answer 2: Correctness" },
    ]);
  });

  it("asks for a reason at the ends, unless a remark has words", () => {
    const marks = { "a/right": level(3), "a/runs": level(1), "b/right": level(0), "b/runs": level(0) };
    expect(missingOn(sheet, said(marks)).map((m) => m.words)).toEqual([
      "Answer 1: a reason, as Correctness is 3, an end of the scale",
      "Answer 2: a reason, as Correctness is 0, an end of the scale",
    ]);
    expect(missingOn(sheet, said(marks, { a: "So.", b: "So." }))).toEqual([]);
    expect(missingOn(sheet, said(marks, {}, "Halved."))).toEqual([]);
  });

  it.each([
    ["middle", level(2), 4, "AT_THE_ENDS", false],
    ["bottom", level(0), 4, "AT_THE_ENDS", true],
    ["two levels", level(1), 2, "AT_THE_ENDS", false],
    ["not applicable", { notApplicable: true }, 4, "AT_THE_ENDS", true],
    ["always", level(2), 4, "ALWAYS", true],
    ["nothing yet", { notApplicable: false }, 4, "ALWAYS", false],
  ] as const)("needs a reason or not: %s", (_, mark, levels, rule, expected) => {
    expect(needsReason(mark, levels, rule)).toBe(expected);
  });
});

describe("undo", () => {
  const works = (value?: "AS_IS" | "NOT"): CellValue => ({
    kind: "works",
    answerId: "a",
    ...(value && { works: value }),
  });
  const reason = (text: string): CellValue => ({ kind: "reason", answerId: "a", text });

  it("goes back and forth", () => {
    const steps = did(did(NO_STEPS, { before: works(), after: works("AS_IS"), at: 0 }), {
      before: works("AS_IS"),
      after: works("NOT"),
      at: 1,
    });
    const back = undo(steps);
    expect(back?.value).toEqual(works("AS_IS"));
    const further = back && undo(back.steps);
    expect(further?.value).toEqual(works());
    expect(further && undo(further.steps)).toBeUndefined();
    expect(further && redo(further.steps)?.value).toEqual(works("AS_IS"));
  });

  it("forgets what was undone once something else is done", () => {
    const back = undo(did(NO_STEPS, { before: works(), after: works("AS_IS"), at: 0 }));
    const other = back && did(back.steps, { before: works(), after: works("NOT"), at: 5 });
    expect(other && redo(other)).toBeUndefined();
  });

  it("takes typing in one breath as one step", () => {
    let steps = NO_STEPS;
    ["S", "So", "So."].forEach((text, i) => {
      steps = did(steps, { before: reason(text.slice(0, -1)), after: reason(text), at: i * 300 });
    });
    steps = did(steps, { before: reason("So."), after: reason("So. Yes"), at: 60_000 });
    const back = undo(steps);
    expect(back?.value).toEqual(reason("So."));
    expect(back && undo(back.steps)?.value).toEqual(reason(""));
  });
});

describe("the view of a sheet", () => {
  const after = (view: View, ...changes: ViewChange[]) => changes.reduce(changeView([true, false, true]), view);
  const start = firstView(3);

  it("shows all, two, one", () => {
    expect(columnsShown(start)).toEqual([0, 1, 2]);
    const two = after(start, { type: "layout" });
    expect(columnsShown(two)).toEqual([0, 1]);
    expect(columnsShown(after(two, { type: "focus", focus: { row: 0, column: 2 } }))).toEqual([1, 2]);
    expect(columnsShown(after(two, { type: "layout" }))).toEqual([0]);
    expect(columnsShown(after(two, { type: "layout" }, { type: "layout" }))).toEqual([0, 1, 2]);
  });

  it("keeps a pinned answer in sight, first, until it is let go", () => {
    const pinned = after(start, { type: "pin", column: 2 });
    expect(columnsShown(pinned)).toEqual([2, 0, 1]);
    expect(columnsShown(after(pinned, { type: "layout" }))).toEqual([2, 0]);
    expect(columnsShown(after(pinned, { type: "pin", column: 2 }))).toEqual([0, 1, 2]);
  });

  it("shows the parts of an answer in turn, and only its text if it has no code", () => {
    expect(after(start, { type: "next-part", all: false }).parts).toEqual(["changes", "text", "text"]);
    expect(after(start, { type: "next-part", all: true }).parts).toEqual(["changes", "text", "changes"]);
    const there = after(start, { type: "focus", focus: { row: 0, column: 1 } }, { type: "next-part", all: false });
    expect(there.parts).toEqual(["text", "text", "text"]);
  });

  it("compares with the pinned answer, or else with the neighbour", () => {
    expect(after(start, { type: "compare" }).compared).toEqual({ first: 0, second: 1 });
    const pinned = after(start, { type: "pin", column: 2 }, { type: "compare" });
    expect(pinned.compared).toEqual({ first: 0, second: 2 });
    expect(after(pinned, { type: "compare" }).compared).toBeUndefined();
  });

  it("changes nothing else with a remark", () => {
    const pinned = after(start, { type: "pin", column: 1 });
    const writing = after(pinned, { type: "remark", remarking: { column: 0 } });
    expect(writing).toEqual({ ...pinned, remarking: { column: 0 } });
    expect(after(writing, { type: "remark" })).toEqual(pinned);
  });
});

describe("cells", () => {
  const values: CellValue[] = [
    {
      kind: "grade",
      answerId: "b",
      criterionId: "right",
      mark: { level: 2, notApplicable: false, confidence: "SURE" },
    },
    { kind: "reason", answerId: "b", text: "So." },
    { kind: "works", answerId: "b", works: "NOT" },
    { kind: "preference", answerId: "b", place: 2 },
    { kind: "coverage", answerId: "b", point: 1, verdict: "MISSED" },
    { kind: "remark", answerId: "b", remarkId: "r", remark: { stance: "CREDIT", trait: "", words: "Good." } },
    { kind: "guess", answerId: "b", choice: 1, noIdea: false },
  ];

  it.each(values)("come back from the sheet as they were put in: $kind", (value) => {
    const sheet = sheetWith(aSheet(), value, 4);
    const [a, b] = sheet.answers;
    expect(b && savedIn(b, value)).toEqual({ value, revision: 4 });
    expect(a && savedIn(a, { ...value, answerId: "a" }).revision).toBe(0);
    expect(valueWords(value)).not.toBe("");
  });

  it("are told apart by what they are of", () => {
    expect(new Set(values.map(cellOf)).size).toBe(values.length);
  });
});

describe("texts that mean ill", () => {
  it("spells out what cannot be seen and turns nothing round", () => {
    expect(spelledOut("a\u202eb\u0000c\td\n")).toBe("a⟦202E⟧b⟦0000⟧c\td\n");
    expect(spelledOut("سلام 👩‍🔬")).toBe("سلام 👩‍🔬");
  });
});

describe("search", () => {
  it("finds lines in all answers, whatever the case", () => {
    expect(matchesIn(["One lamp\nno\nLAMP", "none", "lamp"], "Lamp")).toEqual([
      { column: 0, line: 1 },
      { column: 0, line: 3 },
      { column: 2, line: 1 },
    ]);
    expect(matchesIn(["lamp"], "")).toEqual([]);
    expect(matchesIn(["a.b"], ".")).toHaveLength(1);
    expect(matchesIn(["x\n".repeat(9_000)], "x")).toHaveLength(5_000);
  });
});

it("lists no key twice", () => {
  const shown = KEY_GROUPS.flatMap((g) => g.lines.map((line) => line.shown));
  expect(new Set(shown).size).toBe(shown.length);
});

it("does one thing with each key, and tells of each", () => {
  const bindings: Pick<Binding<never>, "on" | "shown" | "what">[] = [...CELL_KEYS, ...SHEET_KEYS];
  const pressed = bindings.flatMap((b) => b.on);
  expect(new Set(pressed).size).toBe(pressed.length);
  const listed = KEY_GROUPS.flatMap((g) => g.lines);
  expect(bindings.filter((b) => b.shown !== "").every((b) => listed.includes(b))).toBe(true);
  expect(listed.every((line) => line.what !== "")).toBe(true);
});

describe("the prompt of a new sheet", () => {
  const change = changeView([true, true]);
  const begun = change(firstView(2), { type: "begin" });

  it("gives way once reading or grading begins, and comes back by hand and stays", () => {
    expect(isPromptOpen(firstView(2))).toBe(true);
    expect(isPromptOpen(begun)).toBe(false);
    const shown = change(begun, { type: "prompt" });
    expect(isPromptOpen(shown)).toBe(true);
    expect(isPromptOpen(change(shown, { type: "begin" }))).toBe(true);
  });
});

describe("columns of answers", () => {
  it("share the room where all fit", () => {
    expect(columnsIn(80, 3)).toBe("12.5rem repeat(3, minmax(19rem, 1fr))");
    expect(columnsIn(69.5, 3)).toContain("1fr");
  });

  it("stand there whole where not all fit, and the edge of the next is seen", () => {
    // (80 − 12.5 − 1.5) / 3 = 22
    expect(columnsIn(80, 5)).toBe("12.5rem repeat(5, 22rem)");
    expect(columnsIn(40, 5)).toBe("12.5rem repeat(5, 26rem)");
    expect(columnsIn(24, 5)).toBe("12.5rem repeat(5, 19rem)");
  });
});
