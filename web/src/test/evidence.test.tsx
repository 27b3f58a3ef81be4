// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { RepairDialog, TrialsNote } from "../features/evidence";
import { EvidencePage } from "../features/trial";

vi.mock("../ui/CodeEditor", () => ({
  CodeEditor: ({ label, text, onText }: { label: string; text: string; onText: (text: string) => void }) => (
    <textarea aria-label={label} value={text} onChange={(e) => onText(e.target.value)} />
  ),
}));

const OVER: Schemas["StudySummary"] = { ...STUDY, stage: "CLOSED" };

const summary = (outcome: Schemas["TrialSummary"]["outcome"], passed = 1, asked = 1): Schemas["TrialSummary"] => ({
  outcome,
  passed,
  asked,
});

const answer = (id: string, more: Partial<Schemas["AnswerEvidence"]>): Schemas["AnswerEvidence"] => ({
  answerId: id,
  promptId: "p1",
  candidateId: "c1",
  attempt: 1,
  standing: "AS_IS",
  times: 1,
  turns: [],
  repairs: 0,
  warnings: 0,
  deprecations: 0,
  broken: 0,
  mended: 0,
  ...more,
});

const counted = (candidateId: string, worksAsIs: number): Schemas["CandidateEvidence"] => ({
  candidateId,
  answers: 2,
  tried: 2,
  worksAsIs,
  worksAfterRepair: 1,
  worksNot: 1 - worksAsIs,
  flaky: 0,
  asIs: { value: worksAsIs / 2, low: 0.09, high: 0.91, level: 0.95 },
  withRepairs: { value: 1, low: 0.34, high: 1, level: 0.95 },
  warnings: 3,
  deprecations: 1,
  breaking: candidateId === "c2" ? 1 : 0,
});

const REPORT: Schemas["EvidenceReport"] = {
  shown: "AFTER_OWN_GRADE",
  candidates: [
    { candidateId: "c1", name: "Osierhold" },
    { candidateId: "c2", name: "Teaselworth" },
  ],
  prompts: [
    { promptId: "p1", title: "Mend the gauge", kind: "Debugging" },
    { promptId: "p2", title: "Clean up the tide", kind: "Refactoring" },
  ],
  answers: [
    answer("a1", { last: summary("PASSED"), warnings: 2 }),
    answer("a2", { candidateId: "c2", standing: "AFTER_REPAIR", lines: 1, last: summary("DID_NOT_COMPILE", 0, 0) }),
    answer("a3", { promptId: "p2", standing: "NOT", last: summary("FAILED_TESTS", 3, 5), broken: 2, mended: 1 }),
    answer("a4", {
      promptId: "p2",
      candidateId: "c2",
      standing: "FLAKY",
      last: summary("CRASHED", 0, 1),
      turns: [
        { turn: 0, summary: summary("CRASHED", 0, 1) },
        { turn: 1, summary: summary("PASSED") },
      ],
    }),
  ],
  parts: [
    { kind: "", candidates: [counted("c1", 1), counted("c2", 0)] },
    { kindId: "k1", kind: "Debugging", candidates: [counted("c1", 1), counted("c2", 1)] },
  ],
};

const GRADED: Schemas["GradedEvidence"] = {
  criterion: "Correctness",
  contradicting: 1,
  contradictions: [
    {
      answerId: "a2",
      promptId: "p1",
      candidateId: "c2",
      attempt: 1,
      rater: "Juri Halvard",
      level: 4,
      highest: 4,
      sort: "TOP_GRADE_THOUGH_IT_FAILS",
      outcome: "DID_NOT_COMPILE",
    },
  ],
  saidOtherwise: 1,
  otherwise: [
    {
      answerId: "a3",
      promptId: "p2",
      candidateId: "c1",
      attempt: 1,
      rater: "Bram Okkers",
      works: "AS_IS",
      byTrial: "NOT",
      why: "The check wants a word nobody asked for.",
    },
  ],
  seen: {
    shown: "AFTER_OWN_GRADE",
    answers: 12,
    changed: 2,
    raised: 1,
    before: { value: 0.61, low: 0.4, high: 0.8, level: 0.95 },
    after: { value: 0.74, low: 0.55, high: 0.88, level: 0.95 },
    withTrials: { value: 0.7 },
    withoutTrials: { value: 0.6 },
  },
  people: [{ name: "Bram Okkers", inputs: 4, repairs: 1 }],
};

function page(graded = GRADED, study = OVER) {
  const double = server();
  double
    .on("GET /api/studies/s1/evidence", () => ({ body: REPORT }))
    .on("GET /api/studies/s1/recommendation/evidence", () => ({ body: graded }))
    .on("GET /api/studies/s1/follows", () => ({ body: {} }));
  inStudy(<EvidencePage />, study);
  return double;
}

describe("trials beside the recommendation", () => {
  it("count what works by candidate, with intervals", async () => {
    page();
    const table = within(await screen.findByRole("table", { name: "What works by trial" }));
    const row = table.getByRole("rowheader", { name: /Osierhold/ }).closest("tr");
    expect(row?.textContent).toContain("1 of 2");
    expect(row?.textContent).toContain("9 % to 91 %");
  });

  it("show prompt by candidate how answers stand, in words", async () => {
    page();
    const table = within(await screen.findByRole("table", { name: "What came of trying, prompt by prompt" }));
    expect(table.getByRole("link", { name: "works as is" }).getAttribute("href")).toContain("answer=a1");
    expect(table.getByText("after a repair of 1 line")).toBeTruthy();
    expect(table.getByText("failed tests, 3 of 5")).toBeTruthy();
    expect(table.getByText("now so, now so")).toBeTruthy();
    expect(table.getByText("first reply crashed → follow-up 1 passed")).toBeTruthy();
    expect(table.getByText("2 warnings")).toBeTruthy();
    expect(table.getByText("2 tests broken, 1 mended")).toBeTruthy();
    expect(screen.getAllByRole("columnheader", { name: /Break a test/ })[0]).toBeTruthy();
  });

  it("narrow down to a kind, and keep that in the address", async () => {
    page();
    await userEvent.selectOptions(await screen.findByLabelText("Kind"), "k1");
    await screen.findByRole("table", { name: "What works by trial, Debugging" });
    const table = within(screen.getByRole("table", { name: "What came of trying, prompt by prompt" }));
    expect(table.queryByText("Clean up the tide")).toBeNull();
  });

  it("flag grades that trials speak against, and tell what raters said", async () => {
    page();
    const table = within(await screen.findByRole("table", { name: "Grades that trials speak against" }));
    expect(table.getByRole("link", { name: "Mend the gauge, Teaselworth" })).toBeTruthy();
    expect(table.getByText("4 of 4")).toBeTruthy();
    expect(screen.getByText(/says it\s+works as it is, the trial that it does not work/)).toBeTruthy();
  });

  it("tell whether raters saw them, and compare agreement before and after", async () => {
    page();
    expect(await screen.findByText(/12 times; 2 grades were changed after it, 1 of them raised/)).toBeTruthy();
    const table = within(screen.getByRole("table", { name: "Agreement on correctness with and without trials" }));
    expect(table.getByText("0.61 (0.40 to 0.80)")).toBeTruthy();
    expect(table.getByText("0.74 (0.55 to 0.88)")).toBeTruthy();
  });

  it("are counted whole where not all are listed", async () => {
    page({ ...GRADED, contradicting: 2_345, saidOtherwise: 2_001 });
    expect(await screen.findByText(/2345 grades to look at/)).toBeTruthy();
    expect(screen.getAllByText(/The first 1 of them is listed/)).toHaveLength(2);
    expect(screen.getByText(/2001 times/)).toBeTruthy();
  });

  it("say it where nobody looked, and compare nothing", async () => {
    page({ ...GRADED, contradicting: 0, contradictions: [], seen: { ...GRADED.seen, answers: 0 } });
    expect(await screen.findByText(/Nobody looked at any/)).toBeTruthy();
    expect(screen.getByText(/No highest grade for correctness on code that fails/)).toBeTruthy();
    expect(screen.queryByRole("table", { name: /with and without/ })).toBeNull();
  });

  it("are hidden while raters grade", async () => {
    const double = page(GRADED, { ...STUDY, stage: "GRADING" });
    await waitFor(() => expect(document.body.textContent).not.toBe(""));
    expect(screen.queryByRole("heading", { name: "Trials" })).toBeNull();
    expect(double.asked.map((a) => a.path)).not.toContain("/api/studies/s1/evidence");
  });
});

describe("a note beside agreement", () => {
  it("says whether raters saw trials", async () => {
    server().on("GET /api/studies/s1/evidence", () => ({ body: REPORT }));
    inStudy(<TrialsNote />, OVER);
    expect(await screen.findByText(/once they had graded it/)).toBeTruthy();
  });

  it("says nothing where nothing was tried", async () => {
    const double = server().on("GET /api/studies/s1/evidence", () => ({
      body: { ...REPORT, answers: [answer("a1", { standing: "NOT_TRIED" })] },
    }));
    inStudy(<TrialsNote />, OVER);
    await waitFor(() => expect(double.asked).toHaveLength(1));
    expect(screen.queryByText(/graded it/)).toBeNull();
  });
});

describe("repairing an answer's code", () => {
  const FILES = [
    { path: "Tide.java", text: "class Tide {}\n" },
    { path: "Other.java", text: "class Other {}\n" },
  ];

  const repairing = (onTry: Parameters<typeof RepairDialog>[0]["onTry"], files = FILES) => (
    <RepairDialog
      title="Repair"
      files={files}
      failure={null}
      onTry={onTry}
      pictureAt={() => ""}
      onClose={() => undefined}
    />
  );

  it("tries only what was changed, and tells the lines", async () => {
    const onTry = vi.fn().mockResolvedValue({
      repair: { id: "r1", lines: 1 },
      result: { summary: summary("PASSED"), items: [], messages: [], pictures: [], log: "" },
    });
    inStudy(repairing(onTry));
    const editor = await screen.findByLabelText("Code of Tide.java");
    expect(screen.getByRole("button", { name: "Try it so" }).hasAttribute("disabled")).toBe(true);
    await userEvent.type(editor, "// mended");
    await userEvent.click(screen.getByRole("button", { name: "Try it so" }));
    expect(onTry).toHaveBeenCalledWith([{ path: "Tide.java", text: "class Tide {}\n// mended" }]);
    expect(await screen.findByText("After a repair of 1 line:")).toBeTruthy();
  });

  it("keeps what was written in one file while another is looked at", async () => {
    inStudy(repairing(vi.fn()));
    await userEvent.type(await screen.findByLabelText("Code of Tide.java"), "// one");
    await userEvent.selectOptions(screen.getByLabelText("File"), "Other.java");
    await screen.findByLabelText("Code of Other.java");
    await userEvent.selectOptions(screen.getByLabelText("File"), "Tide.java");
    expect(await screen.findByDisplayValue(/one/)).toBeTruthy();
    expect(screen.getByText("1 file is changed.")).toBeTruthy();
  });

  it("says why it could not be tried", async () => {
    const onTry = vi.fn().mockRejectedValue(new Error("Too much is being tried for you at this moment."));
    inStudy(repairing(onTry));
    await userEvent.type(await screen.findByLabelText("Code of Tide.java"), "x");
    await userEvent.click(screen.getByRole("button", { name: "Try it so" }));
    expect(await screen.findByText(/Too much is being tried/)).toBeTruthy();
  });

  it("says that there is no code", async () => {
    inStudy(repairing(vi.fn(), []));
    expect(await screen.findByText("There is no code in it that could be changed.")).toBeTruthy();
  });
});
