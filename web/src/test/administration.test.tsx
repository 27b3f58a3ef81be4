// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { inStudy, server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it } from "vitest";
import { actFor, type Schemas } from "../api/client";
import { AccountsPage } from "../features/administration";
import { AuditTable } from "../features/audit";
import { PeoplePage } from "../features/study/PeoplePage";
import { PEOPLE } from "./people";

function at(page: React.ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>{page}</MemoryRouter>
    </QueryClientProvider>,
  );
}

const account = (id: string, more: Partial<Schemas["AccountView"]> = {}): Schemas["AccountView"] => ({
  id,
  signInName: id,
  displayName: id.toUpperCase(),
  hasPassword: true,
  mayBringIn: false,
  canSignIn: true,
  administrator: false,
  active: true,
  ...more,
});

describe("the accounts of all", () => {
  it("are ticked what they may do, one right at a time", async () => {
    const { asked } = server()
      .on("GET /api/accounts", () => ({ body: { accounts: [account("ase"), account("bo", { mayBringIn: true })] } }))
      .on("PUT /api/accounts/bo/rights", () => ({ body: account("bo") }));
    at(<AccountsPage />);
    await userEvent.click(await screen.findByLabelText("Administrator: BO"));
    await waitFor(() =>
      expect(asked.find((a) => a.method === "PUT")?.body).toEqual({ mayBringIn: true, administrator: true }),
    );
  });

  it("are deactivated once it was asked, never one's own, and come back", async () => {
    actFor("ase");
    let bo = account("bo");
    server()
      .on("GET /api/accounts", () => ({ body: { accounts: [account("ase"), bo] } }))
      .on("POST /api/accounts/bo/deactivate", () => {
        bo = account("bo", { active: false });
        return { body: bo };
      })
      .on("POST /api/accounts/bo/reactivate", () => {
        bo = account("bo");
        return { body: bo };
      });
    at(<AccountsPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Deactivate BO" }));
    expect(screen.queryByRole("button", { name: "Deactivate ASE" })).toBeNull();
    await userEvent.click(within(screen.getByRole("dialog")).getByRole("button", { name: "Deactivate" }));
    await userEvent.click(await screen.findByRole("button", { name: "Let BO in again" }));
    expect(await screen.findByRole("button", { name: "Deactivate BO" })).toBeDefined();
    actFor(undefined);
  });

  it("are made with a link to pass on, and go on page by page", async () => {
    const { asked } = server()
      .on("GET /api/accounts", ({ query }) => ({
        body:
          query.get("after") === "ase" ? { accounts: [account("bo")] } : { accounts: [account("ase")], next: "ase" },
      }))
      .on("POST /api/accounts", () => ({
        body: {
          account: account("cyd"),
          invitation: { accountId: "cyd", name: "Cyd Ny", signInName: "cyd", token: "t0ken" },
        },
      }));
    at(<AccountsPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Show more" }));
    expect(await screen.findByText("BO")).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Make an account" }));
    await userEvent.type(screen.getByLabelText("Name"), "Cyd Ny");
    await userEvent.click(screen.getByRole("button", { name: "Make it" }));
    expect(await screen.findByText(/welcome#t0ken$/)).toBeDefined();
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({
      name: "Cyd Ny",
      signInName: "cyd",
      mayBringIn: true,
    });
  });
});

describe("an account whose invitation goes by mail", () => {
  it("is said to, as there is no link to pass on", async () => {
    server()
      .on("GET /api/accounts", () => ({ body: { accounts: [account("ase")] } }))
      .on("GET /api/mail", () => ({ body: { on: true } }))
      .on("POST /api/accounts", () => ({ body: { account: account("cyd") } }));
    at(<AccountsPage />);
    await userEvent.click(await screen.findByRole("button", { name: "Make an account" }));
    await userEvent.type(screen.getByLabelText("Name"), "Cyd Ny");
    await userEvent.type(await screen.findByLabelText("Address for mail"), "cyd@harbour.example");
    await userEvent.click(screen.getByRole("button", { name: "Make it" }));
    expect(await screen.findByText("An invitation goes to CYD by mail.")).toBeDefined();
  });
});

describe("what was done", () => {
  const events = [
    { number: 9, at: "2026-03-02T08:00:00Z", sort: "ROUND_CLOSED", who: "mira", address: "192.0.2.7", studyId: "s1" },
    { number: 8, at: "2026-03-02T07:00:00Z", sort: "SIGN_IN_REFUSED", who: "", address: "192.0.2.8", subject: "" },
  ];

  it("is told in words, narrowed, and taken away as it is narrowed", async () => {
    const { asked } = server().on("GET /api/audit-events", () => ({ body: { events } }));
    at(<AuditTable />);
    expect(await screen.findByRole("rowheader", { name: "Round closed" })).toBeDefined();
    expect(screen.getByText("told in the study")).toBeDefined();
    expect(screen.getByText("nobody signed in")).toBeDefined();
    await userEvent.type(screen.getByLabelText("Who"), "mira");
    await userEvent.selectOptions(screen.getByLabelText("What"), "ROUND_CLOSED");
    await waitFor(() => expect(asked.at(-1)?.query.toString()).toBe("who=mira&sort=ROUND_CLOSED"));
    expect(screen.getByRole("link", { name: "Save as JSON Lines" }).getAttribute("href")).toBe(
      "/api/audit-events/lines?who=mira&sort=ROUND_CLOSED",
    );
  });

  it("says where nothing of a sort was done", async () => {
    server().on("GET /api/audit-events", () => ({ body: { events: [] } }));
    at(<AuditTable />);
    expect(await screen.findByText("Nothing of this sort was done.")).toBeDefined();
  });
});

describe("the people of a study", () => {
  it("are let lead and handed the study once it was asked, and the only lead cannot step back", async () => {
    actFor("p1");
    const { asked } = server()
      .on("GET /api/studies/s1/people", () => ({ body: PEOPLE }))
      .on("POST /api/studies/s1/hand-over/p2", () => ({ body: {} }));
    inStudy(<PeoplePage />);
    await userEvent.click(await screen.findByRole("button", { name: "Hand over to Åse Lund" }));
    expect(screen.queryByRole("button", { name: "Step back" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Hand it over" }));
    await waitFor(() => expect(asked.some((a) => a.path === "/api/studies/s1/hand-over/p2")).toBe(true));
    expect(await screen.findByText("the first page")).toBeDefined();
    actFor(undefined);
  });

  it("have left under their names, or under numbers, as the lead says", async () => {
    const [mira, ase] = PEOPLE;
    const { asked } = server()
      .on("GET /api/studies/s1/people", () => ({
        body: [mira, { ...ase, name: "Former rater 1", signInName: "", left: true }],
      }))
      .on("GET /api/studies/s1/leavers", () => ({ body: { shown: "BY_NUMBER" } }))
      .on("PUT /api/studies/s1/leavers", ({ body }) => ({ body }));
    inStudy(<PeoplePage />);
    expect(await screen.findByRole("row", { name: /Former rater 1.*has left/ })).toBeDefined();
    expect(screen.queryByRole("button", { name: /Hand over/ })).toBeNull();
    const choice = await screen.findByLabelText("Their grades stay");
    expect(choice).toHaveProperty("value", "BY_NUMBER");
    await userEvent.selectOptions(choice, "BY_NAME");
    await waitFor(() => expect(asked.find((a) => a.method === "PUT")?.body).toEqual({ shown: "BY_NAME" }));
  });

  it("are said by the name they have, where the sign-in name is taken", async () => {
    server()
      .on("GET /api/studies/s1/people", () => ({ body: PEOPLE }))
      .on("POST /api/studies/s1/raters", () => ({ body: { accountId: "p3", name: "Bo Lind", asked: false } }));
    inStudy(<PeoplePage />);
    await userEvent.type(await screen.findByLabelText("Name"), "Bo Ek");
    await userEvent.click(screen.getByRole("button", { name: "Add" }));
    expect(await screen.findByText(/Whoever signs in as bo is called Bo Lind here/)).toBeDefined();
  });

  it("are added as leads and readers", async () => {
    const { asked } = server()
      .on("GET /api/studies/s1/people", () => ({ body: PEOPLE }))
      .on("POST /api/studies/s1/raters", () => ({ body: { accountId: "p3", name: "Bo Ek", asked: true } }));
    inStudy(<PeoplePage />);
    await userEvent.type(await screen.findByLabelText("Name"), "Bo Ek");
    await userEvent.selectOptions(screen.getByLabelText("As"), "READER");
    await userEvent.click(screen.getByRole("button", { name: "Add" }));
    expect(await screen.findByText(/They are asked/)).toBeDefined();
    expect(asked.find((a) => a.method === "POST")?.body).toEqual({ name: "Bo Ek", signInName: "bo", role: "READER" });
  });
});
