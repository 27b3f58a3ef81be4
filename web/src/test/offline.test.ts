import { describe, expect, it, vi } from "vitest";
import SCRIPT from "../../public/offline.js?raw";
import { BrowserCaches } from "./browserCaches";

const HERE = "http://mossbank.test";

type Handler = (event: unknown) => void;

/** The worker in a browser of our own, with a server that can be cut off. */
class Worker {
  readonly caches = new BrowserCaches();
  readonly files = new Map<string, string>();
  reachable = true;
  hangs = false;
  readonly asked: string[] = [];
  private readonly handlers = new Map<string, Handler>();

  constructor(base = "") {
    this.files.set(`${base}/`, "page 1");
    const self = {
      location: { origin: HERE, pathname: `${base}/offline.js` },
      skipWaiting: () => undefined,
      clients: { claim: () => undefined },
      addEventListener: (name: string, handler: Handler) => this.handlers.set(name, handler),
    };
    const fetched = async (file: string | { url: string }) => {
      const { pathname } = new URL(typeof file === "string" ? file : file.url, HERE);
      this.asked.push(pathname);
      if (this.hangs) {
        return new Promise<Response>(() => undefined);
      }
      if (!this.reachable) {
        throw new TypeError("Failed to fetch");
      }
      const text = this.files.get(pathname);
      const type = /\.\w+$/.test(pathname) ? "text/plain" : "text/html;charset=UTF-8";
      return new Response(text ?? "", { status: text === undefined ? 404 : 200, headers: { "content-type": type } });
    };
    new Function("self", "caches", "fetch", SCRIPT)(self, this.caches, fetched);
  }

  /** What a page is given, once the worker has done all that it does for it; undefined if it leaves that to the browser. */
  async ask(path: string, mode = "cors", method = "GET"): Promise<string | undefined> {
    let answer: Promise<Response> | undefined;
    const after: Promise<unknown>[] = [];
    this.handlers.get("fetch")?.({
      request: { method, url: new URL(path, HERE).href, mode },
      respondWith: (given: Promise<Response>) => (answer = given),
      waitUntil: (work: Promise<unknown>) => after.push(work),
    });
    const response = await answer;
    await Promise.all(after);
    return response && (response.type === "error" ? "error" : response.text());
  }

  async tell(name: string, data?: unknown): Promise<void> {
    const after: Promise<unknown>[] = [];
    this.handlers.get(name)?.({ data, waitUntil: (work: Promise<unknown>) => after.push(work) });
    await Promise.all(after);
  }
}

async function installed(): Promise<Worker> {
  const worker = new Worker();
  worker.files.set("/assets/a1.js", "script 1").set("/theme.js", "theme");
  await worker.tell("install");
  return worker;
}

describe("the application's own files", () => {
  it("come from the browser while the server cannot be reached, whatever the address of the page", async () => {
    const worker = await installed();
    await worker.ask("/assets/a1.js");
    await worker.ask("/theme.js");
    worker.reachable = false;
    expect(await worker.ask("/sheets/s1", "navigate")).toBe("page 1");
    expect(await worker.ask("/assets/a1.js")).toBe("script 1");
    expect(await worker.ask("/theme.js")).toBe("theme");
    expect(await worker.ask("/assets/never.js").catch(() => "failed")).toBe("failed");
  });

  it("come from the browser where the server takes its time", async () => {
    vi.useFakeTimers();
    const worker = await installed();
    await worker.ask("/theme.js");
    worker.hangs = true;
    const asked = [worker.ask("/sheets/s1", "navigate"), worker.ask("/theme.js")];
    await vi.advanceTimersByTimeAsync(1_500);
    expect(await Promise.all(asked)).toEqual(["page 1", "theme"]);
    vi.useRealTimers();
  });

  it("are those that were there before the worker, too", async () => {
    const worker = await installed();
    await worker.tell("message", [
      `${HERE}/assets/a1.js`,
      `${HERE}/api/session`,
      "https://elsewhere.example/assets/x.js",
    ]);
    await worker.tell("message", [`${HERE}/assets/a1.js`]);
    expect(worker.asked).toEqual(["/", "/assets/a1.js"]);
    worker.reachable = false;
    expect(await worker.ask("/assets/a1.js")).toBe("script 1");
  });

  it("are asked of the server first where they can change, and not at all where they cannot", async () => {
    const worker = await installed();
    await worker.ask("/assets/a1.js");
    worker.files.set("/theme.js", "theme 2").set("/sheets/s1", "page 1");
    const before = worker.asked.length;
    expect(await worker.ask("/assets/a1.js")).toBe("script 1");
    expect(worker.asked).toHaveLength(before);
    expect(await worker.ask("/theme.js")).toBe("theme 2");
  });

  it("are not taken for the page when one is looked at alone", async () => {
    const worker = await installed();
    expect(await worker.ask("/theme.js", "navigate")).toBe("theme");
    worker.reachable = false;
    expect(await worker.ask("/", "navigate")).toBe("page 1");
  });

  it("stay where the page has nothing new but the word for its own styles", async () => {
    const worker = await installed();
    await worker.ask("/assets/a1.js");
    for (const word of ["one", "two"]) {
      worker.files.set("/sheets/s1", `<script src="./theme.js" nonce="${word}"></script>`);
      await worker.ask("/sheets/s1", "navigate");
      await worker.ask("/assets/a1.js");
    }
    worker.reachable = false;
    expect(await worker.ask("/assets/a1.js")).toBe("script 1");
    expect(await worker.ask("/", "navigate")).toContain('nonce="two"');
  });

  it("go with their version", async () => {
    const worker = await installed();
    await worker.ask("/assets/a1.js");
    worker.files.set("/sheets/s1", "page 2");
    expect(await worker.ask("/sheets/s1", "navigate")).toBe("page 2");
    worker.reachable = false;
    expect(await worker.ask("/", "navigate")).toBe("page 2");
    expect(await worker.ask("/assets/a1.js").catch(() => "failed")).toBe("failed");
  });

  it.each([
    ["what is asked of the server", "/api/sheets", "cors", "GET"],
    ["a file to save", "/api/studies/s1/archive", "navigate", "GET"],
    ["how the server is", "/actuator/health", "navigate", "GET"],
    ["a change", "/assets/a1.js", "cors", "POST"],
    ["another place", "https://elsewhere.example/assets/a1.js", "cors", "GET"],
  ])("are all that comes this way: not %s", async (_, path, mode, method) => {
    const worker = await installed();
    const before = worker.asked.length;
    expect(await worker.ask(path, mode, method)).toBeUndefined();
    expect(worker.asked).toHaveLength(before);
  });

  it("fail as they would without a worker where nothing is kept", async () => {
    const worker = new Worker();
    worker.reachable = false;
    expect(await worker.ask("/", "navigate")).toBe("error");
  });

  it("are those of the application, where it stands below another address", async () => {
    const worker = new Worker("/moss");
    worker.files.set("/moss/assets/a.js", "script").set("/assets/a.js", "somebody else's");
    await worker.tell("install");
    expect(await worker.ask("/moss/assets/a.js")).toBe("script");
    worker.reachable = false;
    expect(await worker.ask("/moss/studies/1", "navigate")).toBe("page 1");
    expect(await worker.ask("/moss/assets/a.js")).toBe("script");
    expect(await worker.ask("/moss/api/session", "navigate")).toBeUndefined();
    expect(await worker.ask("/assets/a.js")).toBeUndefined();
  });
});
