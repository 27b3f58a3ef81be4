import { isAway } from "./client";

/**
 * What the server answered last, kept in this browser so that grading goes on when the server cannot be reached and the page
 * is loaded again. Copies are of what the signed-in person may see, and go with them.
 */
const STORE = "mossbank.copies";

/** Names of what was shown from a copy, as the server could not be reached. */
const shown = new Set<string>();

/**
 * Where a page is not served over a safe connection, browsers have no such store, and some people let pages keep nothing. Then
 * the server is needed, as it would be without copies; nothing else may fail for it.
 */
async function inStore<T>(work: (all: CacheStorage) => Promise<T>): Promise<T | undefined> {
  try {
    return typeof caches === "undefined" ? undefined : await work(caches);
  } catch {
    return undefined;
  }
}

const address = (name: string) => `/${STORE}/${name}`;

export async function keepCopy(name: string, data: unknown): Promise<void> {
  await inStore(async (all) => (await all.open(STORE)).put(address(name), new Response(JSON.stringify(data))));
}

/** The copy under a name, and those under names that go on from it. */
export async function dropCopies(name: string): Promise<void> {
  const from = address(name);
  await inStore(async (all) => {
    const store = await all.open(STORE);
    const files = (await store.keys()).filter((file) => {
      const { pathname } = new URL(file.url);
      return pathname === from || pathname.startsWith(`${from}/`);
    });
    await Promise.all(files.map((file) => store.delete(file)));
  });
}

/** All of them: somebody signed out, or somebody else signed in. */
export async function forgetCopies(): Promise<void> {
  shown.clear();
  await inStore((all) => all.delete(STORE));
}

/** Whether what was fetched last under a name is a copy. */
export const isCopy = (name: string): boolean => shown.has(name);

/** How long the server is waited for where there is a copy, in milliseconds. */
const WAITED_FOR = 1_500;

/**
 * Whether the server did not answer the last time it was asked. Until it does, nobody who opens a page waits for it once more
 * for each part of it.
 */
let away = false;

/** How often to ask again for what is shown from a copy, in milliseconds. */
const ASK_AGAIN = 2_000;

/** For queries: asks again while there is only a copy. */
export const askAgain = (name: string) => (): number | false => isCopy(name) && ASK_AGAIN;

/**
 * What the server answers, or the copy of it while the server cannot be reached or takes its time.
 *
 * @throws what the server said, or `Unreachable`, if there is no copy either
 */
export async function orCopy<T>(name: string, fetching: Promise<T>): Promise<T> {
  const patience = away && !isCopy(name) ? 0 : WAITED_FOR;
  const late = new Promise<"late">((resolve) => setTimeout(() => resolve("late"), patience));
  const outcome = await Promise.race([fetching.then(fresh, failed).then(heard), late]);
  if (outcome === "late") {
    away = true;
  } else if ("data" in outcome) {
    shown.delete(name);
    return outcome.data;
  }
  const mayBeCopy = outcome === "late" || isAway(outcome.error);
  const kept = mayBeCopy ? await inStore(async (all) => (await all.open(STORE)).match(address(name))) : undefined;
  if (kept) {
    shown.add(name);
    const copy: T = await kept.json();
    return copy;
  }
  const data = await fetching;
  shown.delete(name);
  return data;
}

const fresh = <T>(data: T) => ({ data });
const failed = (error: unknown) => ({ error });

/** What comes late is heard, too. */
function heard<T>(outcome: { data: T } | { error: unknown }) {
  away = "error" in outcome && isAway(outcome.error);
  return outcome;
}

/** The same, where every answer of the server becomes the copy. */
export const keptCopy = <T>(name: string, fetching: Promise<T>): Promise<T> =>
  orCopy(
    name,
    fetching.then((data) => {
      void keepCopy(name, data);
      return data;
    }),
  );
