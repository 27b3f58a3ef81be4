// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { TraitsPage } from "../features/trait";

const CLOSED = { ...STUDY, stage: "CLOSED" as const };

const cell = (candidateId: string, answers: number): Schemas["TraitCell"] => ({
  candidateId,
  answers,
  agreed: answers > 1 ? 1 : 0,
  of: 16,
  share: { value: answers / 16, low: 0.11, high: 0.59 },
  examples: answers > 0 ? [{ answerId: "a1", promptId: "p1", title: "Why dark?", raters: 2 }] : [],
});

const REPORT: Schemas["TraitReport"] = {
  candidates: [
    { id: "osier", name: "Osier" },
    { id: "teasel", name: "Teasel" },
  ],
  parts: [
    {
      kind: "",
      sentences: ["Osier: fault found with “ignored the request” in 5 of 16 answers."],
      rows: [
        { stance: "FAULT", trait: "ignored the request", cells: [cell("osier", 5), cell("teasel", 0)] },
        { stance: "CREDIT", trait: "names", cells: [cell("osier", 1), cell("teasel", 9)] },
      ],
      more: 1,
      points: [{ candidateId: "osier", of: 16, share: { value: 0.71, low: 0.6, high: 0.8 } }],
    },
    { kindId: "k1", kind: "Debugging", sentences: [], rows: [], more: 0, points: [] },
  ],
};

async function page() {
  server().on("GET /api/studies/s1/recommendation/traits", () => ({ body: REPORT }));
  inStudy(<TraitsPage />, CLOSED, { path: "recommendation/traits", at: "recommendation/traits" });
  await screen.findByRole("heading", { level: 2, name: "Traits" });
}

describe("what candidates are good and bad at", () => {
  it("is said in a sentence, and by trait with its interval", async () => {
    await page();
    expect(screen.getByText(/fault found with/)).toBeTruthy();
    const row = screen.getByRole("row", { name: /ignored the request/ });
    expect(within(row).getByText(/11 % to 59 %; 1 by more than one rater/)).toBeTruthy();
    expect(within(row).getByText("0")).toBeTruthy();
    expect(screen.getByText("1 trait more, said more seldom, is left out.")).toBeTruthy();
    expect(within(screen.getByRole("table", { name: "Key points by candidate" })).getByText("71 %")).toBeTruthy();
  });

  it("leads to answers that it was said of", async () => {
    await page();
    await userEvent.click(screen.getByLabelText("Examples: names, Teasel"));
    const row = screen.getByRole("row", { name: /names/ });
    expect(within(row).getAllByRole("link", { name: "Why dark?" })[0]?.getAttribute("href")).toBe(
      "/studies/s1/answers/p1?answer=a1",
    );
  });

  it("is sorted by a candidate", async () => {
    await page();
    await userEvent.click(screen.getByRole("button", { name: /Teasel/ }));
    const first = () => within(screen.getByRole("table", { name: "Traits by candidate" })).getAllByRole("rowheader")[0];
    expect(first()?.textContent).toBe("ignored the request");
    await userEvent.click(screen.getByRole("button", { name: /Teasel/ }));
    expect(first()?.textContent).toBe("names");
  });

  it("is looked at by kind, and says where there is nothing", async () => {
    await page();
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Kind" }), "Debugging");
    expect(screen.getByText(/Raters named no trait/)).toBeTruthy();
  });
});
