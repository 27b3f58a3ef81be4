// @vitest-environment happy-dom
import { inStudy, server, STUDY, type ServerDouble, writeIn } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { MaskingLine } from "../features/masking";
import { MaskingPage } from "../features/masking/MaskingPage";
import { refusal } from "./people";

type Stretch = Schemas["StretchView"];

const stretch = (from: number, found: string, more: Partial<Stretch> = {}): Stretch => ({
  from,
  to: from + found.length,
  line: 3,
  before: "asked ",
  found,
  after: " about it",
  sort: "NAME",
  replacement: "[masked]",
  ...more,
});

const view = (stretches: Stretch[], more: Partial<Schemas["MaskingView"]> = {}): Schemas["MaskingView"] => ({
  words: [],
  version: 0,
  undecided: stretches.filter((s) => s.accepted === undefined).length,
  answers:
    stretches.length === 0
      ? []
      : [{ answerId: "a1", promptId: "p1", candidateId: "c1", attempt: 2, stretches, more: 0, complete: true }],
  ...more,
});

function isDecide(body: unknown): body is Schemas["Decide"] {
  return typeof body === "object" && body !== null && "decisions" in body;
}

/** A server that keeps what is decided, as the real one does. */
function deciding(start: Schemas["MaskingView"]): ServerDouble {
  let now = start;
  return server()
    .on("GET /api/studies/s1/masking", () => ({ body: now }))
    .on("GET /api/studies/s1/prompts", () => ({ body: [{ id: "p1", content: { title: "Why is it dark?" } }] }))
    .on("GET /api/studies/s1/candidates", () => ({ body: [{ id: "c1", content: { name: "Osierhold" } }] }))
    .on("POST /api/studies/s1/masking/decisions", ({ body }) => {
      const decisions = isDecide(body) ? body.decisions : [];
      const stretches = now.answers
        .flatMap((a) => a.stretches)
        .map((s) => {
          const own = decisions.find((d) => d.from === s.from);
          if (!own) {
            return s;
          }
          const { accepted: _, ...rest } = s;
          return {
            ...rest,
            replacement: own.replacement ?? s.replacement,
            ...(own.accept !== undefined && { accepted: own.accept }),
          };
        });
      now = view(stretches, { words: now.words, version: now.version });
      return { body: now };
    });
}

const headline = async () => (await screen.findByRole("heading", { level: 1 })).textContent;

describe("masking", () => {
  it("shows a stretch in its line and whose answer it is", async () => {
    deciding(view([stretch(6, "Osierhold")]));
    inStudy(<MaskingPage />);
    expect(await headline()).toBe("1 stretch to decide on");
    const link = await screen.findByRole("link", { name: "Why is it dark?" });
    expect(link.getAttribute("href")).toBe("/studies/s1/answers/p1?answer=a1");
    expect(screen.getByText("attempt 2")).toBeDefined();
    expect(screen.getByRole("listitem").textContent).toContain("line 3asked Osierhold about it");
  });

  it("masks one, says what raters read, and takes it back", async () => {
    const asked = deciding(view([stretch(6, "Osierhold")])).asked;
    inStudy(<MaskingPage />);
    const own = await screen.findByLabelText("Raters read instead of Osierhold, line 3");
    await userEvent.clear(own);
    await userEvent.type(own, "a tool");
    await userEvent.click(screen.getByRole("button", { name: "Mask it: Osierhold, line 3" }));
    expect(await screen.findByText("masked")).toBeDefined();
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({
      decisions: [{ answerId: "a1", from: 6, accept: true, replacement: "a tool" }],
    });
    expect(screen.getByText("a tool").tagName).toBe("INS");
    expect(await headline()).toBe("Everything that was found is decided");
    await userEvent.click(screen.getByRole("button", { name: "Take back: Osierhold, line 3" }));
    await waitFor(async () => expect(await headline()).toBe("1 stretch to decide on"));
  });

  it("leaves one as it is", async () => {
    deciding(view([stretch(6, "Osierhold")]));
    inStudy(<MaskingPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Leave it: Osierhold, line 3" }));
    expect(await screen.findByText("left as it is")).toBeDefined();
  });

  it("decides on all that are open and shown at once, and on no other", async () => {
    const asked = deciding(
      view([
        stretch(6, "Osierhold"),
        stretch(40, "Osier", { accepted: false }),
        stretch(60, "As an AI", { sort: "SELF_INTRODUCTION" }),
        stretch(80, "osier", { sort: "NAME" }),
      ]),
    ).asked;
    inStudy(<MaskingPage />);
    expect(await screen.findByRole("button", { name: "Mask all 3" })).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "names 3" }));
    await userEvent.click(screen.getByRole("button", { name: "Mask all 2" }));
    await waitFor(() =>
      expect(asked.find((a) => a.method === "POST")?.body).toEqual({
        decisions: [
          { answerId: "a1", from: 6, accept: true },
          { answerId: "a1", from: 80, accept: true },
        ],
      }),
    );
    await userEvent.click(screen.getByRole("button", { name: "all" }));
    expect(await screen.findByRole("button", { name: "Mask it: As an AI, line 3" })).toBeDefined();
  });

  it("says why a decision was refused, and keeps what stood there", async () => {
    deciding(view([stretch(6, "Osierhold")])).on("POST /api/studies/s1/masking/decisions", () =>
      refusal("The round has been opened."),
    );
    inStudy(<MaskingPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Mask it: Osierhold, line 3" }));
    expect((await screen.findByRole("alert")).textContent).toContain("The round has been opened.");
    expect(await headline()).toBe("1 stretch to decide on");
  });

  it("saves the words that the lead lists, without the empty line that is being filled", async () => {
    const asked = deciding(view([])).on("PUT /api/studies/s1/masking/words", () => ({
      body: view([], { words: ["Moor"], version: 1 }),
    })).asked;
    inStudy(<MaskingPage />);
    expect(await headline()).toBe("Nothing gives a candidate away");
    await userEvent.click(screen.getByRole("button", { name: "Add a word" }));
    await writeIn(screen.getByLabelText("Word 1"), "Moor");
    await userEvent.click(screen.getByRole("button", { name: "Add a word" }));
    await waitFor(() =>
      expect(asked.filter((a) => a.method === "PUT").at(-1)?.body).toEqual({ version: 0, words: ["Moor"] }),
    );
    expect(screen.getByLabelText("Word 2")).toBeDefined();
  });

  it("can only be read once the round is open", async () => {
    deciding(view([stretch(6, "Osierhold", { accepted: true }), stretch(40, "Osier", { accepted: false })]));
    inStudy(<MaskingPage />, { ...STUDY, stage: "GRADING" });
    expect(await screen.findByText("masked")).toBeDefined();
    expect(screen.queryByRole("button", { name: /Take back|Mask|Add a word/ })).toBeNull();
  });

  it("has a way there before it is known, and where it cannot be", async () => {
    let refuse: () => void = () => undefined;
    const refused = new Promise<{ status: number; body: unknown }>((given) => {
      refuse = () => given({ status: 403, body: { type: "not-allowed", title: "Not allowed", status: 403 } });
    });
    server().on("GET /api/studies/s1/masking", () => refused);
    inStudy(<MaskingLine />);
    expect(screen.getByRole("link", { name: "Masking" })).toBeDefined();
    expect(screen.getByRole("status").textContent).toContain("Fetching");
    refuse();
    expect(await screen.findByText(/could not be fetched/)).toBeDefined();
    expect(screen.getByRole("link", { name: "Masking" })).toBeDefined();
  });

  it("tells the lead on the page of answers how many are open, and a blind lead nothing", async () => {
    const first = deciding(view([stretch(6, "Osierhold"), stretch(30, "Osierhold")]));
    const page = inStudy(<MaskingLine />);
    expect((await screen.findByText(/2 stretches may give a candidate away/)).textContent).toContain("Masking");
    expect(within(page.container).getByRole("link", { name: "Masking" })).toBeDefined();
    expect(first.asked).toHaveLength(1);
    page.unmount();
    const second = deciding(view([stretch(6, "Osierhold")]));
    inStudy(<MaskingLine />, { ...STUDY, stage: "GRADING", blind: true });
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(second.asked).toHaveLength(0);
  });
});
