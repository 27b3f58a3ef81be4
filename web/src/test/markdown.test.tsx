// @vitest-environment happy-dom
import { cleanup, render, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, test } from "vitest";
import { Code } from "../ui/Code";
import { Markdown } from "../ui/Markdown";

afterEach(cleanup);

const shown = (text: string) => render(<Markdown text={text} />).container;

describe("hostile text", () => {
  test.each([
    ["a script", "<script>window.stolen = 1</script>"],
    ["a script in code", "```html\n</code></pre><script>window.stolen = 1</script>\n```"],
    ["a script in a code span", "`</code><script>window.stolen = 1</script>`"],
    ["a picture with a handler", '<img src="x" onerror="window.stolen = 1">'],
    ["a frame", '<iframe src="https://elsewhere.example"></iframe>'],
    ["a style sheet", '<link rel="stylesheet" href="https://elsewhere.example/x.css">'],
    ["a style", "<style>* { display: none }</style>"],
    ["a drawing with a handler", '<svg onload="window.stolen = 1"><a/></svg>'],
    ["a form", '<form action="https://elsewhere.example"><input name="password"></form>'],
    ["a base address", '<base href="https://elsewhere.example/">'],
  ])("%s stays text", (_, text) => {
    const page = shown(text);
    expect(page.querySelector("script, img, iframe, link, style, svg, form, base")).toBeNull();
    expect([...page.querySelectorAll("*")].flatMap((e) => e.getAttributeNames()).join(" ")).not.toMatch(/\bon[a-z]+/);
  });

  test.each(["javascript:alert(1)", "JaVaScRiPt:alert(1)", "data:text/html,<script>1</script>", "vbscript:x"])(
    "an address %s leads nowhere",
    (address) => {
      const link = shown(`[read on](${address.replaceAll("<", "%3C").replaceAll(">", "%3E")})`).querySelector("a");
      expect(link?.getAttribute("href") ?? "").toBe("");
    },
  );

  it("loads no picture from anywhere", () => {
    const page = shown("![a chart](https://elsewhere.example/seen?by=rater) ![](https://elsewhere.example/2)");
    expect(page.querySelector("img")).toBeNull();
    expect(page.innerHTML).not.toContain("elsewhere.example");
    expect(page.textContent).toContain("[picture: a chart]");
    expect(page.textContent).toContain("[picture: no description]");
  });

  it("tells a linked page nothing of where the reader came from", () => {
    const link = shown("[docs](https://docs.example/a)").querySelector("a");
    expect(link?.getAttribute("rel")).toBe("noopener noreferrer nofollow");
    expect(link?.getAttribute("target")).toBe("_blank");
  });
});

describe("Markdown", () => {
  it("keeps the text's own headings below those of the page", () => {
    const page = shown("# One\n\n###### Six");
    expect([...page.querySelectorAll("h1, h2, h3, h4, h5, h6")].map((h) => h.tagName)).toEqual(["H3", "H3"]);
    const below = render(<Markdown text="# One" below="page" />).container;
    expect(below.querySelector("h2")?.textContent).toBe("One");
  });

  it("shows tables, and tasks as signs that nobody can tick", () => {
    const page = shown("| a | b |\n|---|---|\n| 1 | 2 |\n\n- [x] done\n- [ ] open");
    expect(page.querySelectorAll("td").length).toBe(2);
    expect(page.querySelector("input")).toBeNull();
    expect(page.textContent).toContain("☑");
    expect(page.textContent).toContain("☐");
  });

  it("can be scrolled by keyboard where code is wider than the page", () => {
    expect(shown("```java\nint a;\n```").querySelector("pre")?.tabIndex).toBe(0);
  });
});

describe("Code", () => {
  const code = (language: string | undefined, text: string) =>
    render(<Code language={language} text={text} />).container;

  it("colours what it knows and changes no character of it", async () => {
    const text = 'class Buoy { String light = "Fl(2) 10s"; } // <b>&amp;</b>';
    const page = code("java", text);
    expect(page.textContent).toBe(text);
    await waitFor(() => expect(page.querySelector(".tok-keyword")?.textContent).toBe("class"));
    expect(page.textContent).toBe(text);
    expect(page.querySelector(".tok-string")?.textContent).toContain("Fl(2) 10s");
    expect(page.querySelector("b")).toBeNull();
  });

  it("colours what is wanted only after the grammars have come", async () => {
    const first = code("java", "class Lamp {}");
    await waitFor(() => expect(first.querySelector(".tok-keyword")).not.toBeNull());
    const { container, rerender } = render(<Code language={undefined} text="class Buoy {}" />);
    expect(container.querySelector(".tok-keyword")).toBeNull();
    rerender(<Code language="java" text="class Buoy {}" />);
    expect(container.querySelector(".tok-keyword")?.textContent).toBe("class");
  });

  it.each([undefined, "cobol", "constructor", "__proto__"])("shows code in %s plain", (language) => {
    const page = code(language, "MOVE A TO B <i>");
    expect(page.textContent).toBe("MOVE A TO B <i>");
    expect(page.querySelector("span")).toBeNull();
  });

  it("shows very long code plain rather than holding up the page", async () => {
    const short = code("java", "int a; ".repeat(10));
    await waitFor(() => expect(short.querySelector("span")).not.toBeNull());
    expect(code("java", "int a; ".repeat(10_000)).querySelector("span")).toBeNull();
  });
});
