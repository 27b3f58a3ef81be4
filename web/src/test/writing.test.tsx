// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { inStudy, server, STUDY, writeIn } from "./page";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { CandidatesPage } from "../features/candidate/CandidatesPage";
import { GitPicker } from "../features/prompt/GitPicker";
import { PromptEditor } from "../features/prompt/PromptEditor";
import { RoundPlan } from "../features/grading/RoundPlan";
import { BriefEditor } from "../features/brief/BriefEditor";
import { USUAL_PLAN } from "../features/brief/plan";
import { StrataRail } from "../features/study/StrataRail";
import { PEOPLE, refusal, TERMS } from "./people";

const ASKED: Schemas["RaterTerms"] = {
  reasons: "AT_THE_ENDS",
  showsReference: false,
  asksSourceGuess: false,
  trials: "AFTER_OWN_GRADE",
};

const IN_STUDY = "/api/studies/s1";

describe("the brief", () => {
  const view = (change: Partial<Schemas["Brief"]> = {}): Schemas["BriefView"] => ({
    title: "A code model for the tide desk",
    version: 7,
    missing: [],
    reopenings: [],
    brief: {
      question: "",
      audience: "",
      background: "",
      asksExpectations: true,
      rule: TERMS,
      raters: ASKED,
      ...change,
    },
  });
  const puts = (answers: ReturnType<typeof server>) => answers.asked.filter((a) => a.method === "PUT");

  it("is saved as it is typed, on the version it was read at", async () => {
    const answers = server().on(`PUT ${IN_STUDY}/brief`, (asked) => ({
      body: { ...view(), ...Object(asked.body), version: 8 },
    }));
    inStudy(<BriefEditor plan={USUAL_PLAN} brief={view()} />);
    await writeIn(screen.getByLabelText("Question"), "Which one?");
    await waitFor(() => expect(screen.getAllByRole("status")[0]?.textContent).toBe("All saved"));
    expect(puts(answers).length).toBe(1);
    expect(puts(answers)[0]?.body).toMatchObject({ version: 7, brief: { question: "Which one?" } });
    expect(localStorage.length).toBe(0);
  });

  it("says what must be written before it can be closed", () => {
    server();
    inStudy(<BriefEditor plan={USUAL_PLAN} brief={view()} />);
    expect(screen.getByText("Before it can be closed, the question and for whom it is must be written.")).toBeTruthy();
    expect(screen.getByRole("button", { name: "Close the brief" })).toHaveProperty("disabled", true);
  });

  it("is saved before it is closed", async () => {
    const answers = server()
      .on(`PUT ${IN_STUDY}/brief`, (asked) => ({ body: { ...view(), ...Object(asked.body), version: 8 } }))
      .on(`POST ${IN_STUDY}/brief/close`, () => ({ body: {} }));
    inStudy(<BriefEditor plan={USUAL_PLAN} brief={view({ question: "Which one?" })} />);
    await userEvent.type(screen.getByLabelText("For whom"), "Us");
    await userEvent.click(screen.getByRole("button", { name: "Save and close the brief" }));
    await waitFor(() => expect(answers.asked.some((a) => a.path.endsWith("/close"))).toBe(true));
    const changing = answers.asked.filter((a) => a.method !== "GET").map((a) => `${a.method} ${a.path}`);
    expect(changing).toEqual([`PUT ${IN_STUDY}/brief`, `POST ${IN_STUDY}/brief/close`]);
  });

  it("overwrites nothing that another window wrote", async () => {
    server().on(`PUT ${IN_STUDY}/brief`, () => ({
      status: 409,
      body: {
        type: "https://mossbank.example/problems/changed-elsewhere",
        title: "Changed elsewhere",
        status: 409,
        current: { ...view({ question: "Theirs?" }), version: 9 },
      },
    }));
    inStudy(<BriefEditor plan={USUAL_PLAN} brief={view()} />);
    await writeIn(screen.getByLabelText("Question"), "Mine?");
    const alert = await screen.findByRole("alert");
    await userEvent.click(within(alert).getByRole("button", { name: "Take what is there" }));
    expect(screen.getByLabelText("Question")).toHaveProperty("value", "Theirs?");
    await userEvent.click(screen.getByRole("button", { name: "Undo" }));
    expect(screen.getByLabelText("Question")).toHaveProperty("value", "Mine?");
  });

  it("shows a refusal at the field it is about", async () => {
    server().on(`PUT ${IN_STUDY}/brief`, () =>
      refusal("Not valid.", { errors: [{ field: "brief.rule.margin", message: "must be at most 100" }] }),
    );
    inStudy(<BriefEditor plan={USUAL_PLAN} brief={view()} />);
    fireEvent.change(screen.getByLabelText("Margin, in points of 100"), { target: { value: "400" } });
    await screen.findByRole("alert");
    expect(screen.getByLabelText("Margin, in points of 100").getAttribute("aria-invalid")).toBe("true");
  });
});

describe("a prompt", () => {
  const KIND = { id: "k1", key: "debugging", name: "Debugging" };
  const prompt = (): Schemas["PromptView"] => ({
    id: "pr1",
    key: "lamp",
    kind: KIND,
    version: 2,
    content: {
      title: "Why does the lamp stay dark?",
      language: "Java 17",
      request: "Find the fault.",
      areas: [],
      constraints: [],
      startingFiles: [],
      keyPoints: [],
      referenceAnswer: "",
      followUps: [],
    },
  });

  it("is saved without lines that are still empty, which stay on the page", async () => {
    const answers = server()
      .on(`GET ${IN_STUDY}/people`, () => ({ body: PEOPLE }))
      .on(`GET ${IN_STUDY}/kinds`, () => ({ body: [KIND] }))
      .on(`PUT ${IN_STUDY}/prompts/pr1`, () => ({ body: { ...prompt(), version: 3 } }));
    inStudy(<PromptEditor prompt={prompt()} all={[prompt()]} />);
    await userEvent.click(screen.getByRole("button", { name: "Add a constraint" }));
    await userEvent.click(screen.getByRole("button", { name: "Add what it must contain" }));
    await writeIn(screen.getByLabelText("Request"), " Say why.");
    await waitFor(() => expect(answers.asked.some((a) => a.method === "PUT")).toBe(true));
    const put = answers.asked.find((a) => a.method === "PUT");
    expect(put?.body).toMatchObject({
      version: 2,
      kindId: "k1",
      content: { request: "Find the fault. Say why.", constraints: [], keyPoints: [] },
    });
    expect(screen.getByLabelText("Constraint 1")).toBeTruthy();
    expect(screen.getByLabelText("Key point 1")).toBeTruthy();
  });

  it("is written by whoever does not grade it then", async () => {
    const answers = server()
      .on(`GET ${IN_STUDY}/people`, () => ({ body: PEOPLE }))
      .on(`GET ${IN_STUDY}/kinds`, () => ({ body: [KIND] }))
      .on(`PUT ${IN_STUDY}/prompts/pr1`, () => ({ body: { ...prompt(), authorId: "p2", version: 3 } }));
    inStudy(<PromptEditor prompt={prompt()} all={[prompt()]} />);
    await within(screen.getByLabelText("Written by")).findByText("Åse Lund");
    await userEvent.selectOptions(screen.getByLabelText("Written by"), "Åse Lund");
    await waitFor(() => expect(answers.asked.find((a) => a.method === "PUT")?.body).toMatchObject({ authorId: "p2" }));
  });

  it("shows what usually goes wrong with it, and only with it", async () => {
    server().on(`GET ${IN_STUDY}/prompts/warnings`, () => ({
      body: [
        { promptId: "pr1", warnings: [{ type: "NO_KEY_POINTS", words: "It has no key points." }] },
        { promptId: "pr2", warnings: [{ type: "NO_LANGUAGE", words: "Its language is not named." }] },
      ],
    }));
    inStudy(<PromptEditor prompt={prompt()} all={[prompt()]} />);
    expect(await screen.findByText("It has no key points.")).toBeTruthy();
    expect(screen.queryByText("Its language is not named.")).toBeNull();
  });

  it("shows the answers that came out of the bank with it, and their levels", async () => {
    const specimen = (promptId: string, text: string): Schemas["SpecimenView"] => ({
      id: text,
      key: "lamp-specimen",
      promptId,
      place: 1,
      text,
      levels: [
        {
          criterion: "best-practice",
          level: 1,
          highestLevel: 4,
          reason: "It hides the fault.",
          by: "Cleo",
          at: "2026-03-01T08:00:00Z",
        },
      ],
    });
    server().on(`GET ${IN_STUDY}/specimens`, () => ({
      body: [specimen("pr1", "Turn it off and on."), specimen("pr2", "Paint it.")],
    }));
    inStudy(<PromptEditor prompt={prompt()} all={[prompt()]} />);
    expect(await screen.findByText("Answer 1: best practice 1 of 4")).toBeTruthy();
    expect(screen.getByText(/It hides the fault\./)).toBeTruthy();
    expect(screen.getByText("Turn it off and on.")).toBeTruthy();
    expect(screen.queryByText("Paint it.")).toBeNull();
  });

  it("is set aside only with a reason", async () => {
    const answers = server().on(`PUT ${IN_STUDY}/prompts/pr1/fault`, () => ({ body: prompt() }));
    inStudy(<PromptEditor prompt={prompt()} all={[prompt()]} />);
    await userEvent.click(screen.getByRole("button", { name: "Set it aside …" }));
    const dialog = screen.getByRole("dialog");
    const confirm = within(dialog).getByRole("button", { name: "Set it aside" });
    expect(confirm).toHaveProperty("disabled", true);
    await userEvent.type(within(dialog).getByLabelText("What is wrong with it"), "It asks for two things.");
    await userEvent.click(confirm);
    await waitFor(() => expect(answers.asked.at(-1)?.path).toBeDefined());
    expect(answers.asked.find((a) => a.path.endsWith("/fault"))?.body).toEqual({ reason: "It asks for two things." });
  });
});

describe("starting code from git", () => {
  it("is listed, chosen and taken at the commit that was listed", async () => {
    const onTaken = vi.fn();
    const code = { code: { files: [], leftOut: [] }, origin: { repository: "buoys", commit: "c0ffee", path: "" } };
    const answers = server()
      .on(`POST ${IN_STUDY}/starting-code/git/listing`, () => ({
        body: { commit: "c0ffee0123456789", files: ["src/Lamp.java", "README.md"].map((path) => ({ path, size: 10 })) },
      }))
      .on(`POST ${IN_STUDY}/starting-code/git`, () => ({ body: code }));
    inStudy(<GitPicker onTaken={onTaken} />);
    await userEvent.click(screen.getByRole("button", { name: "From git" }));
    await userEvent.type(screen.getByLabelText("Repository"), "/srv/buoys");
    await userEvent.click(screen.getByRole("button", { name: "Look" }));
    expect(await screen.findByText("2 files at c0ffee012345.")).toBeTruthy();
    await userEvent.type(screen.getByLabelText("Paths with"), "lamp");
    expect(screen.queryByLabelText("README.md")).toBeNull();
    await userEvent.click(screen.getByLabelText("src/Lamp.java"));
    await userEvent.click(screen.getByRole("button", { name: "Take 1 file" }));
    await waitFor(() => expect(onTaken.mock.calls[0]?.[0]).toEqual(code));
    expect(answers.asked.at(-1)?.body).toEqual({
      repository: "/srv/buoys",
      commit: "c0ffee0123456789",
      paths: ["src/Lamp.java"],
    });
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("says at the field that the administrator does not allow the place", async () => {
    server().on(`POST ${IN_STUDY}/starting-code/git/listing`, () =>
      refusal("Not valid.", { errors: [{ field: "repository", message: "is not in a place that is allowed" }] }),
    );
    inStudy(<GitPicker onTaken={vi.fn()} />);
    await userEvent.click(screen.getByRole("button", { name: "From git" }));
    await userEvent.type(screen.getByLabelText("Repository"), "/etc");
    await userEvent.click(screen.getByRole("button", { name: "Look" }));
    expect(await screen.findByText("is not in a place that is allowed")).toBeTruthy();
    expect(screen.getByLabelText("Repository").getAttribute("aria-invalid")).toBe("true");
  });
});

describe("the plan of a round", () => {
  const plan = (change: Partial<Schemas["PlanView"]> = {}): Schemas["PlanView"] => ({
    answers: 12,
    complete: 12,
    connected: true,
    exposure: 0,
    fewestRaters: 2,
    mostRaters: 2,
    missing: [],
    unmet: [],
    notes: [],
    paired: 12,
    repeated: 0,
    raters: ["Åse", "Juri", "Tove"].map((name, i) => ({ raterId: `r${i}`, name, sheets: 4, repeats: 0 })),
    pairs: [{ firstId: "r0", secondId: "r1", answers: 12 }],
    ...change,
  });
  const shown = (view = plan(), people = PEOPLE) => {
    const answers = server()
      .on(`GET ${IN_STUDY}/people`, () => ({ body: people }))
      .on(`POST ${IN_STUDY}/plan`, () => ({ body: view }));
    inStudy(<RoundPlan />);
    return answers;
  };

  it("opens nothing while something is missing, and leads to where it is written", async () => {
    shown(plan({ missing: ["Brief: the question is not written"] }));
    expect(await screen.findByText(/Brief: the question is not written/)).toBeTruthy();
    expect(screen.getByRole("link", { name: "Go there" }).getAttribute("href")).toBe("/studies/s1/brief");
    expect(screen.queryByRole("button", { name: "Open the round …" })).toBeNull();
  });

  it("opens below the floor of calibration with a reason alone", async () => {
    const sent: unknown[] = [];
    shown(plan({ unmet: ["Agreement on idiom is 0.41 before the talk; the floor is 0.60."] })).on(
      `POST ${IN_STUDY}/round`,
      ({ body }) => {
        sent.push(body);
        return { body: {} };
      },
    );
    await userEvent.click(await screen.findByRole("button", { name: "Open the round …" }));
    const dialog = await screen.findByRole("dialog");
    await userEvent.type(within(dialog).getByLabelText(/Why it opens all the same/), "We talked it over.");
    await userEvent.click(within(dialog).getByRole("button", { name: "Open it" }));
    await waitFor(() => expect(sent[0]).toMatchObject({ despite: "We talked it over." }));
  });

  it("is opened as it was shown, after a question", async () => {
    const answers = shown().on(`POST ${IN_STUDY}/round`, () => ({ body: {} }));
    await screen.findByText("Each answer gets 2 raters.");
    await userEvent.selectOptions(screen.getByLabelText("Sheets that come twice"), "20 % of them");
    await userEvent.click(screen.getByLabelText("I grade too"));
    await userEvent.click(await screen.findByRole("button", { name: "Open the round …" }));
    const dialog = screen.getByRole("dialog");
    expect(dialog.textContent).toContain("3 raters get 12 sheets with 12 answers.");
    expect(dialog.textContent).toContain("You will not see names");
    await userEvent.click(within(dialog).getByRole("button", { name: "Open it" }));
    await waitFor(() => expect(answers.asked.some((a) => a.path.endsWith("/round"))).toBe(true));
    expect(answers.asked.find((a) => a.path.endsWith("/round"))?.body).toEqual({ repeatShare: 0.2, leadGrades: true });
  });

  it("says what can be computed from it", async () => {
    shown(plan({ complete: 0, paired: 10, repeated: 3, exposure: 2, fewestRaters: 1 }));
    expect(await screen.findByText("Each answer gets 1 to 2 raters.")).toBeTruthy();
    expect(screen.getByText("α and AC2 rest on 10 answers with two raters or more, of 12.")).toBeTruthy();
    expect(screen.getByText("No answer is graded by all, so there is no ICC and no Kendall’s W.")).toBeTruthy();
    expect(screen.getByText("3 answers come to a rater twice.")).toBeTruthy();
    expect(screen.getByText("A rater sees candidates up to 2 times unequally often.")).toBeTruthy();
    expect(screen.getByText(/rests on 12 answers at least, which is few for a pair\./)).toBeTruthy();
  });

  it("proposes a sign-in name until somebody writes one, and shows the link of whoever is new", async () => {
    const answers = shown().on(`POST ${IN_STUDY}/raters`, () => ({
      body: { accountId: "p3", invitation: { accountId: "p3", name: "Søren Åby", signInName: "soren", token: "t0k" } },
    }));
    await userEvent.type(await screen.findByLabelText("Name"), "Élodie Åby");
    expect(screen.getByLabelText("Signs in as")).toHaveProperty("value", "elodie");
    await userEvent.clear(screen.getByLabelText("Signs in as"));
    await userEvent.type(screen.getByLabelText("Signs in as"), "eaby");
    await userEvent.type(screen.getByLabelText("Name"), "-Lund");
    expect(screen.getByLabelText("Signs in as")).toHaveProperty("value", "eaby");
    await userEvent.click(screen.getByRole("button", { name: "Add a rater" }));
    expect(await screen.findByText(/\/welcome#t0k$/)).toBeTruthy();
    expect(answers.asked.find((a) => a.path.endsWith("/raters"))?.body).toEqual({
      name: "Élodie Åby-Lund",
      signInName: "eaby",
    });
  });

  it("is no rater's to see", () => {
    server();
    inStudy(<RoundPlan />, { ...STUDY, role: "RATER" });
    expect(screen.getByText("The round is not open yet.")).toBeTruthy();
  });
});

describe("candidates", () => {
  it("are listed with what is unlike between them", async () => {
    const candidate = (id: string, name: string, effort: string): Schemas["CandidateView"] => ({
      id,
      key: id,
      version: 0,
      content: {
        name,
        version: "1",
        baseline: false,
        settings: [{ name: "effort", value: effort }],
        considerations: [{ sign: "RULES_OUT", text: "Code leaves the country." }],
        note: "",
        price: { caps: "" },
      },
    });
    server()
      .on(`GET ${IN_STUDY}/candidates`, () => ({
        body: [candidate("c1", "Quillwort", "high"), candidate("c2", "", "low")],
      }))
      .on(`GET ${IN_STUDY}/candidates/unlike`, () => ({ body: [] }));
    inStudy(<CandidatesPage />);
    expect(await screen.findByText("Quillwort")).toBeTruthy();
    expect(screen.getAllByText(/Code leaves the country/).length).toBe(2);
  });
});

describe("the strata rail", () => {
  it("says of each layer how far it is and what is missing", async () => {
    server().on(`GET ${IN_STUDY}/steps`, () => ({
      body: [
        { step: "BRIEF", done: 1, line: "closed" },
        { step: "PROMPTS", done: 0.5, line: "2 prompts", missing: "no prompt of kind Review" },
      ],
    }));
    inStudy(<StrataRail study={STUDY} />);
    const links = await screen.findAllByRole("link");
    expect(links.map((l) => l.getAttribute("href"))).toEqual([
      "/studies/s1/page/brief",
      "/studies/s1/page/prompts",
      "/studies/s1/page/search",
      "/studies/s1/page/people",
      "/studies/s1/page/record",
    ]);
    expect(links[0]?.textContent).toBe("Briefclosed");
    expect(links[1]?.textContent).toBe("Prompts2 promptsno prompt of kind Review");
  });
});
