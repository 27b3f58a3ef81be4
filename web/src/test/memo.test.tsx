// @vitest-environment happy-dom
import { inStudy, server, STUDY, writeIn } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { MemoPage } from "../features/memo/MemoPage";
import { MemosPage } from "../features/memo/MemosPage";

const MEMOS = "/api/studies/s1/memos";
const ONE = `${MEMOS}/1`;
const CLOSED = { ...STUDY, stage: "CLOSED" as const };
const RATER = { ...CLOSED, role: "RATER" as const };

const part = (change: Partial<Schemas["MemoPart"]>): Schemas["MemoPart"] => ({
  section: "SUMMARY",
  title: "On one page",
  sentences: [],
  points: [],
  quoted: "",
  words: "",
  plots: [],
  tables: [],
  ...change,
});

const DOCUMENT: Schemas["MemoDocument"] = {
  title: "Which?",
  at: "2026-03-10T09:14:04Z",
  revision: 7,
  names: "PSEUDONYM",
  figures: [],
  parts: [
    part({ points: [{ label: "Recommended", text: "We recommend Teasel." }], words: "Take it **now**." }),
    part({
      section: "OUTCOME",
      title: "The outcome and its reasons",
      plots: [
        {
          caption: "Scores",
          unit: "points",
          from: 0,
          to: 100,
          rows: [{ name: "Teasel", value: 80, low: 70, high: 90 }],
        },
      ],
      tables: [
        {
          caption: "Standings over all kinds",
          heads: [
            { text: "Candidate", figures: false },
            { text: "Score", figures: true },
          ],
          rows: [["Teasel", "80.0"]],
        },
      ],
    }),
    part({ section: "APPENDIX", title: "Every answer’s grades" }),
  ],
};

const DRAFT: Schemas["MemoView"] = {
  head: { number: 1, begunAt: "2026-03-10T09:00:00Z", begunBy: "Orla", change: "" },
  names: "PSEUDONYM",
  words: [{ section: "SUMMARY", text: "Take it **now**." }],
  version: 3,
  document: DOCUMENT,
  entries: [],
  links: [],
  mayWrite: true,
  mayCountersign: false,
};

const SIGNED: Schemas["MemoView"] = {
  ...DRAFT,
  head: { ...DRAFT.head, signed: { at: "2026-03-11T10:00:00Z", by: "Orla" } },
  checksum: "cafe",
  mayWrite: false,
};

async function memo(view: Schemas["MemoView"], study: typeof STUDY = CLOSED) {
  const answers = server()
    .on(`GET ${ONE}`, () => ({ body: view }))
    .on(`PUT ${ONE}`, (asked) => ({
      body: { names: "PSEUDONYM", change: "", words: [], ...Object(asked.body), version: 4 },
    }));
  inStudy(<MemoPage />, study, { path: "recommendation/memo/:number", at: "recommendation/memo/1" });
  await screen.findByRole("heading", { level: 1, name: "Memo, version 1" });
  return answers;
}

describe("the versions of a memo", () => {
  it("are begun by the lead, and a later one says why", async () => {
    const answers = server()
      .on(`GET ${MEMOS}`, () => ({ body: { versions: [SIGNED.head], mayBegin: true } }))
      .on(`POST ${MEMOS}`, () => ({ status: 201, body: { ...DRAFT, head: { ...DRAFT.head, number: 2 } } }));
    inStudy(<MemosPage />, CLOSED);
    expect(await screen.findByText(/signed by Orla/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Begin a new version …" }));
    const dialog = screen.getByRole("dialog", { name: "A new version" });
    const go = within(dialog).getByRole("button", { name: "Begin it" });
    expect(go.hasAttribute("disabled")).toBe(true);
    await userEvent.type(within(dialog).getByRole("textbox"), "The price fell.");
    await userEvent.click(go);
    await waitFor(() =>
      expect(answers.asked.find((a) => a.method === "POST")?.body).toEqual({ change: "The price fell." }),
    );
  });

  it("say so where nobody has begun one", async () => {
    server().on(`GET ${MEMOS}`, () => ({ body: { versions: [], mayBegin: false } }));
    inStudy(<MemosPage />, RATER);
    expect(await screen.findByText("The lead has not begun it yet.")).toBeTruthy();
  });

  it("are not asked for while raters grade", async () => {
    const answers = server();
    inStudy(<MemosPage />, { ...STUDY, stage: "GRADING" as const });
    await waitFor(() => expect(answers.asked.some((a) => a.path.endsWith("/looks"))).toBe(true));
    expect(answers.asked.some((a) => a.path === MEMOS)).toBe(false);
  });
});

describe("a memo that is written", () => {
  it("keeps what is written in a part, and reads as it will stand", async () => {
    const answers = await memo(DRAFT);
    await writeIn(screen.getByRole("textbox", { name: "Your words: The outcome and its reasons" }), "By far.");
    await waitFor(() =>
      expect(answers.asked.find((a) => a.method === "PUT")?.body).toEqual({
        version: 3,
        names: "PSEUDONYM",
        change: "",
        words: [
          { section: "SUMMARY", text: "Take it **now**." },
          { section: "OUTCOME", text: "By far." },
        ],
      }),
    );
    await userEvent.click(screen.getByRole("button", { name: "Read it as it will stand" }));
    expect(screen.queryByRole("textbox", { name: /Your words/ })).toBeNull();
    expect(screen.getByText("By far.")).toBeTruthy();
    expect(screen.getByText("now").tagName).toBe("STRONG");
  });

  it("is signed as it was read", async () => {
    const answers = await memo(DRAFT);
    answers.on(`POST ${ONE}/signature`, () => ({ body: SIGNED }));
    await userEvent.click(screen.getByRole("button", { name: "Sign it …" }));
    await userEvent.click(
      within(screen.getByRole("dialog", { name: "Sign version 1" })).getByRole("button", { name: "Sign it" }),
    );
    await waitFor(() =>
      expect(answers.asked.find((a) => a.path.endsWith("/signature"))?.body).toEqual({ version: 3, revision: 7 }),
    );
  });

  it("goes on from what was saved when one comes back to it", async () => {
    const answers = server()
      .on(`GET ${ONE}`, () => ({ body: DRAFT }))
      .on(`PUT ${ONE}`, (asked) => ({
        body: { names: "PSEUDONYM", change: "", words: [], ...Object(asked.body), version: 4 },
      }));
    function Leaving() {
      const [there, setThere] = useState(true);
      return (
        <>
          <button onClick={() => setThere(!there)}>leave or come back</button>
          {there && <MemoPage />}
        </>
      );
    }
    inStudy(<Leaving />, CLOSED, { path: "recommendation/memo/:number", at: "recommendation/memo/1" });
    const field = () => screen.findByRole("textbox", { name: "Your words: The outcome and its reasons" });
    await writeIn(await field(), "By far.");
    await waitFor(() => expect(answers.asked.some((a) => a.method === "PUT")).toBe(true));
    await screen.findByText("All saved");
    await userEvent.click(screen.getByRole("button", { name: "leave or come back" }));
    await userEvent.click(screen.getByRole("button", { name: "leave or come back" }));
    expect((await field()).textContent).toBe("By far.");
  });

  it("keeps words in the order of the parts, and none that are empty", async () => {
    const answers = await memo({ ...DRAFT, words: [{ section: "OUTCOME", text: "By far." }] });
    await writeIn(screen.getByRole("textbox", { name: "Your words: On one page" }), "Take it.");
    await userEvent.clear(screen.getByRole("textbox", { name: "Your words: The outcome and its reasons" }));
    await writeIn(screen.getByRole("textbox", { name: "Your words: The outcome and its reasons" }), "So.");
    await waitFor(() =>
      expect(answers.asked.filter((a) => a.method === "PUT").at(-1)?.body).toMatchObject({
        words: [
          { section: "SUMMARY", text: "Take it." },
          { section: "OUTCOME", text: "So." },
        ],
      }),
    );
  });

  it("is signed in the version that was saved last", async () => {
    const answers = await memo(DRAFT);
    answers.on(`POST ${ONE}/signature`, () => ({ body: SIGNED }));
    await writeIn(screen.getByRole("textbox", { name: "Your words: The outcome and its reasons" }), "So.");
    await waitFor(() => expect(answers.asked.some((a) => a.method === "PUT")).toBe(true));
    await screen.findByText("All saved");
    await userEvent.click(screen.getByRole("button", { name: "Sign it …" }));
    await userEvent.click(within(screen.getByRole("dialog")).getByRole("button", { name: "Sign it" }));
    await waitFor(() =>
      expect(answers.asked.find((a) => a.path.endsWith("/signature"))?.body).toEqual({ version: 4, revision: 7 }),
    );
  });

  it("shows figures as tables, and pictures to the eye alone", async () => {
    await memo(DRAFT);
    const table = screen.getByRole("table", { name: "Standings over all kinds" });
    expect(within(table).getByText("80.0")).toBeTruthy();
    expect(screen.queryByRole("figure", { name: "Scores" })).toBeNull();
  });
});

describe("a memo that is read", () => {
  it("says who signed it and what it rests on, and can be handed out", async () => {
    await memo(SIGNED);
    expect(screen.getByText(/Signed by Orla/)).toBeTruthy();
    expect(screen.getByText("cafe")).toBeTruthy();
    expect(screen.getByRole("link", { name: /with the archive/ }).getAttribute("href")).toBe(`${ONE}/package`);
  });

  it("is countersigned by somebody else", async () => {
    const answers = await memo({ ...SIGNED, mayCountersign: true }, RATER);
    answers.on(`POST ${ONE}/entries`, () => ({
      status: 201,
      body: { sort: "COUNTERSIGNED", words: "", decidedBy: "", by: "Bram", at: "2026-03-12T10:00:00Z" },
    }));
    await userEvent.click(screen.getByRole("button", { name: "Countersign it …" }));
    await userEvent.click(screen.getByRole("button", { name: "Add it" }));
    await waitFor(() =>
      expect(answers.asked.find((a) => a.path.endsWith("/entries"))?.body).toEqual({
        sort: "COUNTERSIGNED",
        words: "",
        decidedBy: "",
      }),
    );
    expect(screen.queryByRole("link", { name: /with the archive/ })).toBeNull();
  });

  it("needs who decided for a decision", async () => {
    await memo(SIGNED);
    await userEvent.click(screen.getByRole("button", { name: "Add to it …" }));
    await userEvent.selectOptions(
      screen.getByRole("combobox", { name: "What is added" }),
      "What was decided in the end",
    );
    await userEvent.type(screen.getByRole("textbox", { name: "In words" }), "Teasel for a year.");
    expect(screen.getByRole("button", { name: "Add it" }).hasAttribute("disabled")).toBe(true);
    await userEvent.type(screen.getByRole("textbox", { name: "Who decided" }), "The board");
    expect(screen.getByRole("button", { name: "Add it" }).hasAttribute("disabled")).toBe(false);
  });

  it("is opened to somebody without an account, until the link is withdrawn", async () => {
    const link = { id: "l1", madeAt: "2026-03-11T10:00:00Z", madeBy: "Orla", expiresAt: "2999-01-01T00:00:00Z" };
    const answers = await memo({ ...SIGNED, links: [link] });
    answers
      .on(`POST ${ONE}/links`, () => ({ status: 201, body: { link, address: "/api/memo-links/token" } }))
      .on(`DELETE ${ONE}/links/l1`, () => ({ status: 204, body: undefined }));
    await userEvent.click(screen.getByRole("button", { name: "Make a link" }));
    expect(await screen.findByText(/\/api\/memo-links\/token$/)).toBeTruthy();
    expect(answers.asked.find((a) => a.path === `${ONE}/links`)?.body).toEqual({ days: 30 });
    await userEvent.click(screen.getByRole("button", { name: /^Withdraw the link/ }));
    await waitFor(() => expect(answers.asked.some((a) => a.method === "DELETE")).toBe(true));
  });

  it("takes a rater’s dissent while it is written", async () => {
    const answers = await memo({ ...DRAFT, mayWrite: false }, RATER);
    answers.on(`PUT ${ONE}/dissent`, () => ({ status: 204, body: undefined }));
    await userEvent.type(screen.getByRole("textbox", { name: "What you hold against it" }), "Too kind.");
    await userEvent.click(screen.getByRole("button", { name: "Have it said" }));
    await waitFor(() =>
      expect(answers.asked.find((a) => a.path.endsWith("/dissent"))?.body).toEqual({ words: "Too kind." }),
    );
  });

  it("fetches every answer’s grades when they are asked for", async () => {
    const answers = await memo(SIGNED);
    answers.on(`GET ${ONE}/appendix`, () => ({
      body: {
        rows: 120,
        from: 0,
        table: { caption: "Grades by answer", heads: [{ text: "Prompt", figures: false }], rows: [["Why dark?"]] },
      },
    }));
    await userEvent.click(screen.getByRole("button", { name: "Show every answer’s grades" }));
    expect(await screen.findByText("Why dark?")).toBeTruthy();
    expect(screen.getByText(/1 to 1 of 120 answers/)).toBeTruthy();
  });
});
