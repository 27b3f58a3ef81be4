// @vitest-environment happy-dom
import { inStudy, server } from "./page";
import { deskWith, item, panel } from "./triedDesk";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { pageRows, TrialItems } from "../features/evidence";
import { type Content, likely } from "../features/trial/CheckPage";
import { FRESH_PAGE, PageFields } from "../features/trial/PageFields";
import { asIfLaidOut } from "./laidOut";

beforeEach(asIfLaidOut);

const OPENED = "1280 × 800, step 1: open index.html";
const CLICKED = "1280 × 800, step 2: click button “Leave …”";

const step = (name: string, more: Partial<Schemas["CheckItem"]> = {}) => item({ sort: "PAGE", name, ...more });
const picture = (at: number, more: Partial<Schemas["PictureOnSheet"]> = {}): Schemas["PictureOnSheet"] => ({
  width: 1280,
  height: 800,
  step: at,
  text: "Your grades stay.",
  isHeld: false,
  ...more,
});

const result = (items: Schemas["CheckItem"][], pictures: Schemas["PictureOnSheet"][]): Schemas["ResultOnSheet"] => ({
  summary: { outcome: "PASSED", passed: items.length, asked: items.length },
  items,
  messages: [],
  log: "",
  pictures,
});

const tried = (answerId: string, of: Schemas["ResultOnSheet"]): Schemas["TrialOnSheet"] => ({
  answerId,
  awaitsGrade: false,
  turns: [{ turn: 0, summary: of.summary, times: 1, isFlaky: false }],
  result: of,
  repairs: [],
});

const WRONG = "the focus is on button “Leave”, not on button “Stay”";

const SHEET: Schemas["TrialsOnSheet"] = {
  shown: "FROM_THE_START",
  takesInput: false,
  inputsLeft: 40,
  answers: [
    tried(
      "a",
      result(
        [step(OPENED), step(CLICKED, { outcome: "WRONG_OUTPUT", why: WRONG })],
        [picture(0), picture(1, { isHeld: true, text: "" })],
      ),
    ),
    tried("b", result([step(OPENED), step(CLICKED)], [picture(0), picture(1)])),
  ],
};

describe("pages at the desk", () => {
  it("stand side by side, step by step, with how each was", async () => {
    await deskWith(SHEET);
    await userEvent.keyboard("e");
    const here = within(await panel());
    const row = await here.findByRole("row", { name: /step 2: click button/ });
    expect(within(row).getByText(`not as it must be, ${WRONG}`)).toBeTruthy();
    expect(within(row).getByText("passed")).toBeTruthy();
    expect(within(row).getByText("Its picture is held back: it may name who wrote it.")).toBeTruthy();
    expect(here.getByRole("button", { name: `Enlarge answer 2, ${CLICKED}` }).querySelector("img")?.src).toContain(
      "/api/sheets/sheet/answers/b/pictures/1",
    );
  });

  it("are enlarged by one key, and arrows go to other answers and steps", async () => {
    await deskWith(SHEET);
    await userEvent.keyboard("z");
    const enlarged = () => screen.findByRole("dialog");
    expect(await screen.findByRole("dialog", { name: `Answer 1: ${OPENED}` })).toBeTruthy();
    await userEvent.keyboard("{ArrowRight}{ArrowDown}");
    expect(await screen.findByRole("dialog", { name: `Answer 2: ${CLICKED}` })).toBeTruthy();
    expect(
      within(await enlarged())
        .getByRole("img")
        .getAttribute("src"),
    ).toBe("/api/sheets/sheet/answers/b/pictures/1");
    await userEvent.keyboard("{ArrowDown}{ArrowRight}");
    expect(screen.getByRole("dialog", { name: `Answer 2: ${CLICKED}` })).toBeTruthy();
    await userEvent.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(await panel()).toBeTruthy();
  });

  it("keep keys of the desk out while one is enlarged", async () => {
    const double = await deskWith(SHEET);
    await userEvent.keyboard("z");
    await screen.findByRole("dialog");
    await userEvent.keyboard("es");
    expect(screen.getByRole("dialog")).toBeTruthy();
    expect(double.asked.filter((a) => a.method === "POST")).toEqual([]);
  });

  it("say where a picture cannot be fetched", async () => {
    await deskWith(SHEET);
    await userEvent.keyboard("e");
    const here = within(await panel());
    const button = await here.findByRole("button", { name: `Enlarge answer 2, ${OPENED}` });
    fireEvent.error(within(button).getByRole("img"));
    expect(here.getByText("The picture cannot be fetched now.")).toBeTruthy();
  });
});

describe("a page in a trial", () => {
  it("is told step by step, its pictures by their place", async () => {
    server();
    const told = result([step(OPENED), step(CLICKED, { outcome: "CRASHED", why: "it was not come to" })], [picture(0)]);
    const pictures = told.pictures.map((p) => ({ ...p, unread: true }));
    inStudy(<TrialItems result={{ ...told, pictures }} pictureAt={(place) => `/pictures/${place}`} />);
    expect(screen.getByText(/Not all of it can be read as text/)).toBeTruthy();
    const list = within(screen.getByRole("list", { name: "Pictures of the page" }));
    expect(list.getAllByRole("img").map((i) => i.getAttribute("src"))).toEqual(["/pictures/0"]);
    expect(list.getByText("There is no picture.")).toBeTruthy();
    await userEvent.click(list.getByRole("button", { name: `Enlarge ${OPENED}` }));
    expect(screen.getByRole("dialog", { name: OPENED })).toBeTruthy();
  });

  it("has the rows of all sizes, and what was not tried is left open", () => {
    const small = "390 × 800, step 1: open index.html";
    const one = result([step(OPENED), step(small)], [picture(0), picture(0, { width: 390 })]);
    const rows = pageRows([one, undefined], [(p) => `/one/${p}`, (p) => `/two/${p}`]);
    expect(rows.map((r) => r.name)).toEqual([OPENED, small]);
    expect(rows.map((r) => r.cells.map((c) => c?.src))).toEqual([
      ["/one/0", undefined],
      ["/one/1", undefined],
    ]);
  });
});

describe("what a check asks of a page", () => {
  const CONTENT: Content = {
    toolchain: "page",
    files: [],
    build: "",
    run: "",
    runs: [],
    limits: { seconds: 20, memoryMb: 768, processes: 128, outputKb: 256 },
    withoutCode: "FAILS",
  };

  /** The form, with what it has come to. */
  function filledIn(content: Content) {
    const came: Content[] = [content];
    function Form() {
      const [value, setValue] = useState(content);
      return (
        <PageFields
          content={value}
          onContent={(next) => {
            came.push(next);
            setValue(next);
          }}
        />
      );
    }
    server();
    inStudy(<Form />);
    return () => came.at(-1)?.page;
  }

  it.each([
    ["HTML and JavaScript", "page"],
    ["React 19", "page"],
    ["TypeScript 5.4", "typescript"],
    ["C++ 20", "cpp"],
    ["", "c"],
    ["Fortran", "c"],
  ])("is proposed for %s by %s", (language, key) => {
    const offered = [
      ["c", "C"],
      ["cpp", "C++"],
      ["page", "Page (HTML, TypeScript, React)"],
      ["typescript", "TypeScript"],
    ].map(([of = "", title = ""]): Schemas["ToolchainView"] => ({
      key: of,
      title,
      version: "1",
      build: "",
      run: "",
      test: "",
      reports: { format: "TAP", reports: "" },
      loose: { path: "a", before: "", after: "", importsFirst: false },
    }));
    expect(likely(offered, language)?.key).toBe(key);
  });

  it("begins with opening a page, and can be taken away", async () => {
    const page = filledIn(CONTENT);
    await userEvent.click(screen.getByRole("checkbox", { name: /A page is opened/ }));
    expect(page()).toEqual(FRESH_PAGE);
    await userEvent.click(screen.getByRole("checkbox", { name: /A page is opened/ }));
    expect(page()).toBeUndefined();
  });

  it("takes steps with what must be seen after them", async () => {
    const page = filledIn({ ...CONTENT, page: FRESH_PAGE });
    await userEvent.click(screen.getByRole("button", { name: "Add a step" }));
    fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Leave …" } });
    await userEvent.click(screen.getByRole("button", { name: "Add what must be seen after step 2" }));
    await userEvent.selectOptions(screen.getByLabelText("After step 2, sight 1"), "what has the focus");
    fireEvent.change(screen.getAllByLabelText("Name").at(-1) ?? document.body, { target: { value: "Stay" } });
    await userEvent.click(screen.getByRole("button", { name: "Add a step" }));
    await userEvent.selectOptions(screen.getByLabelText("Step 3"), "press keys");
    expect(page()?.steps.slice(1)).toEqual([
      {
        action: "CLICK",
        role: "button",
        name: "Leave …",
        text: "",
        sights: [{ how: "FOCUS", role: "button", name: "Stay", text: "", absent: false }],
      },
      { action: "PRESS", role: "", name: "", text: "Tab", sights: [] },
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Take out sight 1 of step 2" }));
    await userEvent.click(screen.getByRole("button", { name: "Take out step 3" }));
    expect(page()?.steps.map((s) => [s.action, s.sights.length])).toEqual([
      ["OPEN", 0],
      ["CLICK", 0],
    ]);
  });

  it("takes up to three sizes", async () => {
    const page = filledIn({ ...CONTENT, page: FRESH_PAGE });
    await userEvent.click(screen.getByRole("button", { name: "Add a size" }));
    await userEvent.click(screen.getByRole("button", { name: "Add a size" }));
    expect(screen.queryByRole("button", { name: "Add a size" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Take out size 2" }));
    expect(page()?.sizes).toEqual([
      { width: 1280, height: 800 },
      { width: 390, height: 800 },
    ]);
  });
});
