// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { Stopwatch } from "../features/answer/Stopwatch";
import { ClaimsPart } from "../features/expected/ClaimsPart";
import { ExpectedPage } from "../features/expected/ExpectedPage";
import { NextPage } from "../features/succession/NextPage";
import { SincePage } from "../features/succession/SincePage";

const BASE = "/api/studies/s1";
const CLOSED = { ...STUDY, stage: "CLOSED" as const };
const PREPARING = { ...STUDY, stage: "PREPARING" as const };

const candidate = (id: string, name: string) => ({
  id,
  key: id,
  version: 0,
  content: { name, version: "1", settings: [], price: { caps: "" }, note: "", considerations: [], baseline: false },
});
const CANDIDATES = [candidate("osier", "Osier"), candidate("teasel", "Teasel")];

const SINCE: Schemas["SinceReport"] = {
  title: "The one before",
  endedAt: "2026-01-10T09:00:00Z",
  ruler: { prompts: 4, answers: 8, shift: { value: -4.2, low: -7, high: -1.4 }, verdict: "MOVED", margin: 5 },
  byCriterion: [{ criterion: "right", name: "Correctness", answers: 8, shift: { value: 1.5 } }],
  candidates: [
    {
      candidateId: "osier",
      name: "Osier",
      version: "1",
      then: { value: 70 },
      moved: { value: 65.8 },
      now: { value: 66 },
    },
    { name: "Sedge", version: "", then: { value: 50 }, moved: { value: 45.8 } },
  ],
  changes: ["New prompts: Why dark?."],
};

describe("since the last study", () => {
  it("says that the ruler moved, and puts old and new on one scale", async () => {
    server()
      .on(`GET ${BASE}/recommendation/since`, () => ({ body: SINCE }))
      .on(`GET ${BASE}/follows`, () => ({ body: { title: "The one before", carried: 8 } }));
    inStudy(<SincePage />, CLOSED);
    expect(await screen.findByText(/The ruler moved\. Scores of the two studies cannot be compared/)).toBeTruthy();
    expect(screen.getByText(/The same answers get/).textContent).toContain(
      "−4.2 (−7.0 to −1.4) points now; 5.0 matter.",
    );
    const scale = screen.getByRole("table", { name: "Candidates of both studies on one scale" });
    expect(within(scale).getByRole("row", { name: /Sedge/ }).textContent).toContain("45.8 took no part");
    expect(screen.getByText("New prompts: Why dark?.")).toBeTruthy();
    expect(await screen.findByRole("link", { name: "Since the last" })).toBeTruthy();
  });

  it("is begun with whom one names", async () => {
    const answers = server()
      .on(`GET ${BASE}/candidates`, () => ({ body: CANDIDATES }))
      .on(`GET ${BASE}/follows`, () => ({ body: { carried: 0 } }))
      .on(`POST ${BASE}/next`, () => ({ status: 201, body: { studyId: "s2", carried: 4 } }));
    inStudy(<NextPage />, CLOSED);
    const begin = await screen.findByRole("button", { name: "Begin it" });
    expect(begin.hasAttribute("disabled")).toBe(true);
    await userEvent.type(screen.getByRole("textbox", { name: "Title" }), "Again");
    await userEvent.click(screen.getByRole("checkbox", { name: "Osier 1" }));
    await userEvent.selectOptions(screen.getByRole("combobox"), "to all prompts");
    await userEvent.click(begin);
    await waitFor(() =>
      expect(answers.asked.find((a) => a.method === "POST")?.body).toEqual({
        title: "Again",
        candidateIds: ["teasel"],
        share: 1,
        raters: true,
      }),
    );
  });
});

const EXPECTED: Schemas["ExpectedReport"] = {
  expectations: [
    {
      accountId: "b",
      name: "Bram",
      lead: false,
      expects: "the one with the thistle",
      usesToday: "",
      declaredAt: "2026-01-02T09:00:00Z",
      byName: false,
    },
    {
      accountId: "o",
      name: "Orla",
      lead: true,
      expects: "Osier",
      usesToday: "Osier",
      declaredAt: "2026-01-01T09:00:00Z",
      candidateId: "osier",
      byName: true,
      rank: 2,
      surprised: true,
    },
  ],
  measures: [
    {
      measure: "Solved",
      higherIsBetter: true,
      claims: [{ candidateId: "osier", value: 41, source: "A page", score: 66 }],
      rho: { undefinedReason: "there are fewer than two complete pairs" },
      tauB: {},
      pairs: 1,
    },
  ],
  favourites: { raters: 3, higher: { value: 6.1, low: -2, high: 14 }, p: { value: 0.125 } },
};

describe("what was expected and claimed", () => {
  it("is matched by the lead, and tested", async () => {
    const answers = server()
      .on(`GET ${BASE}/recommendation/expected`, () => ({ body: EXPECTED }))
      .on(`GET ${BASE}/candidates`, () => ({ body: CANDIDATES }))
      .on(`GET ${BASE}/recommendation/robustness`, () => ({ body: {} }))
      .on(`PUT ${BASE}/expectations/b/match`, () => ({ status: 204, body: undefined }));
    inStudy(<ExpectedPage />, CLOSED);
    const table = await screen.findByRole("table", { name: "What people expected" });
    expect(within(table).getByRole("row", { name: /Orla/ }).textContent).toContain("2yes");
    expect(screen.getByText(/3 raters with a favourite/).textContent).toContain("p = 0.125");
    expect(screen.getByText(/No rank correlation with the scores here/)).toBeTruthy();
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Whom Bram means" }), "Teasel");
    await waitFor(() => expect(answers.asked.find((a) => a.method === "PUT")?.body).toEqual({ candidateId: "teasel" }));
  });

  it("is written down with the brief, each with its source", async () => {
    const answers = server()
      .on(`GET ${BASE}/candidates`, () => ({ body: CANDIDATES }))
      .on(`GET ${BASE}/claims`, () => ({ body: [] }))
      .on(`PUT ${BASE}/claims`, ({ body }) => ({ body: JSON.parse(JSON.stringify(body)).claims }));
    inStudy(<ClaimsPart />, PREPARING);
    await userEvent.click(await screen.findByRole("button", { name: /Add a published figure/ }));
    expect(screen.getByRole("button", { name: "Keep them" }).hasAttribute("disabled")).toBe(true);
    await userEvent.type(screen.getByRole("textbox", { name: "What was measured, of figure 1" }), "Solved");
    await userEvent.type(screen.getByRole("textbox", { name: "Where it stands, of figure 1" }), "A page");
    await userEvent.click(screen.getByRole("button", { name: "Keep them" }));
    await waitFor(() => expect(screen.queryByRole("button", { name: "Keep them" })).toBeNull());
    expect(answers.asked.find((a) => a.method === "PUT")?.body).toEqual({
      claims: [{ candidateId: "osier", measure: "Solved", value: 0, higherIsBetter: true, source: "A page" }],
    });
  });
});

describe("the stopwatch", () => {
  it("goes on when the page is loaded again", async () => {
    const measured: number[] = [];
    const watch = <Stopwatch name="a1" onMeasured={(ms) => measured.push(ms)} />;
    sessionStorage.setItem("stopwatch.a1", JSON.stringify({ since: Date.now() - 5000 }));
    inStudy(watch, PREPARING);
    await userEvent.click(await screen.findByRole("button", { name: "Stop" }));
    expect(measured[0]).toBeGreaterThanOrEqual(5000);
    expect(screen.getByRole("button", { name: "Start the stopwatch" })).toBeTruthy();
  });
});
