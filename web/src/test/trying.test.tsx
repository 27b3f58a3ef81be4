// @vitest-environment happy-dom
import { deskWith, item, panel } from "./triedDesk";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { isTyping } from "../features/desk/keys";
import { wordsOf } from "../features/desk/trying/GiveInput";
import { isContrary } from "../features/desk/WorksByTrial";
import { asIfLaidOut } from "./laidOut";

beforeEach(asIfLaidOut);

const PASSED: Schemas["TrialSummary"] = { outcome: "PASSED", passed: 1, asked: 1 };
const WRONG: Schemas["TrialSummary"] = { outcome: "WRONG_OUTPUT", passed: 0, asked: 1 };

const TRIALS: Schemas["TrialsOnSheet"] = {
  shown: "FROM_THE_START",
  takesInput: true,
  inputsLeft: 40,
  answers: [
    {
      answerId: "a",
      awaitsGrade: false,
      turns: [{ turn: 0, summary: WRONG, times: 1, isFlaky: false }],
      result: {
        summary: WRONG,
        items: [item({ outcome: "WRONG_OUTPUT", expected: "depth 4", came: "depth 5", why: "line 1 is another" })],
        messages: [],
        pictures: [],
        log: "== four fathoms",
      },
      repairs: [],
      proposed: "NOT",
    },
    {
      answerId: "b",
      awaitsGrade: false,
      turns: [{ turn: 0, summary: PASSED, times: 1, isFlaky: false }],
      result: { summary: PASSED, items: [item({})], messages: [], pictures: [], log: "== four fathoms" },
      repairs: [],
      proposed: "AS_IS",
    },
  ],
};

const desk = (trials = TRIALS, change: Partial<Schemas["SheetView"]> = {}) => deskWith(trials, change);

describe("trials at the desk", () => {
  it("opens by a key, and by the same key gives the answers back", async () => {
    const double = await desk();
    expect(double.asked.map((a) => a.path)).not.toContain("/api/sheets/sheet/trials");
    await userEvent.keyboard("e");
    await panel();
    await userEvent.keyboard("e");
    await waitFor(() => expect(screen.queryByRole("region", { name: "What came of trying the answers" })).toBeNull());
    expect(screen.getByRole("region", { name: "Answer 1" })).toBeTruthy();
  });

  it("has no such view where the rater sees no trials", async () => {
    const double = await desk(TRIALS, { tried: false });
    await userEvent.keyboard("e");
    expect(screen.queryByRole("region", { name: "What came of trying the answers" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Trial" })).toBeNull();
    expect(double.asked.map((a) => a.path)).not.toContain("/api/sheets/sheet/trials");
  });

  it("shows all answers in the same rows, and what was expected against what came", async () => {
    await desk();
    await userEvent.keyboard("e");
    const within_ = within(await panel());
    const row = await within_.findByRole("button", { name: "four fathoms" });
    expect(within_.getAllByRole("columnheader").map((h) => h.textContent)).toEqual([
      "Asked",
      "Answer 1wrong output",
      "Answer 2passed",
    ]);
    expect(row.closest("tr")?.textContent).toContain("wrong output, line 1 is another");
    await userEvent.click(row);
    expect(within_.getByRole("region", { name: "Expected" }).textContent).toBe("depth 4");
    expect(within_.getByRole("region", { name: "Came" }).textContent).toBe("− depth 4+ depth 5");
  });

  it("says which answers wait for a grade", async () => {
    const [first, second] = TRIALS.answers;
    const { result, proposed, ...hidden } = first ?? { answerId: "a", awaitsGrade: true, turns: [], repairs: [] };
    await desk({
      ...TRIALS,
      shown: "AFTER_OWN_GRADE",
      answers: [{ ...hidden, awaitsGrade: true, turns: [] }, ...(second ? [second] : [])],
    });
    await userEvent.keyboard("e");
    expect((await within(await panel()).findAllByRole("columnheader"))[1]?.textContent).toBe(
      "Answer 1shown once you have graded it",
    );
  });

  it("gives an input to all whose trials are seen, and shows what each did", async () => {
    const double = await desk();
    double.on("POST /api/sheets/sheet/inputs", ({ body }) => ({
      body: { id: "i1", at: "2026-11-20T10:00:00Z", ends: [], ...Object(body) },
    }));
    for (const [id, output] of [
      ["a", "five"],
      ["b", "seven"],
    ]) {
      double.on(`PUT /api/sheets/sheet/inputs/i1/answers/${id}`, () => ({
        body: { answerId: id, end: { end: "BY_ITSELF", status: 0, output, errors: "" } },
      }));
    }
    await userEvent.keyboard("e");
    const within_ = within(await panel());
    await userEvent.type(await within_.findByLabelText("Arguments"), 'deep "two words"');
    await userEvent.type(within_.getByLabelText("Standard input"), "7");
    await userEvent.click(within_.getByRole("button", { name: "Give it to 2 answers" }));
    const row = await within_.findByRole("button", { name: "Your input 1: deep two words 7" });
    await waitFor(() => expect(row.closest("tr")?.textContent).toContain("seven"));
    expect(row.closest("tr")?.textContent).toContain("five");
    expect(double.asked.find((a) => a.method === "POST")?.body).toEqual({
      arguments: ["deep", "two words"],
      input: "7",
    });
  });

  it("tells by the question whether it works what the trial found, and asks whoever says otherwise why", async () => {
    const double = await desk();
    await userEvent.keyboard("{ArrowDown}{ArrowDown}");
    expect(await screen.findByText("By trial: does not work.")).toBeTruthy();
    expect(screen.queryByLabelText("You say otherwise; why?")).toBeNull();
    await userEvent.keyboard("1");
    await userEvent.type(await screen.findByLabelText("You say otherwise; why?"), "It does.");
    await waitFor(() =>
      expect(double.asked.filter((a) => a.path.endsWith("/works")).at(-1)?.body).toMatchObject({
        works: "AS_IS",
        why: "It does.",
      }),
    );
  });
});

describe("the keys of the desk", () => {
  it("leave alone what is written in an editor", () => {
    const editor = document.createElement("div");
    editor.setAttribute("contenteditable", "true");
    const line = editor.appendChild(document.createElement("div"));
    expect(isTyping(line)).toBe(true);
    expect(isTyping(document.createElement("div"))).toBe(false);
  });
});

describe("what is contrary to a trial", () => {
  it("is another finding, however it came that it does not work", () => {
    expect(isContrary("AS_IS", "NOT")).toBe(true);
    expect(isContrary("AFTER_REPAIR", "AS_IS")).toBe(true);
    expect(isContrary("SAID_DONE", "NOT")).toBe(false);
    expect(isContrary("NOT_TRIED", "NOT")).toBe(false);
    expect(isContrary(undefined, "NOT")).toBe(false);
    expect(isContrary("NOT", undefined)).toBe(false);
  });
});

describe("words of a line", () => {
  it("are parted by spaces, unless quoted", () => {
    expect(wordsOf('a  "b c" ""')).toEqual(["a", "b c", ""]);
    expect(wordsOf("")).toEqual([]);
  });
});
