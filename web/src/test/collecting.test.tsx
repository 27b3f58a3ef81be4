// @vitest-environment happy-dom
import { type Asked, inStudy, server, STUDY, toldByServer } from "./page";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { Changes } from "../features/answer/Changes";
import { FollowUpFields } from "../features/answer/FollowUpFields";
import { CollectPage } from "../features/run/CollectPage";
import { RunPage } from "../features/run/RunPage";
import { AskFollowUp } from "../features/run";
import { runLine, whyNotThere } from "../features/run/words";
import { SourcePart } from "../features/source";
import { Markdown } from "../ui/Markdown";
import { refusal } from "./people";

const PROMPTS = [
  { id: "p1", content: { title: "Two ships at one berth", followUps: ["Show a test."] } },
  { id: "p2", content: { title: "When is it open?", followUps: [] } },
  { id: "p3", content: { title: "Set aside", followUps: [] }, fault: { reason: "two readings" } },
];
const CANDIDATES = [
  { id: "c1", content: { name: "Osierhold", baseline: false } },
  { id: "c2", content: { name: "Teaselworth", baseline: false } },
];

const CONTENT: Schemas["SourceContent"] = {
  url: "https://models.example/ask",
  method: "POST",
  headers: [{ name: "X-Pass", value: "[[secret QUAY]]" }],
  body: '{"text": "[[prompt]]"}',
  turnAsked: "",
  turnReplied: "",
  shape: "WHOLE",
  textPointer: "/text",
  inputTokensPointer: "",
  outputTokensPointer: "",
  finishPointer: "",
  modelPointer: "",
  completeWords: [],
  refusedWords: [],
  endMark: "",
  mostOutputTokens: 2000,
  timeLimitMs: 60_000,
  mostTries: 3,
  mostAtOnce: 2,
};

const cell = (place: number, state: Schemas["CellView"]["state"], more: Partial<Schemas["CellView"]> = {}) => ({
  place,
  promptId: "p1",
  candidateId: place % 2 === 0 ? "c1" : "c2",
  attempt: 1 + Math.floor(place / 2),
  state,
  turn: 0,
  tries: 0,
  late: false,
  ...more,
});

const run = (
  state: Schemas["RunView"]["state"],
  cells: Schemas["CellView"][],
  more: object = {},
): Schemas["RunView"] => ({
  id: "r1",
  key: "run-1",
  startedBy: "Orla Fennick",
  startedAt: "2026-10-12T15:30:00Z",
  attempts: 1,
  followUps: 0,
  currency: "EUR",
  state,
  stopping: false,
  spentCost: 0.02,
  spentTokens: 1800,
  cells,
  ...more,
});

function study(sources: string[] = ["c1"]) {
  return server()
    .on("GET /api/studies/s1/prompts", () => ({ body: PROMPTS }))
    .on("GET /api/studies/s1/candidates", () => ({ body: CANDIDATES }))
    .on("GET /api/studies/s1/runs", () => ({ body: [] }))
    .on("GET /api/studies/s1/secrets", () => ({ body: { open: 0, total: 0, found: [] } }))
    .on("GET /api/studies/s1/sources", () => ({
      body: {
        sources: sources.map((candidateId) => ({ candidateId, content: CONTENT, version: 0 })),
        secretNames: ["QUAY"],
        allowed: ["models.example"],
      },
    }));
}

const FORECAST = { cells: 2, requests: 3, inputTokens: 4100, outputTokens: 6000, cost: 0.21, currency: "EUR" };

const isStart = (a: Asked) => a.method === "POST" && a.path === "/api/studies/s1/runs";

describe("collecting from sources", () => {
  it("offers what can be asked, says what it costs at most, and starts", async () => {
    const asked = study()
      .on("POST /api/studies/s1/runs/forecast", () => ({ body: FORECAST }))
      .on("POST /api/studies/s1/runs", () => ({ status: 201, body: run("RUNNING", []) })).asked;
    inStudy(<CollectPage />);
    expect(await screen.findByText(/2 answers in 3 requests/)).toBeDefined();
    expect(screen.getByText(/costs at most 0\.21/)).toBeDefined();
    expect(screen.queryByLabelText("Set aside")).toBeNull();
    expect(screen.getByRole("checkbox", { name: "Teaselworth" }).hasAttribute("disabled")).toBe(true);
    await userEvent.selectOptions(screen.getByLabelText("Prepared follow-ups"), "at most 1");
    await userEvent.type(screen.getByLabelText("Spend at most, EUR"), "2");
    await screen.findByText(/2 answers in 3 requests/);
    await userEvent.click(screen.getByRole("button", { name: "Start" }));
    await waitFor(() => expect(asked.some((a) => isStart(a))).toBe(true));
    expect(asked.find((a) => isStart(a))?.body).toEqual({
      promptIds: ["p1", "p2"],
      candidateIds: ["c1"],
      attempts: 1,
      onlyMissing: true,
      followUps: 1,
      budgetCost: 2,
    });
  });

  it("says what stands in the way", async () => {
    study().on("POST /api/studies/s1/runs/forecast", () => refusal("The budget needs a price for every candidate."));
    inStudy(<CollectPage />);
    await screen.findByRole("heading", { name: "Collect from sources" });
    expect(await screen.findByText("The budget needs a price for every candidate.")).toBeDefined();
    expect(screen.getByRole("button", { name: "Start" }).hasAttribute("disabled")).toBe(true);
    await userEvent.click(screen.getByRole("button", { name: "None" }));
    expect(await screen.findByText("Choose at least one prompt and one candidate.")).toBeDefined();
  });

  it("leads to candidates where none has a source", async () => {
    study([]);
    inStudy(<CollectPage />);
    expect((await screen.findByText(/No candidate has a source yet/)).textContent).toContain("candidate");
  });

  it("leads to the runs there were, from whatever page they are listed on", async () => {
    study()
      .on("GET /api/studies/s1/runs", () => ({ body: [run("FINISHED", [cell(0, "DONE")])] }))
      .on("POST /api/studies/s1/runs/forecast", () => ({ body: FORECAST }));
    inStudy(<CollectPage />);
    const link = await screen.findByRole("link", { name: /Run of/ });
    expect(link.getAttribute("href")).toBe("/studies/s1/answers/runs/r1");
  });

  it("is over once the round is open", async () => {
    study();
    inStudy(<CollectPage />, { ...STUDY, stage: "GRADING" });
    expect(await screen.findByText(/no more answers come in/)).toBeDefined();
  });
});

describe("a run's board", () => {
  beforeEach(() => {
    toldByServer();
  });

  /** Keeps what a step made of the run, as the real server does. */
  const board = (of: Schemas["RunView"], steps: Record<string, Schemas["RunView"]> = {}) => {
    let now = of;
    const double = study().on("GET /api/studies/s1/runs/r1", () => ({ body: now }));
    for (const [step, then] of Object.entries(steps)) {
      double.on(step, () => {
        now = then;
        return { body: then };
      });
    }
    inStudy(<RunPage />, STUDY, { path: "runs/:runId", at: "runs/r1" });
    return double;
  };

  it("tells each cell's state, and what became of it", async () => {
    board(
      run("RUNNING", [
        cell(0, "DONE", { answerId: "a1", outcome: "REFUSED", notes: "It refused." }),
        cell(1, "ASKING", { askedAt: new Date().toISOString(), firstOutputMs: 800, tokensSoFar: 41, tries: 2 }),
        cell(2, "WAITING"),
        cell(3, "TURNED_AWAY", { notes: "It answered 401." }),
        cell(4, "DONE", { answerId: "a2", outcome: "COMPLETE", notes: "It answered 503." }),
      ]),
    );
    const table = await screen.findByRole("table");
    expect(screen.getByText("2 of 5 answers, 1 turned away, collecting.")).toBeDefined();
    expect(table.textContent).toContain("on the way: It answered 503.");
    expect(table.textContent).toContain("refused");
    expect(table.textContent).toContain("first after 0.8 s, about 41 tokens, try 2");
    expect(table.textContent).toContain("waiting");
    expect(table.textContent).toContain("turned away" + "It answered 401.");
    expect(within(table).getByRole("link", { name: "refused" }).getAttribute("href")).toContain("answer=a1");
  });

  it("can be stopped, and goes on", async () => {
    const paused = run("PAUSED", [cell(0, "WAITING")], { reason: "It was stopped." });
    const double = board(run("RUNNING", [cell(0, "WAITING")]), {
      "POST /api/studies/s1/runs/r1/stop": paused,
      "POST /api/studies/s1/runs/r1/resume": run("FINISHED", [cell(0, "DONE")]),
    });
    await userEvent.click(await screen.findByRole("button", { name: "Stop at once" }));
    expect(await screen.findByText("It was stopped.")).toBeDefined();
    expect(double.asked.find((a) => a.path.endsWith("/stop"))?.body).toEqual({ cutOff: true });
    await userEvent.click(screen.getByRole("button", { name: "Go on" }));
    expect(await screen.findByText("1 of 1 answer, finished.")).toBeDefined();
  });

  it("takes another budget where the budget stopped it", async () => {
    const double = board(
      run("PAUSED", [cell(0, "WAITING")], {
        reason: "The next request might take more than the budget leaves.",
        budgetCost: 1,
      }),
      { "PUT /api/studies/s1/runs/r1/budget": run("PAUSED", [cell(0, "WAITING")], { budgetCost: 3 }) },
    );
    const field = await screen.findByLabelText("Spend at most, EUR");
    await userEvent.clear(field);
    await userEvent.type(field, "3");
    await userEvent.click(screen.getByRole("button", { name: "Set this budget" }));
    await waitFor(() => expect(double.asked.find((a) => a.path.endsWith("/budget"))?.body).toEqual({ cost: 3 }));
    expect(await screen.findByText(/of at most 3/)).toBeDefined();
  });

  it("counts in words", () => {
    expect(runLine(run("PAUSED", [cell(0, "ASKING"), cell(1, "WAITING")], { stopping: true }))).toBe(
      "0 of 2 answers, stopping",
    );
  });
});

describe("a follow-up for one answer alone", () => {
  const answer = {
    id: "a1",
    key: "a1",
    promptId: "p1",
    candidateId: "c1",
    attempt: 1,
    outcome: "COMPLETE" as const,
    text: "It is the loop.",
    followUps: [],
    measures: { estimated: false },
    changed: { files: 0, linesAdded: 0, linesRemoved: 0, complete: true },
    version: 0,
  };

  it("begins with the prepared words, says what others mean, and leads to its run", async () => {
    const asked = study().on("POST /api/studies/s1/runs/follow-up", () => ({ body: run("RUNNING", []) })).asked;
    inStudy(<AskFollowUp answer={answer} prepared={["Show a test."]} />);
    await userEvent.click(await screen.findByRole("button", { name: "Follow it up …" }));
    const words = screen.getByLabelText("What it is told");
    expect(words).toHaveProperty("value", "Show a test.");
    expect(screen.getByText("As prepared for all.")).toBeDefined();
    await userEvent.type(words, " It does not compile.");
    expect(screen.getByText(/For this answer alone/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Ask" }));
    expect(await screen.findByText("another page")).toBeDefined();
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({
      answerId: "a1",
      asked: "Show a test. It does not compile.",
    });
  });

  it("is held back where it looks like a secret, until it is said that it may be sent", async () => {
    let refuse = true;
    const asked = study().on("POST /api/studies/s1/runs/follow-up", () =>
      refuse
        ? refusal("Something in what you ask looks like a secret.", {
            type: "https://mossbank.example/problems/secrets-found",
          })
        : { body: run("RUNNING", []) },
    ).asked;
    inStudy(<AskFollowUp answer={answer} prepared={["password=gr33n-heron"]} />);
    await userEvent.click(await screen.findByRole("button", { name: "Follow it up …" }));
    await userEvent.click(screen.getByRole("button", { name: "Ask" }));
    expect(await screen.findByText("Something in what you ask looks like a secret.")).toBeDefined();
    expect(screen.getByRole("link", { name: "collect from sources" }).getAttribute("href")).toBe(
      "/studies/s1/answers/collect",
    );
    await userEvent.click(screen.getByRole("checkbox", { name: /may be sent/ }));
    await userEvent.type(screen.getByLabelText("What it is told"), "2");
    expect(screen.getByRole("checkbox", { name: /may be sent/ })).toHaveProperty("checked", false);
    await userEvent.click(screen.getByRole("checkbox", { name: /may be sent/ }));
    refuse = false;
    await userEvent.click(screen.getByRole("button", { name: "Ask" }));
    expect(await screen.findByText("another page")).toBeDefined();
    expect(asked.filter((a) => a.method === "POST").at(-1)?.body).toMatchObject({ mayBeSent: true });
  });

  it("is not offered where there is no source", async () => {
    const asked = study(["c2"]).asked;
    inStudy(<AskFollowUp answer={answer} prepared={[]} />);
    await waitFor(() => expect(asked.length).toBeGreaterThan(0));
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("a missing answer is explained by the latest run", () => {
    const runs = [
      run("FINISHED", [cell(0, "TURNED_AWAY", { notes: "It answered 401." })]),
      run("PAUSED", [cell(1, "WAITING")]),
    ];
    expect(whyNotThere(runs, "p1", "c1")).toBe("turned away: It answered 401.");
    expect(whyNotThere(runs, "p1", "c2")).toBe("waiting in a run that is paused");
    expect(whyNotThere(runs, "p2", "c1")).toBeUndefined();
  });
});

describe("a candidate's source", () => {
  it("is written with its templates, and says which field is wrong", async () => {
    let refuse = true;
    const asked = study([]).on("PUT /api/studies/s1/sources/c1", () =>
      refuse
        ? refusal("The source is not right.", {
            errors: [{ field: "content.url", message: "must be an address that this server's administrator allows" }],
          })
        : { body: { candidateId: "c1", content: CONTENT, version: 0 } },
    ).asked;
    inStudy(<SourcePart candidateId="c1" />);
    await userEvent.click(await screen.findByRole("button", { name: "Name a source" }));
    expect(screen.getByText(/There are: QUAY\./)).toBeDefined();
    await userEvent.type(screen.getByLabelText("Address"), "http://10.0.0.1/");
    await userEvent.type(screen.getByLabelText("Pointer to the text"), "/text");
    await userEvent.click(screen.getByRole("button", { name: "Keep it" }));
    expect((await screen.findAllByText(/administrator allows/)).length).toBeGreaterThan(0);
    refuse = false;
    await userEvent.click(screen.getByRole("button", { name: "Keep it" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(asked.filter((a) => a.method === "PUT").at(-1)?.body).toMatchObject({
      version: -1,
      content: { url: "http://10.0.0.1/", textPointer: "/text", shape: "WHOLE" },
    });
  });

  it("can be tried without keeping anything", async () => {
    study().on("POST /api/studies/s1/sources/c1/try-out", () => ({
      body: { ending: "FAILED", text: "", totalMs: 300, reason: "It answered 401." },
    }));
    inStudy(<SourcePart candidateId="c1" />);
    await userEvent.click(await screen.findByRole("button", { name: "Try it …" }));
    await userEvent.click(screen.getByRole("button", { name: "Ask" }));
    expect(await screen.findByText("It answered 401.")).toBeDefined();
  });
});

describe("differences", () => {
  const change: Schemas["FileChangeView"] = {
    path: "src/Berth.java",
    from: "src/Berth.java",
    sort: "CHANGED",
    added: 1,
    removed: 1,
    coarse: false,
    hunks: [
      {
        before: 3,
        after: 3,
        lines: [
          { kind: "KEPT", nature: "PLAIN", text: "class Berth {" },
          { kind: "REMOVED", nature: "PLAIN", text: "    int number;" },
          { kind: "ADDED", nature: "PLAIN", text: "    final int number;" },
        ],
      },
    ],
    misfit: "src/Berth.java, line 3, reads otherwise in the starting code",
  };

  it("are shown file by file, with what does not fit", async () => {
    server().on("GET /api/studies/s1/answers/a1/changes", () => ({ body: { changes: [change], limits: [] } }));
    inStudy(<Changes answerId="a1" />);
    const file = (await screen.findByRole("heading", { name: "src/Berth.java" })).parentElement ?? document.body;
    expect(file.textContent).toContain("changed · 1 line added, 1 removed");
    expect(file.textContent).toContain("It does not fit: src/Berth.java, line 3");
    expect(file.querySelector(".line-added")?.textContent).toBe("+     final int number;");
    expect(file.querySelector(".line-removed")?.textContent).toBe("−     int number;");
  });

  it("say so where there is nothing to compare", async () => {
    server().on("GET /api/studies/s1/answers/a1/changes", () => ({ body: { changes: [], limits: [] } }));
    inStudy(<Changes answerId="a1" />);
    expect(await screen.findByText(/there is nothing to compare/)).toBeDefined();
  });

  it("say what was too much to compare, and what is shown as replaced for it", async () => {
    const limit = "Only the first 1,000 of 1,005 blocks of code were looked at.";
    server().on("GET /api/studies/s1/answers/a1/changes", () => ({
      body: { changes: [{ ...change, coarse: true }], limits: [limit] },
    }));
    inStudy(<Changes answerId="a1" />);
    expect(await screen.findByText(limit)).toBeDefined();
    expect(screen.getByText(/all of it is shown as replaced/)).toBeDefined();
  });

  it("in a text stay text, whatever they hold", () => {
    const { container } = render(<Markdown text={"```diff\n--- a/x\n+++ b/x\n@@ -1 +1 @@\n-<b>\n+<img src=x>\n```"} />);
    expect(container.querySelector("img")).toBeNull();
    expect(container.querySelector(".line-added")?.textContent).toBe("+ <img src=x>");
    expect(container.querySelector(".line-removed")?.textContent).toBe("− <b>");
  });
});

describe("follow-ups by hand", () => {
  it("begin with the prepared wording, and say when one is of its own", async () => {
    const kept: Schemas["FollowUp"][][] = [];
    const { rerender } = render(
      <FollowUpFields turns={[]} prepared={["Show a test."]} error={undefined} onTurns={(t) => kept.push(t)} />,
    );
    await userEvent.click(screen.getByRole("button", { name: "Add the next prepared follow-up" }));
    expect(kept.at(-1)).toEqual([{ asked: "Show a test.", reply: "" }]);
    rerender(
      <FollowUpFields
        turns={[{ asked: "Why not?", reply: "" }]}
        prepared={["Show a test."]}
        error={undefined}
        onTurns={(t) => kept.push(t)}
      />,
    );
    expect(screen.getByText(/followed up unequally/)).toBeDefined();
    expect(screen.getByRole("button", { name: "Add a follow-up of its own" })).toBeDefined();
  });
});
