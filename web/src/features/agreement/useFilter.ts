import { useSearchParams } from "react-router";

const NAMES = ["criterion", "kind", "rater", "prompt", "levels", "state"] as const;

/**
 * What the page is narrowed down to, kept in the address; each view that speaks of it filters the others. Levels are two numbers
 * with a dot between them.
 */
export type Filter = { [name in (typeof NAMES)[number]]?: string };

export type Narrow = (change: { [name in keyof Filter]: string | undefined }) => void;

export function useFilter() {
  const [address, setAddress] = useSearchParams();
  const filter: Filter = {};
  for (const name of NAMES) {
    const value = address.get(name);
    if (value !== null) {
      filter[name] = value;
    }
  }
  /** Narrows down; what is absent or empty is let go. */
  const narrow: Narrow = (change) => {
    const next = new URLSearchParams(address);
    for (const name of NAMES) {
      if (name in change) {
        const value = change[name];
        if (value === undefined || value === "") {
          next.delete(name);
        } else {
          next.set(name, value);
        }
      }
    }
    setAddress(next, { replace: true, preventScrollReset: true });
  };
  return { filter, narrow };
}

/** The two levels of an address; nothing if it holds none. */
export function twoLevels(of: Filter): { lower: number; higher: number } | undefined {
  const found = /^(\d{1,3})\.(\d{1,3})$/.exec(of.levels ?? "");
  const [lower, higher] = [Number(found?.[1]), Number(found?.[2])];
  return found && lower < higher ? { lower, higher } : undefined;
}
