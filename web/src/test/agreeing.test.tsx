// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { AGREEMENT, criterion, figure, FIGURES, noFigure, rowsOf } from "./agreed";
import { NOT_FOUND } from "./people";
import type { Schemas } from "../api/client";
import { AgreementPage } from "../features/agreement";

const NARROWED: Schemas["NarrowedReport"] = {
  criterionId: "right",
  cells: [],
  prompts: [{ promptId: "p2", title: "Untangle pay", share: 0.6, pairs: 40, apart: 12 }],
  levelPairs: [
    { lower: 1, higher: 2, share: 0.7, pairs: 9 },
    { lower: 3, higher: 3, share: 0, pairs: 30 },
  ],
  raterPairs: [{ firstId: "a", secondId: "b", share: 0.5, kappa: { value: 0.31 }, answers: 8, apart: 3 }],
  useOfScale: [{ raterId: "a", counts: [1, 0, 4, 2, 9] }],
  splits: [],
  splitCount: 0,
};

const split = (n: number, criterionId: string, low: string, promptId: string): Schemas["SplitView"] => ({
  answerId: `x${String(n)}`,
  candidateId: "o",
  criterionId,
  criterionName: criterionId === "right" ? "Correctness" : "Idiom",
  promptId,
  promptTitle: `Prompt ${String(n)}`,
  distance: 2,
  grades: [
    { raterId: low, name: low, level: 1 },
    { raterId: "c", name: "Cleo Varn", level: 3 },
  ],
});

const SPLIT: Schemas["SplitView"] = {
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
};

async function agreement(change: Partial<Schemas["AgreementReport"]> = {}) {
  server().on("GET /api/studies/s1/agreement", () => ({ body: { ...AGREEMENT, ...change } }));
  inStudy(<AgreementPage />);
  return (await screen.findByRole("heading", { level: 1 })).textContent;
}

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
    expect(within(help).getByText("Talk with Bo Grane: among the others alone α would be 0.72.")).toBeTruthy();
    await userEvent.click(within(help).getByText("2 more things that would help"));
    const lines = within(help)
      .getAllByRole("listitem")
      .map((l) => l.textContent);
    expect(lines[0]).toContain("levels 2 (Fair) and 3: 42 % of what parts raters lies between them");
    expect(lines[1]).toContain("Untangle pay: it holds 30 % of what parts raters, and without it α would be 0.61");
  });
});

describe("from how many prompts on agreement would clear its floor", () => {
  const unsure = (value: number, low: number) =>
    criterion("right", "Correctness", { alpha: figure(value, low, 0.8), verdict: "UNCERTAIN" });

  async function helpOf(on: Schemas["CriterionAgreement"], change: Partial<Schemas["AgreementReport"]> = {}) {
    server()
      .on("GET /api/studies/s1/agreement", () => ({ body: { ...AGREEMENT, criteria: [on], ...change } }))
      .on("GET /api/studies/s1/agreement/diagnosis", () => ({
        body: {
          criteria: [
            {
              criterionId: "right",
              alpha: on.overall.alpha,
              prompts: [],
              levelPairs: [{ lower: 2, higher: 3, share: 0.42, pairs: 20 }],
              merged: [],
              withoutPrompt: [],
              withoutRater: [],
            },
          ],
        },
      }));
    inStudy(<AgreementPage />);
    return (await screen.findByRole("region", { name: "What would help" })).textContent;
  }

  it("is told: the interval shrinks as one over the root of their number", async () => {
    // by hand: half an interval of 0.12 must become 0.06: four times the 8 prompts
    expect(await helpOf(unsure(0.66, 0.54))).toContain("from about 32 prompts on; it rests on 8");
  });

  it("is not promised where it would be more than a study has", async () => {
    expect(await helpOf(unsure(0.605, 0.5))).toContain("More grades alone would hardly do");
  });

  it("is not told of α where the rule looks at another", async () => {
    expect(await helpOf(unsure(0.66, 0.54), { coefficient: "AC2_ORDINAL" })).not.toContain("prompts on");
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

  it("shows a rater the widest splits first, of one criterion or rater if asked", async () => {
    const splits = Array.from({ length: 20 }, (_, n) => split(n, n < 15 ? "right" : "idiom", n < 18 ? "a" : "b", "p1"));
    server().on("GET /api/studies/s1/agreement", () => ({ body: { ...AGREEMENT, splitCount: 20, splits } }));
    inStudy(<AgreementPage />, { ...STUDY, role: "RATER" });
    await screen.findByRole("heading", { level: 1 });
    expect(screen.queryByRole("region", { name: "Where raters part" })).toBeNull();
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
    server()
      .on("GET /api/studies/s1/agreement", () => ({ body: { ...AGREEMENT, splitCount: 31, splits: [SPLIT] } }))
      .on("GET /api/studies/s1/agreement/narrowed", () => ({ body: { ...NARROWED, splits: [SPLIT], splitCount: 31 } }));
    inStudy(<AgreementPage />);
    const link = await screen.findByRole("link", { name: "Why does the lamp stay dark?, correctness" });
    expect(link.getAttribute("href")).toBe("/studies/s1/answers/p1?answer=x1");
    expect(screen.getByText(/The widest 1 of 31 stand here/)).toBeTruthy();
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

describe("the workbench", () => {
  const WHOLE: Schemas["OnCriterion"] = {
    criterionId: "right",
    name: "Correctness",
    alpha: figure(0.5, 0.4, 0.6),
    forOtherRaters: figure(0.5, 0.4, 0.6),
    prompts: [{ promptId: "p2", title: "Untangle pay", share: 0.6, pairs: 40 }],
    raterPairs: [],
    levelPairs: [{ lower: 1, higher: 2, share: 0.7, pairs: 9 }],
    merged: [{ lower: 1, alpha: figure(0.8, 0.7, 0.9) }],
    withoutPrompt: [{ promptId: "p2", title: "Untangle pay", alpha: figure(0.9, 0.8, 1) }],
    withoutRater: [{ raterId: "a", alpha: figure(0.7, 0.6, 0.8) }],
    useOfScale: [],
    drift: [{ raterId: "a", grades: 9, slope: figure(-0.1, -0.2, 0) }],
  };
  const REVIEW = { kindId: "k1", name: "Review", figures: { ...FIGURES, alpha: figure(0.33, 0.1, 0.5) } };

  async function workbench(study: Partial<Schemas["StudySummary"]> = {}) {
    const asked: string[] = [];
    const answers = server()
      .on("GET /api/studies/s1/agreement", () => ({
        body: {
          ...AGREEMENT,
          criteria: [criterion("right", "Correctness", {}, { byKind: [REVIEW] }), criterion("idiom", "Idiom")],
        },
      }))
      .on("GET /api/studies/s1/agreement/diagnosis", () => ({ body: { criteria: [WHOLE] } }))
      .on("GET /api/studies/s1/splits", () => ({ body: [] }))
      .on("GET /api/studies/s1/rubric", () => ({
        body: {
          criteria: [
            {
              id: "right",
              levels: [{ level: 1, name: "Poor", anchors: [{ kindId: "k1", text: "Fails on the usual input." }] }],
            },
          ],
        },
      }))
      .on("GET /api/studies/s1/agreement/narrowed", ({ query }) => {
        query.delete("criterionId");
        asked.push(query.toString());
        const cells = [{ criterionId: "right", kindId: "k1", share: 1, pairs: 14, apart: 5 }];
        return { body: { ...NARROWED, cells, splits: query.has("lower") ? [SPLIT] : [], splitCount: 7 } };
      });
    inStudy(<AgreementPage />, { ...STUDY, ...study });
    await screen.findByRole("region", { name: "Raters" });
    return { asked, answers };
  }

  const view = (name: string) => within(screen.getByRole("region", { name }));
  const press = (name: string, of: string | RegExp) => userEvent.click(view(name).getByRole("button", { name: of }));

  it("shows raters with what they gave and how their grades move, in the order of names", async () => {
    await workbench();
    expect(view("Raters").getByRole("img", { name: "Åse Lund: 1 × 0, 0 × 1, 4 × 2, 2 × 3, 9 × 4" })).toBeTruthy();
    expect(await view("Raters").findByText("−0.10 a sheet, α without 0.70")).toBeTruthy();
    expect(view("Raters with each other").getByRole("button", { name: /κ 0.31, 8 answers, apart on 3/ })).toBeTruthy();
    expect(view("Levels").getByText("70 %")).toBeTruthy();
    expect(view("Levels").queryByText("30 pairs")).toBeNull();
  });

  it("narrows all views by what is pressed in one, and lets it go again", async () => {
    const { asked } = await workbench();
    await press("Raters", /Åse Lund/);
    expect(asked.at(-1)).toBe("raterId=a");
    await press("Criteria and kinds", /Correctness, review/);
    expect(asked.at(-1)).toBe("kindId=k1&raterId=a");
    expect(view("Criteria and kinds").getByRole("button", { name: /Correctness, review.*5 of 14 pairs/ })).toBeTruthy();
    await press("Prompts", /Untangle pay/);
    expect(asked.at(-1)).toBe("kindId=k1&promptId=p2&raterId=a");
    await press("Raters", /Åse Lund/);
    expect(asked.at(-1)).toBe("kindId=k1&promptId=p2");
    await press("Criteria and kinds", /Correctness, review/);
    expect(asked.at(-1)).toBe("promptId=p2");
    await press("Criteria and kinds", /Correctness, review/);
    await userEvent.click(screen.getByRole("button", { name: "Let go: review" }));
    expect(asked.at(-1)).toBe("promptId=p2");
    await userEvent.click(screen.getByRole("button", { name: "All of it" }));
    expect(view("Prompts").getByRole("button", { name: /Untangle pay/, pressed: false })).toBeTruthy();
  });

  it("shows the anchors of two levels that are mixed up, and the answers that got both", async () => {
    const { asked } = await workbench();
    expect(view("Levels").getByText("as one α 0.80")).toBeTruthy();
    await press("Levels", /70 %/);
    expect(asked.at(-1)).toBe("lower=1&higher=2");
    expect(await view("Levels").findByText("Fails on the usual input.")).toBeTruthy();
    expect(
      view("Answers that got both levels").getByRole("link", { name: "Why does the lamp stay dark?" }),
    ).toBeTruthy();
  });

  it("offers no talk about answers a level apart: they are no splits", async () => {
    const { answers } = await workbench({ stage: "GRADING" });
    answers.on("GET /api/studies/s1/agreement/narrowed", () => ({
      body: {
        ...NARROWED,
        splits: [SPLIT, { ...SPLIT, answerId: "x2", promptTitle: "A level apart", distance: 1 }],
        splitCount: 2,
      },
    }));
    await press("Levels", /70 %/);
    await view("Answers that got both levels").findByText("a level apart, no split");
    expect(screen.getByRole("button", { name: "Take up: Why does the lamp stay dark?, correctness" })).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Take up: A level apart, correctness" })).toBeNull();
  });

  it("sets a faulty prompt aside with a reason, both figures beside it", async () => {
    const { answers } = await workbench({ stage: "GRADING" });
    answers.on("PUT /api/studies/s1/prompts/p2/fault", () => ({ body: {} }));
    await press("Prompts", /Untangle pay/);
    await press("Prompts", "Set it aside …");
    expect(screen.getByText(/α on this criterion is 0.50, and without the prompt it would be 0.90/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText(/What is wrong with it/), "Two readings are possible.");
    await userEvent.click(screen.getByRole("button", { name: "Set it aside" }));
    expect(answers.asked.find((a) => a.method === "PUT")?.body).toEqual({ reason: "Two readings are possible." });
  });

  it("shows another coefficient in the picture, without the floor that is not its own", async () => {
    const { answers } = await workbench();
    answers.on("GET /api/studies/s1/agreement/coefficients", () => ({
      body: {
        within: [{ criterionId: "right", answers: 24, coefficients: [{ name: "AC1", figure: { value: 0.58 } }] }],
      },
    }));
    expect(
      view("Criteria and kinds").getByRole("button", { name: /Correctness, all kinds: α 0.71.*floor 0.60/ }),
    ).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText("Coefficient of the picture"), "Gwet’s AC1");
    const cell = await view("Criteria and kinds").findByRole("button", { name: /all kinds: Gwet’s AC1 0.58/ });
    expect(cell.textContent).not.toContain("floor");
    expect(
      view("Criteria and kinds").getByRole("button", { name: /review: Gwet’s AC1 none ?: no answer/ }),
    ).toBeTruthy();
  });

  it("says how each view is made", async () => {
    await workbench();
    for (const how of screen.getAllByRole("button", { name: /^How it is made/ })) {
      await userEvent.click(how);
      expect((await screen.findByRole("dialog")).textContent?.length).toBeGreaterThan(100);
      await userEvent.keyboard("{Escape}");
    }
    expect(screen.getAllByRole("button", { name: /^How it is made/ })).toHaveLength(6);
  });
});
