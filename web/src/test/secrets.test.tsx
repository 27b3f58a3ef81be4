// @vitest-environment happy-dom
import { inStudy, server } from "./page";
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { SecretsFound } from "../features/secret";
import { placeOf } from "../features/secret/words";

type Found = Schemas["Found"];

const PASSWORD: Found = {
  promptId: "p1",
  prompt: "The day before",
  part: "STARTING_FILE",
  name: "conf/mail.properties",
  line: 3,
  sort: "NAMED",
  hint: "hun…",
  digest: "a1",
};
const CLEARED: Found = {
  ...PASSWORD,
  part: "FOLLOW_UP",
  name: "2",
  line: 1,
  digest: "b2",
  cleared: { why: "It opens nothing.", clearedAt: "2026-10-12T15:30:00Z", clearedBy: "Orla Fennick" },
};

function found(...places: Found[]) {
  const open = places.filter((f) => f.cleared === undefined).length;
  return server().on("GET /api/studies/s1/secrets", () => ({
    body: { open, total: places.length, found: places },
  }));
}

describe("what looks like a secret", () => {
  it("is nothing to speak of where nothing was found", async () => {
    const asked = found().asked;
    const { container } = inStudy(<SecretsFound />);
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(container.textContent).toBe("");
  });

  it("is told by its place, and may be sent once somebody has said why", async () => {
    const asked = found(PASSWORD, CLEARED).on("PUT /api/studies/s1/secrets/a1", () => ({
      status: 204,
      body: undefined,
    })).asked;
    inStudy(<SecretsFound />);
    expect(await screen.findByText(/1 place looks like a secret/)).toBeDefined();
    const row = screen.getByRole("row", { name: /mail.properties, line 3/ });
    expect(within(row).getByText("hun…")).toBeDefined();
    expect(within(row).getByText("a value with a telling name")).toBeDefined();
    await userEvent.click(within(row).getByRole("button", { name: /It may be sent/ }));
    const dialog = await screen.findByRole("dialog", { name: "May this be sent?" });
    const send = within(dialog).getByRole("button", { name: "It may be sent" });
    expect(send.hasAttribute("disabled")).toBe(true);
    await userEvent.type(within(dialog).getByLabelText(/Why it may be sent/), "A test account.");
    await userEvent.click(send);
    await waitFor(() => expect(asked.find((a) => a.method === "PUT")?.body).toEqual({ why: "A test account." }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(asked.filter((a) => a.method === "GET").length).toBeGreaterThan(1);
  });

  it("is folded away when all of it was looked at, and can be held back again", async () => {
    const asked = found(CLEARED).on("DELETE /api/studies/s1/secrets/b2", () => ({
      status: 204,
      body: undefined,
    })).asked;
    inStudy(<SecretsFound />);
    await userEvent.click(await screen.findByText(/1 place looks like a secret and may be sent/));
    expect(screen.getByText(/Orla Fennick/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: /Hold back: follow-up 2, line 1/ }));
    await waitFor(() => expect(asked.some((a) => a.method === "DELETE")).toBe(true));
  });

  it("says where it stands", () => {
    expect(placeOf({ ...PASSWORD, part: "REQUEST", name: "" })).toBe("the request, line 3");
    expect(placeOf({ ...PASSWORD, part: "CONSTRAINT", name: "1" })).toBe("constraint 1, line 3");
  });
});
