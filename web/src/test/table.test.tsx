// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { TablePage } from "../features/table";

const FIGURES: Schemas["TableAgreementView"] = {
  units: 12,
  values: 41,
  raters: ["A", "B"],
  levels: ["1", "2", "3"],
  coefficients: [
    { name: "ALPHA_ORDINAL", figure: { value: 0.815, low: 0.5, high: 0.95 } },
    { name: "EXACT", figure: { value: 0.8, noIntervalReason: "it was not asked for" } },
    { name: "KENDALL_W", figure: { undefinedReason: "all grades are at one and the same level" } },
  ],
  pairs: [
    {
      first: "A",
      second: "B",
      units: 9,
      kappa: { value: 0.7 },
      linear: { value: 0.75 },
      quadratic: { value: 0.8 },
    },
  ],
  severities: [{ rater: "A", severity: { value: 0.12, low: -0.1, high: 0.3 }, values: 9, shareAtEnds: 0.5 }],
  splits: [
    {
      unit: "6",
      distance: 3,
      given: [
        { rater: "A", value: "1" },
        { rater: "B", value: "4" },
      ],
    },
  ],
  splitCount: 1,
};

function show() {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <TablePage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

describe("a table of one's own", () => {
  it("gives every figure, pair, rater and split", async () => {
    server().on("POST /api/tables/agreement", () => ({ body: FIGURES }));
    show();
    await userEvent.upload(screen.getByLabelText("Drop a CSV file here, or choose it"), new File(["x"], "mine.csv"));
    expect((await screen.findByRole("status")).textContent).toContain("41 values of 2 raters on 12 units");
    const all = screen.getByRole("table", { name: "Agreement of all raters" });
    expect(within(all).getByRole("row", { name: /α, ordinal/ }).textContent).toContain("0.815 0.500 to 0.950");
    expect(within(all).getByRole("row", { name: /pairs alike/ }).textContent).not.toContain("no interval");
    expect(within(all).getByRole("row", { name: /Kendall/ }).textContent).toContain("none: all grades");
    expect(screen.getByRole("table", { name: "Splits" }).textContent).toContain("A 1 · B 4");
    expect(screen.getByRole("button", { name: "Keep the result as a file" })).toBeDefined();
  });

  it("says what is wrong, by line", async () => {
    server().on("POST /api/tables/agreement", () => ({
      status: 400,
      body: {
        type: "https://mossbank.example/problems/table-refused",
        title: "Table refused",
        status: 400,
        detail: "The table cannot be read as it is.",
        faults: [{ file: "the table", line: 3, expected: "3 cells", found: "2" }],
      },
    }));
    show();
    await userEvent.upload(screen.getByLabelText("Drop a CSV file here, or choose it"), new File(["x"], "mine.csv"));
    expect((await screen.findByRole("alert")).textContent).toContain("cannot be read");
    expect(screen.getByText("3 cells")).toBeDefined();
  });
});
