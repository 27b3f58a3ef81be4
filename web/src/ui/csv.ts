/** A cell of CSV (RFC 4180); what a spreadsheet would take for a formula gets a mark before it. */
export function csvCell(text: string): string {
  const plain = text.replace(/\s+/g, " ").trim();
  const safe = /^[=+@\t]/.test(plain) || /^-(?![\d.])/.test(plain) ? `'${plain}` : plain;
  return /[",\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** A table as it is shown, row by row; pictures leave their cells empty. */
export function csvOf(table: HTMLTableElement): string {
  return [...table.rows]
    .map((row) => [...row.cells].map((cell) => csvCell(wordsOf(cell))).join(","))
    .join("\r\n")
    .concat("\r\n");
}

/** What is read in a cell; minus signs as spreadsheets know them. */
function wordsOf(cell: HTMLTableCellElement): string {
  const copy = cell.cloneNode(true);
  if (copy instanceof Element) {
    copy.querySelectorAll("svg, [aria-hidden=true]").forEach((picture) => picture.remove());
  }
  return (copy.textContent ?? "").replaceAll("−", "-");
}

export function saveCsv(table: HTMLTableElement, name: string): void {
  const url = URL.createObjectURL(new Blob([csvOf(table)], { type: "text/csv;charset=utf-8" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${name}.csv`;
  link.click();
  URL.revokeObjectURL(url);
}
