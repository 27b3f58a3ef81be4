import { useEffect, useMemo, useSyncExternalStore } from "react";
import { actingFor, ApiProblem } from "../api/client";
import { Draft, type DraftState, type SaveResult } from "./draft";

const PREFIX = "mossbank.draft.";

type DraftInput<T> = {
  /** Names the thing in this browser's storage. */
  name: string;
  value: T;
  version: number;
  save: (value: T, version: number) => Promise<{ value: T; version: number }>;
  /** What stands at the server now, from a refusal of a stale change. */
  current: (problem: ApiProblem) => { value: T; version: number };
};

export type DraftInHand<T> = DraftState<T> & {
  change: (next: T, group?: string) => void;
  undo: () => void;
  redo: () => void;
  settle: (keep: "mine" | "theirs") => void;
  flush: () => Promise<void>;
  errorOf: (field: string) => string | undefined;
};

/** A draft of what the server holds, from when the page was opened; the page is keyed by what it is about. */
export function useDraft<T>({ name, value, version, save, current }: DraftInput<T>): DraftInHand<T> {
  // Later answers of the server must not replace what is being typed, so only the name makes a new draft.
  const draft = useMemo(
    () =>
      new Draft<T>({
        store: localStorage,
        key: `${PREFIX}${actingFor() ?? ""}.${name}`,
        value,
        version,
        save: saving(save, current),
      }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [name],
  );
  const state = useSyncExternalStore(draft.subscribe, draft.state);
  useEffect(() => {
    const flush = () => void draft.flush();
    window.addEventListener("online", flush);
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("online", flush);
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, [draft]);
  return {
    ...state,
    change: (next, group) => draft.change(next, group),
    undo: () => draft.undo(),
    redo: () => draft.redo(),
    settle: (keep) => draft.settle(keep),
    flush: () => draft.flush(),
    errorOf: (field) => state.errors.find((e) => e.field === field || e.field.endsWith(`.${field}`))?.message,
  };
}

function saving<T>(
  save: DraftInput<T>["save"],
  current: DraftInput<T>["current"],
): (value: T, version: number) => Promise<SaveResult<T>> {
  return async (value, version) => {
    try {
      return { result: "saved", ...(await save(value, version)) };
    } catch (error) {
      const notNow = error instanceof ApiProblem && (error.status === 401 || error.type === "other-account");
      if (!(error instanceof ApiProblem) || error.status >= 500 || notNow) {
        return { result: "unreachable" };
      }
      if (error.type === "changed-elsewhere") {
        return { result: "conflict", ...current(error) };
      }
      return { result: "refused", message: error.message, errors: error.errors };
    }
  };
}
