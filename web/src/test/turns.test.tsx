// @vitest-environment happy-dom
import { inStudy, server, STUDY } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { TurnVerdict } from "../features/turn/TurnVerdict";
import { WhereNeeded } from "../features/turn/WhereNeeded";
import { WorkPage } from "../features/turn/WorkPage";

const BASE = "/api/studies/s1";
const CLOSED = { ...STUDY, stage: "CLOSED" as const };

const said = (answerId: string, turn: number, verdict: Schemas["Said"]["verdict"]): Schemas["Said"] => ({
  answerId,
  turn,
  verdict,
  at: "2026-03-10T09:00:00Z",
  by: "Orla",
});

const REPORT: Schemas["WorkReport"] = {
  candidates: [{ id: "osier", name: "Osier" }],
  parts: [
    {
      kind: "",
      rows: [
        {
          candidateId: "osier",
          answers: 8,
          said: 6,
          asIs: 2,
          repaired: 1,
          not: 1,
          gaveUp: 1,
          saidDone: 1,
          split: 0,
          share: { value: 0.333, low: 0.04, high: 0.78 },
          turns: { toWork: [3, 2], never: 1, unknown: 2, mended: 2, broke: 1, stuck: 1, mean: { value: 0.4 } },
        },
      ],
    },
  ],
  courses: [
    {
      answerId: "a1",
      promptId: "p1",
      title: "Why dark?",
      candidateId: "osier",
      attempt: 1,
      marks: [{ verdict: "DOES_NOT", byRaters: false }, { verdict: "DOES", byRaters: true }, { byRaters: false }],
    },
  ],
  more: 0,
};

describe("whether replies do what was asked", () => {
  it("is said by the lead, and taken back", async () => {
    const answers = server()
      .on(`GET ${BASE}/turn-verdicts`, () => ({ body: [] }))
      .on(`PUT ${BASE}/answers/a1/turns/1/verdict`, ({ body }) => ({
        body: JSON.stringify(body) === "{}" ? [] : [said("a1", 1, "SAID_DONE")],
      }));
    inStudy(<TurnVerdict answerId="a1" turn={1} mayWrite />);
    const choice = await screen.findByRole("combobox", { name: "Does the reply to follow-up 1 do?" });
    await userEvent.selectOptions(choice, "says it is done, and is not");
    await waitFor(() => expect(screen.getByText(/^Orla, /)).toBeTruthy());
    expect(answers.asked.at(-1)?.body).toEqual({ verdict: "SAID_DONE" });
    await userEvent.selectOptions(choice, "nobody said yet");
    await waitFor(() => expect(screen.queryByText(/^Orla, /)).toBeNull());
    expect(answers.asked.at(-1)?.body).toEqual({});
  });

  it("lets only those be asked on that do not", async () => {
    server().on(`GET ${BASE}/turn-verdicts`, () => ({
      body: [said("a1", 0, "DOES_NOT"), said("a1", 1, "DOES"), said("a2", 0, "GAVE_UP")],
    }));
    inStudy(<WhereNeeded />);
    const ask = await screen.findByRole("button", { name: "Ask the next follow-up where it does not do" });
    expect(ask.hasAttribute("disabled")).toBe(true);
    expect(screen.getByText(/Of 2 answers looked at, 1 does what was asked and 1 gave up/)).toBeTruthy();
  });

  it("is counted by candidate, with what each follow-up did", async () => {
    server().on(`GET ${BASE}/recommendation/work`, () => ({ body: REPORT }));
    inStudy(<WorkPage />, CLOSED);
    const works = await screen.findByRole("table", { name: "How many answers work, by raters’ word" });
    expect(within(works).getByRole("row", { name: /Osier/ }).textContent).toContain("2 of 64 % to 78 %");
    const turns = screen.getByRole("table", { name: "After how many follow-ups answers do what was asked" });
    expect(within(turns).getByRole("columnheader", { name: "At once" })).toBeTruthy();
    const course = within(screen.getByRole("table", { name: /from turn to turn/ })).getByRole("row", { name: /dark/ });
    expect(course.textContent).toContain("does not→ mended: does (raters)→ nobody said");
  });
});
