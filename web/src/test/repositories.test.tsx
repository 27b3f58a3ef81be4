// @vitest-environment happy-dom
import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { itemRows } from "../features/desk/trying/tableRows";
import type { TriedAnswer } from "../features/desk/trying/TriedTable";
import { changesLine, TrialItems } from "../features/evidence";

const COMMIT = "0123456789abcdef0123456789abcdef01234567";

const test = (
  name: string,
  change: NonNullable<Schemas["CheckItem"]["change"]>,
  outcome: Schemas["CheckItem"]["outcome"] = "PASSED",
): Schemas["CheckItem"] => ({ sort: "TEST", name, outcome, expected: "", came: "", why: "", change });

const end = (more: Partial<Schemas["RepositoryEnd"]> = {}): Schemas["RepositoryEnd"] => ({
  commit: COMMIT,
  changed: ["src/Plan.java"],
  outside: [],
  fits: [],
  ...more,
});

const result = (items: Schemas["CheckItem"][], repository = end()) => ({
  summary: { outcome: "FAILED_TESTS" as const, passed: 1, asked: items.length },
  items,
  messages: [],
  log: "",
  pictures: [],
  repository,
});

const answer = (
  number: number,
  items: Schemas["CheckItem"][],
  repository?: Schemas["RepositoryEnd"],
): Pick<TriedAnswer, "trial"> => ({
  trial: { answerId: `a${number}`, awaitsGrade: false, turns: [], result: result(items, repository), repairs: [] },
});

describe("what an answer does to a repository", () => {
  it("is told test by test, what is worst first, with what the prompt does not show", () => {
    render(
      <TrialItems
        pictureAt={() => ""}
        result={result(
          [
            test("kept", "STILL_PASSES"),
            test("also kept", "STILL_PASSES"),
            test("mended", "MENDED"),
            test("lost", "BROKEN", "FAILED_TESTS"),
          ],
          end({ outside: ["notes.txt"], fits: ["src/Plan.java, part 1 fits 6 lines further down."] }),
        )}
      />,
    );
    expect(screen.getByText(/In a copy of the repository/).textContent).toBe(
      "In a copy of the repository at 0123456789, 1 file changed. Tests: 1 broken, 1 mended, 2 still pass.",
    );
    expect(screen.getAllByRole("listitem").map((i) => i.textContent)).toEqual([
      "lost: broken",
      "mended: mended",
      "kept: still passes",
      "also kept: still passes",
    ]);
    expect(screen.getByText("notes.txt")).toBeDefined();
    expect(screen.getByText(/6 lines further down/)).toBeDefined();
  });

  it("counts in words that fit one and several", () => {
    expect(changesLine([test("a", "STILL_FAILS", "FAILED_TESTS")])).toBe("1 still fails");
    expect(changesLine([test("a", "MAY_FAIL"), test("b", "MAY_FAIL")])).toBe("2 still fail, as they may");
    expect(changesLine([{}])).toBe("");
  });
});

describe("at the desk", () => {
  it("tests that pass for every answer as before stand in one row", () => {
    const rows = itemRows([
      answer(1, [
        test("x: one()", "STILL_PASSES"),
        test("x: two()", "BROKEN", "FAILED_TESTS"),
        test("x: three()", "STILL_PASSES"),
      ]),
      answer(2, [
        test("x: one()", "STILL_PASSES"),
        test("x: two()", "STILL_PASSES"),
        test("x: three()", "STILL_PASSES"),
      ]),
    ]);
    expect(rows.map((r) => [r.name, ...r.cells.map((c) => c?.words)])).toEqual([
      ["two", "broken", "still passes"],
      ["2 other tests", "still pass", "still pass"],
    ]);
    expect(rows[0]?.cells[0]?.good).toBe(false);
  });

  it("what the check lets fail is neither good nor bad, and a new test is told as new", () => {
    const [added, row] = itemRows([
      answer(1, [test("old trouble", "MAY_FAIL", "FAILED_TESTS"), test("added", "NEW", "FAILED_TESTS")]),
    ]);
    expect(row?.cells[0]).toEqual({ words: "still fails, as it may" });
    expect(added?.cells[0]).toEqual({ words: "new, failed tests", good: false });
  });

  it("what was broken stands above what was mended", () => {
    const rows = itemRows([
      answer(1, [test("mended", "MENDED"), test("kept", "STILL_PASSES"), test("lost", "BROKEN", "FAILED_TESTS")]),
      answer(2, [
        test("mended", "STILL_FAILS", "FAILED_TESTS"),
        test("kept", "STILL_PASSES"),
        test("lost", "STILL_PASSES"),
      ]),
    ]);
    expect(rows.map((r) => r.name)).toEqual(["lost", "mended", "1 other test"]);
  });

  it("what was changed though it was not shown, and how it fits, stand below", () => {
    const rows = itemRows([
      answer(1, [test("t", "MENDED")], end({ outside: ["b.txt", "c.txt"], fits: ["It fits elsewhere."] })),
      answer(2, [test("t", "MENDED")]),
    ]);
    expect(rows.map((r) => [r.name, r.cells[0]?.words, r.cells[1]?.words])).toEqual([
      ["t", "mended", "mended"],
      ["Changed, though not shown", "b.txt c.txt", undefined],
      ["How it fits", "It fits elsewhere.", undefined],
    ]);
  });
});
