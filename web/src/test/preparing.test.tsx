// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { inStudy, server } from "./page";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { PairGrid } from "../features/grading/PairGrid";
import { KeyPointsEditor } from "../features/prompt/KeyPointsEditor";
import { merged, StartingCode } from "../features/prompt/StartingCode";
import type { CriterionDraft } from "../features/rubric/api";
import { changesBetween } from "../features/rubric/compare";
import { CriterionEditor, newCriterion } from "../features/rubric/CriterionEditor";
import { ExpectationForm } from "../features/study";
import { PlannerOfStudy } from "./planner";
import { RuleTermsList } from "../features/study/RuleTermsList";

afterEach(cleanup);

const KINDS = [
  { id: "k1", key: "debugging", name: "Debugging" },
  { id: "k2", key: "review", name: "Review" },
];

describe("KeyPointsEditor", () => {
  const FILES = [{ path: "src/Lamp.java", text: "one\ntwo\nthree" }];
  let last: Schemas["KeyPoint"][];

  function Held({ points }: { points: Schemas["KeyPoint"][] }) {
    const [value, setValue] = useState(points);
    last = value;
    return <KeyPointsEditor points={value} files={FILES} onChange={setValue} />;
  }

  it("adds what an answer must contain and what it must not do", async () => {
    render(<Held points={[]} />);
    await userEvent.click(screen.getByRole("button", { name: "Add what it must contain" }));
    await userEvent.type(screen.getByLabelText("Key point 1"), "The relay is never reset.");
    await userEvent.click(screen.getByRole("button", { name: "Add what it must not do" }));
    expect(last).toEqual([
      { stance: "MUST_CONTAIN", text: "The relay is never reset.", weight: 1 },
      { stance: "MUST_NOT", text: "", weight: 1 },
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Take out key point 1" }));
    expect(last.map((p) => p.stance)).toEqual(["MUST_NOT"]);
  });

  it("gives a point its place in the code, and takes it away whole", async () => {
    render(<Held points={[{ stance: "MUST_CONTAIN", text: "x", weight: 1 }]} />);
    expect(screen.queryByLabelText("From line")).toBeNull();
    await userEvent.selectOptions(screen.getByLabelText("Seen in"), "src/Lamp.java");
    await userEvent.type(screen.getByLabelText("From line"), "2");
    expect(last[0]).toMatchObject({ file: "src/Lamp.java", fromLine: 2, toLine: 2 });
    await userEvent.clear(screen.getByLabelText("To, of 3"));
    await userEvent.type(screen.getByLabelText("To, of 3"), "3");
    expect(last[0]).toMatchObject({ fromLine: 2, toLine: 3 });
    await userEvent.selectOptions(screen.getByLabelText("Seen in"), "no place in particular");
    expect(last[0]).toEqual({ stance: "MUST_CONTAIN", text: "x", weight: 1 });
  });

  it("keeps lines whole and in order", async () => {
    render(<Held points={[{ stance: "MUST_NOT", text: "x", weight: 1, file: "src/Lamp.java" }]} />);
    await userEvent.type(screen.getByLabelText("From line"), "0");
    expect(last[0]).not.toHaveProperty("fromLine");
    await userEvent.clear(screen.getByLabelText("From line"));
    await userEvent.type(screen.getByLabelText("From line"), "3");
    fireEvent.change(screen.getByLabelText("To, of 3"), { target: { value: "1" } });
    expect(last[0]).toMatchObject({ fromLine: 3, toLine: 3 });
  });

  it("says that a file it speaks of is not there any more", () => {
    render(<Held points={[{ stance: "MUST_CONTAIN", text: "x", weight: 1, file: "src/Gone.java" }]} />);
    expect(within(screen.getByLabelText("Seen in")).getByText("src/Gone.java (not there)")).toBeTruthy();
  });

  it("takes no weight of nothing", async () => {
    render(<Held points={[{ stance: "MUST_CONTAIN", text: "x", weight: 2 }]} />);
    fireEvent.change(screen.getByLabelText("Weight"), { target: { value: "0" } });
    expect(last[0]?.weight).toBe(2);
    fireEvent.change(screen.getByLabelText("Weight"), { target: { value: "0.5" } });
    expect(last[0]?.weight).toBe(0.5);
  });
});

describe("StartingCode", () => {
  it("puts new files over old ones of the same path", () => {
    const old = [
      { path: "A.java", text: "old" },
      { path: "B.java", text: "kept" },
    ];
    expect(merged(old, [{ path: "A.java", text: "new" }])).toEqual([
      { path: "B.java", text: "kept" },
      { path: "A.java", text: "new" },
    ]);
  });

  const choose = async (...files: File[]) => {
    const onChange = vi.fn();
    inStudy(<StartingCode files={[]} origin={undefined} onChange={onChange} />);
    await userEvent.upload(screen.getByLabelText("Files or a zip of starting code"), files);
    return onChange;
  };

  it("takes texts, and says which files are none", async () => {
    const onChange = await choose(new File(["class A {}"], "A.java"), new File(["\0\0"], "logo.png"));
    await waitFor(() => expect(onChange.mock.calls).toEqual([[[{ path: "A.java", text: "class A {}" }], undefined]]));
    expect(screen.getByRole("status").textContent).toBe("Left out: logo.png: not a text of at most 1 MB in UTF-8.");
  });

  it("lets a file be typed", async () => {
    const onChange = vi.fn();
    inStudy(<StartingCode files={[{ path: "", text: "" }]} origin={undefined} onChange={onChange} />);
    await userEvent.type(screen.getByLabelText("Path of file 1"), "B");
    expect(onChange).toHaveBeenCalledWith([{ path: "B", text: "" }], undefined, "path 0");
    await userEvent.click(screen.getByRole("button", { name: "Take out file 1" }));
    expect(onChange).toHaveBeenLastCalledWith([], undefined);
  });

  it("says where code was taken from", () => {
    const origin = { repository: "buoys", commit: "0123456789abcdef", path: "src" };
    inStudy(<StartingCode files={[{ path: "A", text: "x" }]} origin={origin} onChange={vi.fn()} />);
    expect(screen.getByText(/From buoys at 0123456789ab\./)).toBeTruthy();
  });
});

describe("CriterionEditor", () => {
  let last: CriterionDraft;

  function Held({ start }: { start: CriterionDraft }) {
    const [value, setValue] = useState(start);
    last = value;
    return (
      <CriterionEditor
        criterion={value}
        kind={KINDS[0]}
        kinds={KINDS}
        onChange={setValue}
        onTakeOut={vi.fn()}
        onMove={undefined}
      />
    );
  }

  const named = (): CriterionDraft => ({ ...newCriterion(), name: "Safety" });

  it("begins with five levels and adds up to ten", async () => {
    render(<Held start={named()} />);
    const add = screen.getByRole("button", { name: "Add a level on top" });
    for (let i = 0; i < 8; i++) {
      await userEvent.click(add);
    }
    expect(last.levels.length).toBe(10);
    expect(add).toHaveProperty("disabled", true);
  });

  it("keeps two levels at least", async () => {
    render(<Held start={named()} />);
    const less = screen.getByRole("button", { name: "Take the top level out" });
    for (let i = 0; i < 6; i++) {
      await userEvent.click(less);
    }
    expect(last.levels.map((l) => l.name)).toEqual(["Not at all", "Hardly"]);
  });

  it("becomes pass or fail with the anchors of its ends", async () => {
    const start = named();
    const anchor = (text: string) => [{ kindId: "k1", text }];
    const levels = start.levels.map((l, i) => ({ ...l, anchors: anchor(`anchor ${i}`) }));
    render(<Held start={{ ...start, levels }} />);
    await userEvent.click(screen.getByRole("button", { name: "Make it pass or fail" }));
    expect(last.levels).toEqual([
      { name: "Fail", anchors: anchor("anchor 0") },
      { name: "Pass", anchors: anchor("anchor 4") },
    ]);
  });

  it("writes an anchor for the kind in hand and keeps those of others", async () => {
    const start = named();
    const levels = start.levels.with(2, { name: "Partly", anchors: [{ kindId: "k2", text: "of reviews" }] });
    render(<Held start={{ ...start, levels }} />);
    await userEvent.type(screen.getByLabelText("Anchor of Safety, level 2, for debugging"), "Leaks.");
    expect(last.levels[2]?.anchors).toEqual([
      { kindId: "k2", text: "of reviews" },
      { kindId: "k1", text: "Leaks." },
    ]);
  });

  it("can be for some kinds only", async () => {
    render(<Held start={named()} />);
    await userEvent.click(screen.getByText("Kinds and traits"));
    await userEvent.click(screen.getByLabelText("Review"));
    expect(last.kindIds).toEqual(["k2"]);
    await userEvent.click(screen.getByLabelText("Review"));
    expect(last.kindIds).toEqual([]);
  });
});

describe("what differs between two versions of a rubric", () => {
  const criterion = (change: Partial<CriterionDraft> = {}): CriterionDraft => ({
    key: "safety",
    name: "Safety",
    question: "Is it safe?",
    weight: 30,
    levels: [
      { name: "no", anchors: [{ kindId: "k1", text: "It leaks." }] },
      { name: "yes", anchors: [] },
    ],
    kindIds: [],
    traits: [],
    ...change,
  });
  const between = (before: CriterionDraft[], after: CriterionDraft[]) => changesBetween(before, after, KINDS);

  it("is nothing where they say the same", () => {
    expect(between([criterion()], [criterion()])).toEqual([]);
  });

  it("is one anchor where one anchor was changed", () => {
    const after = criterion({
      levels: criterion().levels.with(0, { name: "no", anchors: [{ kindId: "k1", text: "It leaks keys." }] }),
    });
    expect(between([criterion()], [after])).toEqual([
      { where: "Safety, level 0, debugging", before: "It leaks.", after: "It leaks keys." },
    ]);
  });

  it("names what came, what went and what was renamed, by key and not by name", () => {
    expect(between([criterion()], [criterion({ key: "other", name: "Safety" })])).toEqual([
      { where: "Safety", after: "new criterion" },
      { where: "Safety", before: "criterion taken out" },
    ]);
    expect(between([criterion()], [criterion({ name: "Security" })])).toEqual([
      { where: "Security, name", before: "Safety", after: "Security" },
    ]);
  });

  it("tells weight, floor, kinds, traits and levels apart", () => {
    const after = criterion({
      weight: 40,
      floor: 0.7,
      kindIds: ["k2", "k1"],
      traits: ["leak"],
      levels: [...criterion().levels, { name: "very", anchors: [{ kindId: "gone", text: "Vetted." }] }],
    });
    expect(between([criterion()], [after])).toEqual([
      { where: "Safety, weight", before: "30", after: "40" },
      { where: "Safety, floor", after: "0.7" },
      { where: "Safety, kinds", before: "all kinds", after: "Debugging, Review" },
      { where: "Safety, levels", before: "2", after: "3" },
      { where: "Safety, traits", after: "leak" },
      { where: "Safety, level 2", after: "very" },
      { where: "Safety, level 2, a kind that is gone", after: "Vetted." },
    ]);
  });
});

describe("RuleTermsList", () => {
  const OWN: Schemas["RuleTerms"] = {
    coefficient: "ALPHA_ORDINAL",
    agreementFloor: 0.6,
    floorOn: "ESTIMATE",
    margin: 5,
    minimumRaters: 2,
    tieBreak: "NONE",
    strictOnMasking: false,
    strictOnSplits: false,
    byKind: false,
    looks: 1,
    failedAnswers: "LOWEST" as const,
  };
  const WEIGHTS = [
    { key: "right", name: "Correctness", weight: 2 },
    { key: "idiom", name: "Idiom", weight: 1, floor: 0.5 },
  ];
  const words = (terms: Partial<Schemas["RuleTerms"]>, weights = WEIGHTS) =>
    render(<RuleTermsList terms={{ ...OWN, ...terms }} weights={weights} />).container.textContent;

  it("says the floor, and where it is another", () => {
    expect(words({})).toContain("at least 0.60 on every criterion with weight, 0.50 on idiom.");
    expect(words({})).toContain("The estimate must reach it.");
    expect(words({ floorOn: "LOWER_LIMIT" })).toContain("The lower limit of the interval must reach it.");
    expect(words({ floorOn: "UPPER_LIMIT" })).toContain("withheld when agreement is too low beyond doubt");
  });

  it("says weights as shares, also of none", () => {
    expect(words({})).toContain("Correctness 67 %, Idiom 33 %.");
    expect(words({}, [])).toContain("none yet.");
  });

  it("names the gate only where there is one", () => {
    expect(words({})).not.toContain("Gate");
    expect(words({ gate: { criterion: "right", level: 1, cap: 40 } })).toContain(
      "An answer at level 1 or below on correctness scores 40 at most.",
    );
  });

  it("names what else withholds", () => {
    expect(words({})).toContain("for nothing else.");
    expect(words({ strictOnMasking: true, strictOnSplits: true })).toContain(
      "while an answer names a candidate, and while a split has no settled grade.",
    );
  });
});

describe("PairGrid", () => {
  it("shows each pair once, with nothing where two share nothing", () => {
    const raters = ["Åse", "Juri", "Tove"].map((name, i) => ({ raterId: `r${i}`, name, sheets: 4, repeats: 0 }));
    render(
      <PairGrid
        plan={{
          answers: 12,
          complete: 0,
          connected: true,
          exposure: 0,
          fewestRaters: 2,
          mostRaters: 2,
          missing: [],
          unmet: [],
          notes: [],
          paired: 12,
          repeated: 0,
          raters,
          pairs: [
            { firstId: "r1", secondId: "r0", answers: 6 },
            { firstId: "r1", secondId: "r2", answers: 3 },
          ],
        }}
      />,
    );
    expect(
      screen
        .getAllByRole("cell")
        .filter((c) => c.textContent !== "")
        .map((c) => c.textContent),
    ).toEqual(["6", "0", "3"]);
    expect(screen.getAllByRole("rowheader").map((h) => h.textContent)).toEqual(["Juri", "Tove"]);
    expect(screen.getAllByRole("columnheader").map((h) => h.textContent)).toEqual(["Åse", "Juri"]);
  });
});

describe("Planner", () => {
  const forecast = (found: number, smallestLead?: number): Schemas["ForecastView"] => ({
    gradings: 240,
    halfWidth: { value: 4.2 },
    leads: [0, 1, 2, 3].map((m) => ({
      points: 5 * m,
      recommended: m === 0 ? 0.02 : (found * m) / 2,
      wrong: m === 0 ? 0.02 : 0,
      safeChoices: 0.1,
      byKind: 0,
      undecided: m === 0 ? 0.78 : 0.8 - (found * m) / 2,
      withheld: 0.1,
    })),
    ...(smallestLead !== undefined && { smallestLead }),
    hours: 24,
    hoursARater: 6,
    studies: 800,
  });

  const shown = (found: number, smallestLead?: number) => {
    const answers = server()
      .on("POST /api/studies/s1/forecast", () => ({ body: forecast(found, smallestLead) }))
      .on("POST /api/studies/s1/forecast/withholding", () => ({
        body: [{ floorOn: "UPPER_LIMIT", good: 0.01, middling: 0.3, guessing: 0.99 }],
      }))
      .on("POST /api/studies/s1/forecast/uses", () => ({
        body: [
          { promptsAKind: 10, ratersAnAnswer: 2, attempts: 1, hours: 23, found: 0.7, withheld: 0.05 },
          { promptsAKind: 4, ratersAnAnswer: 3, attempts: 1, hours: 24, found: 0.4, withheld: 0.02 },
        ],
      }));
    inStudy(<PlannerOfStudy />);
    return answers;
  };

  it("says which lead is found, and how often twice the margin is", async () => {
    shown(0.4, 17.3);
    expect(
      await screen.findByText(
        "Enough for a lead of 17 points, which is recommended in four of five studies; a candidate truly ahead by 10.0 points would be recommended in 40 % of studies like this.",
      ),
    ).toBeTruthy();
    cleanup();
    shown(0.1);
    expect(await screen.findByText(/^Too little for any lead:/)).toBeTruthy();
  });

  it("never counts a recommendation among equals as right", async () => {
    shown(0.4, 17);
    await screen.findByText(/^Enough/);
    const [, equal, ahead] = within(
      screen.getByRole("table", { name: "Chance of each outcome, by true lead" }),
    ).getAllByRole("row");
    // Right under 1 %, wrong 2 %.
    expect(equal?.textContent).toMatch(/^nothing: all are equal.*under 1 %2 %/);
    expect(ahead?.textContent).toContain("20 %");
  });

  it("shows what the hours could find otherwise, and what each reading of the floor does", async () => {
    shown(0.4, 17);
    const uses = await screen.findByRole("table", { name: "Other ways to spend the same hours" });
    expect(within(uses).getByText("(as planned)")).toBeTruthy();
    expect(within(uses).getAllByRole("row")[1]?.textContent).toContain("10 prompts of each kind, 2 raters an answer");
    const floors = await screen.findByRole("table", { name: "Withheld for agreement, by what must reach the floor" });
    expect(floors.textContent).toContain("30 %");
  });

  it("asks anew when a size is moved, and never for more raters an answer than raters", async () => {
    const answers = shown(0.8, 12);
    await screen.findByText(/^Enough/);
    const raters = screen.getByRole("slider", { name: "Raters" });
    raters.focus();
    await userEvent.keyboard("{ArrowLeft}{ArrowLeft}");
    await waitFor(() => expect(answers.asked.at(-1)?.body).toMatchObject({ raters: 2, ratersAnAnswer: 2 }));
    expect(answers.asked.find((a) => a.method === "POST")?.body).toMatchObject({
      promptsByKind: [4, 4, 4, 4],
      raters: 4,
      ratersAnAnswer: 3,
    });
  });

  it("begins where the study stands", async () => {
    const prompt = (id: string, kind: string, fault?: object) => ({ id, kind: { id: kind, name: kind }, fault });
    server()
      .on("GET /api/studies/s1/prompts", () => ({
        body: [prompt("p1", "k1"), prompt("p2", "k1"), prompt("p3", "k2"), prompt("p4", "k2"), prompt("p5", "k3", {})],
      }))
      .on("GET /api/studies/s1/candidates", () => ({ body: [{}, {}, {}, {}, {}] }))
      .on("GET /api/studies/s1/people", () => ({ body: [{ grades: true }, { grades: true }, { grades: false }] }))
      .on("POST /api/studies/s1/forecast", () => ({ body: forecast(0.9, 9) }));
    inStudy(<PlannerOfStudy />);
    await screen.findByText(/^Enough/);
    const at = (name: string) => screen.getByRole("slider", { name }).getAttribute("aria-valuenow");
    expect(["Kinds of prompts", "Prompts of each kind", "Candidates", "Raters", "Raters an answer"].map(at)).toEqual([
      "2",
      "2",
      "5",
      "2",
      "2",
    ]);
  });

  it("costs what minutes of grading make of it", async () => {
    const answers = shown(0.8, 12);
    await screen.findByText(/^Enough/);
    screen.getByRole("slider", { name: "Minutes an answer" }).focus();
    await userEvent.keyboard("{ArrowRight}");
    await waitFor(() => expect(answers.asked.at(-1)?.body).toMatchObject({ minutes: 7 }));
    expect(await screen.findByRole("table", { name: "Other ways to spend the same hours" })).toBeTruthy();
  });
});

describe("ExpectationForm", () => {
  const own = (change: object) => ({ declared: false, open: true, expects: "", usesToday: "", ...change });

  it("asks before anything is seen, and sends what was said", async () => {
    const answers = server()
      .on("GET /api/studies/s1/expectation", () => ({ body: own({}) }))
      .on("PUT /api/studies/s1/expectation", () => ({ body: own({ declared: true }) }));
    inStudy(<ExpectationForm studyId="s1" />);
    await userEvent.type(await screen.findByLabelText("Which model do you think will do best?"), "the old one");
    await userEvent.click(screen.getByRole("button", { name: "That is what I expect" }));
    await waitFor(() =>
      expect(answers.asked.find((a) => a.method === "PUT")?.body).toEqual({ expects: "the old one", usesToday: "" }),
    );
  });

  it("can be said anew while the brief is open, and not after", async () => {
    server().on("GET /api/studies/s1/expectation", () => ({ body: own({ declared: true, expects: "x" }) }));
    inStudy(<ExpectationForm studyId="s1" />);
    expect(await screen.findByRole("button", { name: "Say it anew" })).toBeTruthy();
    cleanup();
    server().on("GET /api/studies/s1/expectation", () => ({ body: own({ declared: true, open: false }) }));
    inStudy(<ExpectationForm studyId="s1" />);
    expect(await screen.findByText(/You have said what you expect/)).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("says why it could not be said", async () => {
    server()
      .on("GET /api/studies/s1/expectation", () => ({ body: own({}) }))
      .on("PUT /api/studies/s1/expectation", () => ({
        status: 409,
        body: { type: "x", title: "Closed", status: 409, detail: "The brief is closed." },
      }));
    inStudy(<ExpectationForm studyId="s1" />);
    await userEvent.click(await screen.findByRole("button", { name: "That is what I expect" }));
    expect((await screen.findByRole("alert")).textContent).toBe("The brief is closed.");
  });
});
