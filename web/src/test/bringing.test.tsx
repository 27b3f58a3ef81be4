// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { BringInPage } from "../features/archive";

const job = (more: Partial<Schemas["ImportView"]>): Schemas["ImportView"] => ({
  id: "00000000-0000-0000-0000-000000000001",
  file: "of spring.zip",
  begunAt: "2026-03-10T09:00:00Z",
  state: "RUNNING",
  stage: "writing sheets",
  done: 30,
  total: 120,
  faults: [],
  ...more,
});

function at(address: string) {
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={[address]}>
        <BringInPage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

describe("an archive on its way in", () => {
  it("is found again, says how far it is, and can be given up", async () => {
    let given = false;
    server()
      .on("GET /api/imports", () => ({ body: given ? [] : [job({})] }))
      .on("DELETE /api/imports/00000000-0000-0000-0000-000000000001", () => {
        given = true;
        return { body: job({ state: "CANCELLED" }) };
      });
    at("/bring-in");
    const bar = await screen.findByRole("progressbar", { name: "writing sheets" });
    expect(bar.getAttribute("aria-valuenow")).toBe("25");
    expect(screen.getByText(/25 %/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Give it up" }));
    expect(await screen.findByText("Drop the zip file here, or choose it")).toBeDefined();
  });

  it("says that the very file is there already, instead of making a second study", async () => {
    const brought = {
      studyId: "00000000-0000-0000-0000-000000000002",
      title: "Spring",
      invitations: [],
      notes: [],
      thereSince: "2026-03-09T08:00:00Z",
    };
    server().on("GET /api/imports/00000000-0000-0000-0000-000000000001", () => ({
      body: job({ state: "DONE", brought }),
    }));
    at("/bring-in?import=00000000-0000-0000-0000-000000000001");
    expect((await screen.findByRole("status")).textContent).toContain("Nothing was done now");
  });

  it("says what is wrong, and what is not known any more", async () => {
    server().on("GET /api/imports/00000000-0000-0000-0000-000000000001", () => ({
      body: job({
        state: "REFUSED",
        detail: "One thing is wrong.",
        faults: [{ file: "grades.csv", line: 7, field: "level", expected: "a number", found: "x" }],
      }),
    }));
    at("/bring-in?import=00000000-0000-0000-0000-000000000001");
    expect((await screen.findByRole("alert")).textContent).toContain("One thing is wrong.");
    expect(screen.getByText("grades.csv")).toBeDefined();
  });

  it("says so when the server does not know of it any more", async () => {
    server().on("GET /api/imports/00000000-0000-0000-0000-000000000001", () => ({
      status: 404,
      body: { type: "https://mossbank.example/problems/not-found", title: "Not found", status: 404 },
    }));
    at("/bring-in?import=00000000-0000-0000-0000-000000000001");
    expect((await screen.findByRole("alert")).textContent).toContain("sending the same file again makes no second one");
  });
});
