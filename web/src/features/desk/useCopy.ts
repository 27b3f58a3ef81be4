import { useEffect } from "react";
import { dropCopies, keepCopy } from "../../api/copies";
import type { Schemas } from "../../api/client";
import { copyOfSheet } from "./api";
import { lockOf } from "./lock";

/** After a change, in milliseconds: many come one after the other. */
const KEEP_AFTER = 300;

/** Characters of text from which on no copy is kept: to write it would hold up the keys. */
const TOO_LONG = 4_000_000;

/** Keeps a copy of a sheet that is being graded, as it is saved, so that the desk opens again without a connection. */
export function useCopy(sheet: Schemas["SheetView"]): void {
  const over = lockOf(sheet) !== undefined;
  useEffect(() => {
    if (over) {
      void dropCopies(copyOfSheet(sheet.id));
      return;
    }
    if (sheet.answers.reduce((sum, answer) => sum + answer.text.length, 0) > TOO_LONG) {
      return;
    }
    const soon = setTimeout(() => void keepCopy(copyOfSheet(sheet.id), sheet), KEEP_AFTER);
    return () => clearTimeout(soon);
  }, [sheet, over]);
}
