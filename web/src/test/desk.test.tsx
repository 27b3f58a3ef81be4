// @vitest-environment happy-dom
import { inStudy, server } from "./page";
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { useQuery } from "@tanstack/react-query";
import { oneSheet } from "../features/desk/api";
import { SheetDesk } from "../features/desk/SheetDesk";
import { asIfLaidOut } from "./laidOut";
import { answerOn, aSheet } from "./sheet";

beforeEach(asIfLaidOut);

const CODE = "Here it is.\n\n```java\nint fuse = 1;\nlight();\n```\n";

/** A desk on a sheet that the server double keeps; what is sent to it is in `asked`. */
async function desk(change: Partial<Schemas["SheetView"]> = {}) {
  const answers = [answerOn("a", 1, { text: CODE, hasCode: true }), answerOn("b", 2, { text: "Change the fuse." })];
  const sheet = aSheet({ answers, ...change });
  const double = server();
  for (const answer of sheet.answers) {
    const on = `PUT /api/sheets/sheet/answers/${answer.id}`;
    for (const part of ["/grades/right", "/grades/runs", "/reason", "/works", "/coverage/0", "/coverage/1"]) {
      double.on(on + part, () => ({ body: { revision: 1 } }));
    }
  }
  let ids = 0;
  vi.spyOn(crypto, "randomUUID").mockImplementation(() => `0-0-0-0-${++ids}`);
  for (let id = 1; id < 40; id++) {
    double.on(`PUT /api/sheets/sheet/answers/a/remarks/0-0-0-0-${id}`, () => ({ body: { revision: 1 } }));
  }
  double.on("GET /api/sheets/sheet", () => ({ body: sheet }));
  double.on("PUT /api/sheets/sheet/time", () => ({ body: null }));
  double.on("POST /api/sheets/sheet/send", () => ({ body: { nextSheetId: "next" } }));
  inStudy(<Kept />);
  await screen.findByRole("grid");
  return double;
}

/** The desk on what the client holds of the sheet, as its page has it. */
function Kept() {
  const sheet = useQuery({ ...oneSheet("sheet"), staleTime: Infinity });
  return sheet.data ? <SheetDesk sheet={sheet.data} accountId="me" fromCopy={false} /> : null;
}

const here = () => document.activeElement?.getAttribute("aria-label") ?? "";
const puts = (double: Awaited<ReturnType<typeof desk>>) =>
  double.asked.filter((a) => a.method === "PUT" && !a.path.endsWith("/time"));

describe("the desk", () => {
  it("is ready for the keys where the work goes on", async () => {
    const graded = answerOn("a", 1, {
      grades: [{ criterionId: "right", level: 2, notApplicable: false, revision: 1 }],
    });
    await desk({ answers: [graded, answerOn("b", 2)] });
    expect(here()).toBe("Compiles, answer 1, no grade");
  });

  it("sends what is given, and undoes and does it again", async () => {
    const double = await desk();
    await userEvent.keyboard("2");
    await waitFor(() => expect(puts(double)).toHaveLength(1));
    expect(here()).toMatch(/level 2/);
    await userEvent.keyboard("{Control>}z{/Control}");
    expect(here()).toMatch(/no grade/);
    await userEvent.keyboard("{Control>}{Shift>}z{/Shift}{/Control}");
    expect(here()).toMatch(/level 2/);
    await waitFor(() => expect(puts(double)).toHaveLength(3));
    expect(puts(double).map((a) => a.body)).toMatchObject([
      { level: 2, baseRevision: 0 },
      { notApplicable: false },
      { level: 2 },
    ]);
  });

  it("sends nothing in before everything is there: a list of what is missing, each a jump", async () => {
    const double = await desk();
    await userEvent.keyboard("3{ArrowRight}1s");
    const alert = await screen.findByRole("alert");
    expect(alert.textContent).toContain("3 things are missing");
    expect(here()).toBe("Compiles, answer 1, no grade");
    await userEvent.click(
      screen.getByRole("button", { name: "Answer 1: a reason, as Correctness is 3, an end of the scale" }),
    );
    expect(here()).toBe("Reason for the grades of answer 1");
    await userEvent.keyboard("So.{Escape}");
    expect(here()).toMatch(/^Correctness, answer 1/);
    expect(alert.textContent).toContain("2 things are missing");
    expect(double.asked.some((a) => a.path.endsWith("/send"))).toBe(false);
  });

  it("sends a whole sheet in and goes to the next", async () => {
    const double = await desk();
    await userEvent.keyboard("2{ArrowRight}2{ArrowDown}1{ArrowLeft}1s");
    await waitFor(() => expect(double.asked.some((a) => a.path === "/api/sheets/sheet/send")).toBe(true));
    expect(puts(double)).toHaveLength(4);
  });

  it("turns to the key points and back, and to other views, by one key each", async () => {
    await desk();
    await userEvent.keyboard("k");
    expect(screen.getByRole("grid", { name: "Key points" })).toBeTruthy();
    expect(here()).toBe("Names the fuse, answer 1, nothing yet");
    await userEvent.keyboard("1k");
    expect(here()).toMatch(/^Correctness, answer 1/);
    // The prompt gave way when judging began.
    expect(screen.queryByRole("region", { name: "Prompt" })).toBeNull();
    await userEvent.keyboard("p");
    expect(screen.getByRole("region", { name: "Prompt" })).toBeTruthy();
    await userEvent.keyboard("v");
    expect(screen.getAllByRole("gridcell").length).toBeGreaterThan(0);
    await userEvent.keyboard("v");
    expect(screen.queryByText("Why these grades")).toBeNull();
    expect(document.querySelectorAll("[data-cell^='0-']")).toHaveLength(1);
    await userEvent.keyboard("vp");
    expect(screen.queryByRole("region", { name: "Prompt" })).toBeNull();
    await userEvent.keyboard("b");
    expect(screen.getByText("The prompt comes without code.")).toBeTruthy();
    await userEvent.keyboard("?");
    expect(await screen.findByText("Keys at the desk")).toBeTruthy();
  });

  it("folds everything and opens it again, the answer in focus at once", async () => {
    await desk();
    const folds = () => [...document.querySelectorAll<HTMLDetailsElement>("details.fold")].map((f) => f.open);
    expect(folds()).toEqual([true]);
    await userEvent.keyboard("f");
    expect(folds()).toEqual([false]);
    await userEvent.keyboard("f");
    expect(folds()).toEqual([true]);
  });

  it("remarks on lines that were pointed at, and leaves the lines with Escape", async () => {
    const double = await desk();
    await userEvent.keyboard("l{ArrowDown}{Shift>}{ArrowDown}{/Shift}r");
    expect(screen.getByText(/on answer 1, lines 4 to 5/)).toBeTruthy();
    await userEvent.keyboard("-edge{Enter}Never off.{Enter}");
    const note = await screen.findByRole("button", { name: /^Fault on lines 4 to 5: missed an edge case. Never off./ });
    expect(note.previousElementSibling?.textContent).toBe("light();");
    expect(here()).toMatch(/^Correctness, answer 1/);
    const sent = double.asked.find((a) => a.path.includes("/remarks/"));
    expect(sent?.body).toMatchObject({
      remark: { stance: "FAULT", lines: { part: "TEXT", from: 4, to: 5, quote: "int fuse = 1;\nlight();" } },
    });
    await userEvent.keyboard("m{Delete}");
    await waitFor(() => expect(screen.queryByRole("button", { name: /^Fault on/ })).toBeNull());
  });

  it("hears no keys of its own while somebody types or chooses", async () => {
    const double = await desk();
    await userEvent.keyboard("q");
    await userEvent.keyboard("fuse{Enter}");
    expect(await screen.findByText(/1 of 2 lines: answer 1, line 4/)).toBeTruthy();
    await userEvent.keyboard("s");
    expect(screen.queryByRole("alert")).toBeNull();
    await userEvent.keyboard("{Escape}");
    expect(here()).toMatch(/^Correctness/);
    expect(puts(double)).toHaveLength(0);
  });

  it("says what speaks against a grade, and lets it stand", async () => {
    await desk();
    await userEvent.keyboard("k1{ArrowDown}1k0");
    expect(await screen.findByText(/Answer 1: all key points are covered, and Correctness is 0/)).toBeTruthy();
  });

  it("changes nothing on a sheet that was withdrawn, and says why", async () => {
    const double = await desk({ withdrawn: "Was a trial." });
    expect(screen.getByText(/The lead has withdrawn this sheet: Was a trial./)).toBeTruthy();
    await userEvent.keyboard("2rs");
    expect(puts(double)).toHaveLength(0);
    expect(screen.queryByRole("form")).toBeNull();
  });
});
