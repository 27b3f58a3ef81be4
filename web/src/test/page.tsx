import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter, Outlet, Route, Routes } from "react-router";
import { afterEach, vi } from "vitest";
import type { Schemas } from "../api/client";

export type Asked = { method: string; path: string; query: URLSearchParams; body: unknown };

type Answer = { status?: number; body: unknown };

/** Stands in for the server: what each path answers, and what was asked of it. */
export class ServerDouble {
  readonly asked: Asked[] = [];
  private readonly answers = new Map<string, (asked: Asked) => Answer | Promise<Answer>>();

  on(methodAndPath: string, answer: (asked: Asked) => Answer | Promise<Answer>): this {
    this.answers.set(methodAndPath, answer);
    return this;
  }

  readonly fetch = async (input: Request): Promise<Response> => {
    const text = await input.clone().text();
    const asked = {
      method: input.method,
      path: new URL(input.url).pathname,
      query: new URL(input.url).searchParams,
      body: input.headers.get("Content-Type")?.includes("json") ? JSON.parse(text) : text || undefined,
    };
    this.asked.push(asked);
    const answer = (await this.answers.get(`${asked.method} ${asked.path}`)?.(asked)) ?? {
      status: 404,
      body: { type: "https://mossbank.example/problems/not-found", title: "Not found", status: 404 },
    };
    return new Response(JSON.stringify(answer.body), {
      status: answer.status ?? 200,
      headers: { "Content-Type": answer.status ? "application/problem+json" : "application/json" },
    });
  };
}

/** Stands in for what the server tells by itself. */
export function toldByServer() {
  const following = new Map<string, () => void>();
  vi.stubGlobal(
    "EventSource",
    class {
      constructor(private readonly address: string) {}
      addEventListener(_: string, heard: () => void) {
        following.set(this.address, heard);
      }
      close() {
        following.delete(this.address);
      }
    },
  );
  return { tell: (address: string) => following.get(address)?.(), addresses: () => [...following.keys()] };
}

// Browsers have had it since 2024; the oldest Node that builds this has not.
Map.groupBy ??= <K, T>(items: Iterable<T>, keyOf: (item: T, index: number) => K) => {
  const groups = new Map<K, T[]>();
  let index = 0;
  for (const item of items) {
    const key = keyOf(item, index++);
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  return groups;
};

/** The answers of the test that runs; the client keeps the first `fetch` it finds, so that one passes on. */
let current = new ServerDouble();
// As the server gives one with the first page.
document.cookie = "XSRF-TOKEN=of-this-sign-in";

globalThis.fetch = (input, init) => current.fetch(input instanceof Request ? input : new Request(input, init));

export function server(): ServerDouble {
  current = new ServerDouble();
  return current;
}

export const STUDY: Schemas["StudySummary"] = {
  id: "s1",
  title: "A code model for the tide desk",
  role: "LEAD",
  stage: "PREPARING",
  blind: false,
  createdAt: "2026-11-02T09:00:00Z",
};

/** Shows something as a page of a study would, with nothing fetched anew by itself. */
export function inStudy(children: ReactNode, study = STUDY, place = { path: "page", at: "page" }) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  return render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[`/studies/${study.id}/${place.at}`]}>
        <Routes>
          <Route path="/" element={<p>the first page</p>} />
          <Route path="studies/:studyId" element={<Outlet context={study} />}>
            <Route path={place.path} element={children} />
            <Route path="*" element={<p>another page</p>} />
          </Route>
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

/** All at once: what saves itself while one types is saved once, however slow the machine is. */
export async function writeIn(field: HTMLElement, text: string) {
  await userEvent.click(field);
  await userEvent.paste(text);
}

afterEach(() => {
  cleanup();
  localStorage.clear();
  sessionStorage.clear();
  vi.restoreAllMocks();
});
