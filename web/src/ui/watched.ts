/**
 * Something that changes by itself and is watched: what is on its way to the server, and tried again later. Knows nothing of
 * React; useSyncExternalStore takes its two properties.
 */
export abstract class Watched<S> {
  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private snapshot: S | undefined;

  /** What watchers see. It is read once after each change. */
  protected abstract read(): S;

  /** Sends what waits. */
  abstract flush(): Promise<void>;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly state = (): S => {
    this.snapshot ??= this.read();
    return this.snapshot;
  };

  protected changed(): void {
    this.snapshot = this.read();
    this.listeners.forEach((listener) => listener());
  }

  /** Sends after a while, in milliseconds; what was meant for earlier or later no longer is. */
  protected schedule(delay: number): void {
    this.stop();
    this.timer = setTimeout(() => void this.flush(), delay);
  }

  stop(): void {
    clearTimeout(this.timer);
  }
}
