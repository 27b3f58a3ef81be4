// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { AnswerFilesPage } from "../features/answer/AnswerFilesPage";
import { AnswersPage } from "../features/answer/AnswersPage";
import { changeLine, followUpLine, measuresInFull, measuresLine } from "../features/answer/measures";

const prompt = (id: string, kind: string, areas: string[], more: object = {}) => ({
  id,
  kind: { id: kind, key: kind, name: kind === "k1" ? "Debugging" : "Review" },
  content: { title: `Prompt ${id}`, areas },
  ...more,
});

const answer = (promptId: string, candidateId: string, outcome: string, attempt = 1) => ({
  id: `${promptId}-${candidateId}-${attempt}`,
  key: `${promptId}-${candidateId}-${attempt}`,
  promptId,
  candidateId,
  attempt,
  outcome,
  measures: { totalMs: 4000, outputTokens: 200, estimated: false },
  changed: { files: 0, linesAdded: 0, linesRemoved: 0 },
  followUps: 0,
  unequal: 0,
});

const PROMPTS = [
  prompt("p1", "k1", ["back end"]),
  prompt("p2", "k2", ["front end", "chart"]),
  prompt("p3", "k2", ["back end"], { fault: { reason: "two readings" } }),
];

const ANSWERS = [
  answer("p1", "c1", "COMPLETE"),
  answer("p1", "c1", "TIMED_OUT", 2),
  answer("p1", "c2", "REFUSED"),
  answer("p2", "c1", "COMPLETE"),
];

function grid(study = STUDY, answers: object[] = ANSWERS) {
  server()
    .on("GET /api/studies/s1/prompts", () => ({ body: PROMPTS }))
    .on("GET /api/studies/s1/candidates", () => ({
      body: [
        { id: "c1", content: { name: "Osierhold" } },
        { id: "c2", content: { name: "Teaselworth" } },
      ],
    }))
    .on("GET /api/studies/s1/answers", () => ({ body: answers }));
  inStudy(<AnswersPage />, study);
}

const shown = () => screen.getAllByRole("rowheader").map((h) => within(h).getByRole("link").textContent);

describe("the answers of a study", () => {
  it("stand where a prompt meets a candidate, each attempt with how it ended", async () => {
    grid();
    const [, first] = await screen.findAllByRole("row");
    expect(first?.textContent).toContain("attempt 1: complete");
    expect(first?.textContent).toContain("attempt 2: timed out");
    expect(first?.textContent).toContain("refused");
  });

  it("name the model that answered where a candidate had more than one", async () => {
    const by = (model: string, given: ReturnType<typeof answer>) => ({
      ...given,
      measures: { ...given.measures, model },
    });
    grid(STUDY, [
      by("made-1", answer("p1", "c1", "COMPLETE")),
      by("made-2", answer("p2", "c1", "COMPLETE")),
      by("other-1", answer("p1", "c2", "COMPLETE")),
    ]);
    expect(await screen.findByText("made-1")).toBeDefined();
    expect(screen.getByText("made-2")).toBeDefined();
    expect(screen.queryByText("other-1")).toBeNull();
  });

  it("say why one is missing", async () => {
    grid({ ...STUDY, stage: "GRADING" });
    const rows = await screen.findAllByRole("row");
    expect(rows[2]?.textContent).toContain("not asked before the round");
    expect(rows[3]?.textContent).toContain("not asked: the prompt is set aside");
  });

  it("can be pasted where none is, but not for a prompt that is set aside", async () => {
    grid();
    const links = await screen.findAllByRole("link", { name: "Paste one" });
    expect(links.map((l) => l.getAttribute("href"))).toEqual(["/studies/s1/page/p2?paste=c2"]);
  });

  it("are filtered by kind, area and how they ended", async () => {
    grid();
    expect((await screen.findAllByRole("row")).length).toBe(4);
    await userEvent.selectOptions(screen.getByLabelText("Kind"), "Review");
    expect(shown()).toEqual(["Prompt p2", "Prompt p3"]);
    await userEvent.selectOptions(screen.getByLabelText("Area"), "back end");
    expect(shown()).toEqual(["Prompt p3"]);
    await userEvent.selectOptions(screen.getByLabelText("Kind"), "all");
    expect(shown()).toEqual(["Prompt p1", "Prompt p3"]);
    await userEvent.selectOptions(screen.getByLabelText("How it ended"), "refused, 1");
    expect(shown()).toEqual(["Prompt p1"]);
  });

  it("offer the way back where nothing is left", async () => {
    grid();
    await screen.findAllByRole("row");
    await userEvent.selectOptions(screen.getByLabelText("Area"), "chart");
    await userEvent.selectOptions(screen.getByLabelText("How it ended"), "timed out, 1");
    expect(screen.queryByRole("table")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Show all prompts" }));
    expect(shown()).toHaveLength(3);
  });
});

describe("measures", () => {
  const all: Schemas["Measures"] = {
    firstOutputMs: 800,
    totalMs: 4000,
    inputTokens: 1800,
    outputTokens: 200,
    cost: 0.02,
    currency: "EUR",
    estimated: false,
  };

  it("are told in full with rate and share of the context window", () => {
    expect(measuresInFull(all, 20_000)).toBe(
      "first output after 0.8 s · 4.0 s in all · 1800 tokens in · 200 tokens out · 50 tokens out a second · " +
        "10 % of the context window · 0.0200 EUR",
    );
  });

  it("say what is an estimate, and how often it was tried", () => {
    expect(
      measuresInFull({ outputTokens: 200, cost: 0.02, currency: "EUR", estimated: true, tries: 3 }, undefined),
    ).toBe(
      "about 200 tokens out · about 0.0200 EUR · tokens and cost are estimates, as none were counted · came at try 3",
    );
    expect(followUpLine(2, 1)).toBe("2 follow-ups, 1 of its own");
    expect(followUpLine(1, 1)).toBe("1 follow-up, its own");
    expect(followUpLine(0, 0)).toBeUndefined();
    const changed = { files: 2, linesAdded: 14, linesRemoved: 3, complete: true };
    expect(changeLine(changed)).toBe("2 files, 14 lines added, 3 removed");
    expect(changeLine({ ...changed, complete: false })).toBe("at least 2 files, 14 lines added, 3 removed");
  });

  it("leave out what nobody measured, and what cannot be told without it", () => {
    expect(measuresInFull({ outputTokens: 200, estimated: false }, undefined)).toBe("200 tokens out");
    expect(measuresInFull({ totalMs: 0, outputTokens: 200, estimated: false }, undefined)).toBe(
      "0.0 s in all · 200 tokens out",
    );
    expect(measuresInFull({ estimated: false }, 1000)).toBe("not measured");
    expect(measuresLine({ estimated: false })).toBe("not measured");
  });
});

describe("answers from a file", () => {
  const matched = (line: number, match: "NEW" | "THERE") => ({
    file: "run.jsonl",
    line,
    promptId: "p1",
    candidateId: "c1",
    attempt: line,
    outcome: "COMPLETE",
    characters: 120,
    match,
  });

  const fault = { file: "run.jsonl", line: 3, field: "prompt", expected: "the key or title of one prompt", found: "x" };

  async function choose(preview: object, taken?: { status?: number; body: object }) {
    const answers = server()
      .on("GET /api/studies/s1/prompts", () => ({ body: PROMPTS }))
      .on("GET /api/studies/s1/candidates", () => ({ body: [{ id: "c1", content: { name: "Osierhold" } }] }));
    const asked: string[] = [];
    globalThis.fetch = async (input) => {
      const path = typeof input === "string" ? input : "";
      if (path.includes("answer-files")) {
        asked.push(path);
        const answer = path.endsWith("/preview") ? { body: preview } : (taken ?? { body: {} });
        return new Response(JSON.stringify(answer.body), {
          status: "status" in answer && answer.status ? answer.status : 200,
          headers: { "Content-Type": "application/json" },
        });
      }
      return answers.fetch(input instanceof Request ? input : new Request(input));
    };
    inStudy(<AnswerFilesPage />);
    await userEvent.upload(screen.getByLabelText("Drop the file here, or choose it"), new File(["{}"], "run.jsonl"));
    return asked;
  }

  it("shows what it would bring, then takes it", async () => {
    const asked = await choose(
      { answers: [matched(1, "NEW"), matched(2, "THERE"), matched(3, "NEW")], faults: [] },
      { body: { added: 2, there: 1 } },
    );
    expect((await screen.findByRole("status")).textContent).toContain("2 new answers, 1 there already");
    const [, first, second] = await screen.findAllByRole("row");
    expect(first?.textContent).toContain("new");
    expect(second?.textContent).toContain("there already");
    await userEvent.click(screen.getByRole("button", { name: "Take 2 answers" }));
    expect(await screen.findByText(/2 answers are taken; 1 were there already/)).toBeDefined();
    expect(asked).toEqual(["/api/studies/s1/answer-files/preview", "/api/studies/s1/answer-files"]);
  });

  it("takes nothing while anything is wrong, and says where", async () => {
    const asked = await choose({ answers: [matched(1, "NEW")], faults: [fault] });
    expect((await screen.findByRole("alert")).textContent).toContain("1 thing is wrong with run.jsonl");
    expect(screen.getByRole("table", { name: "Faults in the file" }).textContent).toContain(
      "the key or title of one prompt",
    );
    expect(screen.queryByRole("button", { name: /^Take/ })).toBeNull();
    expect(asked).toHaveLength(1);
  });

  it("says so if the study changed between looking and taking", async () => {
    await choose(
      { answers: [matched(1, "NEW")], faults: [] },
      {
        status: 400,
        body: {
          type: "https://mossbank.example/problems/answers-refused",
          title: "Answers refused",
          status: 400,
          detail: "Nothing was taken.",
          faults: [fault],
        },
      },
    );
    await userEvent.click(await screen.findByRole("button", { name: "Take 1 answer" }));
    expect((await screen.findByRole("alert")).textContent).toContain("Nothing was taken.");
    expect(screen.getByRole("table", { name: "Faults in the file" })).toBeDefined();
  });

  it("is over once the round is open", () => {
    server();
    inStudy(<AnswerFilesPage />, { ...STUDY, stage: "GRADING" });
    expect(screen.getByText(/The round is open/)).toBeDefined();
  });
});
