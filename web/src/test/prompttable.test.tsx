// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { PromptTablePage } from "../features/recommendation/prompts/PromptTablePage";

const PATH = "/api/studies/s1/recommendation/prompts";
const CLOSED = { ...STUDY, stage: "CLOSED" as const };

type Cell = Schemas["PromptCell"];

const bare = (candidateId: string, change: Partial<Cell> = {}): Cell => ({
  candidateId,
  answers: 1,
  complete: 1,
  asIs: 2,
  repaired: 1,
  not: 1,
  tried: 0,
  passed: 0,
  points: 4,
  covered: 3,
  followUps: 0,
  ...change,
});

const cell = (candidateId: string, change: Partial<Cell> = {}) =>
  bare(candidateId, { score: 75, answerId: `${candidateId}-answer`, ...change });

const VIEW: Schemas["PromptTableView"] = {
  candidates: [
    { id: "osier", name: "Osier", version: "1", settings: "", baseline: false },
    { id: "sedge", name: "Sedge", version: "2", settings: "", baseline: false },
  ],
  kinds: [
    { id: "k1", name: "Debugging" },
    { id: "k2", name: "Review" },
  ],
  sizes: ["SMALL", "LARGE"],
  areas: ["back end", "chart"],
  prompts: 130,
  from: 0,
  rows: [
    {
      promptId: "p1",
      title: "Why does the lamp stay dark?",
      kindId: "k1",
      kind: "Debugging",
      size: "SMALL",
      areas: ["back end"],
      cells: [
        cell("osier", { tried: 2, passed: 1 }),
        bare("sedge", { answerId: "sedge-answer", complete: 0, asIs: 0, repaired: 0, not: 0, points: 0 }),
      ],
      mean: 75,
    },
    {
      promptId: "p2",
      title: "Read the tide table",
      kindId: "k2",
      kind: "Review",
      areas: ["chart"],
      wording: "VAGUE",
      cells: [cell("osier", { score: 20 }), bare("sedge", { answers: 0 })],
      mean: 20,
    },
  ],
  sums: [bare("osier", { answers: 130, score: 61.2 }), bare("sedge", { answers: 129, score: 50 })],
};

async function table(view: Partial<Schemas["PromptTableView"]> = {}) {
  const answers = server().on(`GET ${PATH}`, () => ({ body: { ...VIEW, ...view } }));
  inStudy(<PromptTablePage />, CLOSED);
  await screen.findByRole("table");
  return answers;
}

const asked = (answers: ReturnType<typeof server>) =>
  answers.asked
    .filter((a) => a.path === PATH)
    .at(-1)
    ?.query.toString();

describe("what each candidate made of each prompt", () => {
  it("is told by score, with what raters said beside, and opens the answer", async () => {
    await table();
    const row = screen.getByRole("row", { name: /Why does the lamp stay dark/ });
    const score = within(row).getByRole("link", { name: "Osier, Why does the lamp stay dark?: 75" });
    expect(score.getAttribute("href")).toMatch(/answers\/p1\?answer=osier-answer$/);
    expect(within(row).getByText("works 2 + 1 of 4")).toBeTruthy();
    expect(within(row).getByText("tried: 1 of 2 pass")).toBeTruthy();
    expect(within(row).getByText("points 75 %")).toBeTruthy();
    expect(within(row).getByRole("link", { name: /^Sedge.*no score$/ })).toBeTruthy();
    expect(screen.getByText("no answer")).toBeTruthy();
    expect(screen.getByText("130 prompts together")).toBeTruthy();
    expect(screen.getByText("61")).toBeTruthy();
  });

  it("shows what is chosen beside the score", async () => {
    await table();
    await userEvent.click(screen.getByRole("checkbox", { name: "outcome" }));
    await userEvent.click(screen.getByRole("checkbox", { name: "whether it works" }));
    expect(screen.getByText("complete 0 of 1")).toBeTruthy();
    expect(screen.queryByText("works 2 + 1 of 4")).toBeNull();
  });

  it("is ordered by a candidate, turned round by the same head, and narrowed to a kind", async () => {
    const answers = await table();
    await userEvent.click(screen.getByRole("button", { name: /^Sedge/ }));
    await waitFor(() => expect(asked(answers)).toContain("candidateId=sedge"));
    await userEvent.click(screen.getByRole("button", { name: /^Sedge/ }));
    await waitFor(() => expect(asked(answers)).toContain("down=true"));
    await userEvent.selectOptions(screen.getByLabelText("Kind"), "Review");
    await waitFor(() => expect(asked(answers)).toContain("kindId=k2"));
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Size" }), "large");
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Area" }), "chart");
    await waitFor(() => expect(asked(answers)).toContain("kindId=k2&size=LARGE&area=chart"));
  });

  it("is shown a window at a time", async () => {
    const answers = await table();
    expect(screen.getByText("1 to 2 of 130 prompts")).toBeTruthy();
    expect(screen.getByRole("button", { name: "Earlier" })).toHaveProperty("disabled", true);
    await userEvent.click(screen.getByRole("button", { name: "Later" }));
    await waitFor(() => expect(asked(answers)).toContain("from=2"));
  });

  it("stays hidden while raters grade", () => {
    server();
    inStudy(<PromptTablePage />, { ...STUDY, stage: "GRADING" });
    expect(screen.queryByRole("table")).toBeNull();
  });
});
