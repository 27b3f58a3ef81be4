// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { inStudy, server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { AddressPage } from "../features/account/AddressPage";
import { LostPasswordPage } from "../features/account/LostPasswordPage";
import { SignInPage } from "../features/account/SignInPage";
import { WelcomePage } from "../features/account/WelcomePage";
import { SheetList } from "../features/desk";
import { ReadingPage } from "../features/prompt/ReadingPage";
import { RecommendationPage } from "../features/recommendation/RecommendationPage";
import { NOT_FOUND, refusal, TERMS } from "./people";

const ACCOUNT: Schemas["AccountView"] = {
  id: "p2",
  signInName: "ase",
  displayName: "Åse Lund",
  hasPassword: true,
  mayBringIn: false,
  canSignIn: true,
  administrator: false,
  active: true,
};

function at(address: string) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>
        <Routes>
          <Route path="sign-in" element={<SignInPage />} />
          <Route path="welcome" element={<WelcomePage />} />
          <Route path="address" element={<AddressPage />} />
          <Route path="lost-password" element={<LostPasswordPage />} />
          <Route path="read-backs/:readBackId" element={<ReadingPage />} />
          <Route path="sheets/:sheetId" element={<p>the sheet</p>} />
          <Route path="/" element={<p>home</p>} />
          <Route path="*" element={<p>elsewhere</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

describe("signing in", () => {
  const asked = (next: string) => {
    const answers = server()
      .on("GET /api/session", () => ({ body: {} }))
      .on("GET /api/demo/sign-ins", () => ({ status: 404, body: NOT_FOUND }))
      .on("POST /api/session", () => ({ body: { account: ACCOUNT } }));
    at(`/sign-in?next=${encodeURIComponent(next)}`);
    return answers;
  };
  const signIn = async () => {
    await userEvent.type(await screen.findByLabelText("Name"), "ase");
    await userEvent.type(screen.getByLabelText("Password"), "a long one");
    await userEvent.click(screen.getByRole("button", { name: "Sign in" }));
  };

  it("goes on to the page that was asked for", async () => {
    const answers = asked("/sheets/s7");
    await signIn();
    expect(await screen.findByText("the sheet")).toBeTruthy();
    expect(answers.asked.find((a) => a.method === "POST")?.body).toEqual({ name: "ase", password: "a long one" });
  });

  it.each(["https://elsewhere.example/", "//elsewhere.example", "/\\elsewhere.example", "javascript:alert(1)"])(
    "never goes on to %s",
    async (next) => {
      asked(next);
      await signIn();
      expect(await screen.findByText("home")).toBeTruthy();
    },
  );

  it("goes to a provider and says why one came back without being let in", async () => {
    const went = vi.spyOn(location, "assign").mockImplementation(() => undefined);
    server()
      .on("GET /api/session", () => ({ body: {} }))
      .on("GET /api/demo/sign-ins", () => ({ status: 404, body: NOT_FOUND }))
      .on("GET /api/sign-in", () => ({ body: { passwords: false, providers: [{ id: "harbour", name: "Harbour" }] } }));
    at("/sign-in?refused=left&next=%2Fsheets%2Fs7");
    expect(await screen.findByText(/Your account is closed/)).toBeTruthy();
    await userEvent.click(await screen.findByRole("button", { name: "Sign in by Harbour" }));
    expect(screen.queryByLabelText("Password")).toBeNull();
    expect(went).toHaveBeenCalledWith("/api/sign-in/harbour?next=%2Fsheets%2Fs7");
  });

  it("says why it did not work, and offers no demo where there is none", async () => {
    asked("/").on("POST /api/session", () => refusal("The name or the password is not right."));
    await signIn();
    expect((await screen.findByRole("alert")).textContent).toBe("The name or the password is not right.");
    expect(screen.queryByText(/This is the demo/)).toBeNull();
  });
});

describe("a password that was lost", () => {
  it("is asked for by name, and the answer tells nobody who has an account", async () => {
    const { asked } = server()
      .on("GET /api/session", () => ({ body: {} }))
      .on("GET /api/demo/sign-ins", () => ({ status: 404, body: NOT_FOUND }))
      .on("GET /api/mail", () => ({ body: { on: true } }))
      .on("POST /api/links/lost", () => ({ body: {} }));
    at("/sign-in");
    await userEvent.click(await screen.findByRole("link", { name: "Lost your password?" }));
    await userEvent.type(await screen.findByLabelText("The name you sign in with"), "ase");
    await userEvent.click(screen.getByRole("button", { name: "Send me a link" }));
    expect((await screen.findByRole("status")).textContent).toContain("If somebody signs in by this name");
    expect(asked.at(-1)?.body).toEqual({ name: "ase" });
  });

  it("shows an address to be one's own with a press, not by being opened", async () => {
    const { asked } = server().on("POST /api/links/address", () => ({ body: {} }));
    at("/address#w0rd");
    expect(asked.some((a) => a.method === "POST")).toBe(false);
    await userEvent.click(await screen.findByRole("button", { name: "Yes, it is mine" }));
    expect(await screen.findByText("Mail reaches you from now on.")).toBeTruthy();
    expect(asked.at(-1)?.body).toEqual({ token: "w0rd" });
  });
});

describe("a one-time link by a provider", () => {
  it("takes the link along, in the session and not in the address", async () => {
    const went = vi.spyOn(location, "assign").mockImplementation(() => undefined);
    const { asked } = server()
      .on("GET /api/session", () => ({ body: {} }))
      .on("POST /api/links/inspect", () => ({ body: ACCOUNT }))
      .on("GET /api/sign-in", () => ({ body: { passwords: true, providers: [{ id: "harbour", name: "Harbour" }] } }))
      .on("POST /api/links/provider", () => ({ body: { address: "/api/sign-in/harbour" } }));
    at("/welcome#t0ken");
    await userEvent.click(await screen.findByRole("button", { name: "Sign in by Harbour" }));
    await waitFor(() => expect(went).toHaveBeenCalledWith("/api/sign-in/harbour"));
    expect(asked.at(-1)?.body).toEqual({ token: "t0ken", provider: "harbour" });
  });
});

describe("a one-time link", () => {
  const welcome = () =>
    server()
      .on("POST /api/links/inspect", () => ({ body: { ...ACCOUNT, hasPassword: false } }))
      .on("POST /api/links/use", () => ({ body: { account: ACCOUNT } }));
  const passwords = async (one: string, other: string) => {
    await userEvent.type(await screen.findByLabelText("Password"), one);
    await userEvent.type(screen.getByLabelText("The same again"), other);
    await userEvent.click(screen.getByRole("button", { name: "Set the password" }));
  };

  it("sets a password and goes to the rater's sheets", async () => {
    const answers = welcome();
    at("/welcome#t0k");
    await passwords("ten letters", "ten letters");
    expect(await screen.findByText("home")).toBeTruthy();
    expect(answers.asked.at(-1)?.body).toEqual({ token: "t0k", displayName: "Åse Lund", password: "ten letters" });
  });

  it("sends nothing while the two are not the same", async () => {
    const answers = welcome();
    at("/welcome#t0k");
    await passwords("ten letters", "ten lettres");
    expect(await screen.findByText("The two are not the same.")).toBeTruthy();
    expect(answers.asked.some((a) => a.path.endsWith("/use"))).toBe(false);
  });

  it("shows what is wrong with a password at its field", async () => {
    welcome().on("POST /api/links/use", () =>
      refusal("Not valid.", { errors: [{ field: "password", message: "must have ten characters or more" }] }),
    );
    at("/welcome#t0k");
    await passwords("short", "short");
    expect(await screen.findByText("must have ten characters or more")).toBeTruthy();
  });

  it("says so when it is spent, or not whole", async () => {
    server().on("POST /api/links/inspect", () => ({ status: 404, body: NOT_FOUND }));
    at("/welcome#t0k");
    expect(await screen.findByRole("heading", { name: "This link is spent" })).toBeTruthy();
  });
});

describe("reading a prompt back", () => {
  const reading = (change: Partial<Schemas["Reading"]> = {}): Schemas["Reading"] => ({
    id: "rb1",
    studyTitle: "A code model for the tide desk",
    title: "Why does the lamp stay dark?",
    language: "Java 17",
    request: "Find the **fault**.",
    constraints: ["Change one line."],
    startingFiles: [],
    open: true,
    ...change,
  });

  it("sends what was understood", async () => {
    const answers = server()
      .on("GET /api/read-backs", () => ({ body: [reading()] }))
      .on("PUT /api/read-backs/rb1", () => ({ body: reading({ answer: "One line." }) }));
    at("/read-backs/rb1");
    const send = await screen.findByRole("button", { name: "Send it to the lead" });
    expect(send).toHaveProperty("disabled", true);
    await userEvent.type(screen.getByLabelText("What do you think is asked?"), "One line.");
    await userEvent.click(send);
    expect(await screen.findByText("Sent. Thank you.")).toBeTruthy();
    expect(answers.asked.find((a) => a.method === "PUT")?.body).toEqual({ answer: "One line." });
  });

  it("is over when the round is open", async () => {
    server().on("GET /api/read-backs", () => ({ body: [reading({ open: false, answer: "One line." })] }));
    at("/read-backs/rb1");
    expect(await screen.findByText("The round is open; readings stay as they are.")).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("is for whoever was asked", async () => {
    server().on("GET /api/read-backs", () => ({ body: [reading()] }));
    at("/read-backs/another");
    expect(await screen.findByText(/This prompt was not given to you to read/)).toBeTruthy();
  });
});

describe("a rater's sheets", () => {
  const sheet = (change: Partial<Schemas["SheetSummary"]>): Schemas["SheetSummary"] => ({
    id: "sh1",
    studyId: "s1",
    studyTitle: "A code model for the tide desk",
    promptTitle: "Why does the lamp stay dark?",
    withdrawn: false,
    kind: "Debugging",
    place: 1,
    cells: 12,
    made: 0,
    roundClosed: false,
    setAside: false,
    ...change,
  });

  it("say what is left, and lead to the next one", () => {
    inStudy(
      <SheetList
        sheets={[
          sheet({ sentAt: "2026-11-03T10:00:00Z" }),
          sheet({ id: "sh2", place: 2, made: 3 }),
          sheet({ id: "sh3", place: 3, setAside: true }),
          sheet({ id: "sh4", place: 4 }),
        ]}
      />,
    );
    expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("2 sheets left to grade");
    expect(screen.getByRole("link", { name: "Go on grading" }).getAttribute("href")).toBe("/sheets/sh2");
    expect(screen.getByText("3 of 12 grades")).toBeTruthy();
    expect(screen.getByText("set aside: the prompt was faulty")).toBeTruthy();
    expect(screen.getByText("not begun")).toBeTruthy();
  });

  it("are apart by study, each with its own next one", () => {
    inStudy(
      <SheetList sheets={[sheet({}), sheet({ id: "sh9", studyId: "s2", studyTitle: "A second one", made: 1 })]} />,
    );
    expect(screen.getAllByRole("heading", { level: 2 }).map((h) => h.textContent)).toEqual([
      "A code model for the tide desk",
      "A second one",
    ]);
    expect(screen.getByRole("link", { name: "Grade the next sheet" }).getAttribute("href")).toBe("/sheets/sh1");
  });

  it("thank whoever is done", () => {
    inStudy(<SheetList sheets={[sheet({ sentAt: "2026-11-03T10:00:00Z" }), sheet({ id: "x", roundClosed: true })]} />);
    expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("All your sheets are sent in");
    expect(screen.getByText("not sent in; the round is closed")).toBeTruthy();
    expect(screen.queryByRole("link", { name: /grad/i })).toBeNull();
  });
});

describe("the recommendation", () => {
  const report = (change: Partial<Schemas["RecommendationReport"]> = {}): Schemas["RecommendationReport"] => ({
    outcome: "UNDECIDED",
    headline: "Undecided.",
    revision: 1,
    settled: { splits: 0, open: 0, standings: [] },
    candidates: [
      { id: "c1", name: "Quillwort", version: "2", settings: "", baseline: false },
      { id: "c2", name: "Teaselworth", version: "1", settings: "", baseline: false },
    ],
    basis: { sheets: 12, sentSheets: 10, answers: 24, prompts: 4, raters: 3, resamples: 2000 },
    findings: [{ type: "NO_WINNER", sentence: "No candidate is clear of the others." }],
    overall: [],
    byCriterion: [],
    field: [],
    allowance: { overall: 0.05, kinds: 0 },
    agreement: [],
    byKind: [],
    costs: { means: [], prompts: 0, estimated: false },
    failed: { answers: 0 },
    differences: [],
    measures: [],
    ruledOut: [],
    setAside: [],
    unequalFollowUps: [],
    severalModels: [],
    expectations: [],
    reopenings: [],
    blinding: { raters: 3, lead: false, giveAways: 0, sentKnowing: 0 },
    looking: { allowed: 1, taken: [], counted: 4, planned: 4 },
    rule: { terms: TERMS, weights: [] },
    ...change,
  });
  const shown = async (change: Partial<Schemas["RecommendationReport"]> = {}) => {
    server()
      .on("GET /api/studies/s1/recommendation", () => ({ body: report(change) }))
      .on("GET /api/studies/s1/acts", () => ({ body: [] }));
    inStudy(<RecommendationPage />);
    return screen.findByRole("heading", { level: 1 });
  };

  it("says its outcome, its reasons and what it rests on", async () => {
    expect((await shown()).textContent).toBe("Undecided.");
    expect(screen.getByText("No candidate is clear of the others.")).toBeTruthy();
    expect(screen.getByText("From 10 of 12 sheets: 24 answers to 4 prompts, 3 raters.")).toBeTruthy();
  });

  it("says so when nothing is sent in", async () => {
    await shown({ outcome: "WITHHELD", headline: "Withheld." });
    expect(screen.getByText("No sheet is sent in yet.")).toBeTruthy();
    expect(screen.getByText("What is missing")).toBeTruthy();
  });

  it.each([
    [1, "over 99 %"],
    [0, "under 1 %"],
    [0.62, "62 %"],
  ])("says of a share of %d of resamples no more than they show", async (share, words) => {
    await shown({
      overall: [
        {
          candidateId: "c1",
          scores: 24,
          adjusted: { value: 70, low: 60, high: 80 },
          plain: { value: 71 },
          chanceOfBest: { value: share },
        },
      ],
    });
    expect(screen.getByRole("cell", { name: words })).toBeTruthy();
  });

  it("shows who was blind and why the brief was reopened", async () => {
    await shown({
      blinding: { raters: 3, lead: true, giveAways: 1, sentKnowing: 0 },
      reopenings: [
        {
          by: "Mira Voss",
          reason: "The margin was a slip.",
          terms: "margin 50",
          closedAt: "2026-11-01T09:00:00Z",
          reopenedAt: "2026-11-02T09:00:00Z",
        },
      ],
    });
    expect(screen.getByText(/The lead was one of them/).textContent).toContain("1 answer names a candidate");
    expect(screen.getByText(/The margin was a slip\./)).toBeTruthy();
    expect(screen.getByText("Until then: margin 50.")).toBeTruthy();
  });

  it("hides neither a prompt set aside nor a candidate ruled out", async () => {
    await shown({
      setAside: [{ promptId: "pr1", title: "Two wishes", reason: "It asks for two things." }],
      ruledOut: [{ candidateId: "c2", reasons: ["Code leaves the country.", "No licence."] }],
    });
    expect(screen.getByText(/“Two wishes” was set aside: It asks for two things\./)).toBeTruthy();
    expect(screen.getByText(/is ruled out whatever its grades/).textContent).toContain(
      "Teaselworth is ruled out whatever its grades: Code leaves the country.; No licence.",
    );
  });

  it("asks again when it could not be fetched", async () => {
    let tries = 0;
    server().on("GET /api/studies/s1/recommendation", () =>
      ++tries === 1 ? { status: 500, body: "oops" } : { body: report() },
    );
    inStudy(<RecommendationPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Try again" }));
    await waitFor(() => expect(screen.getByText("Undecided.")).toBeTruthy());
  });
});
