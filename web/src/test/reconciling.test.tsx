// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { SplitsThatWait } from "../features/reconciliation";
import { LookPage } from "../features/reconciliation/LookPage";
import { SplitPage } from "../features/reconciliation/SplitPage";

const rater = (name: string, level: number | undefined, more: Partial<Schemas["SplitRater"]> = {}) => ({
  name,
  own: false,
  ...(level === undefined ? {} : { level }),
  reason: `${name} saw it so.`,
  coverage: [],
  remarks: [],
  stances: [],
  ...more,
});

const LEVELS = [0, 1, 2, 3, 4].map((level) => ({ level, name: `level ${level}`, anchor: `As ${level} looks.` }));

const SPLIT: Schemas["SplitPage"] = {
  id: "x",
  studyId: "s1",
  studyTitle: "A model for the lamps",
  prompt: {
    title: "Why does the lamp stay dark?",
    kind: "Debugging",
    kindId: "k1",
    request: "Find out.",
    keyPoints: [{ stance: "MUST_CONTAIN", text: "The relay", weight: 1 }],
  },
  criterion: { key: "correctness", name: "Correctness", question: "Is it right?", levels: LEVELS },
  answer: "It is the relay.\n\nMend it.",
  raters: [
    rater("Bo Grane", 1, { own: true, coverage: [{ point: 0, verdict: "COVERED" }] }),
    rater("Åse Lund", 4, {
      coverage: [{ point: 0, verdict: "MISSED" }],
      remarks: [
        { stance: "FAULT", trait: "", words: "Which relay?", lines: { part: "TEXT", from: 1, to: 1, quote: "" } },
        { stance: "CREDIT", trait: "names the cause", words: "" },
      ],
    }),
  ],
  words: [],
  looks: [],
  state: "OPEN",
  distance: 3,
  talking: true,
  leads: false,
  stands: true,
};

const AT = { path: ":splitId", at: "x" };

async function split(change: Partial<Schemas["SplitPage"]> = {}, answers = server()) {
  answers.on("GET /api/splits/x", () => ({ body: { ...SPLIT, ...change } }));
  inStudy(<SplitPage />, STUDY, AT);
  await screen.findByRole("heading", { level: 1 });
}

describe("a split", () => {
  it("shows the scale with who gave what, and remarks at their lines", async () => {
    await split();
    const levels = within(screen.getByRole("list", { name: "Levels from the highest" })).getAllByRole("listitem");
    expect(levels[0]?.textContent).toContain("As 4 looks.Gave it: Åse Lund");
    expect(levels[3]?.textContent).toContain("Gave it: Bo Grane (you)");
    expect(screen.getByRole("button", { name: "Åse Lund: Fault on line 1: Which relay?" })).toBeTruthy();
    expect(screen.getByText("names the cause.")).toBeTruthy();
    expect(screen.getByText("missed")).toBeTruthy();
  });

  it("shows what the answer changes, with the remarks at its lines", async () => {
    const code: Schemas["GradedCode"] = {
      start: [{ path: "src/Lamp.java", text: "class Lamp {\n    int number;\n}\n" }],
      code: {
        changes: [
          {
            path: "src/Lamp.java",
            from: "src/Lamp.java",
            sort: "CHANGED",
            added: 1,
            removed: 1,
            coarse: false,
            hunks: [
              {
                before: 2,
                after: 2,
                lines: [
                  { kind: "REMOVED", nature: "PLAIN", text: "    int number;" },
                  { kind: "ADDED", nature: "PLAIN", text: "    final int number;" },
                ],
              },
            ],
          },
        ],
        files: [{ path: "src/Lamp.java", sort: "CHANGED", text: "class Lamp {\n}\n", before: "" }],
        outside: [],
        namesFiles: true,
        limits: [],
      },
    };
    const on = { part: "AFTER" as const, path: "src/Lamp.java", from: 2, to: 2, quote: "" };
    const remarks = [{ stance: "FAULT" as const, trait: "", words: "Never set.", lines: on }];
    await split(
      { raters: [rater("Åse Lund", 1, { remarks }), rater("Bo Grane", 4)] },
      server().on("GET /api/splits/x/code", () => ({ body: code })),
    );
    const parts = within(await screen.findByRole("group", { name: "What is shown of the answer" }));
    await userEvent.click(parts.getByRole("button", { name: /^Changes ?, 1 remark$/ }));
    expect(await screen.findByText(/1 file, 1 line added, 1 removed/)).toBeTruthy();
    expect(screen.getByRole("button", { name: /Åse Lund: Fault on line 2.*Never set/ })).toBeTruthy();
    await userEvent.click(parts.getByRole("button", { name: "Files" }));
    expect(await screen.findByRole("combobox", { name: "File" })).toBeTruthy();
  });

  it("has no parts to choose from where the prompt has no starting code", async () => {
    const none = { code: { changes: [], files: [], outside: [], namesFiles: false, limits: [] }, start: [] };
    await split(
      {},
      server().on("GET /api/splits/x/code", () => ({ body: none })),
    );
    expect(screen.queryByRole("button", { name: "Changes" })).toBeNull();
  });

  it("says something once however often it is sent, and keeps what is being written over a reload", async () => {
    const answers = server();
    const sent: unknown[] = [];
    answers.on("POST /api/splits/x/words", ({ body }) => {
      sent.push(body);
      return sent.length === 1
        ? { status: 503, body: { type: "https://mossbank.example/problems/busy", title: "Busy", status: 503 } }
        : {
            body: {
              ...SPLIT,
              words: [{ id: "w", by: "Bo Grane", own: true, words: "The relay.", at: "2026-11-03T10:00:00Z" }],
            },
          };
    });
    await split({}, answers);
    const field = screen.getByLabelText<HTMLTextAreaElement>("What you saw");
    await userEvent.type(field, "The relay.");
    expect(sessionStorage.getItem("split.x")).toContain("The relay.");
    await userEvent.keyboard("{Control>}{Enter}{/Control}");
    expect((await screen.findByRole("alert")).textContent).toContain("Busy");
    await userEvent.click(screen.getByRole("button", { name: "Say it" }));
    const talk = await screen.findByRole("list", { name: "The talk" });
    expect(await within(talk).findByText("The relay.")).toBeTruthy();
    expect(sent[0]).toMatchObject({ words: "The relay." });
    expect(sent[1]).toEqual(sent[0]);
    expect(field.value).toBe("");
  });

  it("lets a rater stand elsewhere or keep what they gave, with a reason", async () => {
    const answers = server();
    const sent: unknown[] = [];
    answers.on("POST /api/splits/x/stances", ({ body }) => {
      sent.push(body);
      return { body: SPLIT };
    });
    await split({}, answers);
    const choices = screen.getByRole("group", { name: "Where do you stand now?" });
    expect(within(choices).getByRole("radio", { name: "1 you gave it", checked: true })).toBeTruthy();
    expect(screen.getByRole("button", { name: "Keep 1" }).hasAttribute("disabled")).toBe(true);
    await userEvent.click(within(choices).getByRole("radio", { name: "3" }));
    await userEvent.type(screen.getByLabelText("Why"), "It names the part.");
    await userEvent.click(screen.getByRole("button", { name: "Stand there" }));
    expect(sent).toMatchObject([{ level: 3, reason: "It names the part." }]);
  });

  it("tells the second of two who closed it, and offers nothing once it is settled", async () => {
    const answers = server().on("POST /api/studies/s1/splits/x/settle", () => ({
      status: 409,
      body: {
        type: "https://mossbank.example/problems/split-closed",
        title: "Split is closed",
        status: 409,
        detail: "This split is settled at 2 by Cleo Varn.",
      },
    }));
    await split({ leads: true, stands: false }, answers);
    await userEvent.click(screen.getByRole("button", { name: "Settle it …" }));
    const dialog = screen.getByRole("dialog");
    await userEvent.type(within(dialog).getByLabelText("Why"), "So it is.");
    await userEvent.click(within(dialog).getByRole("button", { name: "Settle at 1" }));
    expect(await within(dialog).findByText("This split is settled at 2 by Cleo Varn.")).toBeTruthy();
  });

  it("says how it ended", async () => {
    await split({
      state: "SETTLED",
      closing: {
        how: "LEAD",
        level: 2,
        by: "Cleo Varn",
        at: "2026-11-03T10:00:00Z",
        reason: "By its anchor.",
        namesKnown: true,
      },
    });
    expect(screen.getAllByRole("status")[0]?.textContent).toContain("Settled at 2 by Cleo Varn");
    expect(screen.getAllByRole("status")[0]?.textContent).toContain("They knew the names.");
    expect(screen.queryByLabelText("What you saw")).toBeNull();
    expect(screen.queryByRole("group", { name: "Where do you stand now?" })).toBeNull();
  });

  it("stays readable with twelve raters and sixty remarks", async () => {
    const remark = (i: number): Schemas["RemarkContent"] => ({
      stance: i % 2 === 0 ? "FAULT" : "CREDIT",
      trait: "",
      words: `Remark ${i}.`,
      ...(i < 3 ? { lines: { part: "TEXT", from: 1, to: 1, quote: "It is the relay." } } : {}),
    });
    await split({
      raters: Array.from({ length: 12 }, (_, r) =>
        rater(`Rater ${r + 1}`, r % 5, { remarks: Array.from({ length: 5 }, (_, i) => remark(i)) }),
      ),
    });
    const levels = within(screen.getByRole("list", { name: "Levels from the highest" })).getAllByRole("listitem");
    expect(levels[0]?.textContent).toContain("Gave it: Rater 5, Rater 10");
    const written = screen.getByRole("heading", { name: "What they wrote when they graded" }).closest("details");
    expect(written?.open).toBe(false);
    expect(screen.getByRole("heading", { name: "The talk" })).toBeTruthy();
    expect(screen.getAllByRole("button", { name: /on line 1: Remark/ })).toHaveLength(36);
    expect(screen.getByLabelText("What you saw")).toBeTruthy();
  });

  it("asks for a blind look without anybody's grades", async () => {
    const given: unknown[] = [];
    const look: Schemas["BlindLook"] = {
      id: "x",
      studyTitle: "A model for the lamps",
      prompt: SPLIT.prompt,
      criterion: SPLIT.criterion,
      answer: SPLIT.answer,
      reason: "",
      open: true,
    };
    server()
      .on("GET /api/splits/x/look", () => ({
        body: given.length > 0 ? { ...look, level: 2, reason: "Half." } : look,
      }))
      .on("PUT /api/splits/x/look", ({ body }) => {
        given.push(body);
        return { body: look };
      });
    inStudy(<LookPage />, STUDY, AT);
    await userEvent.click(await screen.findByRole("radio", { name: "2" }));
    await userEvent.type(screen.getByLabelText("Why"), "Half.");
    await userEvent.click(screen.getByRole("button", { name: "Give it" }));
    expect(await screen.findByRole("link", { name: "See what the others gave" })).toBeTruthy();
    expect(given).toEqual([{ level: 2, reason: "Half." }]);
  });
});

describe("splits on the first page", () => {
  const own = (id: string, waitsFor: Schemas["OwnSplit"]["waitsFor"], title = "A prompt"): Schemas["OwnSplit"] => ({
    id,
    studyId: "s1",
    studyTitle: "A model for the lamps",
    title,
    criterion: "Idiom",
    state: "OPEN",
    words: 2,
    waitsFor,
  });

  it("say what each waits for, and lead there", async () => {
    server().on("GET /api/splits", () => ({
      body: {
        splits: [own("a", "STANCE"), own("b", "LOOK", ""), own("c", "NOTHING", "Another")],
        later: 3,
        more: false,
      },
    }));
    inStudy(<SplitsThatWait />);
    const first = await screen.findByRole("link", { name: "A prompt, idiom" });
    expect(first.getAttribute("href")).toBe("/splits/a");
    expect(first.closest("li")?.textContent).toContain("where do you stand?");
    expect(screen.getByRole("link", { name: "One answer, idiom" }).getAttribute("href")).toBe("/splits/b/look");
    expect(screen.getByText(/3 splits open to you once you/)).toBeTruthy();
    expect(screen.getByText("1 other that concerns you")).toBeTruthy();
  });

  it("of studies that ended long ago come when asked for, past those without one", async () => {
    const pages = [
      { splits: [], later: 0, more: true },
      { splits: [], later: 0, more: true },
      { splits: [own("x", "NOTHING", "Long ago")], later: 0, more: false },
    ];
    const asked: number[] = [];
    server().on("GET /api/splits", ({ query }) => {
      const earlier = Number(query.get("earlier") ?? 0);
      asked.push(earlier);
      return { body: pages[earlier] };
    });
    inStudy(<SplitsThatWait />);
    await userEvent.click(await screen.findByText("Those of earlier studies"));
    expect(asked).toEqual([0]);
    await userEvent.click(screen.getByRole("button", { name: "Show those of earlier studies" }));
    expect((await screen.findByRole("link", { name: "Long ago, idiom" })).getAttribute("href")).toBe("/splits/x");
    expect(asked).toEqual([0, 1, 2]);
    expect(screen.queryByRole("button", { name: "Show those of earlier studies" })).toBeNull();
  });

  it("are not spoken of where there are none", async () => {
    server().on("GET /api/splits", () => ({ body: { splits: [], later: 0, more: false } }));
    inStudy(<SplitsThatWait />);
    await new Promise((done) => setTimeout(done, 20));
    expect(screen.queryByRole("heading")).toBeNull();
  });
});
