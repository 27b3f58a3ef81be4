// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { server } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { SignedInLayout } from "../app/SignedInLayout";
import { AccountPage } from "../features/account/AccountPage";
import { deliver } from "../features/desk/deliver";
import { AskedFor } from "../features/study";

const account = (id: string, displayName: string): Schemas["AccountView"] => ({
  id,
  signInName: id,
  displayName,
  hasPassword: true,
  mayBringIn: false,
  canSignIn: true,
  administrator: false,
  active: true,
});

function at(address: string) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 0 } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>
        <Routes>
          <Route element={<SignedInLayout />}>
            <Route path="account" element={<AccountPage />} />
            <Route
              path="/"
              element={
                <>
                  <AskedFor />
                  <p>the page</p>
                </>
              }
            />
          </Route>
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return client;
}

describe("a link to any page", () => {
  it("is copied from the menu, which says whether it is", async () => {
    server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/asked", () => ({ body: [] }));
    at("/");
    const write = vi.spyOn(navigator.clipboard, "writeText").mockRejectedValueOnce(new Error("forbidden"));
    await userEvent.click(await screen.findByRole("button", { name: /Åse Lund/ }));
    await userEvent.click(await screen.findByRole("menuitem", { name: "Copy a link to this page" }));
    await userEvent.click(await screen.findByRole("menuitem", { name: "Not copied: take it from the address line" }));
    expect(await screen.findByRole("menuitem", { name: "Copied" })).toBeTruthy();
    expect(write).toHaveBeenLastCalledWith(window.location.href);
    write.mockRestore();
  });
});

describe("a page whose owner is not signed in any more", () => {
  it("stands still, says so, and goes on when its owner is back", async () => {
    let who = account("ase", "Åse Lund");
    server()
      .on("GET /api/session", () => ({ body: { account: who } }))
      .on("GET /api/asked", () => ({ body: [] }));
    const client = at("/");
    await screen.findByText("the page");
    who = account("bo", "Bo Ek");
    await client.invalidateQueries({ queryKey: ["session"] });
    await screen.findByRole("heading", { name: "Somebody else signed in here" });
    expect(screen.getByText(/Bo Ek has signed in/).textContent).toContain("this page is Åse Lund’s");
    expect(screen.queryByText("the page")).toBeNull();
    who = account("ase", "Åse Lund");
    expect(await screen.findByText("the page")).toBeDefined();
  });

  it("keeps what it has when one question for the session fails", async () => {
    let fails = false;
    const problem = { type: "https://mossbank.example/problems/database-away", title: "Away", status: 503 };
    server()
      .on("GET /api/session", () =>
        fails ? { status: 503, body: problem } : { body: { account: account("ase", "Åse Lund") } },
      )
      .on("GET /api/asked", () => ({ body: [] }));
    const client = at("/");
    await screen.findByText("the page");
    fails = true;
    await client.invalidateQueries({ queryKey: ["session"] });
    expect(screen.getByText("the page")).toBeDefined();
  });
});

describe("sending a change", () => {
  const change = {
    kind: "reason" as const,
    changeId: "1",
    baseRevision: 0,
    answerId: "a",
    text: "So.",
  };
  const path = "PUT /api/sheets/s/answers/a/reason";
  const refused = (status: number, type: string, more: object = {}) => ({
    status,
    body: { type: `https://mossbank.example/problems/${type}`, title: type, status, ...more },
  });

  it.each([
    [refused(409, "other-account"), { result: "other-account" }],
    [refused(401, "not-signed-in"), { result: "signed-out" }],
    [refused(503, "database-away", { detail: "Away." }), { result: "unreachable", trouble: "Away." }],
    [refused(507, "database-full", { detail: "Full." }), { result: "unreachable", trouble: "Full." }],
    [refused(409, "changed-elsewhere"), { result: "refused", message: "changed-elsewhere" }],
    [refused(404, "not-found"), { result: "refused", message: "not-found" }],
  ])("tells apart what is to be kept, tried again and shown", async (answer, outcome) => {
    server().on(path, () => answer);
    expect(await deliver("ase", "s", change)).toEqual(outcome);
  });

  it("is told what stands now when another window went on from it", async () => {
    server().on(path, () => ({ body: { revision: 1, now: { text: "Or not.", revision: 2 } } }));
    expect(await deliver("ase", "s", change)).toEqual({
      result: "saved",
      revision: 1,
      now: { value: { kind: "reason", answerId: "a", text: "Or not." }, revision: 2 },
    });
  });
});

describe("one's own account", () => {
  const session = (handle: string, here: boolean) => ({
    handle,
    device: "Firefox, Linux",
    address: "192.0.2.7",
    begunAt: "2026-03-02T08:00:00Z",
    lastUsedAt: "2026-03-03T08:00:00Z",
    here,
  });

  const own = (otherSessions: number) => ({
    account: account("ase", "Åse Lund"),
    otherSessions,
    preferences: { timeZone: "Asia/Tokyo" },
    sessions: [session("h0", true), ...Array.from({ length: otherSessions }, (_, i) => session(`h${i + 1}`, false))],
  });

  it("shows where one is signed in, in the zone one chose, and ends one of them", async () => {
    const { asked } = server()
      .on("GET /api/session", () => ({
        body: { account: account("ase", "Åse Lund"), preferences: { timeZone: "Asia/Tokyo" } },
      }))
      .on("GET /api/account", () => ({ body: own(1) }))
      .on("DELETE /api/account/sessions/h1", () => ({ body: own(0) }));
    at("/account");
    expect((await screen.findAllByText("3 Mar 2026, 17:00")).length).toBe(2);
    await userEvent.click(screen.getByRole("button", { name: /^Sign out of Firefox, Linux/ }));
    await waitFor(() => expect(screen.queryByRole("button", { name: /^Sign out/ })).toBeNull());
    expect(asked.some((a) => a.method === "DELETE")).toBe(true);
  });

  it("keeps name, look and zone", async () => {
    const { asked } = server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/account", () => ({ body: own(0) }))
      .on("PUT /api/account", () => ({ body: own(0) }));
    at("/account");
    const name = await screen.findByLabelText("Your name, as others see it");
    await userEvent.type(name, "-Ek");
    await userEvent.selectOptions(screen.getByLabelText("Look"), "dark");
    await userEvent.selectOptions(screen.getByLabelText("Times are shown in"), "Europe/Oslo");
    await userEvent.click(screen.getByRole("button", { name: "Keep it so" }));
    expect(await screen.findByText(/^Kept/)).toBeDefined();
    expect(asked.find((a) => a.method === "PUT")?.body).toEqual({
      displayName: "Åse Lund-Ek",
      preferences: { theme: "DARK", timeZone: "Europe/Oslo" },
    });
  });

  it("adds a provider, and takes it off again", async () => {
    const went = vi.spyOn(location, "assign").mockImplementation(() => undefined);
    let identities = [{ provider: "island", name: "Island", shownAs: "ase-l", usedAt: "2026-03-02T08:00:00Z" }];
    server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/account", () => ({ body: own(0) }))
      .on("GET /api/sign-in", () => ({ body: { passwords: true, providers: [{ id: "harbour", name: "Harbour" }] } }))
      .on("GET /api/account/identities", () => ({ body: identities }))
      .on("POST /api/account/identities/harbour", () => ({ body: { address: "/api/sign-in/harbour" } }))
      .on("DELETE /api/account/identities/island", () => {
        identities = [];
        return { body: identities };
      });
    at("/account?refused=known-already");
    expect(await screen.findByText(/you are somebody else here already/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Not by Island any more" }));
    await waitFor(() => expect(screen.queryByText(/ase-l/)).toBeNull());
    await userEvent.click(screen.getByRole("button", { name: "Sign in by Harbour as well" }));
    await waitFor(() => expect(went).toHaveBeenCalledWith("/api/sign-in/harbour"));
  });

  it("takes another password, and says in which other browsers one is", async () => {
    const { asked } = server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/account", () => ({ body: own(2) }))
      .on("PUT /api/account/password", () => ({ body: own(0) }));
    at("/account");
    expect(await screen.findByRole("button", { name: "Sign out everywhere else" })).toBeDefined();
    await userEvent.type(screen.getByLabelText("The one you have now"), "a long one");
    await userEvent.type(screen.getByLabelText("The new one"), "a longer one yet");
    await userEvent.type(screen.getByLabelText("The same again"), "another one");
    await userEvent.click(screen.getByRole("button", { name: "Change the password" }));
    expect(await screen.findByText("The two are not the same.")).toBeDefined();
    await userEvent.clear(screen.getByLabelText("The same again"));
    await userEvent.type(screen.getByLabelText("The same again"), "a longer one yet");
    await userEvent.click(screen.getByRole("button", { name: "Change the password" }));
    expect(await screen.findByText("Your password is changed.")).toBeDefined();
    expect(screen.queryByRole("button", { name: "Sign out everywhere else" })).toBeNull();
    expect(asked.filter((a) => a.method === "PUT").map((a) => a.body)).toEqual([
      { current: "a long one", password: "a longer one yet" },
    ]);
  });
});

describe("a study that asks for somebody", () => {
  it("is accepted with one press", async () => {
    let open = [{ studyId: "s1", title: "The tide desk", lead: "Orla Fennick", role: "RATER" }];
    const { asked } = server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/asked", () => ({ body: open }))
      .on("POST /api/asked/s1", () => {
        open = [];
        return { body: {} };
      });
    at("/");
    expect(await screen.findByText(/asks you to grade in “The tide desk”/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "Accept" }));
    await waitFor(() => expect(screen.queryByText(/asks you to grade/)).toBeNull());
    expect(asked.some((a) => a.method === "POST" && a.path === "/api/asked/s1")).toBe(true);
  });
});

describe("mail", () => {
  it("takes an address, says what is still to be done, and forgets it again", async () => {
    const mail = (more: object) => ({
      address: "ase@harbour.example",
      confirmed: false,
      digest: true,
      reminders: true,
      ...more,
    });
    let now: object = { on: true };
    const { asked } = server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/account", () => ({
        body: { account: account("ase", "Åse Lund"), otherSessions: 0, preferences: {}, sessions: [] },
      }))
      .on("GET /api/account/mail", () => ({ body: now }))
      .on("PUT /api/account/mail", () => {
        now = { on: true, mail: mail({ digest: false }) };
        return { body: now };
      })
      .on("DELETE /api/account/mail", () => {
        now = { on: true };
        return { body: now };
      });
    at("/account");
    await userEvent.type(await screen.findByLabelText("Your address"), "ase@harbour.example");
    await userEvent.click(screen.getByLabelText("A letter in the morning, on days when something waits"));
    await userEvent.click(screen.getByRole("button", { name: "Take this address" }));
    expect(await screen.findByText(/A letter is on its way/)).toBeDefined();
    expect(asked.find((a) => a.method === "PUT")?.body).toEqual({
      address: "ase@harbour.example",
      digest: false,
      reminders: true,
    });
    await userEvent.click(screen.getByRole("button", { name: "Forget the address" }));
    expect(await screen.findByRole("button", { name: "Take this address" })).toBeDefined();
  });

  it("says of an address that takes none why", async () => {
    server()
      .on("GET /api/session", () => ({ body: { account: account("ase", "Åse Lund") } }))
      .on("GET /api/account", () => ({
        body: { account: account("ase", "Åse Lund"), otherSessions: 0, preferences: {}, sessions: [] },
      }))
      .on("GET /api/account/mail", () => ({
        body: {
          on: true,
          mail: { address: "a@b.example", confirmed: true, digest: true, reminders: true, trouble: "it is full" },
        },
      }));
    at("/account");
    expect(await screen.findByText("No mail reaches it: it is full.")).toBeDefined();
  });
});
