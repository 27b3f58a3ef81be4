// @vitest-environment happy-dom
// First, so that the client finds its stand-in for the server.
import { inStudy, server } from "./page";
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { SearchPage } from "../features/search";

describe("words that are looked for", () => {
  it("are found, linked to where they stand, and told as text", async () => {
    const { asked } = server().on("GET /api/studies/s1/search", ({ query }) => ({
      body:
        query.get("from") === "50"
          ? { finds: [{ sort: "REMARK", promptId: "p2", answerId: "a9", title: "Low water", pieces: [] }] }
          : {
              finds: [
                { sort: "PROMPT", promptId: "p1", title: "High water", pieces: [{ text: "the tide", found: false }] },
                {
                  sort: "ANSWER",
                  promptId: "p1",
                  answerId: "a1",
                  title: "High water",
                  candidate: "Quillwort",
                  pieces: [
                    { text: "a <b>", found: false },
                    { text: "tide", found: true },
                  ],
                },
              ],
              next: 50,
            },
    }));
    inStudy(<SearchPage />, undefined, { path: "search", at: "search?words=ebb" });
    expect(await screen.findByText("2 and more found.")).toBeDefined();
    expect(screen.getByText("tide").tagName).toBe("MARK");
    expect(screen.getByText("a <b>")).toBeDefined();
    expect(screen.getByText(/in the answer of Quillwort/)).toBeDefined();
    expect(screen.getAllByRole("link").map((l) => l.getAttribute("href"))).toEqual([
      "/studies/s1/prompts/p1",
      "/studies/s1/answers/p1?answer=a1",
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Show more" }));
    expect(await screen.findByText("3 found.")).toBeDefined();
    await userEvent.clear(screen.getByRole("searchbox"));
    await userEvent.type(screen.getByRole("searchbox"), "spring tide");
    expect(screen.getByRole("searchbox")).toHaveProperty("value", "spring tide");
    await waitFor(() => expect(asked.at(-1)?.query.get("words")).toBe("spring tide"));
  });

  it("stand nowhere, and are not asked for while there are none", async () => {
    const { asked } = server().on("GET /api/studies/s1/search", () => ({ body: { finds: [] } }));
    inStudy(<SearchPage />, undefined, { path: "search", at: "search" });
    expect(asked).toHaveLength(0);
    await userEvent.type(screen.getByRole("searchbox"), "heron");
    expect(await screen.findByText("These words stand nowhere.")).toBeDefined();
  });
});
