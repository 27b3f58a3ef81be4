import { useEffect, useMemo, useSyncExternalStore } from "react";

/** A stretch of a line in one colour. */
export type Piece = { text: string; look?: string };

/** Longer code is shown plain: colouring it would hold up the page. */
const LONGEST_COLOURED = 60_000;

type Colouring = typeof import("./colouring");

let loaded: Colouring | undefined;
let loading: Promise<void> | undefined;
const waiting = new Set<() => void>();

function load(): void {
  loading ??= import("./colouring")
    .then((module) => {
      loaded = module;
      waiting.forEach((tell) => tell());
    })
    // Without colours the code reads as well; a later page tries again.
    .catch(() => {
      loading = undefined;
    });
}

function subscribe(tell: () => void): () => void {
  waiting.add(tell);
  return () => waiting.delete(tell);
}

/** Code in lines of pieces: plain until the grammars have come, then in its language's colours. */
export function usePieces(language: string | undefined, text: string): Piece[][] {
  // They may come for other code at any moment, also while this is being drawn.
  const ready = useSyncExternalStore(subscribe, () => loaded);
  const wanted = language !== undefined && text.length <= LONGEST_COLOURED;
  useEffect(() => {
    if (wanted) {
      load();
    }
  }, [wanted]);
  return useMemo(() => {
    const lines = wanted && ready ? ready.coloured(language.toLowerCase(), text) : undefined;
    return lines ?? text.split("\n").map((line): Piece[] => (line === "" ? [] : [{ text: line }]));
  }, [wanted, ready, language, text]);
}

/** The language by which a file is coloured, from its ending. */
export function languageOf(path: string): string | undefined {
  return /\.([a-z0-9]+)$/i.exec(path)?.[1]?.toLowerCase();
}
