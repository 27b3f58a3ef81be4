import createClient, { type Middleware } from "openapi-fetch";
import { at, BASE } from "./base";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

export type FieldError = { field: string; message: string };
export type Fault = { file: string; line?: number; field?: string; expected: string; found?: string };

type ProblemBody = {
  type: string;
  title: string;
  status: number;
  detail?: string;
  errors?: FieldError[];
  faults?: Fault[];
  current?: unknown;
};

const TYPES = "https://mossbank.example/problems/";

/** A refusal of the server (RFC 9457). Screens branch on `type`, never on words. */
export class ApiProblem extends Error {
  readonly type: string;
  readonly status: number;
  readonly title: string;
  readonly errors: FieldError[];
  readonly faults: Fault[];
  readonly current: unknown;

  constructor(body: ProblemBody) {
    super(body.detail ?? body.title);
    this.type = body.type.replace(TYPES, "");
    this.status = body.status;
    this.title = body.title;
    this.errors = body.errors ?? [];
    this.faults = body.faults ?? [];
    this.current = body.current;
  }

  errorOf(field: string): string | undefined {
    return this.errors.find((e) => e.field === field)?.message;
  }
}

/** The header that says for whom a page asks; a server where somebody else is signed in by now refuses it. */
export const ACTING = "X-Mossbank-Account";

let acting: string | undefined;

/** From now on the pages in this window are one person's. */
export function actFor(accountId: string | undefined): void {
  acting = accountId;
}

/** Whose pages this window shows. */
export const actingFor = (): string | undefined => acting;

/** How long somebody waits for an answer to a change before they are told that there is none, in milliseconds. */
export const ANSWER_WITHIN = 4_500;

/** Whether the server, or what it needs, is away: the same may be asked again, and what was asked before still holds. */
export const isAway = (error: unknown): boolean =>
  error instanceof Unreachable || (error instanceof ApiProblem && error.status >= 500);

/** Whether what was asked for will be there without anybody doing anything. */
export const comesAgain = (error: unknown): boolean =>
  isAway(error) || (error instanceof ApiProblem && error.type === "too-many-requests");

/** The server could not be reached at all. */
export class Unreachable extends Error {
  constructor() {
    super("The server cannot be reached. Check the connection, then try again.");
  }
}

export const TOKEN = "X-XSRF-TOKEN";

/** It changes with each sign-in, so it is read anew for each request. */
export function tokenNow(): string | null {
  const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1];
  return token === undefined ? null : decodeURIComponent(token);
}

/** Whether a refusal says nothing of what was asked: somebody signed in in another window while it was on its way. */
const isStale = (response: Response, sent: string | null): boolean =>
  response.status === 403 && (sent === null || sent !== tokenNow());

const csrf: Middleware = {
  onRequest({ request }) {
    const token = tokenNow();
    if (token !== null && request.method !== "GET") {
      request.headers.set(TOKEN, token);
    }
    const aboutWhoIsIn = /\/api\/(?:session|links|demo|setup)/.test(request.url);
    if (acting !== undefined && !aboutWhoIsIn && !request.headers.has(ACTING)) {
      request.headers.set(ACTING, acting);
    }
    return request;
  },
  onResponse({ request, response }) {
    if (request.method !== "GET" && isStale(response, request.headers.get(TOKEN))) {
      throw new Unreachable();
    }
    return undefined;
  },
  onError({ error }) {
    // What a page that was left does not wait for says nothing about the server.
    return error instanceof DOMException && error.name === "AbortError" ? undefined : new Unreachable();
  },
};

export const api = createClient<paths>({ baseUrl: location.origin + BASE });
api.use(csrf);

type Result<T> = { data?: T; error?: unknown; response: Response };

/** The body, or an `ApiProblem` thrown. */
export async function unwrap<T>(call: Promise<Result<T>>): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) {
    return data as T;
  }
  if (error && typeof error === "object" && "type" in error) {
    throw new ApiProblem(error as ProblemBody);
  }
  // A proxy's or a restarting server's answer is no problem detail: as good as no connection.
  if (response.status >= 502) {
    throw new Unreachable();
  }
  throw new ApiProblem({ type: "unknown", title: "Something went wrong", status: response.status });
}

/** Sends a file, which the typed client does not. */
export async function upload<T>(path: string, file: File, signal?: AbortSignal): Promise<T> {
  const form = new FormData();
  form.append("file", file);
  const token = tokenNow();
  let response: Response;
  try {
    response = await fetch(at(path), {
      method: "POST",
      body: form,
      headers: {
        ...(token === null ? {} : { [TOKEN]: token }),
        ...(acting === undefined ? {} : { [ACTING]: acting }),
      },
      signal: signal ?? null,
    });
  } catch {
    throw new Unreachable();
  }
  if (isStale(response, token)) {
    throw new Unreachable();
  }
  const body: unknown = await response.json().catch(() => ({}));
  return unwrap<T>(Promise.resolve(response.ok ? { data: body as T, response } : { error: body, response }));
}

/** What the server says stands somewhere now; the description gives it no type, as it is of many sorts. */
export function stateOf<T>(told: unknown): T {
  return told as T;
}

/** The same, from a refusal for a stale change. */
export const currentOf = <T>(problem: ApiProblem): T => stateOf<T>(problem.current);
