import { describe, expect, it, test } from "vitest";
import { measuresLine } from "../features/answer/measures";
import { priceLine, settingsLine } from "../features/candidate/words";
import { count, duration, fixed, money, percent } from "../ui/format";

test.each([
  [0.8, 2, "0.80"],
  [-3.456, 1, "−3.5"],
  [0, 0, "0"],
  [12, 1, "12.0"],
])("%d with %d decimals is %s", (value, decimals, text) => expect(fixed(value, decimals)).toBe(text));

test.each([
  [0, "0.0 s"],
  [9_949, "9.9 s"],
  [10_000, "10 s"],
  [119_400, "119 s"],
  [120_000, "2 min"],
  [3_600_000, "60 min"],
])("%d ms is %s", (ms, text) => expect(duration(ms)).toBe(text));

test.each([
  [0, "0.00 EUR"],
  [0.0123, "0.0123 EUR"],
  [-0.5, "-0.5000 EUR"],
  [1, "1.00 EUR"],
  [1234.5, "1234.50 EUR"],
])("%d is %s", (amount, text) => expect(money(amount, "EUR")).toBe(text));

test.each([
  [0, "0 sheets"],
  [1, "1 sheet"],
  [2, "2 sheets"],
])("%d counts as %s", (n, text) => expect(count(n, "sheet", "sheets")).toBe(text));

test("a share is whole percents", () => {
  expect(percent(0.666)).toBe("67 %");
  expect(percent(0)).toBe("0 %");
});

describe("what an answer took", () => {
  it("leaves out what nobody measured", () => {
    expect(measuresLine({ estimated: false })).toBe("not measured");
    expect(measuresLine({ outputTokens: 0, estimated: false })).toBe("0 tokens out");
    expect(measuresLine({ totalMs: 1500, cost: 0.004, currency: "EUR", estimated: false })).toBe("1.5 s · 0.0040 EUR");
    expect(measuresLine({ cost: 0.004, estimated: false })).toBe("not measured");
  });
});

describe("a candidate in one line", () => {
  const content = {
    name: "Quillwort",
    version: "2",
    baseline: false,
    settings: [
      { name: "effort", value: "high" },
      { name: "settings", value: "as it comes" },
    ],
    note: "",
    considerations: [],
    price: { caps: "" },
  };

  it("says its settings as they were written", () => {
    expect(settingsLine(content)).toBe("effort high, as it comes");
    expect(settingsLine({ ...content, settings: [] })).toBe("");
  });

  it("says prices that are known, also those of nothing", () => {
    expect(priceLine(content)).toBe("");
    expect(
      priceLine({ ...content, price: { inputPerMillion: 0, outputPerMillion: 4.5, currency: "EUR", caps: "" } }),
    ).toBe("0 EUR a million tokens in, 4.5 EUR out");
    expect(priceLine({ ...content, price: { monthly: 20, currency: "EUR", caps: "500 requests a day" } })).toBe(
      "20 EUR a month, 500 requests a day",
    );
  });
});
