// @vitest-environment happy-dom
import { inStudy, server, type ServerDouble } from "./page";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Outlet, Route, Routes } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Unreachable } from "../api/client";
import { dropCopies, forgetCopies, isCopy, keepCopy, keptCopy, orCopy } from "../api/copies";
import { useSession, useSignOut } from "../features/account";
import { DeskPage } from "../features/desk/DeskPage";
import { BrowserCaches } from "./browserCaches";
import { asIfLaidOut } from "./laidOut";
import { answerOn, aSheet } from "./sheet";

let browser = new BrowserCaches();

beforeEach(() => {
  browser = new BrowserCaches();
  vi.stubGlobal("caches", browser);
  asIfLaidOut();
});

const lost = <T,>() => Promise.reject<T>(new Unreachable());

describe("copies", () => {
  it("stand in while the server cannot be reached, and say so", async () => {
    await keptCopy("sheets", Promise.resolve(["one"]));
    expect(isCopy("sheets")).toBe(false);
    await waitFor(async () => expect(await orCopy("sheets", lost())).toEqual(["one"]));
    expect(isCopy("sheets")).toBe(true);
    expect(await keptCopy("sheets", Promise.resolve(["one", "two"]))).toEqual(["one", "two"]);
    expect(isCopy("sheets")).toBe(false);
  });

  it("are waited for once, not for each part of a page, until the server answers again", async () => {
    vi.useFakeTimers();
    await Promise.all(["session", "sheets", "sheets/1"].map((name) => keepCopy(name, `copy of ${name}`)));
    const hanging = new Promise<string>(() => undefined);
    const first = orCopy("session", hanging);
    await vi.advanceTimersByTimeAsync(1_500);
    expect(await first).toBe("copy of session");
    const second = orCopy("sheets", hanging);
    await vi.advanceTimersByTimeAsync(1);
    expect(await second).toBe("copy of sheets");
    const again = orCopy("sheets", new Promise<string>((resolve) => setTimeout(() => resolve("new"), 1_000)));
    await vi.advanceTimersByTimeAsync(1_000);
    expect(await again).toBe("new");
    const third = orCopy("sheets/1", new Promise<string>((resolve) => setTimeout(() => resolve("new"), 1_000)));
    await vi.advanceTimersByTimeAsync(1_000);
    expect(await third).toBe("new");
    vi.useRealTimers();
  });

  it("stand in for nothing that the server refused", async () => {
    await keepCopy("sheets", ["one"]);
    await expect(orCopy("sheets", Promise.reject(new Error("not yours")))).rejects.toThrow("not yours");
    await expect(orCopy("others", lost())).rejects.toThrow(Unreachable);
  });

  it("go by name, with what belongs to it", async () => {
    await Promise.all(["sheets/1", "sheets/1/code/a", "sheets/12", "sheets"].map((name) => keepCopy(name, name)));
    await dropCopies("sheets/1");
    expect((await browser.kept()).map((path) => path.replace("/mossbank.copies/", ""))).toEqual([
      "sheets/12",
      "sheets",
    ]);
    await forgetCopies();
    expect(await browser.kept()).toEqual([]);
  });

  const denied = () => Promise.reject(new DOMException("Denied", "SecurityError"));

  it.each([
    ["has no store for them", undefined],
    ["lets the page keep nothing", { open: denied, delete: denied }],
  ])("are done without where the browser %s", async (_, store) => {
    vi.stubGlobal("caches", store);
    expect(await keptCopy("sheets", Promise.resolve(1))).toBe(1);
    await expect(orCopy("sheets", lost())).rejects.toThrow(Unreachable);
    await dropCopies("sheets");
    await forgetCopies();
  });
});

describe("the desk without a connection", () => {
  const sheet = aSheet({
    answers: [
      answerOn("a", 1, { grades: [{ criterionId: "right", level: 2, notApplicable: false, revision: 1 }] }),
      answerOn("b", 2),
    ],
  });

  function open() {
    const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    return render(
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={["/sheets/sheet"]}>
          <Routes>
            <Route element={<Outlet context={{ id: "me", displayName: "Me" }} />}>
              <Route path="sheets/:sheetId" element={<DeskPage />} />
            </Route>
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>,
    );
  }

  const grade = { revision: 1 };
  const reachable = (double: ServerDouble) =>
    double
      .on("GET /api/sheets/sheet", () => ({ body: sheet }))
      .on("PUT /api/sheets/sheet/answers/a/grades/runs", () => ({ body: grade }))
      .on("PUT /api/sheets/sheet/answers/b/grades/right", () => ({ body: grade }))
      .on("PUT /api/sheets/sheet/time", () => ({ body: null }));

  it("opens with what was given before, saved or not, and sends it when the connection is back", async () => {
    reachable(server());
    const first = open();
    await screen.findByRole("grid");
    await userEvent.keyboard("1");
    await screen.findByText("All saved");
    await waitFor(async () => {
      const copy = await (await browser.open("mossbank.copies")).match("/mossbank.copies/sheets/sheet");
      expect(await copy?.text()).toContain('"criterionId":"runs","revision":1,"level":1');
    });
    first.unmount();

    const gone = server();
    const refuse = () => {
      throw new TypeError("Failed to fetch");
    };
    gone.on("GET /api/sheets/sheet", refuse).on("PUT /api/sheets/sheet/answers/b/grades/right", refuse);
    const second = open();
    expect(await screen.findByText("No connection: the sheet as it was here last")).toBeTruthy();
    expect(screen.getByLabelText(/^Correctness, answer 1, level 2/)).toBeTruthy();
    expect(screen.getByLabelText(/^Compiles, answer 1, level 1/)).toBeTruthy();
    await userEvent.keyboard("3");
    await screen.findByText("No connection: 1 change kept here, sent when it is back");
    second.unmount();
    open();
    expect(await screen.findByLabelText(/^Correctness, answer 2, level 3/)).toBeTruthy();

    const back = reachable(server());
    expect(await screen.findByText("All saved")).toBeTruthy();
    await waitFor(() =>
      expect(back.asked.filter((a) => a.method === "PUT" && a.path.includes("grades"))).toHaveLength(1),
    );
  });

  it("keeps no copy of a sheet that is sent in", async () => {
    await keepCopy("sheets/sheet", sheet);
    server().on("GET /api/sheets/sheet", () => ({ body: { ...sheet, sent: true } }));
    open();
    await screen.findByText("This sheet is sent in.");
    await waitFor(async () => expect(await browser.kept()).toEqual([]));
  });
});

describe("copies and who is signed in", () => {
  function Session() {
    const session = useSession();
    const out = useSignOut();
    return <button onClick={() => out.mutate()}>{session.data?.account?.displayName ?? "nobody"}</button>;
  }

  it("go with whoever signs out", async () => {
    await keepCopy("sheets/1", "hers");
    server()
      .on("GET /api/session", () => ({ body: { account: { id: "me", displayName: "Me" } } }))
      .on("DELETE /api/session", () => ({ body: null }));
    inStudy(<Session />);
    (await screen.findByRole("button", { name: "Me" })).click();
    await screen.findByRole("button", { name: "nobody" });
    await waitFor(async () => expect(await browser.kept()).toEqual([]));
  });

  it("go when the server says that nobody is signed in", async () => {
    await keepCopy("sheets/1", "hers");
    server().on("GET /api/session", () => ({ body: {} }));
    inStudy(<Session />);
    await screen.findByRole("button", { name: "nobody" });
    await waitFor(async () => expect(await browser.kept()).toEqual([]));
  });
});
