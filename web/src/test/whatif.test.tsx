// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { askedOf } from "../features/exploring/address";
import { noteOf } from "../features/exploring/KeepInMemo";
import { WhatIfPage } from "../features/exploring/WhatIfPage";

const BASE = "/api/studies/s1";
const ASK = `${BASE}/recommendation/what-if`;
const CLOSED = { ...STUDY, stage: "CLOSED" as const };

const RULE = {
  terms: { margin: 5 },
  weights: [
    { criterionId: "c1", key: "correctness", name: "Correctness", weight: 2, floor: 0.6 },
    { criterionId: "c2", key: "idiom", name: "Idiom", weight: 2, floor: 0.6 },
  ],
};

const REPORT = {
  revision: 7,
  outcome: "RECOMMENDED",
  headline: "We recommend Teasel.",
  rule: RULE,
  candidates: [
    { id: "osier", name: "Osier", version: "1", settings: "", baseline: false },
    { id: "teasel", name: "Teasel", version: "2", settings: "", baseline: false },
  ],
  field: [],
};

const FOUND: Schemas["WhatIfView"] = {
  outcome: "UNDECIDED",
  headline: "Undecided between Osier and Teasel.",
  same: false,
  rule: "We recommend Teasel.",
  findings: [],
  field: [{ candidateId: "osier", place: "OPEN", shortfall: 7, critical: 2 }],
  overall: [
    { candidateId: "osier", adjusted: { value: 61.5, low: 50, high: 70 }, plain: {}, scores: 9, chanceOfBest: {} },
  ],
  months: [],
};

async function page(at = "") {
  const answers = server()
    .on(`GET ${BASE}/recommendation`, () => ({ body: REPORT }))
    .on(`GET ${BASE}/prompts/titles`, () => ({
      body: [
        { id: "p1", title: "Why dark?", faulty: false, kind: { id: "k1", key: "d", name: "Debugging" } },
        { id: "p2", title: "Rename it", faulty: false, kind: { id: "k2", key: "r", name: "Refactoring" } },
        { id: "p3", title: "Set aside", faulty: true, kind: { id: "k2", key: "r", name: "Refactoring" } },
      ],
    }))
    .on(`GET ${BASE}/people`, () => ({
      body: [
        { accountId: "b", name: "Bram", grades: true },
        { accountId: "o", name: "Orla", grades: false },
      ],
    }))
    .on(`POST ${ASK}`, () => ({ body: FOUND }));
  inStudy(<WhatIfPage />, CLOSED, { path: "recommendation/what-if", at: `recommendation/what-if${at}` });
  await screen.findByRole("table", { name: "Standings as explored" });
  return answers;
}

const last = (answers: ReturnType<typeof server>) => answers.asked.filter((a) => a.path === ASK).at(-1)?.body;

describe("what the rule would say otherwise", () => {
  it("begins as the rule has it", async () => {
    const answers = await page();
    expect(last(answers)).toEqual({
      weights: [],
      margin: 5,
      withoutRaters: [],
      withoutPrompts: [],
      withoutKinds: [],
    });
    expect(screen.getByText("As the rule has it", { selector: "p" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: /note in the memo/ })).toBeNull();
  });

  it("is marked as exploring, beside what the rule says", async () => {
    await page("?margin=9");
    expect(screen.getByText("Exploring")).toBeTruthy();
    expect(screen.getByText("Undecided between Osier and Teasel.")).toBeTruthy();
    expect(screen.getByText("The rule says: We recommend Teasel.")).toBeTruthy();
    const table = screen.getByRole("table", { name: "Standings as explored" });
    expect(within(table).getByText("61.5")).toBeTruthy();
    expect(within(table).queryByText("Chance of standing highest")).toBeNull();
  });

  it("leaves out whom one names, and takes them back", async () => {
    const answers = await page();
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Without a rater" }), "Bram");
    await waitFor(() => expect(last(answers)).toMatchObject({ withoutRaters: ["b"] }));
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Without a kind" }), "Debugging");
    await waitFor(() => expect(last(answers)).toMatchObject({ withoutRaters: ["b"], withoutKinds: ["k1"] }));
    const prompts = screen.getByRole("combobox", { name: "Without a prompt" });
    expect(within(prompts).queryByRole("option", { name: "Set aside" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: /Take back Bram/ }));
    await waitFor(() => expect(last(answers)).toMatchObject({ withoutRaters: [], withoutKinds: ["k1"] }));
    await userEvent.click(screen.getByRole("button", { name: "As the rule has it" }));
    await waitFor(() => expect(screen.queryByRole("button", { name: /Take back/ })).toBeNull());
  });

  it("turns weights by keys", async () => {
    const answers = await page();
    screen.getByRole("slider", { name: "Idiom" }).focus();
    await userEvent.keyboard("{Home}");
    await waitFor(() => expect(last(answers)).toMatchObject({ weights: [{ criterionId: "c2", weight: 0 }] }));
    expect(screen.getByText("100 % of the score", { exact: false })).toBeTruthy();
  });

  it("takes from the address what can be turned, and nothing else", async () => {
    const answers = await page("?margin=x&weight.idiom=-1&weight.none=2");
    expect(last(answers)).toMatchObject({ weights: [], margin: 5 });
    const explored = {
      weights: { idiom: 0.5 },
      without: { rater: ["b"], prompt: [], kind: [] },
    };
    expect(askedOf(explored, RULE)).toEqual({
      weights: [{ criterionId: "c2", weight: 0.5 }],
      margin: 5,
      withoutRaters: ["b"],
      withoutPrompts: [],
      withoutKinds: [],
    });
  });

  it("is kept as a note in the memo with its mark", async () => {
    const answers = await page("?margin=9");
    answers
      .on(`GET ${BASE}/memos`, () => ({ body: { versions: [], mayBegin: true } }))
      .on(`POST ${BASE}/memos`, () => ({
        status: 201,
        body: { head: { number: 1, change: "" }, version: 0, names: "PSEUDONYM", words: [] },
      }))
      .on(`PUT ${BASE}/memos/1`, () => ({ body: {} }));
    await userEvent.click(screen.getByRole("button", { name: "Keep it as a note in the memo" }));
    expect(await screen.findByRole("link", { name: "version 1 of the memo" })).toBeTruthy();
    expect(answers.asked.find((a) => a.method === "PUT")?.body).toMatchObject({
      words: [
        {
          section: "ROBUSTNESS",
          text: "> **Exploring, not the rule.** With a margin of 9.0 points: Undecided between Osier and Teasel.",
        },
      ],
    });
  });

  it("says in the note all that was turned, and no markup of others", () => {
    const note = noteOf(
      RULE,
      { rater: [{ id: "b", name: "*Bram*" }], prompt: [], kind: [] },
      { weights: { idiom: 0 }, without: { rater: ["b"], prompt: [], kind: [] } },
      FOUND,
    );
    expect(note).toContain("Idiom weighing 0.00 instead of 2.00");
    expect(note).toContain("without “\\*Bram\\*”");
  });
});
