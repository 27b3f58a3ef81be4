// @vitest-environment happy-dom
import { inStudy, server } from "./page";
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { HomePage } from "../app/HomePage";
import { LeftBehind, Reminders } from "../features/desk";

const CHANGE = {
  kind: "works",
  answerId: "a1",
  works: "AS_IS",
  changeId: "c1",
  baseRevision: 0,
};
const KEY = "mossbank.outbox.me.sheet1.window-of-before";
const PATH = "/api/sheets/sheet1/answers/a1/works";

describe("what an earlier visit left behind", () => {
  it("is sent from the first page, under its id, and then forgotten", async () => {
    localStorage.setItem(KEY, JSON.stringify({ queue: [CHANGE], conflicts: [] }));
    const answers = server().on(`PUT ${PATH}`, () => ({ body: { revision: 1 } }));
    inStudy(<LeftBehind accountId="me" />);
    await waitFor(() => expect(answers.asked).toHaveLength(1));
    expect(answers.asked[0]).toMatchObject({ path: PATH, body: { changeId: "c1", baseRevision: 0, works: "AS_IS" } });
    await waitFor(() => expect(Object.keys(localStorage).filter((k) => k.startsWith("mossbank.outbox"))).toEqual([]));
    expect(screen.queryByRole("status")).toBeNull();
  });

  it("is left to its rater: nobody else's is sent", async () => {
    localStorage.setItem(KEY, JSON.stringify({ queue: [CHANGE], conflicts: [] }));
    const answers = server();
    inStudy(<LeftBehind accountId="another" />);
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(answers.asked).toHaveLength(0);
    expect(localStorage.getItem(KEY)).not.toBeNull();
  });

  it("is told, with the way to it, while it needs the rater", async () => {
    localStorage.setItem(KEY, JSON.stringify({ queue: [CHANGE], conflicts: [] }));
    server().on(`PUT ${PATH}`, () => ({
      status: 409,
      body: {
        type: "https://mossbank.example/problems/changed-elsewhere",
        title: "Changed elsewhere",
        status: 409,
        current: { works: "NOT", revision: 3 },
      },
    }));
    inStudy(<LeftBehind accountId="me" />);
    const link = await screen.findByRole("link", { name: "sheet 1" });
    expect(link.getAttribute("href")).toBe("/sheets/sheet1");
    expect(JSON.stringify(localStorage)).toContain('\\"NOT\\"');
  });
});

describe("the first page of a rater", () => {
  const SHEET = {
    id: "sheet1",
    studyId: "s1",
    studyTitle: "Tides",
    promptTitle: "Why?",
    kind: "Debugging",
    place: 1,
    made: 0,
    cells: 3,
    roundClosed: false,
    setAside: false,
    withdrawn: false,
  };

  it("is there once what stands above the sheets has come, so that nothing moves under the pointer", async () => {
    let come: ((splits: { body: unknown }) => void) | undefined;
    server()
      .on("GET /api/sheets", () => ({ body: [SHEET] }))
      .on("GET /api/studies", () => ({ body: [] }))
      .on("GET /api/splits", () => new Promise((resolve) => (come = resolve)));
    inStudy(<HomePage />);
    await waitFor(() => expect(come !== undefined && screen.queryByText(/Fetching/) === null).toBe(true));
    expect(screen.queryByText("Grade the next sheet")).toBeNull();
    come?.({ body: { splits: [], later: 3 } });
    expect(await screen.findByText("Grade the next sheet")).toBeDefined();
    expect(screen.getByText(/3 splits open to you/)).toBeDefined();
  });

  it("waits for it no longer than a moment", async () => {
    server()
      .on("GET /api/sheets", () => ({ body: [SHEET] }))
      .on("GET /api/studies", () => ({ body: [] }))
      .on("GET /api/splits", () => new Promise(() => undefined));
    inStudy(<HomePage />);
    expect(await screen.findByText("Grade the next sheet")).toBeDefined();
  });

  it("has the studies that ended last, and earlier ones for whoever wants them", async () => {
    const ended = { ...SHEET, roundClosed: true, sentAt: "2026-11-25T09:00:00Z" };
    server()
      .on("GET /api/sheets", ({ query }) => ({
        body: [
          [{ ...ended, studyTitle: "The last" }],
          [{ ...ended, id: "sheet2", studyId: "s2", studyTitle: "One before" }],
          [],
        ][Number(query.get("earlier"))],
      }))
      .on("GET /api/studies", () => ({ body: [] }));
    inStudy(<HomePage />);
    await userEvent.click(await screen.findByRole("button", { name: "Show earlier studies" }));
    expect(screen.getAllByRole("heading", { level: 2 }).map((h) => h.textContent)).toEqual(["The last", "One before"]);
    await waitFor(() => expect(screen.queryByRole("button", { name: "Show earlier studies" })).toBeNull());
  });

  it("says when earlier studies could not be fetched, and tries again", async () => {
    let away = true;
    server()
      .on("GET /api/sheets", ({ query }) =>
        query.has("earlier") && away
          ? {
              status: 503,
              body: { type: "https://mossbank.example/problems/database-away", title: "Away", status: 503 },
            }
          : { body: [{ ...SHEET, roundClosed: true, studyTitle: query.has("earlier") ? "One before" : "The last" }] },
      )
      .on("GET /api/studies", () => ({ body: [] }));
    inStudy(<HomePage />);
    const again = await screen.findByRole("button", { name: "Try again" });
    expect(screen.getByRole("alert").textContent).toContain("earlier studies");
    away = false;
    await userEvent.click(again);
    await userEvent.click(await screen.findByRole("button", { name: "Show earlier studies" }));
    expect(await screen.findByText("One before")).toBeDefined();
  });

  it("offers no earlier studies where there are none", async () => {
    const answers = server()
      .on("GET /api/sheets", ({ query }) => ({ body: query.has("earlier") ? [] : [{ ...SHEET, roundClosed: true }] }))
      .on("GET /api/studies", () => ({ body: [] }));
    inStudy(<HomePage />);
    await screen.findByText("Tides");
    await waitFor(() => expect(answers.asked.some((a) => a.query.get("earlier") === "1")).toBe(true));
    expect(screen.queryByRole("button", { name: "Show earlier studies" })).toBeNull();
  });

  it("keeps what is being prepared apart from the sheets there are", async () => {
    server()
      .on("GET /api/sheets", () => ({ body: [SHEET] }))
      .on("GET /api/studies", () => ({
        body: [{ id: "s2", title: "The next one", role: "RATER", stage: "PREPARING", blind: true }],
      }))
      .on("GET /api/asked", () => ({ body: [] }))
      .on("GET /api/reminders", () => ({ body: [] }))
      .on("GET /api/read-backs", () => ({ body: [] }));
    inStudy(<HomePage />);
    expect(await screen.findByRole("heading", { name: "Being prepared", level: 2 })).toBeDefined();
    expect(screen.getAllByRole("heading", { level: 1 }).map((h) => h.textContent)).toEqual(["1 sheet left to grade"]);
    expect(screen.getByRole("heading", { name: "The next one", level: 3 })).toBeDefined();
  });
});

describe("reminders", () => {
  it("stand until they are put away, as the text they are", async () => {
    let there = true;
    const answers = server()
      .on("GET /api/reminders", () => ({
        body: there
          ? [
              {
                id: "m1",
                studyId: "s1",
                studyTitle: "Tides",
                by: "Orla",
                words: "<b>Two</b> left.",
                sentAt: "2026-11-25T09:00:00Z",
              },
            ]
          : [],
      }))
      .on("POST /api/reminders/m1/put-away", () => {
        there = false;
        return { body: null };
      });
    inStudy(<Reminders />);
    expect(await screen.findByText("<b>Two</b> left.")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Put away" }));
    await waitFor(() => expect(screen.queryByText("<b>Two</b> left.")).toBeNull());
    expect(answers.asked.some((a) => a.path === "/api/reminders/m1/put-away")).toBe(true);
  });
});
