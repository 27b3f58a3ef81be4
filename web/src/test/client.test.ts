// @vitest-environment happy-dom
import { describe, expect, it } from "vitest";
// First, so that the client finds its stand-in for the server.
import { server } from "./page";
import { api, ApiProblem, Unreachable, unwrap, upload } from "../api/client";

const problem = (status: number, more: object = {}) => ({
  status,
  body: { type: "https://mossbank.example/problems/invalid", title: "Not valid", status, ...more },
});

const studies = () => unwrap(api.GET("/api/studies"));

describe("the client", () => {
  it("hands on what the server says", async () => {
    server().on("GET /api/studies", () => ({ body: [{ id: "s1" }] }));
    expect(await studies()).toEqual([{ id: "s1" }]);
  });

  it("throws a refusal with its type and fields", async () => {
    const errors = [{ field: "title", message: "must be there" }];
    server().on("GET /api/studies", () => problem(400, { detail: "The title is empty.", errors }));
    const error = await studies().catch((e: unknown) => e);
    expect(error).toBeInstanceOf(ApiProblem);
    expect(error).toMatchObject({ type: "invalid", status: 400, message: "The title is empty.", errors });
    expect(error instanceof ApiProblem && error.errorOf("title")).toBe("must be there");
    expect(error instanceof ApiProblem && error.errorOf("other")).toBeUndefined();
  });

  it("says the title where a refusal has no detail", async () => {
    server().on("GET /api/studies", () => problem(409));
    await expect(studies()).rejects.toThrow("Not valid");
  });

  it("takes a proxy's page for no connection, and another page for trouble", async () => {
    server().on("GET /api/studies", () => ({ status: 502, body: "Bad gateway" }));
    await expect(studies()).rejects.toBeInstanceOf(Unreachable);
    server().on("GET /api/studies", () => ({ status: 500, body: "oops" }));
    await expect(studies()).rejects.toMatchObject({ type: "unknown", status: 500 });
  });

  it("says so when nothing answers", async () => {
    server().on("GET /api/studies", () => {
      throw new TypeError("network");
    });
    await expect(studies()).rejects.toBeInstanceOf(Unreachable);
  });
});

describe("a refusal of what bore another sign-in's token", () => {
  const begin = (cookie: string) => {
    document.cookie = cookie;
    return unwrap(api.POST("/api/studies", { body: { title: "One" } })).catch((e: unknown) => e);
  };
  const refused = problem(403, { type: "https://mossbank.example/problems/not-allowed" });

  it("says nothing of what was asked", async () => {
    server().on("POST /api/studies", () => {
      document.cookie = "XSRF-TOKEN=of-the-next";
      return refused;
    });
    expect(await begin("XSRF-TOKEN=of-the-last")).toBeInstanceOf(Unreachable);
  });

  it("is one where the token is still the same", async () => {
    server().on("POST /api/studies", () => refused);
    expect(await begin("XSRF-TOKEN=of-the-next")).toMatchObject({ type: "not-allowed", status: 403 });
  });

  it("says nothing either where there was none", async () => {
    server().on("POST /api/studies", () => refused);
    expect(await begin("XSRF-TOKEN=; max-age=0")).toBeInstanceOf(Unreachable);
  });
});

describe("sending a file", () => {
  it("hands on faults of what was sent", async () => {
    const faults = [{ file: "brief.json", expected: "an object" }];
    const whole = globalThis.fetch;
    globalThis.fetch = () => Promise.resolve(Response.json(problem(422, { faults }).body, { status: 422 }));
    const error = await upload("/api/studies/archive", new File(["x"], "a.zip")).catch((e: unknown) => e);
    globalThis.fetch = () => Promise.reject(new TypeError("network"));
    const lost = await upload("/api/studies/archive", new File(["x"], "a.zip")).catch((e: unknown) => e);
    globalThis.fetch = whole;
    expect(error).toMatchObject({ status: 422, faults });
    expect(lost).toBeInstanceOf(Unreachable);
  });
});
