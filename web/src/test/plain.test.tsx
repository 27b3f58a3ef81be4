// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Markdown } from "../ui/Markdown";
import { plainness } from "../ui/plain";
import { TextBoundary } from "../ui/TextBoundary";

afterEach(cleanup);

describe("which texts are laid out", () => {
  it.each([
    ["quotes in quotes", ">".repeat(5_000)],
    ["quotes in quotes, with blanks", "> ".repeat(5_000)],
    ["lists in lists", "1. ".repeat(2_000)],
    ["lists and quotes in turn", "> - ".repeat(100)],
    ["emphasis that never ends", "*a_ ".repeat(4_000)],
    ["brackets that never close", "[".repeat(20_000)],
    ["brackets that never opened", "a]".repeat(20_000)],
    ["struck out again and again", "~a".repeat(20_000)],
    ["emphasis in many paragraphs", "*a_ ".repeat(400).concat("\n\n").repeat(100)],
  ])("not %s", (_, text) => {
    expect(plainness(text)).toBe("tangled");
  });

  it.each([
    ["too many characters", "a".repeat(256_001)],
    ["too many lines", "\n".repeat(8_001)],
  ])("not one of %s", (_, text) => {
    expect(plainness(text)).toBe("very-long");
  });

  it.each([
    ["an ordinary one", "# Cause\n\n- *one* [link](x)\n  - `two`\n    1. three\n\n> quoted\n> > twice\n"],
    ["code that looks like marks", "```\n" + "*a_ [[]] >>> ".repeat(5_000) + "\n```\n"],
    ["code in longer fences", "````\n```\n" + "[".repeat(9_000) + "\n````\n"],
    ["many short paragraphs", "*a* _b_ [c](d)\n\n".repeat(2_000)],
    ["one long line of words", "word ".repeat(40_000)],
    ["a negative number and a sum", "-1 and 2. then * and + 3"],
  ])("%s", (_, text) => {
    expect(plainness(text)).toBeUndefined();
  });
});

describe("a text that is not laid out", () => {
  it("is shown as it is, and says so", () => {
    render(<Markdown text={">".repeat(5_000)} />);
    expect(screen.getByText(/cannot be laid out as Markdown/)).toBeDefined();
    expect(document.querySelector("pre")?.textContent).toBe(">".repeat(5_000));
    expect(document.querySelector("blockquote")).toBeNull();
  });

  it("leaves the page around it standing even if it breaks", () => {
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    const Breaks = () => {
      throw new RangeError("Maximum call stack size exceeded");
    };
    render(
      <>
        <p>beside</p>
        <TextBoundary fallback={<p>as it is</p>}>
          <Breaks />
        </TextBoundary>
      </>,
    );
    expect(screen.getByText("beside")).toBeDefined();
    expect(screen.getByText("as it is")).toBeDefined();
    vi.restoreAllMocks();
  });
});
