import { cellOf, type CellValue } from "./cells";

/**
 * Changes that the server has not acknowledged yet. They live in this browser's storage until it has, so that neither a
 * lost connection nor a reload loses one. Each has an id of its own: sending it twice is the same as once.
 */
export type Change = { changeId: string; baseRevision: number } & CellValue;

export type Current = { value: CellValue; revision: number };

/** What came of sending a change. */
export type Delivery =
  | { result: "saved"; revision: number }
  | { result: "unreachable" }
  | { result: "signed-out" }
  | { result: "conflict"; current: Current }
  | { result: "refused"; message: string };

export type Conflict = { mine: Change; theirs: Current };

export type OutboxState = {
  /** Waiting changes by cell, newest for each. */
  pending: ReadonlyMap<string, Change>;
  conflicts: ReadonlyMap<string, Conflict>;
  /** What was acknowledged last, by cell: the page's own copy of the sheet hears of it a moment later. */
  saved: ReadonlyMap<string, Current>;
  connection: "fine" | "sending" | "unreachable" | "signed-out";
  refusal?: string;
};

type Store = Pick<Storage, "getItem" | "setItem" | "removeItem">;

type OutboxOptions = {
  store: Store;
  /** Where this window keeps its changes. */
  key: string;
  /** Where other windows kept theirs, for example before a reload; they are taken over. */
  adopt?: string[];
  deliver: (change: Change) => Promise<Delivery>;
  onSaved: (change: Change, revision: number) => void;
  newId: () => string;
  /** Waits between tries while the server cannot be reached, in milliseconds. */
  retryAfter?: number;
};

/** What is kept in the browser's storage: changes in their order, and conflicts until the rater has chosen. */
type Kept = { queue: Change[]; conflicts: Conflict[] };

export class Outbox {
  private readonly options: OutboxOptions;
  private readonly listeners = new Set<() => void>();
  private queue: Change[] = [];
  private readonly conflicts = new Map<string, Conflict>();
  private readonly saved = new Map<string, Current>();
  private inFlight: Change | undefined;
  private sending: Promise<void> | undefined;
  private connection: OutboxState["connection"] = "fine";
  private refusal: string | undefined;
  private retired = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private snapshot: OutboxState;

  constructor(options: OutboxOptions) {
    this.options = options;
    this.load();
    this.snapshot = this.read();
  }

  private load(): void {
    const adopted = this.options.adopt ?? [];
    const byId = new Map<string, Change>();
    for (const key of [...adopted, this.options.key]) {
      const kept = this.stored(key);
      kept.queue.forEach((change) => byId.set(change.changeId, change));
      kept.conflicts.forEach((conflict) => this.conflicts.set(cellOf(conflict.mine), conflict));
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
        ? { queue: stored, conflicts: [] }
        : { queue: stored?.queue ?? [], conflicts: stored?.conflicts ?? [] };
    } catch {
      return { queue: [], conflicts: [] };
    }
  }

  private save(): void {
    if (this.retired) {
      return;
    }
    if (this.queue.length === 0 && this.conflicts.size === 0) {
      this.options.store.removeItem(this.options.key);
    } else {
      const kept: Kept = { queue: this.queue, conflicts: [...this.conflicts.values()] };
      this.options.store.setItem(this.options.key, JSON.stringify(kept));
    }
  }

  private read(): OutboxState {
    return {
      pending: new Map(this.queue.map((change) => [cellOf(change), change])),
      conflicts: new Map(this.conflicts),
      saved: new Map(this.saved),
      connection: this.connection,
      ...(this.refusal === undefined ? {} : { refusal: this.refusal }),
    };
  }

  private changed(): void {
    this.save();
    this.snapshot = this.read();
    this.listeners.forEach((listener) => listener());
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly state = (): OutboxState => this.snapshot;

  /**
   * Takes a change. One that waits for the same cell is replaced; one that is on its way is followed.
   *
   * @param delay how long to wait for more before sending, in milliseconds
   */
  put(change: Change, delay = 0): void {
    const cell = cellOf(change);
    this.queue = this.queue.filter((c) => c === this.inFlight || cellOf(c) !== cell);
    this.queue.push(change);
    this.conflicts.delete(cell);
    this.refusal = undefined;
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

  private schedule(delay: number): void {
    clearTimeout(this.timer);
    if (!this.retired) {
      this.timer = setTimeout(() => void this.flush(), delay);
    }
  }

  /**
   * Its page is left. What is on its way goes on, but nothing is tried again: another outbox may have taken over what is
   * stored, so from now on this one takes out of it what was acknowledged and touches nothing else.
   */
  retire(): void {
    this.retired = true;
    clearTimeout(this.timer);
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
    if (queue.length === 0 && kept.conflicts.length === 0) {
      store.removeItem(key);
    } else {
      store.setItem(key, JSON.stringify({ ...kept, queue }));
    }
  }

  /** Sends what waits, in order. Ends when nothing waits or the server cannot take it now; so does asking again meanwhile. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    this.sending ??= this.sendAll().finally(() => {
      this.sending = undefined;
    });
    return this.sending;
  }

  private async sendAll(): Promise<void> {
    for (let next = this.queue[0]; next; next = this.queue[0]) {
      this.inFlight = next;
      this.connection = this.connection === "unreachable" ? "unreachable" : "sending";
      this.changed();
      const delivery = await this.options.deliver(next);
      this.inFlight = undefined;
      if (!this.take(next, delivery)) {
        return;
      }
    }
    this.connection = "fine";
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
        if (this.retired) {
          this.takeOut(change, delivery.revision);
        }
        this.options.onSaved(change, delivery.revision);
        this.changed();
        return true;
      case "conflict": {
        const mine = this.queue.findLast((c) => cellOf(c) === cellOf(change)) ?? change;
        this.queue = this.queue.filter((c) => cellOf(c) !== cellOf(change));
        this.conflicts.set(cellOf(change), { mine, theirs: delivery.current });
        this.changed();
        return true;
      }
      case "refused":
        this.drop(change);
        this.refusal = delivery.message;
        this.changed();
        return true;
      case "signed-out":
        this.connection = "signed-out";
        this.changed();
        return false;
      case "unreachable":
        this.connection = "unreachable";
        this.changed();
        this.schedule(this.options.retryAfter ?? 3_000);
        return false;
    }
  }

  private drop(change: Change): void {
    this.queue = this.queue.filter((c) => c.changeId !== change.changeId);
  }
}

/** What followed an acknowledged change for the same cell was made on top of it. */
function onTopOf(queue: Change[], saved: Change, revision: number): Change[] {
  return queue.map((c) => (cellOf(c) === cellOf(saved) ? { ...c, baseRevision: revision } : c));
}
