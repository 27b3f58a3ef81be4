// @vitest-environment happy-dom
import { describe, expect, it } from "vitest";
import { csvCell, csvOf } from "../ui/csv";

describe("a table as CSV", () => {
  it("quotes what must be quoted", () => {
    expect(csvCell('He said "no", twice')).toBe('"He said ""no"", twice"');
    expect(csvCell("  two\n  lines ")).toBe("two lines");
  });

  it("makes no formula of what somebody wrote", () => {
    expect(csvCell("=HYPERLINK(1)")).toBe("'=HYPERLINK(1)");
    expect(csvCell("+cmd")).toBe("'+cmd");
    expect(csvCell("-cmd")).toBe("'-cmd");
    expect(csvCell("-0.31")).toBe("-0.31");
  });

  it("leaves pictures out and keeps numbers numbers", () => {
    document.body.innerHTML = `<table><tr><th>Rater</th><th>From <svg><text>x</text></svg></th></tr>
      <tr><th>Bo</th><td>−0.31 <span aria-hidden="true">↑</span></td></tr></table>`;
    const table = document.querySelector("table");
    expect(table && csvOf(table)).toBe("Rater,From\r\nBo,-0.31\r\n");
  });
});
