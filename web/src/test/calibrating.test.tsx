// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { CalibrationsThatWait } from "../features/calibration";
import { AnswerPage } from "../features/calibration/AnswerPage";
import { CalibrationPage } from "../features/calibration/CalibrationPage";

const IN = "/api/studies/s1/calibrations";

const SUMMARY: Schemas["CalibrationSummary"] = {
  studyId: "s1",
  studyTitle: "A model for the lamps",
  number: 1,
  stage: "TALK",
  prompts: ["Why does the lamp stay dark?"],
  sent: 4,
  sheets: 4,
  open: true,
  toGrade: 0,
  reached: false,
};

const PAGE: Schemas["CalibrationPage"] = {
  summary: SUMMARY,
  course: { begunAt: "2026-11-02T08:00:00Z", begunBy: "Cleo Varn", rubricVersion: 1 },
  waitsFor: [],
  criteria: [{ key: "correctness", name: "Correctness", highestLevel: 4 }],
  agreement: [
    {
      criterion: "correctness",
      name: "Correctness",
      floor: 0.6,
      before: { value: 0.41, low: 0.1, high: 0.7, level: 0.95 },
      reached: false,
    },
  ],
  distances: [
    {
      name: "Bo Grane",
      own: true,
      fromOthers: { before: { apart: 25, above: -25, grades: 4 } },
      fromReference: {},
    },
  ],
  raters: ["Bo Grane", "Åse Lund"],
  answers: [
    {
      place: 1,
      prompt: "Why does the lamp stay dark?",
      ofPrompt: 1,
      cells: [{ criterion: "correctness", levels: [1, 4], after: [], distance: 3, words: 2 }],
      words: 0,
    },
  ],
  talking: true,
  leads: false,
  mayRepeat: false,
};

const ANSWER: Schemas["AnswerTalk"] = {
  studyId: "s1",
  studyTitle: "A model for the lamps",
  number: 1,
  place: 1,
  last: 2,
  ofPrompt: 1,
  prompt: {
    title: "Why does the lamp stay dark?",
    kindId: "k1",
    kind: "Debugging",
    request: "Find out.",
    keyPoints: [],
  },
  criteria: [
    {
      key: "correctness",
      name: "Correctness",
      question: "Is it right?",
      levels: [0, 1, 2, 3, 4].map((level) => ({ level, name: `level ${level}`, anchor: `As ${level} looks.` })),
    },
  ],
  text: "It is the relay.\n\nMend it.",
  raters: [
    {
      name: "Bo Grane",
      own: true,
      levels: [{ criterion: "correctness", level: 1 }],
      after: [],
      reason: "Which relay?",
      coverage: [],
      remarks: [],
    },
    {
      name: "Åse Lund",
      own: false,
      levels: [{ criterion: "correctness", level: 4 }],
      after: [],
      reason: "It is the one.",
      coverage: [],
      remarks: [],
    },
  ],
  agreed: [
    {
      criterion: "correctness",
      source: "SETTLED",
      level: 3,
      reason: "One relay is named.",
      by: "Cleo Varn",
      at: "2026-11-03T10:00:00Z",
    },
  ],
  words: [],
  talking: true,
  leads: false,
};

const AT = { at: "1", path: ":number" };
const AT_ANSWER = { at: "1/1", path: ":number/:place" };

async function page(change: Partial<Schemas["CalibrationPage"]> = {}, answers = server()) {
  answers.on(`GET ${IN}/1`, () => ({ body: { ...PAGE, ...change } }));
  inStudy(<CalibrationPage />, STUDY, AT);
  await screen.findByRole("heading", { level: 1 });
}

async function answer(change: Partial<Schemas["AnswerTalk"]> = {}, answers = server()) {
  answers.on(`GET ${IN}/1/answers/1`, () => ({ body: { ...ANSWER, ...change } }));
  inStudy(<AnswerPage />, STUDY, AT_ANSWER);
  await screen.findByRole("heading", { level: 1 });
  return answers;
}

describe("what raters calibrated by", () => {
  const settled = PAGE.answers.map((a) => ({ ...a, cells: a.cells.map((c) => ({ ...c, settled: 3 })) }));

  it("is kept in the bank with the answers that have a level", async () => {
    const answers = server().on(`POST ${IN}/1/keep`, () => ({
      body: [{ title: "Why does the lamp stay dark?", version: 2, answers: 1 }],
    }));
    await page({ leads: true, answers: settled }, answers);
    expect(screen.getByText(/^1 answer has a level to stand at/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Keep the prompts with these answers" }));
    expect(await screen.findByText(/is kept as version 2, with 1 answer\./)).toBeTruthy();
    expect(answers.asked.filter((a) => a.path.endsWith("/keep"))).toHaveLength(1);
  });

  it("stays where it is while no answer has one, and for raters", async () => {
    await page({ leads: true });
    expect(screen.getByText(/^Once answers have a level/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Keep the prompts/ })).toBeNull();
  });

  it("is no rater’s to keep", async () => {
    await page({ answers: settled });
    expect(screen.queryByText("For the raters of other studies")).toBeNull();
  });
});

describe("a calibration", () => {
  it("shows nothing of what others gave before the last is in", async () => {
    await page({
      summary: { ...SUMMARY, stage: "GRADING", open: false, sent: 3, toGrade: 1 },
      answers: [],
      waitsFor: [{ raterId: "r2", name: "Åse Lund" }],
      leads: true,
    });
    const told = screen.getByRole("status").textContent;
    expect(told).toContain("3 of 4 sheets sent in");
    expect(told).toContain("Still grading: Åse Lund.");
    expect(screen.queryByRole("table")).toBeNull();
  });

  it("goes on without who does not send in, with a reason", async () => {
    const sent: unknown[] = [];
    const closed = { ...PAGE, summary: { ...SUMMARY, stage: "GRADING", open: false } as const, answers: [] };
    server()
      .on(`GET ${IN}/1`, () => ({ body: { ...closed, waitsFor: [{ raterId: "r2", name: "Åse Lund" }], leads: true } }))
      .on(`POST ${IN}/1/without`, ({ body }) => {
        sent.push(body);
        return { body: PAGE };
      });
    inStudy(<CalibrationPage />, STUDY, AT);
    await userEvent.click(await screen.findByRole("button", { name: "Go on without Åse Lund …" }));
    await userEvent.type(screen.getByLabelText(/Why/), "At sea.");
    await userEvent.click(screen.getByRole("button", { name: "Go on without them" }));
    await waitFor(() => expect(sent).toEqual([{ raterId: "r2", reason: "At sea." }]));
  });

  it("lets the lead note at which level an answer should stand before the talk", async () => {
    await page({
      summary: { ...SUMMARY, stage: "GRADING", open: false },
      leads: true,
      raters: [],
      answers: PAGE.answers.map((a) => ({ ...a, cells: a.cells.map((c) => ({ ...c, levels: [], words: 0 })) })),
    });
    expect(screen.getByRole("link", { name: /Correctness: note a reference$/ })).toBeTruthy();
  });

  it("puts what everybody gave side by side, and leads from a cell to its talk", async () => {
    await page();
    expect(screen.getByText(/Agreement on correctness was short of the floor before the talk/)).toBeTruthy();
    const cell = screen.getByRole("link", { name: /^Why does the lamp stay dark\?, answer 1, Correctness:/ });
    expect(cell.getAttribute("href")).toBe("/calibrations/s1/1/1?criterion=correctness");
    expect(screen.getByText("0.41")).toBeTruthy();
    expect(screen.getByRole("heading", { name: "How far you lie from the others" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Have it graded again …" })).toBeNull();
  });

  it("shows both gradings once it was graded again", async () => {
    await page({
      course: { ...PAGE.course, again: { at: "2026-11-04T08:00:00Z", rubricVersion: 2 } },
      agreement: PAGE.agreement.map((a) => ({ ...a, after: { value: 0.9 } })),
      answers: PAGE.answers.map((a) => ({ ...a, cells: a.cells.map((c) => ({ ...c, after: [3, 3] })) })),
    });
    expect(screen.getByRole("columnheader", { name: "After it" })).toBeTruthy();
    expect(screen.getByText("again")).toBeTruthy();
    expect(screen.getByRole("columnheader", { name: "From the others, again" })).toBeTruthy();
  });
});

describe("an answer that raters calibrate by", () => {
  it("shows the scale with who gave what, and where it was settled", async () => {
    await answer();
    const levels = within(screen.getByRole("list", { name: "Levels from the highest" })).getAllByRole("listitem");
    expect(levels[0]?.textContent).toContain("Gave it: Åse Lund");
    expect(levels[1]?.textContent).toContain("Settled by Cleo Varn");
    expect(levels[3]?.textContent).toContain("Gave it: Bo Grane (you)");
    expect(screen.queryByRole("button", { name: "Settle it …" })).toBeNull();
  });

  it("is talked about by criterion and line", async () => {
    const sent: unknown[] = [];
    const answers = server().on(`POST ${IN}/1/answers/1/words`, ({ body }) => {
      sent.push(body);
      return { body: ANSWER };
    });
    await answer({}, answers);
    await userEvent.type(screen.getByLabelText("From line"), "1");
    await userEvent.type(screen.getByLabelText("What you saw"), "The relay is not named.");
    await userEvent.click(screen.getByRole("button", { name: "Say it" }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        criterion: "correctness",
        lines: { from: 1, to: 1 },
        words: "The relay is not named.",
      }),
    );
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("From line").value).toBe(""));
  });

  it("leads to a proposal for an anchor with one key, but not while one writes", async () => {
    const sent: unknown[] = [];
    const answers = server().on("POST /api/studies/s1/rubric/proposals", ({ body }) => {
      sent.push(body);
      return { status: 204, body: undefined };
    });
    await answer({}, answers);
    await userEvent.type(screen.getByLabelText("What you saw"), "p");
    expect(screen.queryByRole("dialog")).toBeNull();
    await userEvent.click(document.body);
    await userEvent.keyboard("p");
    const dialog = await screen.findByRole("dialog", { name: "An anchor of correctness" });
    const words = within(dialog).getByLabelText<HTMLTextAreaElement>(/What it should say/);
    expect(words.value).toBe("As 4 looks.");
    expect(within(dialog).getByRole<HTMLButtonElement>("button", { name: "Propose it" }).disabled).toBe(true);
    await userEvent.type(words, " All of it.");
    await userEvent.click(within(dialog).getByRole("button", { name: "Propose it" }));
    expect(await screen.findByText("Proposed. The lead finds it with the rubric.")).toBeTruthy();
    expect(sent[0]).toMatchObject({
      criterion: "correctness",
      kindId: "k1",
      level: 4,
      words: "As 4 looks. All of it.",
    });
  });

  it("is settled by the lead with a reason", async () => {
    const sent: unknown[] = [];
    const answers = server().on(`PUT ${IN}/1/answers/1/levels/correctness/SETTLED`, ({ body }) => {
      sent.push(body);
      return { body: { ...ANSWER, leads: true } };
    });
    await answer({ leads: true, agreed: [] }, answers);
    await userEvent.click(screen.getByRole("button", { name: "Settle it …" }));
    const settle = screen.getByRole<HTMLButtonElement>("button", { name: "Settle it" });
    expect(settle.disabled).toBe(true);
    await userEvent.click(screen.getByRole("radio", { name: "2" }));
    await userEvent.type(screen.getByLabelText(/Why/), "Half of it.");
    await userEvent.click(settle);
    await waitFor(() => expect(sent).toEqual([{ level: 2, reason: "Half of it." }]));
  });
});

describe("calibrations that wait", () => {
  it("say what each waits for", async () => {
    server().on("GET /api/calibrations", () => ({
      body: [
        SUMMARY,
        { ...SUMMARY, number: 2, stage: "GRADING", open: false, toGrade: 2, sent: 1 },
        { ...SUMMARY, number: 3, stage: "GRADING", open: false, sent: 3 },
      ],
    }));
    inStudy(<CalibrationsThatWait />);
    const items = await screen.findAllByRole("listitem");
    expect(items[0]?.textContent).toContain("all are in: compare and talk");
    expect(items[1]?.textContent).toContain("2 sheets to grade");
    expect(items[2]?.textContent).toContain("waits for 1 sheet of others");
  });
});
