// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { AgreementPage } from "../features/agreement";
import { HowPage, RecommendationPage } from "../features/recommendation";
import { NOT_FOUND, TERMS } from "./people";

type Figure = Schemas["Figure"];

const figure = (value: number, low: number, high: number): Figure => ({ value, low, high, level: 0.95 });
const noFigure = (undefinedReason: string): Figure => ({ undefinedReason });

const FIGURES: Schemas["AgreementFigures"] = {
  alpha: figure(0.71, 0.64, 0.78),
  ac2: figure(0.75, 0.7, 0.81),
  exact: figure(0.62, 0.58, 0.66),
  withinOne: figure(0.94, 0.91, 0.97),
  answers: 24,
  prompts: 8,
  pairs: 72,
  resampled: "PROMPTS",
  verdict: "ABOVE",
};

const criterion = (
  criterionId: string,
  name: string,
  overall: Partial<Schemas["AgreementFigures"]> = {},
  more: Partial<Schemas["CriterionAgreement"]> = {},
): Schemas["CriterionAgreement"] => ({
  criterionId,
  name,
  weight: 0.5,
  floor: 0.6,
  highestLevel: 4,
  overall: { ...FIGURES, ...overall },
  byKind: [],
  ...more,
});

const AGREEMENT: Schemas["AgreementReport"] = {
  revision: 7,
  sheets: 12,
  sentSheets: 11,
  resamples: 2000,
  coefficient: "ALPHA_ORDINAL",
  criteria: [criterion("right", "Correctness"), criterion("idiom", "Idiom")],
  raters: [
    { raterId: "a", name: "Åse Lund" },
    { raterId: "b", name: "Bo Grane" },
    { raterId: "c", name: "Cleo Varn" },
  ],
  pairs: [
    {
      criterionId: "right",
      firstRaterId: "b",
      secondRaterId: "a",
      answers: 21,
      quadratic: figure(0.66, 0.5, 0.8),
      linear: figure(0.58, 0.4, 0.7),
    },
    {
      criterionId: "idiom",
      firstRaterId: "b",
      secondRaterId: "a",
      answers: 21,
      quadratic: figure(0.41, 0.2, 0.6),
      linear: figure(0.33, 0.2, 0.5),
    },
  ],
  severity: [
    { raterId: "a", name: "Åse Lund", grades: 72, shareAtEnds: 0.51, severity: figure(0.42, 0.3, 0.55) },
    { raterId: "b", name: "Bo Grane", grades: 66, shareAtEnds: 0.04, severity: figure(-0.31, -0.44, -0.2) },
  ],
  selfAgreement: [],
  splits: [],
  splitCount: 0,
  setAside: [],
};

async function agreement(change: Partial<Schemas["AgreementReport"]> = {}) {
  server().on("GET /api/studies/s1/agreement", () => ({ body: { ...AGREEMENT, ...change } }));
  inStudy(<AgreementPage />);
  return (await screen.findByRole("heading", { level: 1 })).textContent;
}

const rowsOf = (name: string) => within(screen.getByRole("table", { name })).getAllByRole("row");

describe("what would help raters to agree", () => {
  it("names the anchor, the prompt and the person, what would help most first", async () => {
    const low = { alpha: figure(0.5, 0.4, 0.6), verdict: "UNCERTAIN" as const };
    server()
      .on("GET /api/studies/s1/agreement", () => ({
        body: { ...AGREEMENT, criteria: [criterion("right", "Correctness"), criterion("idiom", "Idiom", low)] },
      }))
      .on("GET /api/studies/s1/rubric", () => ({
        body: { criteria: [{ id: "idiom", levels: [{ level: 2, name: "Fair", anchors: [] }] }] },
      }))
      .on("GET /api/studies/s1/agreement/diagnosis", () => ({
        body: {
          criteria: [
            {
              criterionId: "idiom",
              name: "Idiom",
              alpha: { value: 0.5 },
              prompts: [{ promptId: "p1", title: "Untangle pay", share: 0.3, pairs: 9 }],
              levelPairs: [{ lower: 2, higher: 3, share: 0.42, pairs: 20 }],
              merged: [{ lower: 2, alpha: { value: 0.68 } }],
              withoutPrompt: [{ promptId: "p1", title: "Untangle pay", alpha: { value: 0.61 } }],
              withoutRater: [
                { raterId: "a", alpha: { value: 0.501 } },
                { raterId: "b", alpha: { value: 0.72 } },
              ],
            },
          ],
        },
      }));
    inStudy(<AgreementPage />);
    const help = await screen.findByRole("region", { name: "What would help" });
    const lines = within(help)
      .getAllByRole("listitem")
      .map((l) => l.textContent);
    expect(lines[0]).toBe("Talk with Bo Grane: among the others alone α would be 0.72.");
    expect(lines[1]).toContain("levels 2 (Fair) and 3: 42 % of what parts raters lies between them");
    expect(lines[2]).toContain("Untangle pay: it holds 30 % of what parts raters, and without it α would be 0.61");
  });
});

describe("agreement", () => {
  it("says in words that raters agree, and from how much", async () => {
    expect(await agreement()).toBe("Raters agree well on every criterion");
    expect(screen.getByText(/From 11 of 12 sheets/)).toBeDefined();
  });

  it("names every criterion below its floor", async () => {
    const low = { alpha: figure(0.4, 0.3, 0.5), verdict: "BELOW" as const };
    expect(await agreement({ criteria: [criterion("r", "Correctness", low), criterion("i", "Idiom", low)] })).toBe(
      "Raters do not agree well enough on correctness and idiom",
    );
    expect(screen.getAllByText("below the floor")).toHaveLength(2);
  });

  it("does not count a criterion that has no weight", async () => {
    const low = { alpha: figure(0.1, 0, 0.2), verdict: "BELOW" as const };
    expect(
      await agreement({ criteria: [criterion("r", "Correctness"), criterion("i", "Idiom", low, { weight: 0 })] }),
    ).toBe("Raters agree well on every criterion");
  });

  it("says where the floor is reached but the interval reaches below it", async () => {
    const unsure = { alpha: figure(0.62, 0.52, 0.7), verdict: "UNCERTAIN" as const };
    expect(await agreement({ criteria: [criterion("r", "Correctness", unsure), criterion("i", "Idiom")] })).toBe(
      "Agreement reaches the floor on every criterion; on correctness its interval also reaches below",
    );
  });

  it("gives the reason in place of a figure that cannot be computed", async () => {
    const none = { alpha: noFigure("no answer has grades from two raters"), verdict: "UNDEFINED" as const };
    expect(await agreement({ criteria: [criterion("r", "Correctness", none)] })).toBe(
      "Agreement cannot be computed yet",
    );
    expect(screen.getAllByText(/no answer has grades from two raters/).length).toBeGreaterThan(0);
    expect(screen.queryByText(/NaN|undefined/)).toBeNull();
  });

  it("judges by the coefficient that the rule names", async () => {
    const parted = { alpha: figure(0.2, 0.1, 0.3), ac2: figure(0.9, 0.8, 0.95) };
    expect(await agreement({ coefficient: "AC2_ORDINAL", criteria: [criterion("r", "Correctness", parted)] })).toBe(
      "Raters agree well on every criterion",
    );
    expect(screen.getByText(/α and AC2 part where almost all grades are alike/)).toBeDefined();
    expect(rowsOf("Agreement by criterion and kind")[0]?.textContent).toContain("AC2, 95 % interval");
  });

  it("shows the kinds under their criterion, with what each figure is over", async () => {
    const byKind = [
      { kindId: "k1", name: "Review", figures: { ...FIGURES, alpha: figure(0.33, 0.1, 0.5), answers: 6, prompts: 2 } },
    ];
    await agreement({ criteria: [criterion("r", "Correctness", {}, { byKind })] });
    const [, whole, review] = rowsOf("Agreement by criterion and kind");
    expect(whole?.textContent).toContain("24 answers, 8 prompts");
    expect(review?.textContent).toContain("Review");
    expect(review?.textContent).toContain("6 answers, 2 prompts");
  });

  it("has κ of each two raters for the criterion that is chosen", async () => {
    await agreement();
    const pairs = () => screen.getByRole("table", { name: "Weighted kappa of each two raters" }).textContent;
    expect(pairs()).toContain("0.66");
    const criteria = screen.getByRole("group", { name: "Criterion" });
    await userEvent.click(within(criteria).getByRole("button", { name: "Idiom" }));
    expect(pairs()).toContain("0.41");
    expect(pairs()).not.toContain("0.66");
  });

  it("sorts raters by how strict they are", async () => {
    await agreement();
    const names = () =>
      rowsOf("Severity of raters")
        .flatMap((r) => within(r).queryAllByRole("rowheader"))
        .map((h) => h.textContent);
    expect(names()).toEqual(["Åse Lund", "Bo Grane"]);
    await userEvent.click(screen.getByRole("button", { name: "Levels below the others" }));
    expect(names()).toEqual(["Bo Grane", "Åse Lund"]);
    await userEvent.click(screen.getByRole("button", { name: "Levels below the others" }));
    expect(names()).toEqual(["Åse Lund", "Bo Grane"]);
  });

  it("shows any coefficient by criterion and kind, with its source", async () => {
    server()
      .on("GET /api/studies/s1/agreement", () => ({ body: AGREEMENT }))
      .on("GET /api/studies/s1/agreement/coefficients", () => ({
        body: {
          within: [
            {
              criterionId: "right",
              answers: 24,
              coefficients: [
                { name: "FLEISS_KAPPA", figure: { value: 0.58 } },
                { name: "KENDALL_W", figure: noFigure("no answer has grades from all raters") },
              ],
            },
          ],
        },
      }));
    inStudy(<AgreementPage />);
    const choice = await screen.findByLabelText("Coefficient");
    await userEvent.selectOptions(choice, "Fleiss’ κ");
    const table = await screen.findByRole("table", { name: "Fleiss’ κ by criterion and kind" });
    expect(within(table).getByText("0.58")).toBeTruthy();
    expect(screen.getByText(/only where each answer has the same number of grades/)).toBeTruthy();
    await userEvent.selectOptions(choice, "Kendall’s W");
    expect((await screen.findByText(/no answer has grades from all raters/)).textContent).toBeTruthy();
    await userEvent.selectOptions(choice, "α, with what decides");
    expect(screen.getByRole("table", { name: "Agreement by criterion and kind" })).toBeTruthy();
  });

  it("narrows the splits down by a rater or prompt that is looked at", async () => {
    const split = (promptId: string, low: string): Schemas["SplitView"] => ({
      answerId: `of ${promptId} ${low}`,
      candidateId: "o",
      criterionId: "right",
      criterionName: "Correctness",
      promptId,
      promptTitle: `Prompt ${promptId}`,
      distance: 2,
      grades: [
        { raterId: low, name: low, level: 1 },
        { raterId: "c", name: "Cleo Varn", level: 3 },
      ],
    });
    server()
      .on("GET /api/studies/s1/agreement", () => ({
        body: { ...AGREEMENT, splitCount: 3, splits: [split("p1", "a"), split("p2", "a"), split("p2", "b")] },
      }))
      .on("GET /api/studies/s1/agreement/diagnosis", () => ({
        body: {
          criteria: [
            {
              criterionId: "right",
              name: "Correctness",
              alpha: figure(0.5, 0.4, 0.6),
              forOtherRaters: figure(0.5, 0.4, 0.6),
              prompts: [{ promptId: "p2", title: "Prompt p2", share: 0.6, pairs: 9 }],
              raterPairs: [],
              levelPairs: [{ lower: 1, higher: 2, share: 0.7, pairs: 9 }],
              merged: [{ lower: 1, alpha: figure(0.8, 0.7, 0.9) }],
              withoutPrompt: [{ promptId: "p2", title: "Prompt p2", alpha: figure(0.9, 0.8, 1) }],
              withoutRater: [{ raterId: "a", alpha: figure(0.7, 0.6, 0.8) }],
              useOfScale: [{ raterId: "a", counts: [1, 0, 4, 2, 9] }],
              drift: [{ raterId: "a", grades: 9, slope: figure(-0.1, -0.2, 0) }],
            },
          ],
        },
      }));
    inStudy(<AgreementPage />);
    const raters = await screen.findByRole("region", { name: "Raters" });
    expect(within(raters).getByRole("img", { name: "Åse Lund: 1 × 0, 0 × 1, 4 × 2, 2 × 3, 9 × 4" })).toBeTruthy();
    expect(within(raters).getByText("−0.10 a sheet, α without 0.70")).toBeTruthy();
    expect(within(screen.getByRole("region", { name: "Levels" })).getByText("70 %")).toBeTruthy();
    const rows = () => rowsOf("Splits, widest first").length - 1;
    expect(rows()).toBe(3);
    await userEvent.click(
      within(screen.getByRole("region", { name: "Prompts" })).getByRole("button", { name: "Prompt p2" }),
    );
    expect(rows()).toBe(2);
    await userEvent.click(within(raters).getByRole("button", { name: "Åse Lund" }));
    expect(rows()).toBe(1);
    await userEvent.click(within(raters).getByRole("button", { name: "Åse Lund", pressed: true }));
    expect(rows()).toBe(2);
  });

  it("crosses two raters level by level, and names the answers behind a cell", async () => {
    const asked: string[] = [];
    server()
      .on("GET /api/studies/s1/agreement", () => ({ body: AGREEMENT }))
      .on("GET /api/studies/s1/candidates", () => ({ body: [] }))
      .on("GET /api/studies/s1/agreement/crossing", () => {
        asked.push("crossing");
        return {
          body: {
            counts: [
              [3, 0],
              [2, 4],
            ],
            answers:
              asked.length < 2
                ? []
                : [{ answerId: "x1", promptId: "p1", promptTitle: "Why does the lamp stay dark?", candidateId: "o" }],
          },
        };
      });
    inStudy(<AgreementPage />);
    await userEvent.click((await screen.findAllByRole("button", { name: "0.66" }))[0] ?? document.body);
    const cell = await screen.findByRole("button", { name: /^2 answers: .* 1, .* 0$/ });
    expect(screen.queryByRole("button", { name: /^0 answers/ })).toBeNull();
    await userEvent.click(cell);
    const behind = await screen.findByRole("table", { name: "Answers behind the cell" });
    const link = within(behind).getByRole("link", { name: "Why does the lamp stay dark?" });
    expect(link.getAttribute("href")).toBe("/studies/s1/answers/p1?answer=x1");
    await userEvent.click(screen.getByRole("button", { name: "Close" }));
    expect(screen.queryByRole("table", { name: "Answers behind the cell" })).toBeNull();
  });

  it("shows the widest splits first, of one criterion or rater if asked", async () => {
    const split = (n: number, criterionId: string, low: string): Schemas["SplitView"] => ({
      answerId: `x${n}`,
      candidateId: "o",
      criterionId,
      criterionName: criterionId === "right" ? "Correctness" : "Idiom",
      promptId: "p1",
      promptTitle: `Prompt ${n}`,
      distance: 2,
      grades: [
        { raterId: low, name: low, level: 1 },
        { raterId: "c", name: "Cleo Varn", level: 3 },
      ],
    });
    const splits = Array.from({ length: 20 }, (_, n) => split(n, n < 15 ? "right" : "idiom", n < 18 ? "a" : "b"));
    await agreement({ splitCount: 20, splits });
    const rows = () => rowsOf("Splits, widest first").length - 1;
    expect(rows()).toBe(12);
    await userEvent.click(screen.getByRole("button", { name: "Show all 20" }));
    expect(rows()).toBe(20);
    await userEvent.selectOptions(screen.getByLabelText("On"), "Idiom");
    expect(rows()).toBe(5);
    await userEvent.selectOptions(screen.getByLabelText("Lowest or highest by"), "Bo Grane");
    expect(rows()).toBe(2);
    await userEvent.selectOptions(screen.getByLabelText("On"), "Correctness");
    expect(screen.getByText("None of these.")).toBeDefined();
  });

  it("leads from a split to the answers it is about", async () => {
    await agreement({
      splitCount: 31,
      splits: [
        {
          answerId: "x1",
          candidateId: "o",
          criterionId: "right",
          criterionName: "Correctness",
          promptId: "p1",
          promptTitle: "Why does the lamp stay dark?",
          distance: 3,
          grades: [
            { raterId: "a", name: "Åse Lund", level: 1, levelName: "Mostly wrong" },
            { raterId: "b", name: "Bo Grane", level: 4, levelName: "Right" },
          ],
        },
      ],
    });
    expect(screen.getByText(/31 answers and criteria/).textContent).toContain("the widest 1 are known here");
    const link = screen.getByRole("link", { name: "Why does the lamp stay dark?, correctness" });
    expect(link.getAttribute("href")).toBe("/studies/s1/answers/p1?answer=x1");
  });

  it("shows how raters agree with themselves only where answers came twice", async () => {
    await agreement();
    expect(screen.queryByText("With themselves")).toBeNull();
    await agreement({
      selfAgreement: [
        {
          raterId: "a",
          name: "Åse Lund",
          grades: 9,
          exact: figure(0.67, 0.4, 0.9),
          withinOne: figure(1, 0.7, 1),
          kappa: noFigure("only one level is in use"),
          sheetsApart: 7.4,
          daysApart: 1.25,
        },
      ],
    });
    expect(await screen.findByText("With themselves")).toBeDefined();
    expect(screen.getByText("7 sheets, 1.3 days")).toBeDefined();
    expect(screen.getByText(/only one level is in use/)).toBeDefined();
  });

  it("names the faulty prompts that count nowhere", async () => {
    await agreement({ setAside: [{ promptId: "p9", title: "The vague one", reason: "two readings were possible" }] });
    expect(screen.getByText(/The vague one/)).toBeDefined();
    expect(screen.getByText(/two readings were possible/)).toBeDefined();
  });

  it("says what went wrong and offers another try", async () => {
    let down = true;
    server().on("GET /api/studies/s1/agreement", () => {
      if (down) {
        throw new TypeError("no network");
      }
      return { body: AGREEMENT };
    });
    inStudy(<AgreementPage />);
    expect(await screen.findByText(/Could not fetch the agreement/)).toBeDefined();
    down = false;
    await userEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(await screen.findByRole("heading", { level: 1 })).toBeDefined();
  });

  it("tells somebody who may not see it no more than that", async () => {
    server().on("GET /api/studies/s1/agreement", () => ({ status: 404, body: NOT_FOUND }));
    inStudy(<AgreementPage />);
    expect(await screen.findByText("There is no such page, or it is not yours to see.")).toBeDefined();
  });
});

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

async function recommendation(change: Partial<Schemas["RecommendationReport"]> = {}) {
  server()
    .on("GET /api/studies/s1/recommendation", () => ({ body: { ...RECOMMENDATION, ...change } }))
    .on("GET /api/studies/s1/acts", () => ({ body: ACTS }))
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

  it("says in a sentence what it hangs on, once that is known", async () => {
    await recommendation();
    expect(await screen.findByText(/holds for 83 % of weightings/)).toBeDefined();
    expect(screen.getByRole("link", { name: "How the outcome comes about" })).toBeDefined();
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
    const signs = screen
      .getAllByText("Osierhold")
      .map((name) => name.parentElement?.querySelector("svg")?.outerHTML)
      .filter((svg) => svg !== undefined);
    expect(signs.length).toBeGreaterThan(2);
    expect(new Set(signs).size).toBe(1);
  });

  it("says what was not measured", async () => {
    await recommendation();
    const [, osier, teasel] = rowsOf("Time and cost by candidate");
    expect(osier?.textContent).toContain("11 of 12");
    expect(teasel?.textContent).toContain("not measured");
    expect(teasel?.textContent).toContain("not known");
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

  it("shows small p values as a bound", async () => {
    await recommendation();
    expect(rowsOf("Differences between each two candidates")[1]?.textContent).toContain("< 0.01");
  });

  it("names what is ruled out whatever its grades", async () => {
    await recommendation({ ruledOut: [{ candidateId: "t", reasons: ["code leaves the country", "no licence"] }] });
    const note = screen.getByText(/is ruled out whatever its grades/);
    expect(note.textContent).toContain("Teaselworth");
    expect(note.textContent).toContain("code leaves the country; no licence");
  });

  it("sets what was expected beside what came out", async () => {
    await recommendation({
      expectations: [
        { name: "Mira Voss", lead: true, expects: "Teaselworth", usesToday: "", declaredAt: "2026-11-02T09:00:00Z" },
        { name: "Bo Grane", lead: false, expects: "", usesToday: "Osierhold", declaredAt: "2026-11-03T09:00:00Z" },
      ],
    });
    const [, lead, rater] = rowsOf("What people expected");
    expect(lead?.textContent).toContain("Mira Voss, lead");
    expect(lead?.textContent).toContain("not said");
    expect(rater?.textContent).toContain("nothing in particular");
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
