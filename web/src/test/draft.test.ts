import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Draft, type SaveResult } from "../ui/draft";

type Text = { text: string };

function memory(start: Record<string, string> = {}) {
  const kept = new Map(Object.entries(start));
  return {
    kept,
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  };
}

function draftOf(save: (value: Text, version: number) => Promise<SaveResult<Text>>, store = memory(), version = 3) {
  return new Draft<Text>({ store, key: "k", value: { text: "first" }, version, save, pause: 100, retryAfter: 1000 });
}

const saves = () =>
  vi.fn((value: Text, version: number) => Promise.resolve({ result: "saved" as const, value, version: version + 1 }));

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

test("typing is saved once after a pause, and forgotten by the browser then", async () => {
  const save = saves();
  const store = memory();
  const draft = draftOf(save, store);
  draft.change({ text: "a" }, "text");
  draft.change({ text: "ab" }, "text");
  expect(JSON.parse(store.kept.get("k") ?? "")).toEqual({ version: 3, value: { text: "ab" } });
  await vi.advanceTimersByTimeAsync(150);
  expect(save.mock.calls).toEqual([[{ text: "ab" }, 3]]);
  expect(draft.state().status).toBe("saved");
  expect(store.kept.size).toBe(0);
});

test("what is typed while it is being saved follows with the new version", async () => {
  const save = saves();
  const draft = draftOf(save);
  draft.change({ text: "a" });
  const flushing = draft.flush();
  draft.change({ text: "b" });
  await flushing;
  await vi.advanceTimersByTimeAsync(150);
  expect(save.mock.calls).toEqual([
    [{ text: "a" }, 3],
    [{ text: "b" }, 4],
  ]);
});

test("without a connection it is kept and tried again", async () => {
  const store = memory();
  let online = false;
  const draft = draftOf(
    (value, version) =>
      Promise.resolve(online ? { result: "saved", value, version: version + 1 } : { result: "unreachable" }),
    store,
  );
  draft.change({ text: "a" });
  await vi.advanceTimersByTimeAsync(150);
  expect(draft.state().status).toBe("unreachable");
  expect(store.kept.has("k")).toBe(true);
  online = true;
  await vi.advanceTimersByTimeAsync(1100);
  expect(draft.state().status).toBe("saved");
});

test("what a window left behind is taken up and saved", async () => {
  const save = saves();
  const draft = draftOf(save, memory({ k: JSON.stringify({ version: 3, value: { text: "left behind" } }) }));
  expect(draft.state().value.text).toBe("left behind");
  await vi.advanceTimersByTimeAsync(10);
  expect(save.mock.calls).toEqual([[{ text: "left behind" }, 3]]);
});

test("what was left behind on an older version is a conflict, not an overwrite", async () => {
  const save = saves();
  const draft = draftOf(save, memory({ k: JSON.stringify({ version: 2, value: { text: "old" } }) }));
  expect(draft.state()).toMatchObject({ status: "conflict", theirs: { text: "first" } });
  await vi.advanceTimersByTimeAsync(5000);
  expect(save).not.toHaveBeenCalled();
});

test("broken storage is no draft", () => {
  expect(draftOf(saves(), memory({ k: "{" })).state()).toMatchObject({ status: "saved", value: { text: "first" } });
});

test("a conflict is settled either way", async () => {
  const save = vi
    .fn<(value: Text, version: number) => Promise<SaveResult<Text>>>()
    .mockResolvedValueOnce({ result: "conflict", value: { text: "theirs" }, version: 9 })
    .mockImplementation((value, version) => Promise.resolve({ result: "saved", value, version: version + 1 }));
  const mine = draftOf(save);
  mine.change({ text: "mine" });
  await vi.advanceTimersByTimeAsync(150);
  expect(mine.state().theirs).toEqual({ text: "theirs" });
  mine.settle("mine");
  await vi.advanceTimersByTimeAsync(10);
  expect(save.mock.calls.at(-1)).toEqual([{ text: "mine" }, 9]);

  const other = draftOf(() => Promise.resolve({ result: "conflict", value: { text: "theirs" }, version: 9 }));
  other.change({ text: "mine" });
  await vi.advanceTimersByTimeAsync(150);
  other.settle("theirs");
  expect(other.state()).toMatchObject({ status: "saved", value: { text: "theirs" }, canUndo: true });
});

test("a refusal says why, and the next change tries again", async () => {
  const save = vi
    .fn<(value: Text, version: number) => Promise<SaveResult<Text>>>()
    .mockResolvedValueOnce({ result: "refused", message: "No.", errors: [{ field: "text", message: "too long" }] })
    .mockImplementation((value, version) => Promise.resolve({ result: "saved", value, version: version + 1 }));
  const draft = draftOf(save);
  draft.change({ text: "a" });
  await vi.advanceTimersByTimeAsync(150);
  expect(draft.state()).toMatchObject({ status: "refused", errors: [{ field: "text", message: "too long" }] });
  draft.change({ text: "b" });
  await vi.advanceTimersByTimeAsync(150);
  expect(draft.state()).toMatchObject({ status: "saved", errors: [] });
});

test("undo takes typing in one field as one step, and redo brings it back", () => {
  const draft = draftOf(saves());
  draft.change({ text: "a" }, "text");
  draft.change({ text: "ab" }, "text");
  draft.change({ text: "gone" });
  draft.undo();
  expect(draft.state().value.text).toBe("ab");
  draft.undo();
  expect(draft.state()).toMatchObject({ value: { text: "first" }, canUndo: false });
  draft.redo();
  draft.redo();
  expect(draft.state()).toMatchObject({ value: { text: "gone" }, canRedo: false });
  draft.undo();
  draft.change({ text: "another way" });
  expect(draft.state().canRedo).toBe(false);
});

test("the same value is no change", () => {
  const draft = draftOf(saves());
  draft.change({ text: "first" });
  expect(draft.state()).toMatchObject({ status: "saved", canUndo: false });
});
