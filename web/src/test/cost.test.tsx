// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { CostPage } from "../features/cost/CostPage";
import { drawnOf } from "../features/cost/measures";
import { addressedUse, withUse } from "../features/cost/use";
import { svgText } from "../ui/pictured";

const BASE = "/api/studies/s1";
const TEAM = `${BASE}/recommendation/team-costs`;
const CLOSED = { ...STUDY, stage: "CLOSED" as const };

const row = (id: string, name: string, score: number, cost: number | undefined): Schemas["CostRow"] => ({
  candidateId: id,
  name,
  ruledOut: id === "sedge",
  score: { value: score, low: score - 5, high: score + 5 },
  cost: cost === undefined ? { undefinedReason: "some of its answers were not measured" } : { value: cost },
  time: { value: 4000 },
  tokens: {},
  answers: 8,
  empty: id === "osier" ? 1 : 0,
  wasted: { value: 0.2 },
  judged: 4,
  working: 2,
  oneThatWorks: {},
});

const REPORT: Schemas["CostReport"] = {
  currency: "EUR",
  prompts: 8,
  rows: [row("osier", "Osier", 70, 0.5), row("teasel", "Teasel", 60, undefined), row("sedge", "Sedge", 80, 0.9)],
  fronts: [{ measure: "COST", candidateIds: ["osier"] }],
  dots: [{ candidateId: "osier", promptId: "p1", title: "Why dark?", score: 65, cost: 0.4 }],
  more: 0,
};

const team = (people: number): Schemas["TeamCostReport"] => ({
  use: { people, tasksPerDay: 10, daysPerMonth: 21 },
  tasks: people * 210,
  currency: "EUR",
  rows: [
    {
      candidateId: "osier",
      name: "Osier",
      ruledOut: false,
      ways: [
        { way: "PLAN", monthly: 30 * people, currency: "EUR", done: 200 * people, stopped: 10 * people, aTask: 0.15 },
      ],
      capUncounted: false,
    },
    { candidateId: "teasel", name: "Teasel", ruledOut: false, ways: [], capUncounted: true },
  ],
  front: [],
});

const put = (answers: ReturnType<typeof server>) => answers.asked.filter((a) => a.method === "PUT");

async function page() {
  const answers = server()
    .on(`GET ${BASE}/recommendation/costs`, () => ({ body: REPORT }))
    .on(`GET ${TEAM}`, () => ({ body: team(1) }))
    .on(`POST ${TEAM}`, (asked) => ({ body: team(Number(/"people":(\d+)/.exec(JSON.stringify(asked.body))?.[1])) }))
    .on(`PUT ${BASE}/stated-use`, () => ({ body: {} }));
  inStudy(<CostPage />, CLOSED);
  await screen.findByRole("table", { name: "What answers took, by candidate" });
  return answers;
}

describe("cost and time", () => {
  it("says what answers took, and what is not known", async () => {
    await page();
    const table = screen.getByRole("table", { name: "What answers took, by candidate" });
    const osier = within(table).getByRole("row", { name: /Osier/ });
    expect(osier.textContent).toContain("0.5000 EUR");
    expect(osier.textContent).toContain("2 of 4");
    expect(osier.textContent).toContain("1 answerpaid 0.2000 EUR");
    expect(within(table).getByRole("row", { name: /Teasel/ }).textContent).toContain("not known");
    expect(within(table).getByRole("row", { name: /Sedge/ }).textContent).toContain("ruled out by a fact");
    expect(screen.getByText(/Not drawn, as a figure is missing: Teasel/)).toBeTruthy();
  });

  it("prices a month of another use without keeping it, and keeps it when asked to", async () => {
    const answers = await page();
    const people = await screen.findByRole("textbox", { name: "People" });
    await userEvent.clear(people);
    await userEvent.type(people, "12");
    await waitFor(() => expect(screen.getByText("2520 tasks a month.")).toBeTruthy());
    expect(put(answers)).toHaveLength(0);
    await userEvent.click(screen.getByRole("button", { name: "State this use; the memo prices it" }));
    await waitFor(() => expect(put(answers)[0]?.body).toEqual({ people: 12, tasksPerDay: 10, daysPerMonth: 21 }));
  });

  it("draws who has both figures, and marks whom a fact rules out", () => {
    const drawn = drawnOf(REPORT, "cost", undefined);
    expect(drawn.marks.map((m) => [m.name, m.front, m.ruledOut])).toEqual([
      ["Osier", true, false],
      ["Sedge", false, true],
    ]);
    expect(drawn.left).toEqual(["Teasel"]);
    expect(drawnOf(REPORT, "month", team(2)).marks.map((m) => m.taken.value)).toEqual([60]);
  });

  it("asks about no use that nobody can mean", () => {
    const asked = withUse(new URLSearchParams("kind=k"), { people: 3, tasksPerDay: 0.5, daysPerMonth: 20 });
    expect(asked.get("kind")).toBe("k");
    expect(addressedUse(asked)).toEqual({ people: 3, tasksPerDay: 0.5, daysPerMonth: 20 });
    asked.set("people", "2.5");
    expect(addressedUse(asked)).toBeUndefined();
    expect(addressedUse(withUse(asked, undefined))).toBeUndefined();
  });

  it("takes a drawing with its colours along", async () => {
    await page();
    const svg = document.querySelector("figure svg");
    expect(svg).toBeInstanceOf(SVGSVGElement);
    if (svg instanceof SVGSVGElement) {
      const text = svgText(svg);
      expect(text).toContain("Osier");
      expect(text).not.toContain("class=");
    }
  });
});
