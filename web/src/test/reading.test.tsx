// @vitest-environment happy-dom
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { AnswerText } from "../features/desk/reading/AnswerText";
import { ChangedFiles } from "../features/desk/reading/ChangedFiles";
import { pairsOf, plainCounts, stretchesOf } from "../features/desk/reading/diff";
import { MarginContext, NotesContext } from "../features/desk/reading/notes";
import { begin, goToLine, linesIn, move, pickedLines } from "../features/desk/reading/pointing";
import { RemarkForm } from "../features/desk/RemarkForm";
import type { PlacedRemark } from "../features/desk/remarks";
import { cleanup } from "@testing-library/react";
import { asIfLaidOut } from "./laidOut";
import { aSheet } from "./sheet";

beforeEach(asIfLaidOut);
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const ANSWER =
  "# Cause\n\nThe fuse is **out**.\n\n```java\nint fuse = 0;\nlight();\n```\n\n## Fix\n\n- change it\n- try it\n";

const remark = (from: number, to: number, part: "TEXT" | "AFTER" = "TEXT", path?: string): PlacedRemark => ({
  id: `r${from}`,
  remark: {
    stance: "FAULT",
    trait: "poor name",
    words: "Hm.",
    lines: { part, from, to, quote: "", ...(path && { path }) },
  },
});

const shown = (text: string, remarks: PlacedRemark[] = [], margin: "below" | "beside" = "below") =>
  render(
    <NotesContext value={{ remarks, onOpen: () => undefined }}>
      <MarginContext value={margin}>
        <section data-column="0">
          <AnswerText text={text} />
        </section>
      </MarginContext>
    </NotesContext>,
  ).container;

const column = (page: Element) => {
  const found = page.querySelector<HTMLElement>("[data-column]");
  if (!found) {
    throw new Error("no column");
  }
  return found;
};

const at = (page: Element, line: number) =>
  [...page.querySelectorAll("[data-part='TEXT']")].find((e) => Number(e.getAttribute("data-from")) === line)
    ?.textContent;

describe("an answer's text", () => {
  it("knows its lines, in prose and in code", () => {
    const page = shown(ANSWER);
    expect(at(page, 3)).toBe("The fuse is out.");
    expect(at(page, 6)).toBe("int fuse = 0;");
    expect(at(page, 7)).toBe("light();");
    expect(at(page, 13)).toBe("try it");
  });

  it("folds by section and by block", () => {
    const page = shown(ANSWER);
    const folds = [...page.querySelectorAll("details")];
    expect(folds.map((f) => f.querySelector("summary")?.textContent)).toEqual(["Cause", "java, 2 lines", "Fix"]);
    expect(folds.every((f) => f.open)).toBe(true);
    if (folds[1]) {
      folds[1].open = false;
    }
    expect(linesIn(column(page)).map((l) => l.textContent)).not.toContain("light();");
  });

  it("shows remarks below the lines they are about", () => {
    const page = shown(ANSWER, [remark(6, 6), remark(3, 3)]);
    const notes = screen.getAllByRole("button", { name: /^Fault on line/ });
    expect(notes.map((n) => n.previousElementSibling?.textContent)).toEqual(["The fuse is out.", "int fuse = 0;"]);
    expect(page.querySelectorAll(".line-noted")).toHaveLength(2);
  });

  it("shows remarks from the first of their lines on where there is a margin beside them", () => {
    shown(ANSWER, [remark(6, 7), remark(3, 3)], "beside");
    const notes = screen.getAllByRole("button", { name: /^Fault on lines? / });
    expect(notes.map((n) => n.nextElementSibling?.textContent)).toEqual(["The fuse is out.", "int fuse = 0;"]);
  });

  it("keeps remarks on items within them, and out of what they quote", () => {
    const page = shown("- first\n- second\n", [remark(2, 2)]);
    const item = page.querySelectorAll<HTMLElement>("li")[1];
    expect(item?.querySelector("[data-remark]")).not.toBeNull();
    item?.setAttribute("data-picked", "");
    expect(pickedLines(page)?.quote).toBe("second");
  });

  it.each([
    ["a script", "<script>alert(1)</script>"],
    ["a handler", '<img src=x onerror="alert(1)">'],
    ["a frame", "<iframe src=javascript:alert(1)></iframe>"],
    ["a link that acts", "[click](javascript:alert(1))"],
    ["a picture from elsewhere", "![x](http://elsewhere.example/a.png)"],
    ["HTML in code", "```html\n<script>alert(1)</script>\n```"],
    ["a diff that is none", "```diff\n@@ nonsense @@\n+<b>x</b>\n```"],
  ])("lets nothing in it act: %s", (_, text) => {
    const page = shown(text);
    expect(page.querySelector("script, img, iframe, b, [onerror]")).toBeNull();
    expect([...page.querySelectorAll("a")].map((a) => a.getAttribute("href") ?? "")).not.toContain(
      "javascript:alert(1)",
    );
  });

  it("leaves right-to-left text its direction and code its own", () => {
    const page = shown("שלום עולם\n\n```js\nlet x;\n```\n");
    expect(page.querySelector("p")?.getAttribute("dir")).toBe("auto");
    expect(page.querySelector("code")?.getAttribute("dir")).toBe("ltr");
  });

  it("shows a very long one as lines, laid out a stretch at a time", () => {
    const page = shown(Array.from({ length: 50_000 }, (_, i) => `line ${i + 1}`).join("\n"));
    expect(screen.getByText(/very long \(50000 lines\)/)).toBeTruthy();
    expect(page.querySelectorAll("[data-stretch]")).toHaveLength(250);
    expect(page.querySelectorAll("[data-from]").length).toBe(200);
  });
});

describe("pointing at lines", () => {
  it("moves line by line and takes more with Shift", () => {
    const place = column(shown(ANSWER));
    const first = begin(place);
    expect(first?.textContent).toBe("Cause");
    const start = first ? { anchor: first, tip: first } : undefined;
    let pointer = start && move(place, start, 2, false);
    expect(pickedLines(place)).toEqual({ part: "TEXT", from: 6, to: 6, quote: "int fuse = 0;" });
    pointer = pointer && move(place, pointer, 1, true);
    expect(pickedLines(place)).toEqual({ part: "TEXT", from: 6, to: 7, quote: "int fuse = 0;\nlight();" });
    expect(pointer && move(place, pointer, 99, false).tip.textContent).toBe("try it");
  });

  it("goes to a line and opens what folds it away", () => {
    const page = shown(ANSWER);
    page.querySelectorAll("details").forEach((d) => {
      d.open = false;
    });
    goToLine(column(page), 7);
    expect(pickedLines(column(page))?.quote).toBe("light();");
    expect(page.querySelector("details")?.open).toBe(true);
  });
});

type Change = Schemas["FileChangeView"];
type Line = Schemas["ChangedLine"];

const line = (kind: Line["kind"], text: string, nature: Line["nature"] = "PLAIN"): Line => ({ kind, text, nature });
const START = "one\ntwo\nthree\nfour\nfive\nsix\nseven\n";

const change = (more: Partial<Change> = {}): Change => ({
  path: "Lamp.java",
  from: "Lamp.java",
  sort: "CHANGED",
  coarse: false,
  added: 2,
  removed: 1,
  hunks: [
    {
      before: 3,
      after: 3,
      lines: [
        line("KEPT", "three"),
        line("REMOVED", "four"),
        line("ADDED", "4"),
        line("ADDED", "4.5"),
        line("KEPT", "five"),
      ],
    },
  ],
  ...more,
});

describe("a difference", () => {
  it("is numbered on both sides, with what is kept between", () => {
    const [head, body, tail] = stretchesOf(change(), START);
    expect(head).toEqual({ sort: "kept", before: 1, after: 1, lines: ["one", "two"] });
    expect(body?.lines).toMatchObject([
      { before: 3, after: 3 },
      { before: 4 },
      { after: 4 },
      { after: 5 },
      { before: 5, after: 6 },
    ]);
    expect(tail).toEqual({ sort: "kept", before: 6, after: 7, lines: ["six", "seven"] });
  });

  it("counts what lies between even where the start is not known", () => {
    const [head] = stretchesOf(change(), undefined);
    expect(head).toMatchObject({ sort: "kept", count: 2, lines: [] });
  });

  it("sets what was removed beside what came in its place", () => {
    const body = stretchesOf(change(), START)[1];
    const pairs = body?.sort === "lines" ? pairsOf(body.lines) : [];
    expect(pairs.map((p) => [p.left?.text, p.right?.text])).toEqual([
      ["three", "three"],
      ["four", "4"],
      [undefined, "4.5"],
      ["five", "five"],
    ]);
  });

  it("tells moved lines and white space from the rest", () => {
    const moved = change({
      hunks: [
        {
          before: 1,
          after: 1,
          lines: [line("REMOVED", "a", "MOVED"), line("ADDED", "a", "MOVED"), line("ADDED", "b", "SPACING")],
        },
      ],
    });
    expect(plainCounts(moved)).toEqual({ added: 0, removed: 0, moved: 1, spacing: 1 });
    render(<ChangedFiles files={[moved]} start={new Map()} layout="inline" />);
    expect(screen.getByText(/1 moved, 1 in white space alone/)).toBeTruthy();
  });

  it("unfolds kept lines, and says what lies outside the request", async () => {
    render(
      <ChangedFiles
        files={[change()]}
        start={new Map([["Lamp.java", START]])}
        layout="inline"
        outside={["Lamp.java"]}
      />,
    );
    expect(screen.getByText("the prompt does not speak of this file")).toBeTruthy();
    expect(screen.queryByText(/seven/)).toBeNull();
    await userEvent.click(screen.getAllByRole("button", { name: /2 lines as before, show/ })[1] ?? document.body);
    expect(screen.getByText(/seven/)).toBeTruthy();
  });

  it.each(["inline", "beside"] as const)("carries remarks on its lines, %s", (layout) => {
    render(
      <NotesContext value={{ remarks: [remark(4, 4, "AFTER", "Lamp.java")], onOpen: () => undefined }}>
        <ChangedFiles files={[change()]} start={new Map()} layout={layout} />
      </NotesContext>,
    );
    expect(screen.getAllByRole("button", { name: /^Fault on line 4/ })).toHaveLength(1);
  });

  it("says what does not fit", () => {
    render(<ChangedFiles files={[change({ misfit: "line 3 reads otherwise" })]} start={new Map()} layout="inline" />);
    expect(screen.getByText("It does not fit: line 3 reads otherwise.")).toBeTruthy();
  });
});

describe("writing a remark", () => {
  const form = (more: Partial<Parameters<typeof RemarkForm>[0]> = {}) => {
    const props = { onSave: vi.fn(), onRemove: vi.fn(), onCopy: vi.fn(), onClose: vi.fn(), ...more };
    render(<RemarkForm sheet={aSheet()} remarking={{ column: 0 }} {...props} />);
    return props;
  };

  it("is typed in one go: sign, a few letters of the trait, Enter, words, Enter", async () => {
    const { onSave } = form();
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole("combobox")));
    await userEvent.keyboard("+edge{Enter}Even at zero.{Enter}");
    expect(onSave).toHaveBeenCalledWith({ stance: "CREDIT", trait: "missed an edge case", words: "Even at zero." });
  });

  it("offers traits as they are typed, and arrows choose among them", async () => {
    const { onSave } = form();
    await userEvent.keyboard("e");
    const options = within(screen.getByRole("listbox")).getAllByRole("option");
    expect(options).toHaveLength(2);
    await userEvent.keyboard("{ArrowDown}");
    expect(screen.getByRole("combobox").getAttribute("aria-activedescendant")).toBe(
      within(screen.getByRole("listbox")).getAllByRole("option")[1]?.id,
    );
    await userEvent.keyboard("{Enter}{Control>}{Enter}{/Control}");
    expect(onSave).toHaveBeenCalledTimes(1);
  });

  it("takes what is no trait as words", async () => {
    const { onSave } = form();
    await userEvent.keyboard("hm{Enter}");
    await userEvent.keyboard("{Control>}{Enter}{/Control}");
    expect(onSave).toHaveBeenCalledWith({ stance: "FAULT", trait: "", words: "hm" });
  });

  it("keeps nothing that says nothing, and is left with Escape", async () => {
    const { onSave, onClose } = form();
    await userEvent.keyboard("{Control>}{Enter}{/Control}{Escape}");
    expect(onSave).not.toHaveBeenCalled();
    expect(onClose).toHaveBeenCalled();
  });

  it("says the same of another answer", async () => {
    const editing = { id: "r", remark: { stance: "FAULT" as const, trait: "", words: "Halved." } };
    const { onCopy, onRemove } = form({ remarking: { column: 0, editing } });
    await userEvent.click(screen.getByRole("button", { name: "answer 3" }));
    expect(onCopy).toHaveBeenCalledWith(2, editing.remark);
    await userEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(onRemove).toHaveBeenCalled();
  });
});
