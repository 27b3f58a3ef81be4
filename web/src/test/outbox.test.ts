import { describe, expect, it } from "vitest";
import { type Change, type Delivery, Outbox } from "../features/desk/outbox";

function memory() {
  const items = new Map<string, string>();
  return {
    getItem: (k: string) => items.get(k) ?? null,
    setItem: (k: string, v: string) => void items.set(k, v),
    removeItem: (k: string) => void items.delete(k),
  };
}

function grade(changeId: string, level: number, baseRevision = 0, answerId = "a"): Change {
  return { kind: "grade", changeId, baseRevision, answerId, criterionId: "c", mark: { level, notApplicable: false } };
}

function outbox(deliver: (change: Change) => Promise<Delivery>, store = memory()) {
  const saved: [string, number][] = [];
  const box = new Outbox({
    store,
    key: "k",
    deliver,
    onSaved: (value, revision) => saved.push(["changeId" in value ? String(value.changeId) : "theirs", revision]),
    newId: () => "fresh",
    retryAfter: 100_000,
  });
  return { box, saved, store };
}

describe("Outbox", () => {
  it("keeps a change in storage until it is acknowledged", async () => {
    const { box, saved, store } = outbox(async () => ({ result: "saved", revision: 1 }));
    box.put(grade("1", 3), 100_000);
    expect(store.getItem("k")).toContain('"changeId":"1"');
    await box.flush();
    expect(saved).toEqual([["1", 1]]);
    expect(store.getItem("k")).toBeNull();
    expect(box.state().connection).toBe("fine");
  });

  it("sends after a reload what was not acknowledged, under the same id", async () => {
    const store = memory();
    const first = outbox(async () => ({ result: "unreachable" }), store);
    first.box.put(grade("1", 3), 100_000);
    await first.box.flush();
    first.box.retire();
    expect(first.box.state().connection).toBe("unreachable");
    const sent: string[] = [];
    const second = outbox(async (c) => {
      sent.push(c.changeId);
      return { result: "saved", revision: 1 };
    }, store);
    expect(second.box.state().pending.get("a/grade/c")).toMatchObject(grade("1", 3));
    await second.box.flush();
    expect(sent).toEqual(["1"]);
  });

  it("leaves alone what another has taken over, once its page is left", async () => {
    const store = memory();
    const answers: ((delivery: Delivery) => void)[] = [];
    const left = outbox(() => new Promise<Delivery>((resolve) => answers.push(resolve)), store);
    left.box.put(grade("1", 3), 100_000);
    const sending = left.box.flush();
    left.box.retire();
    const sent: [string, number][] = [];
    const next = outbox(async (c) => {
      sent.push([c.changeId, c.baseRevision]);
      return { result: "saved", revision: sent.length };
    }, store);
    next.box.put(grade("2", 2, 0), 100_000);
    next.box.put(grade("3", 1, 0, "b"), 100_000);

    answers[0]?.({ result: "saved", revision: 4 });
    await sending;

    const kept: { queue: Change[] } = JSON.parse(store.getItem("k") ?? "");
    expect(kept.queue.map((c) => [c.changeId, c.baseRevision])).toEqual([
      ["2", 4],
      ["3", 0],
    ]);
  });

  it("tries nothing again once its page is left, and does when it is shown again", async () => {
    let tries = 0;
    const store = memory();
    const box = new Outbox({
      store,
      key: "k",
      deliver: async () => {
        tries++;
        return { result: "unreachable" };
      },
      onSaved: () => undefined,
      newId: () => "fresh",
      retryAfter: 1,
    });
    box.put(grade("1", 3), 100_000);
    box.retire();
    await box.flush();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(tries).toBe(1);
    expect(store.getItem("k")).toContain('"changeId":"1"');
    box.resume();
    await box.flush();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(tries).toBeGreaterThan(2);
    box.retire();
  });

  it("is done for whoever asks while it sends only when everything is sent", async () => {
    const { box, saved } = outbox(async () => ({ result: "saved", revision: 1 }));
    box.put(grade("1", 3), 100_000);
    const first = box.flush();
    box.put(grade("2", 2, 0, "b"), 100_000);
    await box.flush();
    expect(saved.map(([id]) => id)).toEqual(["1", "2"]);
    await first;
    expect(box.state().pending.size).toBe(0);
  });

  it("replaces a waiting change of the same cell, not one of another", async () => {
    const sent: string[] = [];
    const { box } = outbox(async (c) => {
      sent.push(c.changeId);
      return { result: "saved", revision: 1 };
    });
    box.put(grade("1", 3), 100_000);
    box.put(grade("2", 3, 0, "b"), 100_000);
    box.put(grade("3", 4), 100_000);
    await box.flush();
    expect(sent).toEqual(["2", "3"]);
  });

  it("builds a change on top of the one on its way", async () => {
    const bases: number[] = [];
    let release: (delivery: Delivery) => void = () => undefined;
    const { box } = outbox((c) => {
      bases.push(c.baseRevision);
      return new Promise((resolve) => (release = resolve));
    });
    box.put(grade("1", 3), 100_000);
    const flushing = box.flush();
    box.put(grade("2", 4), 100_000);
    release({ result: "saved", revision: 7 });
    await new Promise((resolve) => setTimeout(resolve));
    release({ result: "saved", revision: 8 });
    await flushing;
    expect(bases).toEqual([0, 7]);
  });

  it("overwrites nothing silently: a conflict waits for the rater", async () => {
    const { changeId, baseRevision, ...value } = grade("other", 1);
    const current = { value, revision: 5 };
    const answers: Delivery[] = [
      { result: "conflict", current },
      { result: "saved", revision: 6 },
    ];
    const sent: Change[] = [];
    const { box } = outbox(async (c) => {
      sent.push(c);
      return answers.shift() ?? { result: "unreachable" };
    });
    box.put(grade("1", 3), 100_000);
    await box.flush();
    expect(box.state().conflicts.get("a/grade/c")?.theirs).toEqual(current);
    expect(box.state().pending.size).toBe(0);
    box.settle("a/grade/c", "mine");
    await box.flush();
    expect(sent[1]).toMatchObject({ ...grade("fresh", 3), baseRevision: 5 });
    expect(box.state().conflicts.size).toBe(0);
  });

  it("lets the other's change stand when the rater takes it", async () => {
    const { box } = outbox(async () => ({
      result: "conflict",
      current: { value: { kind: "reason", answerId: "a", text: "theirs" }, revision: 2 },
    }));
    box.put({ kind: "reason", changeId: "1", baseRevision: 0, answerId: "a", text: "mine" }, 100_000);
    await box.flush();
    box.settle("a/reason/", "theirs");
    expect(box.state().conflicts.size).toBe(0);
    expect(box.state().pending.size).toBe(0);
  });

  it("keeps changes while nobody is signed in, and what the server refuses until somebody lets it go", async () => {
    const answers: Delivery[] = [{ result: "signed-out" }, { result: "refused", message: "Round is closed" }];
    const store = memory();
    const { box } = outbox(async () => answers.shift() ?? { result: "unreachable" }, store);
    box.put(grade("1", 3), 100_000);
    await box.flush();
    expect(box.state().connection).toBe("signed-out");
    expect(box.state().pending.size).toBe(1);
    await box.flush();
    expect(box.state().refusals.get("a/grade/c")).toEqual({ mine: grade("1", 3), message: "Round is closed" });
    expect(box.state().pending.size).toBe(0);
    box.retire();
    const reloaded = outbox(async () => ({ result: "saved", revision: 1 }), store);
    expect(reloaded.box.state().refusals.size).toBe(1);
    reloaded.box.answerRefusal("a/grade/c", "let-go");
    expect(store.getItem("k")).toBeNull();
  });

  it("sends a refused change again under an id of its own when the rater says so", async () => {
    const answers: Delivery[] = [{ result: "refused", message: "Not now" }];
    const sent: Change[] = [];
    const { box } = outbox(async (c) => {
      sent.push(c);
      return answers.shift() ?? { result: "saved", revision: 1 };
    });
    box.put(grade("1", 3), 100_000);
    await box.flush();
    box.answerRefusal("a/grade/c", "again");
    await box.flush();
    expect(sent.map((c) => c.changeId)).toEqual(["1", "fresh"]);
    expect(box.state().refusals.size).toBe(0);
  });

  it("keeps everything while somebody else is signed in, and sends it when its owner is back", async () => {
    const answers: Delivery[] = [{ result: "other-account" }, { result: "other-account" }];
    const store = memory();
    const { box, saved } = outbox(async () => answers.shift() ?? { result: "saved", revision: 1 }, store);
    box.put(grade("1", 3), 100_000);
    box.put(grade("2", 2, 0, "b"), 100_000);
    await box.flush();
    expect(box.state().connection).toBe("other-account");
    expect(box.state().pending.size).toBe(2);
    await box.flush();
    expect(store.getItem("k")).toContain('"changeId":"1"');
    await box.flush();
    expect(saved.map(([id]) => id)).toEqual(["1", "2"]);
    expect(box.state().connection).toBe("fine");
  });

  it("follows a change whose answer was lost, and is in nobody's way with a correction", async () => {
    const sent: [string, number][] = [];
    let isLost = true;
    // As the server does: the first was made at revision 1 and its answer lost; the same again says so.
    const { box } = outbox(async (c) => {
      sent.push([c.changeId, c.baseRevision]);
      if (isLost) {
        isLost = false;
        return { result: "unreachable" };
      }
      return { result: "saved", revision: c.changeId === "1" ? 1 : 2 };
    });
    box.put(grade("1", 2), 100_000);
    await box.flush();
    box.put(grade("2", 4), 100_000);
    box.put(grade("3", 3), 100_000);
    await box.flush();
    expect(sent).toEqual([
      ["1", 0],
      ["1", 0],
      ["3", 1],
    ]);
    expect(box.state().conflicts.size).toBe(0);
  });

  it("shows what another window made of a change whose answer was lost, and overwrites it no more unseen", async () => {
    const { changeId, baseRevision, ...theirs } = grade("other", 3);
    const now = { value: theirs, revision: 2 };
    const answers: Delivery[] = [{ result: "unreachable" }, { result: "saved", revision: 1, now }];
    const { box, saved } = outbox(async () => answers.shift() ?? { result: "saved", revision: 3 });
    box.put(grade("1", 2), 100_000);
    await box.flush();
    await box.flush();
    expect(saved).toEqual([
      ["1", 1],
      ["theirs", 2],
    ]);
    expect(box.state().saved.get("a/grade/c")).toEqual(now);
    expect(box.state().overtaken.get("a/grade/c")).toEqual(now);
    box.noted("a/grade/c");
    expect(box.state().overtaken.size).toBe(0);
  });

  it("says what the server said of why it takes nothing now", async () => {
    const trouble = "The database cannot be reached; what you give is kept here.";
    const answers: Delivery[] = [{ result: "unreachable", trouble }];
    const { box } = outbox(async () => answers.shift() ?? { result: "saved", revision: 1 });
    box.put(grade("1", 3), 100_000);
    await box.flush();
    expect(box.state().trouble).toBe(trouble);
    await box.flush();
    expect(box.state().trouble).toBeUndefined();
  });

  it("takes over what another window kept, once", async () => {
    const store = memory();
    store.setItem("other", JSON.stringify([grade("1", 3)]));
    store.setItem("k", JSON.stringify([grade("1", 3), grade("2", 2, 0, "b")]));
    const sent: string[] = [];
    const box = new Outbox({
      store,
      key: "k",
      adopt: ["k", "other"],
      deliver: async (c) => {
        sent.push(c.changeId);
        return { result: "saved", revision: 1 };
      },
      onSaved: () => undefined,
      newId: () => "fresh",
    });
    expect(store.getItem("other")).toBeNull();
    await box.flush();
    expect(sent).toEqual(["1", "2"]);
  });

  it("starts empty on storage that holds nonsense", () => {
    const store = memory();
    store.setItem("k", "{not json");
    expect(outbox(async () => ({ result: "unreachable" }), store).box.state().pending.size).toBe(0);
  });

  it("keeps both sides of a conflict over a reload until the rater has chosen", async () => {
    const store = memory();
    const { changeId, baseRevision, ...theirs } = grade("other", 1);
    const first = outbox(async () => ({ result: "conflict", current: { value: theirs, revision: 5 } }), store);
    first.box.put(grade("1", 3), 100_000);
    await first.box.flush();

    const sent: Change[] = [];
    const second = outbox(async (c) => {
      sent.push(c);
      return { result: "saved", revision: 6 };
    }, store);
    const conflict = second.box.state().conflicts.get("a/grade/c");
    expect(conflict?.mine).toEqual(grade("1", 3));
    expect(conflict?.theirs.value).toEqual(theirs);
    second.box.settle("a/grade/c", "mine");
    await second.box.flush();
    expect(sent).toMatchObject([{ ...grade("fresh", 3), baseRevision: 5 }]);
    expect(store.getItem("k")).toBeNull();
  });
});
