/*
 * Stands between the pages and the server, and keeps the application's own files: the one page, and the scripts, styles and
 * fonts that were used. The server is asked first for the page, always; what is kept serves when it cannot be reached.
 * Nothing under /api comes this way.
 */
const STORE = "mossbank.files";
/** Where the application stands below its address. */
const BASE = self.location.pathname.replace(/\/offline\.js$/, "");
const PAGE = `${BASE}/`;

/** How long the server is waited for where something is kept, in milliseconds. */
const PATIENCE = 1_500;

/** Files whose address does not change with what they hold. */
const NAMED = [`${BASE}/theme.js`, `${BASE}/mossbank.svg`];

self.addEventListener("install", (event) => {
  self.skipWaiting();
  event.waitUntil(fetch(PAGE).then(keepPage));
});

self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("message", (event) => {
  const files = event.data.filter((address) => isHashed(new URL(address)) || isNamed(new URL(address)));
  event.waitUntil(Promise.allSettled(files.map(keepUnlessKept)));
});

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) {
    return;
  }
  if (request.mode === "navigate") {
    if (!/^\/(api|actuator)\//.test(url.pathname.slice(BASE.length))) {
      event.respondWith(serverFirst(event, PAGE, keepPage));
    }
  } else if (isHashed(url)) {
    event.respondWith(kept(request).then((found) => found ?? fetched(event)));
  } else if (isNamed(url)) {
    event.respondWith(serverFirst(event, request, (response) => keep(request, response)));
  }
});

const isHashed = (url) => url.origin === self.location.origin && url.pathname.startsWith(`${BASE}/assets/`);
const isNamed = (url) => url.origin === self.location.origin && NAMED.includes(url.pathname);

const kept = async (request) => (await caches.open(STORE)).match(request);

async function keep(request, response) {
  if (response.ok) {
    await (await caches.open(STORE)).put(request, response);
  }
}

async function keepUnlessKept(address) {
  if (!(await kept(address))) {
    await keep(address, await fetch(address));
  }
}

/** Without the word that a page has for its own styles, which is another each time. */
const textOf = async (page) => (await page.text()).replace(/ nonce="[^"]*"/g, "");

/** Another page is another version: files of the one before are not needed any more. A picture that is looked at is no page. */
async function keepPage(response) {
  if (!response.ok || !response.headers.get("content-type")?.startsWith("text/html")) {
    return;
  }
  const store = await caches.open(STORE);
  const text = await textOf(response.clone());
  const before = await store.match(PAGE);
  if (before !== undefined && (await textOf(before)) !== text) {
    await Promise.all((await store.keys()).map((file) => store.delete(file)));
  }
  await store.put(PAGE, response);
}

async function fetched(event) {
  const response = await fetch(event.request);
  event.waitUntil(keep(event.request, response.clone()));
  return response;
}

async function serverFirst(event, name, keepIt) {
  const asking = fetch(event.request);
  const late = new Promise((resolve) => setTimeout(resolve, PATIENCE));
  const answer = await Promise.race([asking, late]).catch(() => undefined);
  // A server in trouble, or what a proxy says for one that is not there, is as good as nothing.
  if (answer && answer.status < 500) {
    event.waitUntil(keepIt(answer.clone()));
    return answer;
  }
  return (await kept(name)) ?? asking.catch(() => Response.error());
}
