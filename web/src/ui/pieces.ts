import { useEffect, useMemo, useState } from "react";

/** A stretch of a line in one colour. */
export type Piece = { text: string; look?: string };

/** Longer code is shown plain: colouring it would hold up the page. */
const LONGEST_COLOURED = 60_000;

type Colouring = typeof import("./colouring");

let loaded: Colouring | undefined;
let loading: Promise<Colouring> | undefined;

/** Code in lines of pieces: plain until the grammars have come, then in its language's colours. */
export function usePieces(language: string | undefined, text: string): Piece[][] {
  const [colouring, setColouring] = useState<Colouring | undefined>(loaded);
  const wanted = language !== undefined && text.length <= LONGEST_COLOURED;
  useEffect(() => {
    if (!wanted || loaded) {
      return;
    }
    let gone = false;
    loading ??= import("./colouring");
    loading
      .then((module) => {
        loaded = module;
        if (!gone) {
          setColouring(module);
        }
      })
      // Without colours the code reads as well; a later page tries again.
      .catch(() => {
        loading = undefined;
      });
    return () => {
      gone = true;
    };
  }, [wanted]);
  // They may have come for other code before this one wanted them.
  const ready = colouring ?? loaded;
  return useMemo(() => {
    const lines = wanted && ready ? ready.coloured(language.toLowerCase(), text) : undefined;
    return lines ?? text.split("\n").map((line): Piece[] => (line === "" ? [] : [{ text: line }]));
  }, [wanted, ready, language, text]);
}

/** The language by which a file is coloured, from its ending. */
export function languageOf(path: string): string | undefined {
  return /\.([a-z0-9]+)$/i.exec(path)?.[1]?.toLowerCase();
}
