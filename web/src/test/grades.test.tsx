// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRef, useState } from "react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { cellOf, type CellValue, savedIn, sheetWith } from "../features/desk/cells";
import { JudgeTable, type JudgeTableHandle } from "../features/desk/JudgeTable";
import { gradeRows, pointRows } from "../features/desk/rows";
import { Ruler } from "../features/desk/Ruler";
import type { Desk } from "../features/desk/useDesk";
import type { Focus } from "../features/desk/view";
import { answerOn, aSheet } from "./sheet";

let given: Map<string, CellValue>;

beforeEach(() => {
  given = new Map();
});
afterEach(cleanup);

type BenchProps = {
  sheet?: Schemas["SheetView"];
  locked?: boolean;
  points?: boolean;
  handle?: React.RefObject<JudgeTableHandle | null>;
};

/** A desk that holds what is set, as the real one does between the keys and the server. */
function deskOf(sheet: Schemas["SheetView"], set: (value: CellValue) => void): Desk {
  const saved = <K extends CellValue["kind"]>(like: CellValue & { kind: K }) => {
    const answer = sheet.answers.find((a) => a.id === like.answerId) ?? answerOn(like.answerId, 9);
    return savedIn(answer, like).value;
  };
  return {
    outbox: {
      pending: new Map(),
      conflicts: new Map(),
      saved: new Map(),
      overtaken: new Map(),
      refusals: new Map(),
      connection: "fine",
    },
    markAt: (answerId, criterionId) => {
      const value = saved({ kind: "grade", answerId, criterionId, mark: { notApplicable: false } });
      return value.kind === "grade" ? value.mark : { notApplicable: false };
    },
    reasonAt: (answerId) => {
      const value = saved({ kind: "reason", answerId, text: "" });
      return value.kind === "reason" ? value.text : "";
    },
    worksWhyAt: () => "",
    worksAt: (answerId) => {
      const value = saved({ kind: "works", answerId });
      return value.kind === "works" ? value.works : undefined;
    },
    preferenceAt: (answerId) => {
      const value = saved({ kind: "preference", answerId });
      return value.kind === "preference" ? value.place : undefined;
    },
    verdictAt: (answerId, point) => {
      const value = saved({ kind: "coverage", answerId, point });
      return value.kind === "coverage" ? value.verdict : undefined;
    },
    guessAt: (answerId) => {
      const value = saved({ kind: "guess", answerId, noIdea: false });
      return value.kind === "guess" ? value : { noIdea: false };
    },
    remarksOf: () => [],
    set,
    undo: () => undefined,
    redo: () => undefined,
    settle: () => undefined,
    answerRefusal: () => undefined,
    noted: () => undefined,
    settleAll: () => Promise.resolve(true),
  };
}

function Bench({ sheet: start = aSheet(), locked = false, points = false, handle }: BenchProps) {
  const [sheet, setSheet] = useState(start);
  const [focus, setFocus] = useState<Focus>({ row: 0, column: 0 });
  const desk = deskOf(sheet, (value) => {
    given.set(cellOf(value), value);
    setSheet((old) => sheetWith(old, value, 1));
  });
  const rows = points ? pointRows(sheet) : gradeRows(sheet, desk);
  return (
    <>
      <JudgeTable
        ref={handle ?? null}
        label="Grades"
        sheet={sheet}
        desk={desk}
        rows={rows}
        locked={locked}
        guessing={sheet.sent}
        reasons={!points}
        columns={[0, 1, 2]}
        pinned={undefined}
        template={{}}
        focus={focus}
        onFocus={setFocus}
      />
      <Ruler
        row={rows[focus.row]}
        answer={sheet.answers[focus.column]}
        sheet={sheet}
        desk={desk}
        locked={locked}
        guessing={sheet.sent}
      />
    </>
  );
}

const start = async () => {
  await userEvent.tab();
  expect(here()).toMatch(/^Correctness, answer 1,/);
};
const here = () => document.activeElement?.getAttribute("aria-label") ?? "";

describe("grading by keyboard", () => {
  it("is one stop for Tab, then arrows, which stay inside", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{ArrowLeft}{ArrowUp}");
    expect(here()).toMatch(/^Correctness, answer 1,/);
    await userEvent.keyboard("{ArrowRight}{ArrowDown}");
    expect(here()).toMatch(/^Compiles, answer 2/);
    await userEvent.keyboard("{ArrowRight}{ArrowRight}");
    expect(here()).toMatch(/^Compiles, answer 3/);
    expect(screen.getAllByRole("gridcell").filter((c) => c.tabIndex === 0 && c.hasAttribute("data-cell")).length).toBe(
      1,
    );
  });

  it("goes to the first and the last answer", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{End}");
    expect(here()).toMatch(/^Correctness, answer 3/);
    await userEvent.keyboard("{Home}");
    expect(here()).toMatch(/^Correctness, answer 1,/);
  });

  it("gives a level, says it by number and name, and gives another", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("3");
    expect(here()).toBe("Correctness, answer 1, level 3 mostly, as mostly looks");
    await userEvent.keyboard("0");
    expect(here()).toBe("Correctness, answer 1, level 0 no, as no looks");
    expect(given.get("a/grade/right")).toMatchObject({ mark: { level: 0, notApplicable: false } });
  });

  it("takes no level above the highest of its criterion", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("4{ArrowDown}2");
    expect(given.size).toBe(0);
    await userEvent.keyboard("1");
    expect(here()).toBe("Compiles, answer 1, level 1 Pass, as Pass looks");
  });

  it.each(["{Delete}", "{Backspace}"])("takes a grade away with %s", async (key) => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("2x");
    expect(here()).toBe("Correctness, answer 1, not applicable");
    await userEvent.keyboard(key);
    expect(here()).toBe("Correctness, answer 1, no grade");
  });

  it("leaves the browser's own keys alone", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{Control>}1{/Control}{Meta>}x{/Meta}{Alt>}2{/Alt}");
    expect(given.size).toBe(0);
  });

  it("writes why, where digits are text, and comes back to the same cell", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{ArrowDown}{ArrowRight}w");
    expect(here()).toBe("Reason for the grades of answer 2");
    await userEvent.keyboard("2 lamps, x and w");
    expect(given.get("b/reason/")).toMatchObject({ text: "2 lamps, x and w" });
    expect(given.size).toBe(1);
    await userEvent.keyboard("{Escape}");
    expect(here()).toMatch(/^Compiles, answer 2/);
  });

  it("can be brought to a cell from outside, and be set by a click on an anchor", async () => {
    const handle = createRef<JudgeTableHandle>();
    render(<Bench handle={handle} />);
    await start();
    handle.current?.focus({ row: 0, column: 1 });
    expect(here()).toMatch(/^Correctness, answer 2/);
    await userEvent.click(screen.getByRole("button", { name: /^2 partly/ }));
    expect(given.get("b/grade/right")).toMatchObject({ mark: { level: 2 } });
    handle.current?.focusReason(2);
    expect(here()).toBe("Reason for the grades of answer 3");
  });

  it("says how sure the rater is, once there is a grade, and keeps that with another level", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("u");
    expect(given.size).toBe(0);
    await userEvent.keyboard("2u");
    expect(here()).toBe("Correctness, answer 1, level 2 partly, unsure, as partly looks");
    await userEvent.keyboard("1");
    expect(here()).toMatch(/level 1 hardly, unsure, as/);
    await userEvent.keyboard("y");
    expect(here()).toMatch(/, sure, as/);
    await userEvent.keyboard("{Delete}");
    expect(here()).toBe("Correctness, answer 1, no grade");
  });

  it("asks whether it works only for answers with code", async () => {
    const answers = [answerOn("a", 1, { hasCode: true }), answerOn("b", 2)];
    render(<Bench sheet={aSheet({ answers })} />);
    await start();
    await userEvent.keyboard("{ArrowDown}{ArrowDown}2");
    expect(here()).toBe("Does it work, answer 1, after a trivial repair");
    await userEvent.keyboard("{ArrowRight}1");
    expect(here()).toBe("Does it work, answer 2, no code");
    expect(given.has("b/works/")).toBe(false);
  });

  it("asks for the order of preference once everything is graded, ties allowed", async () => {
    render(<Bench />);
    await start();
    expect(screen.queryByRole("rowheader", { name: "Order of preference" })).toBeNull();
    await userEvent.keyboard("2{ArrowRight}2{ArrowRight}2{ArrowDown}1{ArrowLeft}1{ArrowLeft}1");
    await userEvent.keyboard("{ArrowDown}1{ArrowRight}1{ArrowRight}3");
    expect(here()).toBe("Order of preference, answer 3, preference 3");
    expect(given.get("a/preference/")).toMatchObject({ place: 1 });
    expect(given.get("b/preference/")).toMatchObject({ place: 1 });
    await userEvent.keyboard("4");
    expect(given.get("c/preference/")).toMatchObject({ place: 3 });
  });

  it("judges key points, and shows what they speak for without setting it", async () => {
    const { unmount } = render(<Bench points />);
    await userEvent.tab();
    expect(here()).toBe("Names the fuse, answer 1, nothing yet");
    await userEvent.keyboard("1{ArrowDown}2");
    expect(here()).toBe("must not: Blames the bulb, answer 1, partly");
    expect(given.get("a/coverage/1")).toMatchObject({ verdict: "PARTLY" });
    unmount();
    const coverage: Schemas["CoverageOnSheet"][] = [
      { point: 0, verdict: "COVERED", revision: 1 },
      { point: 1, verdict: "PARTLY", revision: 1 },
    ];
    render(<Bench sheet={aSheet({ answers: [answerOn("a", 1, { coverage }), answerOn("b", 2)] })} />);
    // by hand: (2 + 0.5) of 3 is 83.33 %, of 3 levels 2.5, which rounds to 3
    expect(screen.getByText("key points: 3")).toBeTruthy();
    await start();
    expect(screen.getByText(/weigh in at 2.5 of 3/)).toBeTruthy();
    expect(here()).toBe("Correctness, answer 1, no grade");
  });

  it("takes no guess any more when the round is closed", async () => {
    const answers = [answerOn("a", 1, { guess: { revision: 0, noIdea: false } }), answerOn("b", 2)];
    render(<Bench locked sheet={aSheet({ answers, guessChoices: ["Osier", "Teasel"] })} />);
    await start();
    await userEvent.keyboard("{ArrowDown}{ArrowDown}2");
    expect(here()).toBe("Who wrote it, answer 1, nothing yet");
    expect(given.size).toBe(0);
  });

  it("asks for a guess once the sheet is sent in, when nothing else can be changed", async () => {
    const answers = [answerOn("a", 1, { guess: { revision: 0, noIdea: false } }), answerOn("b", 2)];
    render(<Bench locked sheet={aSheet({ answers, sent: true, guessChoices: ["Osier", "Teasel"] })} />);
    await start();
    await userEvent.keyboard("2{ArrowDown}{ArrowDown}2");
    expect(here()).toBe("Who wrote it, answer 1, Teasel");
    await userEvent.keyboard("0");
    expect(here()).toBe("Who wrote it, answer 1, no idea");
    expect([...given.keys()]).toEqual(["a/guess/"]);
  });

  it("changes nothing on a sheet that is sent in, which can still be walked through", async () => {
    render(<Bench locked />);
    await start();
    await userEvent.keyboard("3x{ArrowRight}");
    expect(given.size).toBe(0);
    expect(here()).toMatch(/answer 2/);
    expect(screen.getByRole("grid").getAttribute("aria-readonly")).toBe("true");
    expect(screen.getByLabelText("Reason for the grades of answer 1")).toHaveProperty("readOnly", true);
  });
});
