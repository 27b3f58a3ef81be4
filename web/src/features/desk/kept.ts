/** Where this browser keeps changes that the server has not acknowledged: a place for each account, sheet and window. */

const PREFIX = "mossbank.outbox";

/** This window's own name, kept over reloads, so that two windows on one sheet do not write over each other's changes. */
export function windowName(): string {
  const known = sessionStorage.getItem(PREFIX);
  const name = known ?? crypto.randomUUID();
  sessionStorage.setItem(PREFIX, name);
  return name;
}

export function outboxKeys(accountId: string, sheetId: string): { key: string; adopt: string[] } {
  const prefix = `${PREFIX}.${accountId}.${sheetId}.`;
  return { key: prefix + windowName(), adopt: Object.keys(localStorage).filter((key) => key.startsWith(prefix)) };
}

/** The sheets for which something is kept. */
export function sheetsWithKept(accountId: string): string[] {
  const prefix = `${PREFIX}.${accountId}.`;
  const sheets = Object.keys(localStorage)
    .filter((key) => key.startsWith(prefix))
    .map((key) => key.slice(prefix.length).split(".")[0] ?? "");
  return [...new Set(sheets)].filter(Boolean);
}

/** For how many sheets of others something is kept. */
export function othersKept(accountId: string): number {
  const sheets = Object.keys(localStorage)
    .filter((key) => key.startsWith(`${PREFIX}.`))
    .map((key) => key.slice(PREFIX.length + 1).split("."))
    .flatMap(([account, sheet]) => (account && sheet && account !== accountId ? [`${account}.${sheet}`] : []));
  return new Set(sheets).size;
}
