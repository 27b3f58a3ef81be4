// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { StudyList } from "../features/study";

const line = (n: number, more: Partial<Schemas["StudyLine"]> = {}): Schemas["StudyLine"] => ({
  id: `s${n}`,
  title: `Study ${n}`,
  createdAt: "2026-03-02T08:00:00Z",
  role: "LEAD",
  stage: "GRADING",
  ...more,
});

function list(address = "/") {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>
        <Routes>
          <Route path="/" element={<StudyList />} />
          <Route path="/studies/:id/brief" element={<p>the brief</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

describe("studies to look through", () => {
  it("say what waits, and open only where there is something to see", async () => {
    server().on("GET /api/my-studies", () => ({
      body: { studies: [line(1, { waits: "3 of 9 sheets are in" }), line(2, { role: "READER" })], total: 2, away: 0 },
    }));
    list();
    expect(await screen.findByText("3 of 9 sheets are in")).toBeDefined();
    expect(screen.getByRole("link", { name: "Study 1" }).getAttribute("href")).toBe("/studies/s1/brief");
    expect(screen.queryByRole("link", { name: "Study 2" })).toBeNull();
    expect(screen.queryByLabelText("Find by title")).toBeNull();
  });

  it("are narrowed by what stands in the address, and go on page by page", async () => {
    const many = (from: number) => Array.from({ length: 25 }, (_, i) => line(from + i));
    const { asked } = server().on("GET /api/my-studies", ({ query }) => ({
      body: { studies: query.get("from") === "25" ? [line(25)] : many(0), total: 26, away: 0 },
    }));
    list("/?state=CLOSED&order=TITLE");
    await userEvent.click(await screen.findByRole("button", { name: "Show more" }));
    expect(await screen.findByText("Study 25")).toBeDefined();
    await userEvent.type(screen.getByLabelText("Find by title"), "tide");
    await waitFor(() => expect(asked.at(-1)?.query.toString()).toBe("order=TITLE&from=0&part=tide&stage=CLOSED"));
  });

  it("are put away and brought back", async () => {
    let away = false;
    server()
      .on("GET /api/my-studies", ({ query }) => ({
        body: {
          studies:
            (query.get("away") === "true") === away ? [line(1, away ? { putAwayAt: "2026-03-02T08:00:00Z" } : {})] : [],
          total: 1,
          away: away ? 1 : 0,
        },
      }))
      .on("POST /api/studies/s1/put-away", () => {
        away = true;
        return { body: {} };
      })
      .on("POST /api/studies/s1/bring-back", () => {
        away = false;
        return { body: {} };
      });
    list();
    await userEvent.click(await screen.findByRole("button", { name: "More for Study 1" }));
    await userEvent.click(await screen.findByRole("menuitem", { name: "Put away" }));
    await userEvent.click(await screen.findByLabelText("Those put away (1)"));
    await userEvent.click(await screen.findByRole("button", { name: "More for Study 1" }));
    await userEvent.click(await screen.findByRole("menuitem", { name: "Bring back" }));
    expect(await screen.findByText("No study is like this.")).toBeDefined();
  });

  it("are made a second time, with their answers if one wants", async () => {
    const { asked } = server()
      .on("GET /api/my-studies", () => ({ body: { studies: [line(1)], total: 1, away: 0 } }))
      .on("POST /api/studies/s1/copies", () => ({ body: { studyId: "s2" } }));
    list();
    await userEvent.click(await screen.findByRole("button", { name: "More for Study 1" }));
    await userEvent.click(await screen.findByRole("menuitem", { name: "Make a second one" }));
    await userEvent.click(await screen.findByLabelText("With its answers, and what masks them"));
    await userEvent.click(screen.getByRole("button", { name: "Make it" }));
    expect(await screen.findByText("the brief")).toBeDefined();
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({ title: "Study 1, again", answers: true });
  });
});
