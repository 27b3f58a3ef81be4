// @vitest-environment happy-dom
import { inStudy, server, STUDY, toldByServer } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { CheckPage, TrialsPage } from "../features/trial";
import { laidOver, textsOf } from "../features/trial/FilesFromMachine";
import { together, trialWords } from "../features/evidence/words";
import { linesAgainst } from "../ui/DiffText";

type Trial = Schemas["TrialOfBoard"];

const trial = (id: string, more: Partial<Trial> = {}): Trial => ({
  id,
  promptId: "p1",
  answerId: "a1",
  turn: 0,
  repetition: 1,
  isCurrent: true,
  state: "ENDED",
  outcome: "PASSED",
  passed: 3,
  asked: 3,
  millis: 900,
  memoryKb: 40_000,
  warnings: 0,
  deprecations: 0,
  broken: 0,
  mended: 0,
  ...more,
});

const { outcome: _, ...ENDED } = trial("t1");
const RUNNING: Trial = { ...ENDED, state: "RUNNING" };

const PROMPTS = [
  {
    id: "p1",
    kind: { id: "k1", name: "Debugging" },
    content: { title: "Mend the gauge", language: "Java 17", referenceAnswer: "Here." },
  },
  { id: "p2", kind: { id: "k2", name: "Review" }, content: { title: "No check", language: "", referenceAnswer: "" } },
];
const CANDIDATES = [
  { id: "c1", content: { name: "Osierhold" } },
  { id: "c2", content: { name: "Teaselworth" } },
];
const ANSWERS = [
  { id: "a1", key: "mend-one", promptId: "p1", candidateId: "c1" },
  { id: "a2", key: "mend-two", promptId: "p1", candidateId: "c2" },
];
const CONTENT: Schemas["CheckContent"] = {
  toolchain: "java",
  loose: { path: "*.java", before: "class Loose {", after: "}", importsFirst: true },
  files: [],
  build: "javac *.java",
  run: "java Main",
  runs: [{ name: "spring tide", arguments: [], input: "", before: [], status: 0, after: [], elsewhere: "ALLOWED" }],
  limits: { seconds: 20, memoryMb: 768, processes: 128, outputKb: 256 },
  withoutCode: "FAILS",
};
const JAVA = {
  key: "java",
  title: "Java",
  version: "javac 17",
  build: "javac *.java",
  run: "java Main",
  test: "",
  reports: { format: "JUNIT_XML", reports: "reports" },
  loose: { path: "*.java", before: "", after: "", importsFirst: true },
};
const check = (revision: number) => ({
  promptId: "p1",
  content: CONTENT,
  revision,
  changedAt: "2026-11-20T10:00:00Z",
  changedBy: "Orla Fennick",
});

const RESULT = {
  summary: { outcome: "WRONG_OUTPUT", passed: 1, asked: 2 },
  items: [
    { sort: "BUILD", name: "build", outcome: "PASSED", expected: "", came: "", why: "" },
    {
      sort: "RUN",
      name: "spring tide",
      outcome: "WRONG_OUTPUT",
      expected: "high",
      came: "<b>low</b>",
      why: "of its output line 1 reads otherwise",
    },
  ],
  messages: [
    {
      message: { path: "Loose.java", line: 4, sort: "WARNING", text: "[deprecation] stop()", deprecated: true },
      answerLine: 7,
    },
  ],
  log: "== build",
  pictures: [],
  millis: 1200,
  memoryKb: 65_536,
};

function study(trials: Trial[], checks = [check(1)]) {
  return server()
    .on("GET /api/studies/s1/prompts", () => ({ body: PROMPTS }))
    .on("GET /api/studies/s1/candidates", () => ({ body: CANDIDATES }))
    .on("GET /api/studies/s1/answers", () => ({ body: ANSWERS }))
    .on("GET /api/studies/s1/checks", () => ({ body: checks }))
    .on("GET /api/studies/s1/toolchains", () => ({
      body: { toolchains: [{ ...JAVA, key: "c", title: "C" }, { ...JAVA, key: "js", title: "JavaScript" }, JAVA] },
    }))
    .on("GET /api/studies/s1/trials", () => ({ body: { trials } }))
    .on("GET /api/studies/s1/trials/t2", () => ({ body: RESULT }));
}

describe("what came", () => {
  it("is told line by line against what was expected", () => {
    expect(linesAgainst("tide\nhigh\nlow\n", "tide\nhigher\nlow")).toEqual([
      { kind: "KEPT", text: "tide" },
      { kind: "REMOVED", text: "high" },
      { kind: "ADDED", text: "higher" },
      { kind: "KEPT", text: "low" },
    ]);
  });
});

describe("trials of one code", () => {
  it("are told by what passed", () => {
    expect(trialWords(trial("t"))).toBe("passed");
    expect(trialWords(trial("t", { outcome: "FAILED_TESTS", passed: 2 }))).toBe("failed tests, 2 of 3");
    expect(trialWords(trial("t", { outcome: "DID_NOT_COMPILE", passed: 0, asked: 0 }))).toBe("did not compile");
  });

  it("that pass only sometimes are told as such, not by their last", () => {
    expect(together([trial("a", { outcome: "TIMED_OUT" }), trial("b")])).toEqual({
      words: "passed 1 of 2 times",
      flaky: true,
    });
    expect(
      together([trial("a", { outcome: "CRASHED", asked: 1 }), trial("b", { outcome: "TIMED_OUT", asked: 1 })]),
    ).toEqual({
      words: "crashed",
      flaky: false,
    });
  });
});

describe("the board", () => {
  it("is fetched when the server tells of a change, once more for what changed meanwhile, and not after the end", async () => {
    const told = toldByServer();
    const address = "/api/studies/s1/trials/events";
    const boards = [[RUNNING], [RUNNING], [trial("t1")]];
    let fetched = 0;
    let answered = () => {};
    study([]).on("GET /api/studies/s1/trials", async () => {
      const trials = boards[fetched++] ?? [];
      if (fetched === 2) {
        await new Promise<void>((done) => (answered = done));
      }
      return { body: { trials } };
    });
    inStudy(<TrialsPage />);
    expect(await screen.findByText(/0 of 1 trial ended, 1 running/)).toBeDefined();
    told.tell(address);
    await waitFor(() => expect(fetched).toBe(2));
    told.tell(address);
    told.tell(address);
    expect(fetched).toBe(2);
    answered();
    expect(await screen.findByText(/1 of 1 trial ended\./)).toBeDefined();
    expect(fetched).toBe(3);
    expect(told.addresses()).toEqual([]);
  });

  it("shows each candidate's trials by prompt, and what came of one", async () => {
    study([trial("t1"), trial("t2", { answerId: "a2", outcome: "WRONG_OUTPUT", passed: 1, asked: 2, warnings: 1 })]);
    inStudy(<TrialsPage />);
    const row = within(await screen.findByRole("row", { name: /Mend the gauge/ }));
    expect(row.getByRole("button", { name: "passed" })).toBeDefined();
    expect(screen.queryByText("No check")).toBeNull();
    await userEvent.click(row.getByRole("button", { name: "wrong output, 1 of 2" }));
    const dialog = within(await screen.findByRole("dialog"));
    expect(await dialog.findByText("+ <b>low</b>")).toBeDefined();
    expect(dialog.getByText(/line 7 of the answer/)).toBeDefined();
    expect(dialog.getByText(/of what is not to be used any more/)).toBeDefined();
  });

  it("tells trials that pass only sometimes as such, and shows each", async () => {
    study([trial("t1"), trial("t2", { repetition: 2, outcome: "TIMED_OUT", passed: 1, asked: 2 })]);
    inStudy(<TrialsPage />);
    await userEvent.click(await screen.findByRole("button", { name: "passed 1 of 2 times" }));
    await userEvent.selectOptions(await screen.findByLabelText("Which time"), "t2");
    expect(await screen.findByText("+ <b>low</b>")).toBeDefined();
  });

  it("leaves out trials by an earlier check, and says so of nothing else", async () => {
    study([trial("t1", { isCurrent: false })]);
    inStudy(<TrialsPage />);
    expect(await screen.findByText(/1 of 1 trial ended/)).toBeDefined();
    expect(screen.queryByRole("table")).toBeNull();
  });

  it("begins what is missing, and stops what moves", async () => {
    toldByServer();
    const asked = study([]).on("POST /api/studies/s1/trials", () => ({
      body: { trials: [RUNNING] },
    })).asked;
    inStudy(<TrialsPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Try what was not tried yet" }));
    expect(await screen.findByRole("button", { name: "Stop" })).toBeDefined();
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({ promptIds: [], repetitions: 1 });
  });

  it("begins those of one kind, or of one prompt", async () => {
    toldByServer();
    const asked = study([], [check(1), { ...check(1), promptId: "p2" }]).on("POST /api/studies/s1/trials", () => ({
      body: { trials: [] },
    })).asked;
    inStudy(<TrialsPage />);
    const begun = () => asked.filter((a) => a.method === "POST").map((a) => a.body);
    await userEvent.selectOptions(await screen.findByLabelText("Which prompts"), "all of kind Review");
    await userEvent.click(screen.getByRole("button", { name: "Try what was not tried yet" }));
    await waitFor(() => expect(begun()).toEqual([{ promptIds: ["p2"], repetitions: 1 }]));
    await userEvent.selectOptions(screen.getByLabelText("Which prompts"), "Mend the gauge");
    await userEvent.click(screen.getByRole("button", { name: "Try what was not tried yet" }));
    await waitFor(() => expect(begun().at(-1)).toEqual({ promptIds: ["p1"], repetitions: 1 }));
  });

  it("says why a server tries nothing", async () => {
    study([]).on("GET /api/studies/s1/trials", () => ({
      body: { missing: "bubblewrap, prlimit or setpriv is not installed", trials: [] },
    }));
    inStudy(<TrialsPage />);
    expect(await screen.findByText(/as bubblewrap, prlimit or setpriv is not installed/)).toBeDefined();
    expect(screen.getByRole("button", { name: /Try what/ })).toHaveProperty("disabled", true);
  });
});

describe("a check", () => {
  const at = { path: "prompts/:promptId/check", at: "prompts/p1/check" };

  it("begins with what its toolchain proposes", async () => {
    const asked = study([], []).on("PUT /api/studies/s1/prompts/p1/check", () => ({ body: check(1) })).asked;
    inStudy(<CheckPage />, STUDY, at);
    await userEvent.click(await screen.findByRole("button", { name: "Begin the check" }));
    expect(await screen.findByLabelText("Build")).toHaveProperty("value", "javac *.java");
    expect(asked.find((a) => a.method === "PUT")?.body).toMatchObject({
      revision: 0,
      content: { toolchain: "java", run: "java Main" },
    });
  });

  it("is tried before it is trusted", async () => {
    study([]).on("POST /api/studies/s1/prompts/p1/check/try", () => ({
      body: {
        result: { ...RESULT, summary: { outcome: "PASSED", passed: 1, asked: 1 }, items: [], messages: [] },
        pictures: [],
      },
    }));
    inStudy(<CheckPage />, STUDY, at);
    await userEvent.click(await screen.findByRole("button", { name: "Try it" }));
    expect(await screen.findByText(/tells nothing about an answer/)).toBeDefined();
    await userEvent.selectOptions(screen.getByLabelText("On"), "REFERENCE_ANSWER");
    await userEvent.click(screen.getByRole("button", { name: "Try it" }));
    await waitFor(() => expect(screen.queryByText(/tells nothing about an answer/)).toBeNull());
  });

  it("asks of a repository where it is and at which commit, looked up by a branch", async () => {
    const found = "0123456789abcdef0123456789abcdef01234567";
    const asked = study([])
      .on("PUT /api/studies/s1/prompts/p1/check", () => ({ body: check(2) }))
      .on("POST /api/studies/s1/starting-code/git/listing", () => ({
        body: { commit: found, files: [{ path: "a.txt", bytes: 1 }] },
      })).asked;
    inStudy(<CheckPage />, STUDY, at);
    await userEvent.click(await screen.findByLabelText("Answers change a whole repository"));
    await userEvent.clear(screen.getByLabelText("Where it is"));
    await userEvent.type(screen.getByLabelText("Where it is"), "quay");
    await userEvent.click(screen.getByRole("button", { name: "Look it up" }));
    expect(await screen.findByText("1 file at that commit.")).toBeDefined();
    expect(asked.find((a) => a.path.endsWith("/listing"))?.body).toEqual({ repository: "quay", commit: "main" });
    expect(screen.getByLabelText("Commit, its full id")).toHaveProperty("value", found);
    expect(screen.getByLabelText("Test command")).toBeDefined();
    await waitFor(() =>
      expect(asked.findLast((a) => a.method === "PUT")?.body).toMatchObject({
        content: { repository: { repository: "quay", commit: found, wanted: [] } },
      }),
    );
    // Nothing is saved before there is a commit.
    expect(asked.filter((one) => one.method === "PUT")).toHaveLength(1);
  });

  it("keeps what must not be there, and how files are compared, while others are written", async () => {
    const [run] = CONTENT.runs;
    const after: Schemas["FileAfter"][] = [
      { path: "log.txt", text: { match: "WORDS", text: "a", tolerance: 0 } },
      { path: "old.txt" },
    ];
    const runs = run ? [{ ...run, after }] : [];
    const asked = study([], [{ ...check(1), content: { ...CONTENT, runs } }]).on(
      "PUT /api/studies/s1/prompts/p1/check",
      () => ({ body: check(2) }),
    ).asked;
    inStudy(<CheckPage />, STUDY, at);
    await userEvent.click(await screen.findByText("Files before and after"));
    await userEvent.type(screen.getByDisplayValue("a"), "b");
    await waitFor(() => expect(asked.filter((a) => a.method === "PUT").length).toBeGreaterThan(0));
    expect(asked.findLast((a) => a.method === "PUT")?.body).toMatchObject({
      content: { runs: [{ after: [{ path: "log.txt", text: { match: "WORDS", text: "ab" } }, { path: "old.txt" }] }] },
    });
  });

  it("asks for an output once it matters", async () => {
    study([]);
    inStudy(<CheckPage />, STUDY, at);
    await userEvent.click(await screen.findByLabelText("Its output matters"));
    await userEvent.type(screen.getByLabelText("Output"), "high");
    await userEvent.selectOptions(screen.getByLabelText("How alike"), "NUMBERS");
    expect(screen.getByLabelText("Tolerance")).toBeDefined();
  });
});

describe("files of one's own machine", () => {
  it("are taken as texts, several at once; one with the path of another takes its place", async () => {
    const { files, refused } = await textsOf([
      new File(["class Tests {}"], "Tests.java"),
      new File([new Uint8Array([0xff, 0xfe, 0x00])], "picture.png"),
      new File(["x".repeat(200_001)], "long.txt"),
    ]);
    expect(files).toEqual([{ path: "Tests.java", text: "class Tests {}" }]);
    expect(refused).toEqual(["picture.png is no text in UTF-8", "long.txt is longer than 200,000 characters"]);
    expect(
      laidOver(
        [
          { path: "Tests.java", text: "old" },
          { path: "data.csv", text: "1" },
        ],
        [...files, { path: "more.txt", text: "" }],
      ).map((f) => f.text),
    ).toEqual(["class Tests {}", "1", ""]);
  });
});
