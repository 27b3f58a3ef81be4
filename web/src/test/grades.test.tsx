// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRef, useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { type Focus, GradeTable, type GradeTableHandle } from "../features/grading/GradeTable";
import { cellOf, type Mark } from "../features/grading/outbox";
import type { Desk } from "../features/grading/useDesk";

const LEVELS = (names: string[]) => names.map((name, level) => ({ level, name, anchor: "" }));

const SHEET: Schemas["SheetView"] = {
  id: "sheet",
  studyId: "s1",
  studyTitle: "A code model for the tide desk",
  prompt: {
    title: "Why does the lamp stay dark?",
    kind: "Debugging",
    language: "Java 17",
    request: "Find the fault.",
    startingFiles: [],
    constraints: [],
    keyPoints: [],
  },
  criteria: [
    {
      id: "right",
      name: "Correctness",
      question: "Is it right?",
      levels: LEVELS(["no", "hardly", "partly", "mostly"]),
    },
    { id: "runs", name: "Compiles", question: "Does it compile?", levels: LEVELS(["Fail", "Pass"]) },
  ],
  answers: ["a", "b", "c"].map((id, i) => ({
    id,
    number: i + 1,
    outcome: "COMPLETE",
    text: `Answer ${id}`,
    reason: "",
    reasonRevision: 0,
    grades: [],
  })),
  place: 1,
  ofSheets: 4,
  sent: false,
  setAside: false,
  roundClosed: false,
};

let marks: Map<string, Mark>;
let reasons: Map<string, string>;

beforeEach(() => {
  marks = new Map();
  reasons = new Map();
});
afterEach(cleanup);

/** A desk that holds what is set, as the real one does between the keys and the server. */
function Bench({ locked = false, handle }: { locked?: boolean; handle?: React.RefObject<GradeTableHandle | null> }) {
  const [focus, setFocus] = useState<Focus>({ row: 0, column: 0 });
  const [, again] = useState(0);
  const desk: Desk = {
    outbox: { pending: new Map(), conflicts: new Map(), connection: "fine" },
    markAt: (answerId, criterionId) =>
      marks.get(cellOf({ kind: "grade", answerId, criterionId })) ?? { notApplicable: false },
    reasonAt: (answerId) => reasons.get(answerId) ?? "",
    setMark: (answerId, criterionId, mark) => {
      marks.set(cellOf({ kind: "grade", answerId, criterionId }), mark);
      again((n) => n + 1);
    },
    setReason: (answerId, text) => {
      reasons.set(answerId, text);
      again((n) => n + 1);
    },
    settle: vi.fn(),
    settleAll: () => Promise.resolve(true),
  };
  return (
    <GradeTable
      ref={handle ?? null}
      sheet={SHEET}
      desk={desk}
      locked={locked}
      columns={[0, 1, 2]}
      template={{}}
      focus={focus}
      onFocus={setFocus}
    />
  );
}

const start = async () => {
  await userEvent.tab();
  expect(here()).toMatch(/^Answer 1, Correctness/);
};
const here = () => document.activeElement?.getAttribute("aria-label") ?? "";

describe("grading by keyboard", () => {
  it("is one stop for Tab, then arrows, which stay inside", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{ArrowLeft}{ArrowUp}");
    expect(here()).toMatch(/^Answer 1, Correctness/);
    await userEvent.keyboard("{ArrowRight}{ArrowDown}");
    expect(here()).toMatch(/^Answer 2, Compiles/);
    await userEvent.keyboard("{ArrowDown}{ArrowRight}{ArrowRight}");
    expect(here()).toMatch(/^Answer 3, Compiles/);
    expect(screen.getAllByRole("gridcell").filter((c) => c.tabIndex === 0 && c.hasAttribute("data-cell")).length).toBe(
      1,
    );
  });

  it("goes to the first and the last answer", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{End}");
    expect(here()).toMatch(/^Answer 3, Correctness/);
    await userEvent.keyboard("{Home}");
    expect(here()).toMatch(/^Answer 1, Correctness/);
  });

  it("gives a level, says it by number and name, and gives another", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("3");
    expect(here()).toBe("Answer 1, Correctness: 3 mostly");
    await userEvent.keyboard("0");
    expect(here()).toBe("Answer 1, Correctness: 0 no");
    expect(marks.get("a/right")).toEqual({ level: 0, notApplicable: false });
  });

  it("takes no level above the highest of its criterion", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("4{ArrowDown}2");
    expect(marks.size).toBe(0);
    await userEvent.keyboard("1");
    expect(here()).toBe("Answer 1, Compiles: 1 Pass");
  });

  it.each(["{Delete}", "{Backspace}"])("takes a grade away with %s", async (key) => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("2x");
    expect(here()).toBe("Answer 1, Correctness: not applicable");
    await userEvent.keyboard(key);
    expect(here()).toBe("Answer 1, Correctness: no grade");
  });

  it("leaves the browser's own keys alone", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{Control>}1{/Control}{Meta>}x{/Meta}{Alt>}2{/Alt}");
    expect(marks.size).toBe(0);
  });

  it("writes why, where digits are text, and comes back to the same cell", async () => {
    render(<Bench />);
    await start();
    await userEvent.keyboard("{ArrowDown}{ArrowRight}w");
    expect(here()).toBe("Reason for the grades of answer 2");
    await userEvent.keyboard("2 lamps, x and w");
    expect(reasons.get("b")).toBe("2 lamps, x and w");
    expect(marks.size).toBe(0);
    await userEvent.keyboard("{Escape}");
    expect(here()).toMatch(/^Answer 2, Compiles/);
  });

  it("can be set from outside, as by a click on an anchor", async () => {
    const handle = createRef<GradeTableHandle>();
    render(<Bench handle={handle} />);
    await start();
    await userEvent.keyboard("{ArrowRight}");
    handle.current?.set({ level: 2, notApplicable: false });
    expect(marks.get("b/right")).toEqual({ level: 2, notApplicable: false });
  });

  it("changes nothing on a sheet that is sent in, which can still be walked through", async () => {
    render(<Bench locked />);
    await start();
    await userEvent.keyboard("3x{ArrowRight}");
    expect(marks.size).toBe(0);
    expect(here()).toMatch(/^Answer 2/);
    expect(screen.getByRole("grid").getAttribute("aria-readonly")).toBe("true");
    expect(screen.getByLabelText("Reason for the grades of answer 1")).toHaveProperty("readOnly", true);
  });
});
