import { Watched } from "../../ui/watched";
import { cellOf, type CellValue } from "./cells";

/**
 * Changes that the server has not acknowledged yet. They live in this browser's storage until it has, so that neither a
 * lost connection nor a reload loses one. Each has an id of its own: sending it twice is the same as once.
 */
export type Change = { changeId: string; baseRevision: number; tried?: boolean } & CellValue;

export type Current = { value: CellValue; revision: number };

/** What came of sending a change. */
export type Delivery =
  /** `now` is there if another change has come after this one, which was made before. */
  | { result: "saved"; revision: number; now?: Current }
  /** `trouble` is what the server said, if it said anything. */
  | { result: "unreachable"; trouble?: string }
  | { result: "signed-out" }
  /** Somebody else is signed in by now. */
  | { result: "other-account" }
  | { result: "conflict"; current: Current }
  | { result: "refused"; message: string };

export type Conflict = { mine: Change; theirs: Current };

/** A change that the server did not take; kept until the person sends it again or lets it go. */
export type Refusal = { mine: Change; message: string };

export type OutboxState = {
  /** Waiting changes by cell, newest for each. */
  pending: ReadonlyMap<string, Change>;
  conflicts: ReadonlyMap<string, Conflict>;
  /** What was acknowledged last, by cell: the page's own copy of the sheet hears of it a moment later. */
  saved: ReadonlyMap<string, Current>;
  /** Cells that another window changed after this one had. */
  overtaken: ReadonlyMap<string, Current>;
  refusals: ReadonlyMap<string, Refusal>;
  connection: "fine" | "sending" | "unreachable" | "signed-out" | "other-account";
  /** What the server said of why nothing can be kept there now. */
  trouble?: string;
};

type Store = Pick<Storage, "getItem" | "setItem" | "removeItem">;

type OutboxOptions = {
  store: Store;
  /** Where this window keeps its changes. */
  key: string;
  /** Where other windows kept theirs, for example before a reload; they are taken over. */
  adopt?: string[];
  deliver: (change: Change) => Promise<Delivery>;
  onSaved: (value: CellValue, revision: number) => void;
  newId: () => string;
  /** Waits between tries while the server cannot be reached, in milliseconds. */
  retryAfter?: number;
};

/** What is kept in the browser's storage: changes in their order; conflicts and refusals until the rater has chosen. */
type Kept = { queue: Change[]; conflicts: Conflict[]; refusals: Refusal[] };

export class Outbox extends Watched<OutboxState> {
  private readonly options: OutboxOptions;
  private queue: Change[] = [];
  private readonly conflicts = new Map<string, Conflict>();
  private readonly saved = new Map<string, Current>();
  private sending: Promise<void> | undefined;
  private connection: OutboxState["connection"] = "fine";
  private readonly refusals = new Map<string, Refusal>();
  private readonly overtaken = new Map<string, Current>();
  private trouble: string | undefined;
  private retired = false;

  constructor(options: OutboxOptions) {
    super();
    this.options = options;
    this.load();
  }

  private load(): void {
    const adopted = this.options.adopt ?? [];
    const byId = new Map<string, Change>();
    for (const key of [...adopted, this.options.key]) {
      const kept = this.stored(key);
      kept.queue.forEach((change) => byId.set(change.changeId, change));
      kept.conflicts.forEach((conflict) => this.conflicts.set(cellOf(conflict.mine), conflict));
      kept.refusals.forEach((refusal) => this.refusals.set(cellOf(refusal.mine), refusal));
    }
    this.queue = [...byId.values()];
    this.save();
    adopted.filter((key) => key !== this.options.key).forEach((key) => this.options.store.removeItem(key));
  }

  private stored(key: string): Kept {
    try {
      const stored: Partial<Kept> | Change[] | null = JSON.parse(this.options.store.getItem(key) ?? "null");
      // A list alone is what an earlier version kept.
      return Array.isArray(stored)
        ? { queue: stored, conflicts: [], refusals: [] }
        : { queue: stored?.queue ?? [], conflicts: stored?.conflicts ?? [], refusals: stored?.refusals ?? [] };
    } catch {
      return { queue: [], conflicts: [], refusals: [] };
    }
  }

  private save(): void {
    if (this.retired) {
      return;
    }
    if (this.queue.length + this.conflicts.size + this.refusals.size === 0) {
      this.options.store.removeItem(this.options.key);
    } else {
      const kept: Kept = {
        queue: this.queue,
        conflicts: [...this.conflicts.values()],
        refusals: [...this.refusals.values()],
      };
      this.options.store.setItem(this.options.key, JSON.stringify(kept));
    }
  }

  protected read(): OutboxState {
    return {
      pending: new Map(this.queue.map((change) => [cellOf(change), change])),
      conflicts: new Map(this.conflicts),
      saved: new Map(this.saved),
      overtaken: new Map(this.overtaken),
      refusals: new Map(this.refusals),
      connection: this.connection,
      ...(this.trouble === undefined ? {} : { trouble: this.trouble }),
    };
  }

  protected override changed(): void {
    this.save();
    super.changed();
  }

  /**
   * Takes a change. One that waits for the same cell is replaced; one that is on its way, or was sent and not answered, is
   * followed: the server may have it, and then what comes next stands on it.
   *
   * @param delay how long to wait for more before sending, in milliseconds
   */
  put(change: Change, delay = 0): void {
    const cell = cellOf(change);
    this.queue = this.queue.filter((c) => c.tried || cellOf(c) !== cell);
    this.queue.push(change);
    this.conflicts.delete(cell);
    this.refusals.delete(cell);
    this.overtaken.delete(cell);
    this.changed();
    this.schedule(delay);
  }

  /** Settles a conflict: sends one's own again on top of the other, or lets the other stand. */
  settle(cell: string, keep: "mine" | "theirs"): void {
    const conflict = this.conflicts.get(cell);
    this.conflicts.delete(cell);
    if (conflict && keep === "mine") {
      this.put({ ...conflict.mine, changeId: this.options.newId(), baseRevision: conflict.theirs.revision });
    } else {
      this.changed();
    }
  }

  /** Sends what was refused once more, or lets it go. */
  answerRefusal(cell: string, how: "again" | "let-go"): void {
    const refusal = this.refusals.get(cell);
    this.refusals.delete(cell);
    if (refusal && how === "again") {
      this.put({ ...refusal.mine, changeId: this.options.newId() });
    } else {
      this.changed();
    }
  }

  /** The rater has seen that another window changed it since. */
  noted(cell: string): void {
    this.overtaken.delete(cell);
    this.changed();
  }

  protected override schedule(delay: number): void {
    if (this.retired) {
      this.stop();
    } else {
      super.schedule(delay);
    }
  }

  /**
   * Its page is left. What is on its way goes on, but nothing is tried again: another outbox may have taken over what is
   * stored, so from now on this one takes out of it what was acknowledged and touches nothing else.
   */
  retire(): void {
    this.retired = true;
    this.stop();
  }

  /** Its page is shown (again). */
  resume(): void {
    this.retired = false;
  }

  private takeOut(change: Change, revision: number): void {
    const { store, key } = this.options;
    const kept = this.stored(key);
    const queue = onTopOf(
      kept.queue.filter((c) => c.changeId !== change.changeId),
      change,
      revision,
    );
    if (queue.length + kept.conflicts.length + kept.refusals.length === 0) {
      store.removeItem(key);
    } else {
      store.setItem(key, JSON.stringify({ ...kept, queue }));
    }
  }

  /** Sends what waits, in order. Ends when nothing waits or the server cannot take it now; so does asking again meanwhile. */
  flush(): Promise<void> {
    this.stop();
    this.sending ??= this.sendAll().finally(() => {
      this.sending = undefined;
    });
    return this.sending;
  }

  private async sendAll(): Promise<void> {
    for (let first = this.queue[0]; first; first = this.queue[0]) {
      const next = { ...first, tried: true };
      this.queue = [next, ...this.queue.slice(1)];
      this.connection = this.connection === "fine" ? "sending" : this.connection;
      this.changed();
      if (!this.take(next, await this.options.deliver(next))) {
        return;
      }
    }
    this.connection = "fine";
    this.trouble = undefined;
    this.changed();
  }

  /** Whether to go on with the next one. */
  private take(change: Change, delivery: Delivery): boolean {
    switch (delivery.result) {
      case "saved":
        this.drop(change);
        this.saved.set(cellOf(change), { value: change, revision: delivery.revision });
        this.queue = onTopOf(this.queue, change, delivery.revision);
        this.connection = "sending";
        this.trouble = undefined;
        if (this.retired) {
          this.takeOut(change, delivery.revision);
        }
        this.options.onSaved(change, delivery.revision);
        if (delivery.now) {
          // It was made, its answer was lost, and another window went on from it: that stands now, and is told.
          this.saved.set(cellOf(change), delivery.now);
          this.overtaken.set(cellOf(change), delivery.now);
          this.options.onSaved(delivery.now.value, delivery.now.revision);
        }
        this.changed();
        return true;
      case "conflict": {
        const mine = untried(this.queue.findLast((c) => cellOf(c) === cellOf(change)) ?? change);
        this.queue = this.queue.filter((c) => cellOf(c) !== cellOf(change));
        this.conflicts.set(cellOf(change), { mine, theirs: delivery.current });
        this.changed();
        return true;
      }
      case "refused":
        this.drop(change);
        if (!this.queue.some((c) => cellOf(c) === cellOf(change))) {
          this.refusals.set(cellOf(change), { mine: untried(change), message: delivery.message });
        }
        this.changed();
        return true;
      case "signed-out":
      case "other-account":
        // Whoever comes back, perhaps in another window, finds it sent.
        this.connection = delivery.result;
        this.changed();
        this.schedule(this.options.retryAfter ?? 2_000);
        return false;
      case "unreachable":
        this.connection = "unreachable";
        this.trouble = delivery.trouble;
        this.changed();
        this.schedule(this.options.retryAfter ?? 2_000);
        return false;
    }
  }

  private drop(change: Change): void {
    this.queue = this.queue.filter((c) => c.changeId !== change.changeId);
  }
}

/** As it was given, for sending it anew. */
function untried(change: Change): Change {
  const { tried, ...given } = change;
  return given;
}

/** What followed an acknowledged change for the same cell was made on top of it. */
function onTopOf(queue: Change[], saved: Change, revision: number): Change[] {
  return queue.map((c) => (cellOf(c) === cellOf(saved) ? { ...c, baseRevision: revision } : c));
}
