// @vitest-environment happy-dom
import { useLayoutEffect } from "react";
import { createRoot } from "react-dom/client";
import { describe, expect, it, vi } from "vitest";
import type { Piece } from "../ui/pieces";

const coloured = (_: string, text: string): Piece[][] => text.split("\n").map((line) => [{ text: line, look: "tok" }]);

describe("pieces of code", () => {
  it("are coloured when the grammars come for other code just while they are drawn", async () => {
    let come: (module: object) => void = () => undefined;
    vi.doMock("../ui/colouring", () => new Promise<object>((resolve) => (come = resolve)));
    const { usePieces } = await import("../ui/pieces");

    function Code({ text }: { text: string }) {
      return usePieces("java", text).map((line, i) => (
        <code key={i} className={line[0]?.look}>
          {line[0]?.text}
        </code>
      ));
    }
    // Between what is drawn and what it does afterwards.
    function Coming() {
      useLayoutEffect(() => come({ coloured }), []);
      return null;
    }

    const place = document.body.appendChild(document.createElement("div"));
    const root = createRoot(place);
    const looks = () => [...place.querySelectorAll("code")].map((c) => `${c.textContent} ${c.className}`);
    root.render(<Code text="first" />);
    await vi.waitFor(() => expect(looks()).toEqual(["first "]));
    await new Promise((resolve) => setTimeout(resolve, 20));
    root.render(
      <>
        <Code text="first" />
        <Code text="second" />
        <Coming />
      </>,
    );
    await vi.waitFor(() => expect(looks()).toEqual(["first tok", "second tok"]));
    root.unmount();
  });
});
