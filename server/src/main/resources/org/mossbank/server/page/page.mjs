// Opens a page of the work folder in a browser, does what a check asks step by step, and leaves a picture and what was found after
// each. It speaks WebDriver (W3C) to a driver of this box alone: there is no network. Everything that a page says is taken for hostile
// and bounded; what it leaves is judged outside.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, realpathSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { createConnection } from "node:net";
import { extname, join, normalize } from "node:path";

const PORT = 9515;
/** Pages are served, as scripts of a page that is a file may not load each other. Nobody outside the box can ask. */
const SERVED = 8080;
const MOST_ELEMENTS = 1_000;
const MOST_TEXT = 4_000;
/** Of a whole page. */
const MOST_PAGE_TEXT = 20_000;
const MOST_ERRORS = 20;
/** Until what is clicked, typed into or waited for must have come. */
const PATIENCE_MS = 3_000;
/** Until all that must be seen after one step must have come. */
const LOOKING_MS = 1_000;
const OUT = "/w/.page";
const KEYS = {
  Alt: "\uE00A",
  ArrowDown: "\uE015",
  ArrowLeft: "\uE012",
  ArrowRight: "\uE014",
  ArrowUp: "\uE013",
  Backspace: "\uE003",
  Control: "\uE009",
  Delete: "\uE017",
  End: "\uE010",
  Enter: "\uE007",
  Escape: "\uE00C",
  Home: "\uE011",
  Meta: "\uE03D",
  PageDown: "\uE00F",
  PageUp: "\uE00E",
  Shift: "\uE008",
  Space: " ",
  Tab: "\uE004",
};
/** Where something with a role may stand, so that not all of a large page is asked about; what it is called is asked of the browser. */
const CANDIDATES = {
  button: "button,input,summary",
  checkbox: "input",
  combobox: "select,input",
  dialog: "dialog",
  heading: "h1,h2,h3,h4,h5,h6",
  link: "a,area",
  list: "ul,ol,menu",
  listitem: "li",
  radio: "input",
  row: "tr",
  searchbox: "input",
  slider: "input",
  spinbutton: "input",
  table: "table",
  textbox: "input,textarea,[contenteditable]",
};
const ANYWHERE =
  "a,area,article,aside,button,details,dialog,fieldset,figure,footer,form,h1,h2,h3,h4,h5,h6,header,img,input,li,main,meter,nav,ol,option,output,progress,section,select,summary,svg,table,td,textarea,th,tr,ul,[tabindex]";
const candidates = (role) => `${CANDIDATES[role] ?? ANYWHERE},[role]`;

const TYPES = {
  ".css": "text/css",
  ".gif": "image/gif",
  ".html": "text/html; charset=utf-8",
  ".jpg": "image/jpeg",
  ".js": "text/javascript",
  ".json": "application/json",
  ".mjs": "text/javascript",
  ".png": "image/png",
  ".svg": "image/svg+xml",
  ".txt": "text/plain; charset=utf-8",
};

function serve() {
  const server = createServer((asked, answer) => {
    try {
      if (asked.url === "/favicon.ico") {
        // Every browser asks for it; that there is none is no fault of the page.
        answer.writeHead(204).end();
        return;
      }
      const path = normalize(decodeURIComponent(new URL(asked.url, "http://x").pathname));
      const file = realpathSync(join("/w", path.endsWith("/") ? `${path}index.html` : path));
      if (!file.startsWith("/w/") || file.startsWith(`${OUT}/`)) throw new Error("not there");
      const bytes = readFileSync(file);
      answer.writeHead(200, { "Content-Type": TYPES[extname(file)] ?? "application/octet-stream" }).end(bytes);
    } catch {
      answer.writeHead(404).end();
    }
  });
  server.on("error", () => {});
  server.listen(SERVED, "127.0.0.1");
  return server;
}

const plan = JSON.parse(readFileSync(`${OUT}/plan.json`, "utf8"));
const cut = (text) => String(text ?? "").slice(0, MOST_TEXT);
const sleep = (ms) => new Promise((done) => setTimeout(done, ms));

async function ask(method, path, body) {
  const answer = await fetch(`http://127.0.0.1:${PORT}${path}`, {
    method,
    ...(body && { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } }),
    signal: AbortSignal.timeout(10_000),
  });
  const { value } = await answer.json();
  if (value && value.error) {
    throw new Error(`${value.error}: ${String(value.message).split("\n")[0]}`);
  }
  return value;
}

function begin() {
  const driver = spawn("chromedriver", [`--port=${PORT}`], { stdio: "ignore" });
  driver.on("error", () => {});
  return driver;
}

async function ready() {
  for (let i = 0; i < 100; i++) {
    const open = await new Promise((done) => {
      const to = createConnection(PORT, "127.0.0.1", () => { to.destroy(); done(true); });
      to.on("error", () => done(false));
    });
    if (open) return;
    await sleep(50);
  }
  throw new Error("the browser did not begin");
}

/** A message holds a page up until somebody answers: here it is answered at once, as by somebody who wants nothing of it. */
const WITHOUT_MESSAGES = `for (const [name, said] of [["alert", undefined], ["confirm", false], ["prompt", null], ["print", undefined]])
  Object.defineProperty(window, name, { value: () => said });`;

async function session({ width, height }) {
  const made = await ask("POST", "/session", {
    capabilities: {
      alwaysMatch: {
        unhandledPromptBehavior: "dismiss",
        timeouts: { pageLoad: 8_000, script: 4_000, implicit: 0 },
        "goog:loggingPrefs": { browser: "ALL" },
        "goog:chromeOptions": {
          args: [
            "--headless=new",
            // The box is the outer sandbox: it has no user namespaces left for the browser's own.
            "--no-sandbox",
            "--remote-debugging-pipe",
            "--disable-gpu",
            "--disable-dev-shm-usage",
            "--disable-extensions",
            "--disable-background-networking",
            "--mute-audio",
            "--block-new-web-contents",
            "--deny-permission-prompts",
            "--hide-scrollbars",
            "--force-device-scale-factor=1",
            `--window-size=${width},${height}`,
          ],
          prefs: { "download_restrictions": 3, "profile.default_content_setting_values.notifications": 2 },
        },
      },
    },
  });
  const at = `/session/${made.sessionId}`;
  await cdp(at, "Page.addScriptToEvaluateOnNewDocument", { source: WITHOUT_MESSAGES });
  await ask("POST", `${at}/window/rect`, { width, height });
  // What the browser has around a page is no part of its size.
  const inner = await ask("POST", `${at}/execute/sync`, { script: "return [innerWidth, innerHeight]", args: [] });
  await ask("POST", `${at}/window/rect`, { width: 2 * width - inner[0], height: 2 * height - inner[1] });
  return at;
}

const cdp = (at, cmd, params) => ask("POST", `${at}/goog/cdp/execute`, { cmd, params });

const isStale = (e) => e.message.startsWith("stale element");

/** All that has a role, with its name, in the order of the page; what the page took away meanwhile is passed over. */
async function* things(at, role) {
  const found = await ask("POST", `${at}/elements`, { using: "css selector", value: candidates(role) });
  for (const element of found.slice(0, MOST_ELEMENTS)) {
    const id = Object.values(element)[0];
    try {
      if ((await ask("GET", `${at}/element/${id}/computedrole`)) !== role) continue;
      yield { id, name: cut(await ask("GET", `${at}/element/${id}/computedlabel`)), displayed: await ask("GET", `${at}/element/${id}/displayed`) };
    } catch (e) {
      if (!isStale(e)) throw e;
    }
  }
}

async function find(at, role, name) {
  for await (const thing of things(at, role)) {
    if (thing.name.trim() === name.trim() && thing.displayed) return thing.id;
  }
  return undefined;
}

async function awaited(what, until = Date.now() + PATIENCE_MS) {
  for (;;) {
    const found = await what();
    if (found !== undefined && found !== false) return found;
    if (Date.now() > until) return undefined;
    await sleep(100);
  }
}

const textOf = (at) => ask("POST", `${at}/execute/sync`, { script: "return document.body ? document.body.innerText.slice(0, 200000) : ''", args: [] });

/** What shows something that is no text. */
const SHOWING = new Set(["CANVAS", "IMG", "PICTURE", "VIDEO", "OBJECT", "EMBED", "IFRAME", "FRAME", "IMAGE"]);
const STYLES = ["background-image", "content", "border-image-source", "list-style-image", "mask-image"];

/**
 * What can be read on a page, also what is generated or in a tree of its own, and whether something stands there that cannot. It is
 * asked of the browser itself: a page can make its own scripts' answers up.
 */
async function read(at) {
  const { nodes } = await cdp(at, "Accessibility.getFullAXTree", {});
  const { documents, strings } = await cdp(at, "DOMSnapshot.captureSnapshot", { computedStyles: STYLES });
  const said = nodes.filter((n) => !n.ignored).flatMap((n) => [n.name?.value, n.value?.value, n.description?.value]);
  const drawn = documents.flatMap((d) => d.layout.text.map((i) => strings[i]));
  const texts = [await textOf(at), drawn.filter((t) => t !== undefined).join(""), ...said];
  const text = [...new Set(texts.filter((t) => typeof t === "string" && t.trim() !== ""))].join("\n");
  const unread =
    documents.length > 1 ||
    text.length > MOST_PAGE_TEXT ||
    documents.some(
      (d) =>
        d.nodes.nodeName.some((i) => SHOWING.has(String(strings[i]).toUpperCase())) ||
        d.layout.styles.some((of) => of.some((i) => /url\(|image\(|image-set|cross-fade|paint\(/.test(strings[i] ?? ""))),
    );
  return { text: text.slice(0, MOST_PAGE_TEXT), unread };
}

/** What could be read before a picture was taken and after it: a page that changes by itself may name somebody only meanwhile. */
function joined(before, after) {
  const text = before.text === after.text ? before.text : `${before.text}\n${after.text}`;
  return { text: text.slice(0, MOST_PAGE_TEXT), unread: before.unread || after.unread || text.length > MOST_PAGE_TEXT };
}

async function focus(at) {
  try {
    const id = Object.values(await ask("GET", `${at}/element/active`))[0];
    return {
      role: cut(await ask("GET", `${at}/element/${id}/computedrole`)),
      name: cut(await ask("GET", `${at}/element/${id}/computedlabel`)),
    };
  } catch {
    return { role: "", name: "" };
  }
}

async function act(at, { action, role, name, text }) {
  switch (action) {
    case "OPEN":
      await ask("POST", `${at}/url`, { url: `http://127.0.0.1:${SERVED}/${encodeURI(text)}` });
      return;
    case "WAIT_FOR":
      if (!(await awaited(async () => (await textOf(at)).includes(text)))) throw new Error(`“${text}” did not come`);
      return;
    case "PRESS": {
      const keys = text.split("+").map((k) => KEYS[k] ?? k);
      const unknown = keys.findIndex((k) => [...k].length !== 1);
      if (unknown >= 0) throw new Error(`there is no key “${keys[unknown]}”`);
      await ask("POST", `${at}/actions`, {
        actions: [{ type: "key", id: "keys", actions: [...keys.map((value) => ({ type: "keyDown", value })), ...keys.toReversed().map((value) => ({ type: "keyUp", value }))] }],
      });
      return;
    }
    default: {
      const until = Date.now() + PATIENCE_MS;
      for (;;) {
        const id = await awaited(() => find(at, role, name), until);
        if (id === undefined) throw new Error(`there is no ${role} “${name}”`);
        try {
          if (action === "CLICK") await ask("POST", `${at}/element/${id}/click`, {});
          else await ask("POST", `${at}/element/${id}/value`, { text });
          return;
        } catch (e) {
          // The page drew itself anew between finding and doing.
          if (!isStale(e) || Date.now() > until) throw e;
        }
      }
    }
  }
}

async function look(at, { how, role, name, text, absent }, until) {
  const seen = async () => {
    switch (how) {
      case "TEXT":
        return (await textOf(at)).includes(text);
      case "FOCUS": {
        const on = await focus(at);
        return on.role === role && on.name.trim() === name.trim();
      }
      default:
        return (await find(at, role, name)) !== undefined;
    }
  };
  const as = absent ? await awaited(async () => !(await seen()), until) : await awaited(seen, until);
  return as !== undefined;
}

async function at(size, number) {
  const steps = [];
  const session_ = await session(size);
  try {
    for (const [i, step] of plan.steps.entries()) {
      const came = { step: i, fault: "", sights: [], focus: { role: "", name: "" }, errors: [], text: "", unread: true };
      try {
        await act(session_, step);
        await sleep(100);
        const until = Date.now() + LOOKING_MS;
        for (const sight of step.sights) came.sights.push(await look(session_, sight, until));
      } catch (e) {
        came.fault = cut(e.message);
      }
      try {
        came.focus = await focus(session_);
        const before = await read(session_);
        const picture = Buffer.from(await ask("GET", `${session_}/screenshot`), "base64");
        const after = await read(session_);
        Object.assign(came, joined(before, after));
        const log = await ask("POST", `${session_}/se/log`, { type: "browser" });
        came.errors = log.filter((l) => l.level === "SEVERE").slice(0, MOST_ERRORS).map((l) => cut(l.message));
        writeFileSync(`${OUT}/${number}-${i}.png`, picture);
      } catch (e) {
        came.fault ||= cut(e.message);
      }
      steps.push(came);
      if (came.fault !== "") break;
    }
  } finally {
    await ask("DELETE", session_).catch(() => {});
  }
  return { ...size, steps };
}

mkdirSync(OUT, { recursive: true });
const driver = begin();
const server = serve();
try {
  await ready();
  const sizes = [];
  for (const [number, size] of plan.sizes.entries()) sizes.push(await at(size, number));
  writeFileSync(`${OUT}/result.json`, JSON.stringify({ sizes }));
} finally {
  driver.kill("SIGKILL");
  server.closeAllConnections();
  server.close();
}
