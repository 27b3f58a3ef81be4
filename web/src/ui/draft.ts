import { Watched } from "./watched";

/**
 * Something that is being written: saved as it is typed, kept in this browser until the server has it, with undo and redo.
 * Knows nothing of React, so that it can be tested alone.
 */

export type DraftStatus = "saved" | "waiting" | "saving" | "unreachable" | "conflict" | "refused";

export type DraftState<T> = {
  value: T;
  status: DraftStatus;
  /** What the server said of a refused value, by field. */
  errors: { field: string; message: string }[];
  message: string | undefined;
  /** What stands at the server now, when somebody else changed it meanwhile. */
  theirs: T | undefined;
  canUndo: boolean;
  canRedo: boolean;
};

/** What came of saving. */
export type SaveResult<T> =
  | { result: "saved"; value: T; version: number }
  | { result: "unreachable" }
  | { result: "conflict"; value: T; version: number }
  | { result: "refused"; message: string; errors: { field: string; message: string }[] };

type Store = Pick<Storage, "getItem" | "setItem" | "removeItem">;

type DraftOptions<T> = {
  store: Store;
  key: string;
  value: T;
  version: number;
  save: (value: T, version: number) => Promise<SaveResult<T>>;
  /** How long to wait for more typing, in milliseconds. */
  pause?: number;
  /** How long to wait between tries while the server cannot be reached, in milliseconds. */
  retryAfter?: number;
};

type Kept<T> = { version: number; value: T };

const MOST_STEPS = 100;

export class Draft<T> extends Watched<DraftState<T>> {
  private readonly options: DraftOptions<T>;
  private value: T;
  private saved: T;
  private version: number;
  private status: DraftStatus = "saved";
  private errors: DraftState<T>["errors"] = [];
  private message: string | undefined;
  private theirs: Kept<T> | undefined;
  private past: T[] = [];
  private future: T[] = [];
  private group: string | undefined;

  constructor(options: DraftOptions<T>) {
    super();
    this.options = options;
    this.value = options.value;
    this.saved = options.value;
    this.version = options.version;
    this.takeUpKept();
  }

  /** What an earlier window left behind unsaved goes on from here. */
  private takeUpKept(): void {
    const kept = this.kept();
    if (!kept || same(kept.value, this.saved)) {
      this.options.store.removeItem(this.options.key);
      return;
    }
    this.value = kept.value;
    if (kept.version === this.version) {
      this.status = "waiting";
      this.schedule(0);
    } else {
      this.status = "conflict";
      this.theirs = { version: this.version, value: this.saved };
    }
  }

  private kept(): Kept<T> | undefined {
    try {
      const text = this.options.store.getItem(this.options.key);
      return text === null ? undefined : JSON.parse(text);
    } catch {
      return undefined;
    }
  }

  protected read(): DraftState<T> {
    return {
      value: this.value,
      status: this.status,
      errors: this.errors,
      message: this.message,
      theirs: this.theirs?.value,
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
    };
  }

  /**
   * Takes a change.
   *
   * @param group changes of one group right after each other are undone together, such as typing in one field
   */
  change(next: T, group?: string): void {
    if (same(next, this.value)) {
      return;
    }
    if (group === undefined || group !== this.group) {
      this.past = [...this.past, this.value].slice(-MOST_STEPS);
    }
    this.group = group;
    this.future = [];
    this.set(next);
  }

  undo(): void {
    const before = this.past.at(-1);
    if (before !== undefined) {
      this.past = this.past.slice(0, -1);
      this.future = [...this.future, this.value];
      this.group = undefined;
      this.set(before);
    }
  }

  redo(): void {
    const after = this.future.at(-1);
    if (after !== undefined) {
      this.future = this.future.slice(0, -1);
      this.past = [...this.past, this.value];
      this.group = undefined;
      this.set(after);
    }
  }

  private set(next: T): void {
    this.value = next;
    this.errors = [];
    this.message = undefined;
    this.options.store.setItem(this.options.key, JSON.stringify({ version: this.version, value: next }));
    if (this.status !== "conflict" && this.status !== "saving") {
      this.status = "waiting";
      this.schedule(this.options.pause ?? 600);
    }
    this.changed();
  }

  /** Settles a conflict: one's own on top of theirs, or theirs. */
  settle(keep: "mine" | "theirs"): void {
    const theirs = this.theirs;
    if (!theirs) {
      return;
    }
    this.theirs = undefined;
    this.version = theirs.version;
    this.saved = theirs.value;
    if (keep === "theirs") {
      this.past = [...this.past, this.value];
      this.value = theirs.value;
      this.status = "saved";
      this.options.store.removeItem(this.options.key);
      this.changed();
    } else {
      this.status = "waiting";
      this.schedule(0);
      this.changed();
    }
  }

  /** Saves now what waits. */
  async flush(): Promise<void> {
    this.stop();
    if (this.status !== "waiting" && this.status !== "unreachable") {
      return;
    }
    const sent = this.value;
    this.status = "saving";
    this.changed();
    this.take(sent, await this.options.save(sent, this.version));
  }

  private take(sent: T, outcome: SaveResult<T>): void {
    switch (outcome.result) {
      case "saved":
        this.version = outcome.version;
        this.saved = outcome.value;
        if (this.value === sent) {
          this.status = "saved";
          this.options.store.removeItem(this.options.key);
        } else {
          this.status = "waiting";
          this.options.store.setItem(this.options.key, JSON.stringify({ version: this.version, value: this.value }));
          this.schedule(this.options.pause ?? 600);
        }
        break;
      case "unreachable":
        this.status = "unreachable";
        this.schedule(this.options.retryAfter ?? 3_000);
        break;
      case "conflict":
        if (same(outcome.value, sent)) {
          // It was saved before, and only its answer was lost: nobody is in anybody's way.
          this.take(sent, { result: "saved", value: sent, version: outcome.version });
          return;
        }
        this.status = "conflict";
        this.theirs = { version: outcome.version, value: outcome.value };
        break;
      case "refused":
        this.status = "refused";
        this.errors = outcome.errors;
        this.message = outcome.message;
        break;
    }
    this.changed();
  }
}

function same(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}
