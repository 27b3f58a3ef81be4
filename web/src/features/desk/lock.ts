import type { Schemas } from "../../api/client";

/** Why nothing can be set on a sheet. */
export type Lock = "sent" | "closed" | "set-aside" | "withdrawn";

export function lockOf(sheet: Schemas["SheetView"]): Lock | undefined {
  return sheet.setAside
    ? "set-aside"
    : sheet.withdrawn !== undefined
      ? "withdrawn"
      : sheet.roundClosed
        ? "closed"
        : sheet.sent
          ? "sent"
          : undefined;
}
