import createClient, { type Middleware } from "openapi-fetch";
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

/** The server could not be reached at all. */
export class Unreachable extends Error {
  constructor() {
    super("The server cannot be reached. Check the connection, then try again.");
  }
}

// The token changes with each sign-in, so it is read anew for each request.
const csrf: Middleware = {
  onRequest({ request }) {
    const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1];
    if (token && request.method !== "GET") {
      request.headers.set("X-XSRF-TOKEN", decodeURIComponent(token));
    }
    return request;
  },
  onError() {
    return new Unreachable();
  },
};

export const api = createClient<paths>({ baseUrl: location.origin });
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
  const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1];
  let response: Response;
  try {
    response = await fetch(path, {
      method: "POST",
      body: form,
      headers: { "X-XSRF-TOKEN": decodeURIComponent(token ?? "") },
      signal: signal ?? null,
    });
  } catch {
    throw new Unreachable();
  }
  const body: unknown = await response.json().catch(() => ({}));
  return unwrap<T>(Promise.resolve(response.ok ? { data: body as T, response } : { error: body, response }));
}

/** What the server says stands in a cell now, from a refusal for a stale change. */
export function currentOf<T>(problem: ApiProblem): T {
  return problem.current as T;
}
