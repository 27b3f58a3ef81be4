// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { DeletedStudies, StudyList } from "../features/study";

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
          <Route
            path="/"
            element={
              <>
                <StudyList />
                <DeletedStudies />
              </>
            }
          />
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

  it("are deleted by whoever writes the title and shows who they are, and brought back", async () => {
    let deleted = false;
    let proved = false;
    const gone: Schemas["DeletedStudy"] = {
      id: "s1",
      title: "Study 1",
      role: "LEAD",
      deletedAt: "2026-03-02T08:00:00Z",
      deletedBy: "Orla Fennick",
      goesAt: "2026-04-01T08:00:00Z",
      inBackupsUntil: "2026-05-06T08:00:00Z",
    };
    const { asked } = server()
      .on("GET /api/my-studies", () => ({ body: { studies: deleted ? [] : [line(1)], total: 1, away: 0 } }))
      .on("GET /api/deleted-studies", () => ({ body: deleted ? [gone] : [] }))
      .on("GET /api/sign-in", () => ({ body: { passwords: true, providers: [] } }))
      .on("GET /api/account", () => ({ body: { account: { hasPassword: true }, sessions: [] } }))
      .on("GET /api/account/identities", () => ({ body: [] }))
      .on("POST /api/account/proof", ({ body }) => {
        proved = JSON.stringify(body) === '{"password":"tide and lantern"}';
        return proved
          ? { body: {} }
          : {
              status: 400,
              body: {
                type: "https://mossbank.example/problems/invalid-request",
                title: "Invalid request",
                status: 400,
                errors: [{ field: "password", message: "is not your password" }],
              },
            };
      })
      .on("POST /api/studies/s1/deletion", () => {
        deleted = proved;
        return proved
          ? { body: {} }
          : {
              status: 403,
              body: {
                type: "https://mossbank.example/problems/proof-needed",
                title: "Show who you are",
                status: 403,
              },
            };
      })
      .on("POST /api/deleted-studies/s1/undo", () => {
        deleted = false;
        return { body: {} };
      });
    list();
    await userEvent.click(await screen.findByRole("button", { name: "More for Study 1" }));
    await userEvent.click(await screen.findByRole("menuitem", { name: "Delete …" }));
    const title = await screen.findByLabelText(/^Its title/);
    await userEvent.type(title, "Study");
    expect(screen.getByRole("button", { name: "Delete it" })).toHaveProperty("disabled", true);
    await userEvent.type(title, " 1");
    await userEvent.click(screen.getByRole("button", { name: "Delete it" }));
    const password = await screen.findByLabelText(/^Your password/);
    await userEvent.type(password, "wrong{Enter}");
    expect(await screen.findByText("is not your password")).toBeDefined();
    await userEvent.clear(password);
    await userEvent.type(password, "tide and lantern{Enter}");
    expect(await screen.findByText(/by Orla Fennick; gone for good after/)).toBeDefined();
    expect(asked.filter((a) => a.path.endsWith("/deletion"))).toHaveLength(2);
    expect(screen.queryByRole("dialog")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Bring back Study 1" }));
    expect(await screen.findByRole("link", { name: "Study 1" })).toBeDefined();
    expect(screen.queryByText("Deleted")).toBeNull();
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
