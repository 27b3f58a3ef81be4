// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import type { ReactNode } from "react";
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { CoversPage, HowPage, RecommendationPage, StandingsPage } from "../features/recommendation";
import { figure, rowsOf } from "./agreed";
import { TERMS } from "./people";

const standing = (candidateId: string, value: number, best: number): Schemas["StandingView"] => ({
  candidateId,
  adjusted: figure(value, value - 5, value + 5),
  plain: figure(value + 1, value - 5, value + 6),
  chanceOfBest: figure(best, best, best),
  scores: 24,
});

const RECOMMENDATION: Schemas["RecommendationReport"] = {
  revision: 7,
  outcome: "RECOMMENDED",
  headline: "We recommend Osierhold.",
  leaderId: "o",
  findings: [{ type: "LEADS", sentence: "It stands 11 points above the next." }],
  basis: { answers: 24, prompts: 8, raters: 3, resamples: 2000, sheets: 12, sentSheets: 12 },
  blinding: { raters: 3, lead: false, giveAways: 0, sentKnowing: 0 },
  settled: { splits: 0, open: 4, standings: [] },
  looking: { allowed: 1, taken: [], counted: 8, planned: 8 },
  candidates: [
    { id: "t", name: "Teaselworth", version: "2", settings: "", baseline: false },
    { id: "o", name: "Osierhold", version: "1", settings: "", baseline: false },
  ],
  overall: [standing("o", 71, 0.998), standing("t", 60, 0.002)],
  byCriterion: [{ criterionId: "right", name: "Correctness", standings: [standing("o", 80, 1), standing("t", 66, 0)] }],
  field: [],
  allowance: { overall: 0.05, kinds: 0 },
  agreement: [
    {
      criterionId: "right",
      name: "Correctness",
      weight: 1,
      value: { ...figure(0.7, 0.6, 0.8), level: 0.95 },
      floor: 0.6,
    },
  ],
  byKind: [],
  costs: { means: [{ candidateId: "o", mean: 0.035 }], currency: "EUR", prompts: 8, estimated: false },
  failed: { answers: 0 },
  differences: [
    {
      higherId: "o",
      lowerId: "t",
      difference: figure(11, 3, 18),
      adjustedDifference: figure(11, 2, 20),
      p: figure(0.004, 0.004, 0.004),
      standardError: { value: 3.8 },
      freedom: 12.4,
      here: figure(11, 9, 13),
    },
  ],
  measures: [
    {
      candidateId: "o",
      answers: 12,
      complete: 11,
      medianTotalMs: 4200,
      medianOutputTokens: 310,
      totalCost: 0.42,
      currency: "EUR",
    },
    { candidateId: "t", answers: 12, complete: 12 },
  ],
  expectations: [],
  reopenings: [],
  rule: { terms: TERMS, weights: [{ criterionId: "right", key: "right", name: "Correctness", weight: 1, floor: 0.6 }] },
  ruledOut: [],
  setAside: [],
  unequalFollowUps: [],
  severalModels: [],
};

const ROBUSTNESS: Schemas["RobustnessReport"] = {
  sentence: "It hangs on Juri: without it it would be another. It holds for 83 % of weightings.",
  without: [
    { factor: "RATER", name: "Juri", outcome: "UNDECIDED", says: "undecided", changes: true },
    { factor: "PROMPT", name: "Read the log", outcome: "RECOMMENDED", says: "Osierhold recommended", changes: false },
  ],
  weightings: 300,
  same: 0.83,
  shares: [],
  along: [
    {
      criterion: "Idiom",
      points: [
        { weight: 0, says: "Osierhold recommended", changes: false },
        { weight: 0.5, says: "Osierhold recommended", changes: false },
        { weight: 1, says: "undecided", changes: true },
      ],
    },
  ],
  checks: [{ of: "PLACE_ON_SHEET", slope: figure(-0.4, -1, 0.2), scores: 24 }],
  attempts: [],
  worth: [],
};

const ACTS: Schemas["ActView"][] = [
  {
    sort: "PROMPT_SET_ASIDE",
    subject: "Read the log",
    reason: "Two readings.",
    by: "Orla Fennick",
    at: "2026-03-12T09:00:00Z",
    namesKnown: true,
    before: { outcome: "RECOMMENDED", headline: "We recommend Osierhold." },
    after: { outcome: "UNDECIDED", headline: "Undecided." },
  },
];

const candidate = (id: string, name: string, considerations: Schemas["Consideration"][]): Schemas["CandidateView"] => ({
  id,
  key: id,
  version: 0,
  content: {
    name,
    version: "1",
    settings: [],
    price: { caps: "" },
    note: "",
    considerations,
    baseline: false,
  },
});

const CANDIDATES = [
  candidate("o", "Osierhold", [
    { sign: "AGAINST", text: "Code leaves the region." },
    { sign: "FOR", text: "It is there already." },
  ]),
  candidate("t", "Teaselworth", [{ sign: "AGAINST", text: "A weekly cap." }]),
];

const GROUPS: Schemas["GroupingReport"] = {
  groupings: [
    {
      by: "KIND",
      groups: [
        { name: "Review", prompts: 2, standings: [{ candidateId: "t", adjusted: figure(55, 40, 70), scores: 6 }] },
      ],
    },
    {
      by: "SIZE",
      groups: [
        { name: "small", prompts: 5, standings: [{ candidateId: "o", adjusted: figure(75, 60, 90), scores: 15 }] },
      ],
    },
  ],
};

async function view(page: ReactNode, more: Partial<Schemas["RobustnessReport"]> = {}) {
  server()
    .on("GET /api/studies/s1/recommendation", () => ({ body: RECOMMENDATION }))
    .on("GET /api/studies/s1/follows", () => ({ body: { carried: 0 } }))
    .on("GET /api/studies/s1/recommendation/groups", () => ({ body: GROUPS }))
    .on("GET /api/studies/s1/recommendation/robustness", () => ({ body: { ...ROBUSTNESS, ...more } }));
  inStudy(page, { ...STUDY, stage: "CLOSED" });
  await screen.findByRole("heading", { level: 1 });
}

describe("standings", () => {
  it("are told apart by what prompts differ in", async () => {
    await view(<StandingsPage />);
    const [, first] = await screen
      .findByRole("table", { name: "Standings by kind" })
      .then(() => rowsOf("Standings by kind"));
    expect(first?.textContent).toContain("Review2 prompts");
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Prompts by" }), "size of the task");
    expect(rowsOf("Standings by size of the task")[1]?.textContent).toContain("small5 prompts");
  });

  it("show small p values as a bound", async () => {
    await view(<StandingsPage />);
    expect(rowsOf("Differences between each two candidates")[1]?.textContent).toContain("< 0.01");
  });

  it("say how steady candidates are when asked again", async () => {
    await view(<StandingsPage />, {
      attempts: [
        { candidateId: "o", prompts: 4, mean: figure(70, 60, 80), worst: figure(61, 50, 70), within: figure(8, 6, 9) },
      ],
    });
    await screen.findByRole("heading", { name: "Asked again" });
    expect(rowsOf("How steady candidates are when asked again")[1]?.textContent).toContain("470.061.08.0");
  });
});

describe("who covers what", () => {
  it("tells choosing beforehand from a second opinion", async () => {
    await view(<CoversPage />, {
      mix: { candidateIds: ["t", "o"], kinds: ["Debugging", "Review"], gain: figure(3.2, 0.4, 6) },
      bestPair: { candidateIds: ["o", "t"], kinds: [], gain: figure(1.5, -2, 5) },
    });
    await screen.findByRole("heading", { name: "A second opinion" });
    expect(rowsOf("The best for each kind").map((r) => r.textContent)).toEqual([
      "KindBest on it",
      "DebuggingTeaselworth",
      "ReviewOsierhold",
    ]);
    expect(screen.getByText(/It may gain nothing/)).toBeDefined();
  });
});

async function recommendation(change: Partial<Schemas["RecommendationReport"]> = {}) {
  server()
    .on("GET /api/studies/s1/recommendation", () => ({ body: { ...RECOMMENDATION, ...change } }))
    .on("GET /api/studies/s1/acts", () => ({ body: ACTS }))
    .on("GET /api/studies/s1/follows", () => ({ body: { carried: 0 } }))
    .on("GET /api/studies/s1/candidates", () => ({ body: CANDIDATES }))
    .on("GET /api/studies/s1/recommendation/robustness", () => ({ body: ROBUSTNESS }));
  inStudy(<RecommendationPage />, { ...STUDY, stage: "CLOSED" });
  return (await screen.findByRole("heading", { level: 1 })).textContent;
}

async function how(change: Partial<Schemas["RecommendationReport"]> = {}) {
  server()
    .on("GET /api/studies/s1/recommendation", () => ({ body: { ...RECOMMENDATION, ...change } }))
    .on("GET /api/studies/s1/recommendation/robustness", () => ({ body: ROBUSTNESS }));
  inStudy(<HowPage />, { ...STUDY, stage: "CLOSED" });
  return await screen.findByRole("heading", { level: 1 });
}

describe("how the outcome comes about", () => {
  it("does the arithmetic of each place with the study's own figures", async () => {
    await how({
      outcome: "SAFE_CHOICES",
      field: [
        { candidateId: "o", place: "SAFE", shortfall: -4.2, rivalId: "t", critical: 1.8 },
        { candidateId: "t", place: "OPEN", shortfall: 17.8, rivalId: "o", critical: 1.8 },
      ],
    });
    const items = screen.getAllByRole("listitem").map((i) => i.textContent);
    expect(items.find((i) => i.startsWith("Osierhold"))).toContain(
      "against Teaselworth 11.0 points, less 1.80 standard errors of 3.8, is 4.2 at worst",
    );
    expect(items.find((i) => i.startsWith("Teaselworth"))).toContain("against Osierhold −11.0 points");
    const [, row] = rowsOf("Differences and what they rest on");
    expect(row?.textContent).toContain("12.4");
    expect(row?.textContent).toContain("2.89");
  });

  it("marks which of the outcomes it is, and leaves out what the rule does not know", async () => {
    await how();
    expect(screen.getByText(/One is recommended.*This one/)).toBeDefined();
    expect(screen.queryByText(/By kind: nothing of this/)).toBeNull();
    cleanup();
    await how({ outcome: "BY_KIND", rule: { ...RECOMMENDATION.rule, terms: { ...TERMS, byKind: true } } });
    expect(screen.getByText(/By kind: nothing of this.*This one/)).toBeDefined();
  });

  it("says why costs are not known", async () => {
    const terms = { ...TERMS, tieBreak: "COST" as const };
    await how({
      rule: { ...RECOMMENDATION.rule, terms },
      costs: { means: [], prompts: 3, estimated: false, why: "costs are in different currencies" },
    });
    expect(screen.getByText(/Not known: costs are in different currencies/)).toBeDefined();
    cleanup();
    await how({ rule: { ...RECOMMENDATION.rule, terms } });
    expect(rowsOf("Mean cost of a prompt")).toHaveLength(2);
  });

  it("tells what it hangs on, and puts weights that say the same into one stretch", async () => {
    await how();
    expect(await screen.findByText(/holds for 83 % of weightings/)).toBeDefined();
    expect(rowsOf("Left out, it would be another outcome")).toHaveLength(2);
    expect(screen.getByText(/0 % to 50 % Osierhold recommended; 100 % to 100 % undecided/)).toBeDefined();
    expect(rowsOf("What may have moved grades")[1]?.textContent).toContain("−0.40");
  });
});

describe("recommendation", () => {
  it("says what is recommended, why, and from how much", async () => {
    expect(await recommendation()).toBe("We recommend Osierhold.");
    expect(screen.getByText("It stands 11 points above the next.")).toBeDefined();
    expect(screen.getByText(/From 12 of 12 sheets: 24 answers to 8 prompts, 3 raters/)).toBeDefined();
  });

  it("says of each candidate what it is against the best, and how far below it may be", async () => {
    await recommendation({
      outcome: "SAFE_CHOICES",
      field: [
        { candidateId: "o", place: "SAFE", shortfall: 3.24, rivalId: "t", critical: 1.8 },
        { candidateId: "t", place: "OUT", shortfall: 15, rivalId: "o", critical: 1.8 },
      ],
    });
    const table = screen.getByRole("table", { name: "Standings overall" });
    expect(within(table).getByText("safe").textContent).toContain("at worst 3.2 below");
    expect(within(table).getByText("out").textContent).toContain("at worst 15.0 below");
  });

  it("says nothing of that where the rule compares nobody, and names who is not compared where it does", async () => {
    await recommendation();
    expect(screen.queryByText("Against the best")).toBeNull();
    cleanup();
    await recommendation({ field: [{ candidateId: "o", place: "BEST", shortfall: -2, rivalId: "t", critical: 1.8 }] });
    expect(screen.getByText("the best")).toBeDefined();
    expect(screen.getAllByText("not compared")).toHaveLength(1);
  });

  it("tells both where answers without text make a difference, and that they make none", async () => {
    await recommendation({ failed: { answers: 2, otherwise: "We recommend Teaselworth." } });
    expect(screen.getByText(/2 answers left nothing to grade.*If they counted nowhere, it would be: We/)).toBeDefined();
    cleanup();
    await recommendation({ failed: { answers: 1 } });
    expect(screen.getByText(/1 answer left nothing.*would be the same if they counted nowhere/)).toBeDefined();
  });

  it("says beside it what speaks against whom it names, and of all what no grade covers", async () => {
    await recommendation({ field: [{ candidateId: "o", place: "BEST", shortfall: -2, rivalId: "t", critical: 1.8 }] });
    const against = await screen.findByRole("heading", { name: "What speaks against it" });
    const note = against.parentElement;
    expect(note?.textContent).toContain("Code leaves the region.");
    expect(note?.textContent).not.toContain("A weekly cap.");
    const facts = screen.getByRole("table", { name: "Facts by candidate" });
    expect(within(facts).getByText("A weekly cap.")).toBeDefined();
    expect(within(facts).getAllByText("none on record")).toHaveLength(3);
  });

  it("says of each condition of the rule whether it holds, with its figure", async () => {
    const own = { criterionId: "right", name: "Correctness", weight: 1, floor: 0.6, value: figure(0.58, 0.4, 0.7) };
    await recommendation({
      agreement: [own, { ...own, criterionId: "idiom", name: "Idiom", value: figure(0.3, 0.2, 0.4) }],
      findings: [
        { type: "agreement-uncertain", sentence: "Not sure.", criterion: "Correctness" },
        { type: "agreement-below-floor", sentence: "Below.", criterion: "Idiom" },
        { type: "too-few-raters", sentence: "Too few." },
      ],
    });
    const said = within(screen.getByRole("list", { name: "Conditions of the rule" }))
      .getAllByRole("listitem")
      .map((item) => item.textContent);
    expect(said).toEqual([
      "The rule was closed with the brief: holds",
      "Every answer has 2 raters or more: does not hold",
      "Agreement on Correctness 0.58 0.40 to 0.70, floor 0.60: is not sure",
      "Agreement on Idiom 0.30 0.20 to 0.40, floor 0.60: does not hold",
    ]);
  });

  it("says of a person’s own answers that they stand higher than what is recommended", async () => {
    await recommendation({
      field: [{ candidateId: "t", place: "BEST", shortfall: -2, rivalId: "o", critical: 1.8 }],
      candidates: RECOMMENDATION.candidates.map((c) => ({ ...c, baseline: c.id === "o" })),
    });
    await screen.findByRole("heading", { name: "What speaks against it" });
    expect(screen.getByText(/a person’s own answers, stands higher/)).toBeDefined();
  });

  it("shows what is blank for one and known of another", async () => {
    await recommendation();
    expect(screen.queryByRole("table", { name: "What is asked of all candidates" })).toBeNull();
    cleanup();
    CANDIDATES[0]?.content.considerations.push({ sign: "FOR", text: "Stays here.", about: "REGION" });
    await recommendation();
    await screen.findByRole("table", { name: "What is asked of all candidates" });
    expect(rowsOf("What is asked of all candidates")[1]?.textContent).toBe(
      "where code is sentStays here.blank: nobody found out",
    );
    CANDIDATES[0]?.content.considerations.pop();
  });

  it("says in a sentence what it hangs on, once that is known", async () => {
    await recommendation();
    expect(await screen.findByText(/holds for 83 % of weightings/)).toBeDefined();
    expect(screen.getByRole("link", { name: "Why" })).toBeDefined();
  });

  it("keeps the standings when it withholds, and says that they do not decide", async () => {
    await recommendation({
      outcome: "WITHHELD",
      headline: "No recommendation yet.",
      findings: [{ type: "TOO_FEW_RATERS", sentence: "1 of 24 answers has fewer than 3 raters." }],
    });
    expect(screen.getByRole("heading", { name: "What is missing" })).toBeDefined();
    expect(screen.getByText(/the rule does not let them decide yet/)).toBeDefined();
    expect(rowsOf("Standings overall")).toHaveLength(3);
  });

  it("never says that something is certain or cannot happen", async () => {
    await recommendation();
    const [, first, second] = rowsOf("Standings overall");
    expect(first?.textContent).toContain("over 99 %");
    expect(second?.textContent).toContain("under 1 %");
  });

  it("gives a candidate one sign wherever it stands", async () => {
    await recommendation();
    await screen.findByRole("heading", { name: "Facts that no grade covers" });
    const signs = screen
      .getAllByText("Osierhold")
      .map((name) => name.parentElement?.querySelector("svg")?.outerHTML)
      .filter((svg) => svg !== undefined);
    expect(signs.length).toBeGreaterThan(1);
    expect(new Set(signs).size).toBe(1);
  });

  it("says for whom more than one model answered", async () => {
    await recommendation({
      severalModels: [
        {
          candidateId: "c1",
          answered: [
            { model: "made-1", answers: 5 },
            { model: "made-2", answers: 1 },
          ],
        },
      ],
    });
    expect(screen.getByText(/More than one model answered/).textContent).toMatch(
      /own word: made-1 \(5 answers\), made-2 \(1 answer\)\. They count as one candidate\./,
    );
  });

  it("says which candidate was followed up with words of its own", async () => {
    await recommendation({
      unequalFollowUps: [
        {
          answerId: "a1",
          promptId: "p1",
          title: "Two ships at one berth",
          candidateId: "c1",
          attempt: 1,
          followUps: 2,
        },
      ],
    });
    const note = screen.getByText(/which the others did not/);
    expect(note.textContent).toMatch(
      / got 2 follow-ups of its own on Two ships at one berth, which the others did not\./,
    );
    expect(screen.getByRole("link", { name: "Two ships at one berth" }).getAttribute("href")).toContain("p1?answer=a1");
  });

  it("names what is ruled out whatever its grades", async () => {
    await recommendation({ ruledOut: [{ candidateId: "t", reasons: ["code leaves the country", "no licence"] }] });
    const note = screen.getByText(/is ruled out whatever its grades/);
    expect(note.textContent).toContain("Teaselworth");
    expect(note.textContent).toContain("code leaves the country; no licence");
  });

  it.each([
    [
      { raters: 3, lead: true, giveAways: 0, sentKnowing: 0 },
      "The lead was one of them",
      "No answer names a candidate.",
    ],
    [
      { raters: 1, lead: false, giveAways: 2, sentKnowing: 0 },
      "The lead saw names and did not grade.",
      "2 answers name a candidate",
    ],
    [
      { raters: 2, lead: false, giveAways: 1, sentKnowing: 0 },
      "2 people graded without names",
      "1 answer names a candidate",
    ],
  ])("says who was blind: %o", async (blinding, first, second) => {
    await recommendation({ blinding });
    const text = screen.getByText(/graded without names/).textContent;
    expect(text).toContain(first);
    expect(text).toContain(second);
  });

  it("shows that the brief was reopened, why, and what the rule said", async () => {
    await recommendation({
      reopenings: [
        {
          by: "Mira Voss",
          reason: "the margin was a slip of the pen",
          terms: "margin 50 points",
          closedAt: "2026-11-02T09:00:00Z",
          reopenedAt: "2026-11-02T10:00:00Z",
        },
      ],
    });
    expect(screen.getByText(/the margin was a slip of the pen/)).toBeDefined();
    expect(screen.getByText(/margin 50 points/)).toBeDefined();
  });

  it("says that there is nothing where no sheet is sent in", async () => {
    await recommendation({
      outcome: "WITHHELD",
      headline: "No recommendation yet.",
      overall: [],
      byCriterion: [],
      field: [],
      differences: [],
    });
    expect(screen.getByText("No sheet is sent in yet.")).toBeDefined();
    expect(screen.queryByRole("heading", { name: "Differences" })).toBeNull();
  });
});

describe("the record of acts", () => {
  it("says what was done, why, and what the rule said before and after", async () => {
    await recommendation();
    const acts = await screen.findByRole("table", { name: "Acts on record" });
    expect(within(acts).getByText("Prompt set aside")).toBeTruthy();
    expect(within(acts).getByText("Two readings.")).toBeTruthy();
    expect(within(acts).getByText("Before: We recommend Osierhold.")).toBeTruthy();
    expect(within(acts).getByText("After: Undecided.")).toBeTruthy();
    expect(within(acts).getByText("knew the names")).toBeTruthy();
  });

  it("says how many sheets were sent in by people who could have known", async () => {
    await recommendation({ blinding: { raters: 2, lead: false, giveAways: 0, sentKnowing: 3 } });
    expect(screen.getByText(/3 sheets were sent in by people who could have seen the names/)).toBeTruthy();
  });
});

describe("standings while raters grade", () => {
  const LOOKS: Schemas["LooksView"] = {
    hidden: true,
    allowed: 2,
    taken: [],
    sent: 5,
    sheets: 12,
    counted: 3,
    planned: 8,
  };
  const hidden = (change: Partial<Schemas["LooksView"]> = {}) => {
    const answers = server()
      .on("GET /api/studies/s1/looks", () => ({ body: { ...LOOKS, ...change } }))
      .on("GET /api/studies/s1/acts", () => ({ body: [] }))
      .on("POST /api/studies/s1/looks", () => ({ body: { number: 1 } }));
    inStudy(<RecommendationPage />, { ...STUDY, stage: "GRADING" });
    return answers;
  };

  it("are hidden, and nothing of them is asked for", async () => {
    const answers = hidden({ allowed: 1, refusal: "The brief allows one look, at the end of grading." });
    expect((await screen.findByRole("heading", { level: 1 })).textContent).toContain("hidden until grading ends");
    expect(screen.queryByRole("button", { name: /Take this look/ })).toBeNull();
    expect(answers.asked.some((a) => a.path.endsWith("/recommendation"))).toBe(false);
  });

  it("are seen at a look that the brief allows, once it is confirmed", async () => {
    const answers = hidden();
    await userEvent.click(await screen.findByRole("button", { name: "Take this look …" }));
    expect(answers.asked.some((a) => a.method === "POST")).toBe(false);
    await userEvent.click(screen.getByRole("button", { name: "Take it" }));
    expect(answers.asked.filter((a) => a.method === "POST").map((a) => a.path)).toEqual(["/api/studies/s1/looks"]);
  });

  it("lists the looks that were taken", async () => {
    hidden({
      refusal: "The brief allows 2 looks; the last is the end of grading.",
      taken: [
        {
          number: 1,
          at: "2026-03-11T09:00:00Z",
          by: "Orla Fennick",
          counted: 3,
          planned: 8,
          outcome: "UNDECIDED",
          headline: "Undecided between two.",
        },
      ],
    });
    expect((await screen.findByRole("link", { name: "look 1" })).getAttribute("href")).toContain("look=1");
    expect(screen.getByText("Undecided between two.")).toBeTruthy();
  });
});
