import { useSearchParams } from "react-router";

/** What the page is narrowed down to, kept in the address; each view that speaks of it filters the others. */
export type Filter = { criterion?: string; rater?: string; prompt?: string };

const NAMES = ["criterion", "rater", "prompt"] as const;

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
  const narrow = (change: { [name in keyof Filter]: string | undefined }) => {
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
