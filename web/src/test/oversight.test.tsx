// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { GradingPage } from "../features/grading/GradingPage";

type Progress = Schemas["GradingProgress"];
type Sheet = Progress["raters"][number]["sheets"][number];

const sheet = (sheetId: string, promptId: string, more: Partial<Sheet> = {}): Sheet => ({
  sheetId,
  promptId,
  place: 1,
  repeat: false,
  calibrates: false,
  answers: 3,
  made: 0,
  cells: 9,
  reasons: 0,
  takenBack: 0,
  ...more,
});

const rater = (raterId: string, name: string, sheets: Sheet[]) => ({
  raterId,
  name,
  signInName: name.toLowerCase(),
  hasPassword: true,
  sheets,
});

const IDA = rater("r1", "Ida", [
  sheet("sh1", "p1", { sentAt: "2026-11-20T09:00:00Z", made: 9, reasons: 2, takenBack: 1 }),
  sheet("sh2", "p2", { place: 2, made: 4 }),
]);
const NOOR = rater("r2", "Noor", [sheet("sh3", "p1", { withdrawn: "Was ill.", made: 3 })]);

const OVERSIGHT: Schemas["OversightView"] = {
  raters: [
    {
      raterId: "r1",
      activeMs: 360_000,
      msAnAnswer: 120_000,
      leftMs: 360_000,
      answersLeft: 3,
      oddities: [{ sort: "TOO_FAST", evidence: "Faster than the answers can be read: sheet 1 in 2 s." }],
    },
    { raterId: "r2", answersLeft: 0, oddities: [] },
  ],
  guesses: { asked: 10, noIdea: 4, right: 2, byChance: 1.5 },
};

function page(change: Partial<Progress> = {}, oversight = OVERSIGHT, study = STUDY) {
  const title = (id: string, name: string) => ({
    id,
    title: name,
    kind: { id: "k", key: "k", name: "Review" },
    faulty: false,
  });
  const answers = server()
    .on("GET /api/studies/s1/grading", () => ({
      body: { openedAt: "2026-11-19T09:00:00Z", raters: [IDA, NOOR], ...change },
    }))
    .on("GET /api/studies/s1/oversight", () => ({ body: oversight }))
    .on("GET /api/studies/s1/prompts/titles", () => ({ body: [title("p1", "The lamp"), title("p2", "The fuse")] }))
    .on("POST /api/studies/s1/sheets/sh2/withdraw", () => ({ body: null }))
    .on("POST /api/studies/s1/sheets/sh2/hand-over", () => ({ body: null }))
    .on("POST /api/studies/s1/sheets/sh3/give-back", () => ({ body: null }))
    .on("POST /api/studies/s1/raters/r1/reminders", () => ({ body: null }));
  inStudy(<GradingPage />, { ...study, stage: "GRADING" });
  return answers;
}

const posted = (answers: ReturnType<typeof page>) => answers.asked.filter((a) => a.method === "POST");

describe("the lead's view of grading", () => {
  it("counts sheets that are not withdrawn, and says what is left at the pace so far", async () => {
    page();
    expect(await screen.findByText(/1 of 2 sheets are sent in/)).toBeTruthy();
    expect(await screen.findByText(/About 6 min of grading is left/)).toBeTruthy();
    const row = screen.getByRole("row", { name: /^Ida/ });
    expect(within(row).getByText("1 of 2 sent in")).toBeTruthy();
    expect(row.textContent).toContain("6 min for 3 answers");
    expect(screen.getByRole("row", { name: /^Noor/ }).textContent).toContain("0 of 0 sent in");
  });

  it("counts by kind and by prompt", async () => {
    page();
    const kinds = await screen.findByRole("table", { name: "Progress by kind" });
    expect(within(kinds).getByText("1 of 2")).toBeTruthy();
    const prompts = screen.getByRole("table", { name: "Progress by prompt" });
    expect(within(prompts).getByRole("row", { name: /The fuse/ }).textContent).toContain("Ida");
  });

  it("says what is unusual with its evidence, and how well the masking holds", async () => {
    page();
    expect(await screen.findByText("Faster than the answers can be read: sheet 1 in 2 s.")).toBeTruthy();
    expect(screen.getByText("too fast to have read")).toBeTruthy();
    expect(screen.getByText(/named the right candidate for 2; by chance it would be 1.5/)).toBeTruthy();
  });

  it("says so if nothing is", async () => {
    page({}, { raters: [] });
    expect(await screen.findByText(/Nothing unusual/)).toBeTruthy();
  });

  it("deals sheets to somebody who came in late, and shows the balance before it is done", async () => {
    const answers = page({ raters: [IDA, NOOR, rater("r3", "Tess", [])] });
    const view = (more: number) => ({
      sheets: more,
      loads: [
        { raterId: "r1", before: 2, after: 2 - more },
        { raterId: "r3", before: 0, after: more },
      ],
      fewest: 1,
      most: 2,
    });
    answers
      .on("POST /api/studies/s1/round/deal/preview", ({ body }) => ({
        body: JSON.stringify(body).includes("UNBEGUN") ? view(1) : { ...view(0), loads: [] },
      }))
      .on("POST /api/studies/s1/round/deal", () => ({ body: view(1) }));
    await userEvent.click(await screen.findByRole("button", { name: "Tess" }));
    await userEvent.click(screen.getByRole("button", { name: "Deal sheets …" }));
    const dialog = screen.getByRole("dialog", { name: "Deal sheets to Tess" });
    const balance = await within(dialog).findByRole("table", { name: "Sheets by rater, now and then" });
    expect(within(balance).getByRole("row", { name: "Ida 2 1" })).toBeTruthy();
    expect(within(dialog).getByText("Each prompt then has 1 to 2 raters.")).toBeTruthy();
    await userEvent.click(within(dialog).getByRole("radio", { name: /A sheet for every prompt/ }));
    expect(await within(dialog).findByText("There is no such sheet for them.")).toBeTruthy();
    await userEvent.click(within(dialog).getByRole("radio", { name: /nobody has begun/ }));
    await userEvent.click(await within(dialog).findByRole("button", { name: "Deal 1 sheet" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(posted(answers).at(-1)).toMatchObject({ body: { raterId: "r3", from: "UNBEGUN" } });
  });

  it("reminds with words that can be changed", async () => {
    const answers = page();
    await userEvent.click(await screen.findByRole("button", { name: "Remind …" }));
    const words = screen.getByLabelText("Message");
    expect(words).toHaveProperty("value", "1 sheet is still with you. Could you send it in this week?");
    await userEvent.type(words, " Thanks.");
    await userEvent.click(screen.getByRole("button", { name: "Send" }));
    await waitFor(() => expect(posted(answers)[0]?.path).toBe("/api/studies/s1/raters/r1/reminders"));
    expect(posted(answers)[0]?.body).toEqual({
      words: "1 sheet is still with you. Could you send it in this week? Thanks.",
    });
  });

  it("withdraws a sheet only with a reason, and gives one back", async () => {
    const answers = page();
    await userEvent.click(await screen.findByRole("button", { name: "Ida" }));
    const sheets = screen.getByRole("table", { name: "Sheets of Ida" });
    expect(within(sheets).getByText(/taken back 1 time/)).toBeTruthy();
    await userEvent.click(within(sheets).getAllByRole("button", { name: "Withdraw …" })[1] ?? document.body);
    expect(screen.getByText(/Its 4 grades are kept/)).toBeTruthy();
    const withdraw = screen.getByRole("button", { name: "Withdraw it" });
    expect(withdraw).toHaveProperty("disabled", true);
    await userEvent.type(screen.getByLabelText("Why"), "On leave.");
    await userEvent.click(withdraw);
    await waitFor(() => expect(posted(answers)[0]?.path).toBe("/api/studies/s1/sheets/sh2/withdraw"));
    expect(posted(answers)[0]?.body).toEqual({ reason: "On leave." });

    await userEvent.click(await screen.findByRole("button", { name: "Noor" }));
    expect(screen.getByText(/: Was ill\./)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Give it back …" }));
    await userEvent.type(screen.getByLabelText("Why"), "Is well again.");
    await userEvent.click(screen.getByRole("button", { name: "Give it back" }));
    await waitFor(() => expect(posted(answers).at(-1)?.path).toBe("/api/studies/s1/sheets/sh3/give-back"));
    expect(posted(answers).at(-1)?.body).toEqual({ reason: "Is well again." });
  });

  it("hands a sheet over to somebody who has none for its prompt", async () => {
    const answers = page();
    await userEvent.click(await screen.findByRole("button", { name: "Ida" }));
    await userEvent.click(screen.getByRole("button", { name: "Hand over …" }));
    await userEvent.type(screen.getByLabelText("Why"), "On leave.");
    await userEvent.click(screen.getByRole("button", { name: "Hand it over" }));
    await waitFor(() => expect(posted(answers)[0]?.path).toBe("/api/studies/s1/sheets/sh2/hand-over"));
    expect(posted(answers)[0]?.body).toEqual({ raterId: "r2", reason: "On leave." });
  });

  it("takes no steps once the round is closed", async () => {
    page({ closedAt: "2026-11-25T09:00:00Z" });
    await userEvent.click(await screen.findByRole("button", { name: "Ida" }));
    expect(screen.queryByRole("button", { name: "Withdraw …" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Remind …" })).toBeNull();
  });

  it("hides from a lead who grades what would sway them", async () => {
    const answers = page({}, OVERSIGHT, { ...STUDY, blind: true });
    expect(await screen.findByText(/You grade in this round/)).toBeTruthy();
    expect(screen.queryByText("To look at")).toBeNull();
    expect(answers.asked.some((a) => a.path.endsWith("/oversight"))).toBe(false);
  });
});
