import { useSearchParams } from "react-router";
import type { Schemas } from "../../../api/client";

type By = "LISTED" | "TITLE" | "MEAN" | "SPREAD" | "CANDIDATE";

/** What a cell may show beside its score. */
export const MARKS = ["works", "trials", "points", "outcome", "turns", "cost", "time"] as const;
export type Mark = (typeof MARKS)[number];

/** What rows are put in order by: one of the server's, or a candidate's id. */
export type Order = { by: By; candidateId?: string; down: boolean };

/** What the table shows, kept in the address. */
export type Shown = Among & { order: Order; from: number; marks: Mark[] };

/** Which prompts are looked at. */
export type Among = { kindId?: string; size?: Size; area?: string };

type Size = NonNullable<Schemas["PromptRow"]["size"]>;

const SIZES: Record<string, Size> = { small: "SMALL", medium: "MEDIUM", large: "LARGE" };

const BY: Record<string, By> = { listed: "LISTED", title: "TITLE", mean: "MEAN", spread: "SPREAD" };
const USUAL: Mark[] = ["works", "trials", "points"];

function orderOf(address: URLSearchParams): Order {
  const name = address.get("by") ?? "listed";
  const down = address.get("down") === "yes";
  const by = BY[name];
  return by === undefined ? { by: "CANDIDATE", candidateId: name, down } : { by, down };
}

export function useShown() {
  const [address, setAddress] = useSearchParams();
  const kindId = address.get("kind");
  const size = SIZES[address.get("size") ?? ""];
  const area = address.get("area");
  const from = Number(address.get("from") ?? 0);
  const marks = address.get("marks");
  const shown: Shown = {
    ...(kindId !== null && { kindId }),
    ...(size !== undefined && { size }),
    ...(area !== null && { area }),
    order: orderOf(address),
    from: Number.isInteger(from) && from > 0 ? from : 0,
    marks: marks === null ? USUAL : MARKS.filter((m) => marks.split(".").includes(m)),
  };
  const set = (change: Record<string, string | undefined>) => {
    const next = new URLSearchParams(address);
    for (const [name, value] of Object.entries(change)) {
      if (value === undefined) {
        next.delete(name);
      } else {
        next.set(name, value);
      }
    }
    setAddress(next, { replace: true, preventScrollReset: true });
  };
  return {
    shown,
    look: (among: Partial<Record<"kind" | "size" | "area", string | undefined>>) => set({ ...among, from: undefined }),
    /** The same head once more turns the order round. */
    sort: (by: string) => {
      const again = (address.get("by") ?? "listed") === by;
      set({ by, down: again && address.get("down") !== "yes" ? "yes" : undefined, from: undefined });
    },
    page: (to: number) => set({ from: to > 0 ? String(to) : undefined }),
    mark: (all: Mark[]) => set({ marks: all.join(".") || "none" }),
  };
}
